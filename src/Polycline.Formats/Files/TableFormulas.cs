using System.Text;

namespace Polycline.Formats.Files;

/// <summary>Finds what a spreadsheet would carry out in a comma-separated text: cells that it takes for formulas.</summary>
public static class TableFormulas
{
    private const int LongestShown = 40;

    /// <summary>Whether a file of this name is read as such a text.</summary>
    public static bool AreSoughtIn(string name) => FileNames.EndingOf(name) is ".csv" or ".tsv";

    /// <summary>The beginning of the first cell that a spreadsheet would take for a formula; null: there is none.</summary>
    public static string? In(string text)
    {
        var scan = new Scan();
        foreach (var sign in text)
            if (scan.Take(sign) is { } found)
                return found;
        return scan.End();
    }

    /// <inheritdoc cref="In(string)"/>
    /// <param name="bytes">In UTF-8; read to the end, or to what is found.</param>
    public static async Task<string?> In(Stream bytes, CancellationToken stop)
    {
        using var reader = new StreamReader(bytes, Encoding.UTF8, leaveOpen: true);
        var (scan, buffer) = (new Scan(), new char[64 * 1024]);
        for (int count; (count = await reader.ReadAsync(buffer, stop)) > 0; )
        for (var n = 0; n < count; n++)
            if (scan.Take(buffer[n]) is { } found)
                return found;
        return scan.End();
    }

    /// <summary>
    /// Whether a spreadsheet would take a cell for a formula: a number may begin with a sign, and a dash may stand for nothing.
    /// </summary>
    public static bool IsFormula(string cell) =>
        cell.Length > 1
        && (
            (cell[0] is '=' or '@' && !char.IsWhiteSpace(cell[1]))
            || (cell[0] is '+' or '-' && (char.IsLetter(cell[1]) || cell[1] is '(' or '=' or '@' or '+' or '-'))
        );

    // Commas, semicolons and tabs all end a cell, as nobody knows how it will be read.
    private sealed class Scan
    {
        private readonly StringBuilder cell = new();
        private bool quoted;

        public string? Take(char sign)
        {
            // Two in a row within quotes are one that is written: out and in again.
            if (sign == '"')
                quoted = !quoted;
            else if (!quoted && (sign is ',' or ';' or '\t' or '\n' or '\r'))
                return End();
            else if (cell.Length < LongestShown)
                cell.Append(sign);
            return null;
        }

        public string? End()
        {
            var text = cell.ToString().TrimStart(' ', '\uFEFF');
            cell.Clear();
            return IsFormula(text) ? text : null;
        }
    }
}
