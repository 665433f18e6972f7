using Polycline.Core.Courses;
using Polycline.Formats.Files;
using Polycline.Formats.Rosters;

namespace Polycline.Formats;

/// <summary>Something that students should be able to do.</summary>
/// <param name="Code">What the school calls it for short, up to 40 characters.</param>
/// <param name="Words">Up to 500 characters.</param>
/// <param name="Subject">Up to 80 characters; empty: none is given.</param>
public sealed record OutcomeLine(string Code, string Words, string Subject);

/// <summary>A file that is no list of outcomes.</summary>
public sealed class OutcomesFileException(string message) : Exception(message);

/// <summary>
/// Reads a school's outcomes from comma-separated text (RFC 4180): one a row, with columns headed <c>code</c>, <c>outcome</c> and, if there
/// is one, <c>subject</c>.
/// </summary>
public static class OutcomesFile
{
    public const int Most = 2_000;
    private const int LongestCode = ItemRules.LongestOutcomeCode,
        LongestWords = 500,
        LongestSubject = 80;

    private static readonly string[] Codes = ["code", "number", "no", "id"],
        Words = ["outcome", "words", "description", "text"],
        Subjects = ["subject", "area", "strand"];

    /// <returns>In the order of the file.</returns>
    /// <exception cref="OutcomesFileException">It is no such list; it says which row is at fault.</exception>
    public static IReadOnlyList<OutcomeLine> Read(string text)
    {
        if (TableFormulas.In(text) is { } formula)
            throw new OutcomesFileException($"The file has a formula in it: “{formula}”. Save it as values only, and choose it again.");
        try
        {
            using var table = new Table(new StringReader(text), "The file");
            return Lines(
                table,
                Column(table, Codes) ?? throw NoColumn("code", table),
                Column(table, Words) ?? throw NoColumn("outcome", table),
                Column(table, Subjects)
            );
        }
        catch (RosterRefusedException fault)
        {
            throw new OutcomesFileException(fault.Message);
        }
    }

    private static List<OutcomeLine> Lines(Table table, string code, string words, string? subject)
    {
        var (lines, rows) = (new List<OutcomeLine>(), new Dictionary<string, int>(StringComparer.Ordinal));
        while (table.Next())
        {
            var (at, line) = (table.Row.Number, new OutcomeLine(table[code], table[words], subject is null ? "" : table[subject]));
            if (line is { Code: "", Words: "" })
                continue;
            Check(line.Code, LongestCode, "a code", at);
            Check(line.Words, LongestWords, "an outcome", at);
            if (line.Subject.Length > LongestSubject)
                throw new OutcomesFileException($"Row {at}: the subject is longer than {LongestSubject} characters. Shorten it.");
            if (!rows.TryAdd(line.Code, at))
                throw new OutcomesFileException($"Rows {rows[line.Code]} and {at} have the same code, {line.Code}. Give each its own.");
            if (lines.Count == Most)
                throw new OutcomesFileException($"The file has more than {Most:N0} outcomes. Leave out those nobody teaches here.");
            lines.Add(line);
        }
        return lines.Count > 0 ? lines : throw new OutcomesFileException("The file has no outcome in it, only headings.");
    }

    private static void Check(string cell, int longest, string what, int row)
    {
        if (cell.Length == 0)
            throw new OutcomesFileException($"Row {row} has no {what[(what.IndexOf(' ') + 1)..]}, or one that cannot be read. Add it.");
        if (cell.Length > longest)
            throw new OutcomesFileException($"Row {row}: {what} can have up to {longest} characters. Shorten it.");
    }

    private static string? Column(Table table, string[] names) => names.FirstOrDefault(table.Has);

    private static OutcomesFileException NoColumn(string name, Table table) =>
        new($"No column is headed “{name}”. The first row says: {string.Join(", ", table.Headings.Take(12))}. Name the columns there.");
}
