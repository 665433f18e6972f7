using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using NodaTime;
using NodaTime.Text;

namespace Polycline.Formats.Rosters;

/// <summary>A table of a file, read row by row: no more than one row of it is in memory.</summary>
internal sealed class Table : IDisposable
{
    private const int LongestCell = 1_000;
    private static readonly LocalDatePattern[] Dates =
    [
        LocalDatePattern.Iso,
        LocalDatePattern.CreateWithInvariantCulture("d/M/uuuu"),
        LocalDatePattern.CreateWithInvariantCulture("d.M.uuuu"),
        LocalDatePattern.CreateWithInvariantCulture("d MMM uuuu"),
    ];

    private readonly CsvParser parser;
    private readonly Dictionary<string, int> columns = new(StringComparer.OrdinalIgnoreCase);

    /// <param name="file">What it is called in problems.</param>
    /// <exception cref="RosterRefusedException">It has no row at all.</exception>
    public Table(TextReader text, string file, string? delimiter = null)
    {
        File = file;
        parser = new(
            text,
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                DetectDelimiter = delimiter is null,
                Delimiter = delimiter ?? ",",
                DetectDelimiterValues = [",", ";", "\t"],
                BadDataFound = null,
                IgnoreBlankLines = true,
                TrimOptions = TrimOptions.Trim,
                MaxFieldSize = 100_000,
            }
        );
        if (!Next() || parser.Record is not { } headings)
            throw new RosterRefusedException($"{file} is empty.");
        Headings = [.. headings.Select(heading => heading.Trim('\uFEFF', ' '))];
        for (var n = 0; n < Headings.Count; n++)
            columns.TryAdd(Headings[n], n);
    }

    public string File { get; }

    public IReadOnlyList<string> Headings { get; }

    /// <summary>The row it is at.</summary>
    public RosterRow Row => new(File, parser.Row);

    public bool Has(string column) => columns.ContainsKey(column);

    /// <exception cref="RosterRefusedException">The file breaks off within a cell, or a cell is endless.</exception>
    public bool Next()
    {
        try
        {
            return parser.Read();
        }
        catch (CsvHelperException fault)
        {
            throw new RosterRefusedException($"{File}, row {parser.Row}: {fault.Message.Split('\n')[0].TrimEnd('.')}.");
        }
    }

    /// <summary>A cell of the row; empty where the column or the cell is not there.</summary>
    public string this[string column] => columns.TryGetValue(column, out var n) ? this[n] : "";

    /// <summary>A cell of the row; empty too where it holds what no text holds.</summary>
    public string this[int column] =>
        column >= 0 && column < parser.Count && parser[column] is { Length: <= LongestCell } cell && IsText(cell) ? cell : "";

    /// <summary>A cell of the row as it stands in the file; empty where there is none.</summary>
    public string Whole(int column) => column < parser.Count ? parser[column] : "";

    /// <summary>A date, in one of the forms people write; null: the cell is empty.</summary>
    /// <exception cref="FormatException">It is no date.</exception>
    public static LocalDate? Date(string cell)
    {
        if (cell.Length == 0)
            return null;
        // A moment stands for its date.
        var date = cell.Length > 10 && cell[10] is 'T' or ' ' ? cell[..10] : cell;
        foreach (var pattern in Dates)
            if (pattern.Parse(date) is { Success: true, Value: { Year: >= 1990 and <= 2200 } read })
                return read;
        throw new FormatException($"“{cell}” is not a date. Write it as 2026-08-31.");
    }

    public void Dispose() => parser.Dispose();

    private static bool IsText(string cell)
    {
        for (var n = 0; n < cell.Length; n++)
            if (char.IsHighSurrogate(cell[n]) && n + 1 < cell.Length && char.IsLowSurrogate(cell[n + 1]))
                n++;
            else if (char.IsControl(cell[n]) || char.IsSurrogate(cell[n]))
                return false;
        return true;
    }
}
