using System.Globalization;
using System.Text.RegularExpressions;
using Polycline.Core.Marking.Papers;
using Polycline.Formats.Files;
using Polycline.Formats.Rosters;

namespace Polycline.Formats.Rubrics;

/// <summary>What is wrong in a table, and where.</summary>
/// <param name="Row">From 1, with the headings; null: the table as a whole.</param>
/// <param name="Column">Its heading; null: the row as a whole.</param>
public sealed record RubricFault(int? Row, string? Column, string Words);

/// <param name="Criteria">Null: something is at fault. Their ids are empty.</param>
public sealed record ReadRubricTable(IReadOnlyList<WrittenCriterion>? Criteria, IReadOnlyList<RubricFault> Faults);

/// <summary>
/// A rubric as a table: criteria down, levels across, and in the cells what is seen at that level. As comma-separated text (RFC 4180), or
/// as it is copied from a spreadsheet. The form is written down in <c>docs/formats/rubric.md</c>.
/// </summary>
public static partial class RubricTable
{
    public const int LongestText = 100_000;
    private const decimal MostPoints = 10_000;
    private const string NoLevel = "–";

    /// <summary>The columns of levels: a name and points, and the names of those beside them.</summary>
    private sealed record LevelColumn(int At, string Heading, string Name, Points? Points);

    private sealed record Points(decimal From, decimal To, bool IsRange);

    /// <returns>Every fault that was found, by row and column.</returns>
    public static ReadRubricTable Read(string text)
    {
        if (text.Length > LongestText)
            return Refused($"This is too long: {LongestText:N0} characters at most.");
        try
        {
            using var table = new Table(new StringReader(text), "The table");
            return Read(table);
        }
        catch (RosterRefusedException fault)
        {
            return Refused(fault.Message);
        }
    }

    /// <summary>Row by row, the headings first.</summary>
    public static IReadOnlyList<IReadOnlyList<string?>> Write(WrittenRubric rubric)
    {
        var columns = Columns(rubric);
        var (isWeighted, hasOptional) = (rubric.Criteria.Any(one => one.Weight != 1), rubric.Criteria.Any(one => one.IsOptional));
        return
        [
            [
                "Criterion",
                .. isWeighted ? ["Weight"] : Array.Empty<string>(),
                .. hasOptional ? ["Optional"] : Array.Empty<string>(),
                .. columns.Select(column => column.Heading),
            ],
            .. rubric.Criteria.Select(criterion =>
                (IReadOnlyList<string?>)
                    [
                        criterion.Title,
                        .. isWeighted ? [Number(criterion.Weight)] : Array.Empty<string>(),
                        .. hasOptional ? [criterion.IsOptional ? "yes" : "no"] : Array.Empty<string>(),
                        .. Cells(criterion, columns),
                    ]
            ),
        ];
    }

    private static ReadRubricTable Refused(string words) => new(null, [new(null, null, words)]);

    private static ReadRubricTable Read(Table table)
    {
        var faults = new List<RubricFault>();
        var (weight, optional) = (Place(table, "weight"), Place(table, "optional"));
        var columns = table
            .Headings.Select((heading, at) => (heading, at))
            .Where(column => column.at > 0 && column.at != weight && column.at != optional && column.heading.Length > 0)
            .Select(column => ColumnOf(column.at, column.heading, faults))
            .ToList();
        if (columns.Count == 0)
            return Refused("There are no levels in the first row. Write them beside “Criterion”, with their points: Good (3).");
        if (columns.Count > WrittenRubric.MostLevels)
            return Refused($"There are {columns.Count} levels. A rubric has up to {WrittenRubric.MostLevels}.");
        var criteria = new List<WrittenCriterion>();
        var rows = new Dictionary<string, int>(StringComparer.OrdinalIgnoreCase);
        while (table.Next())
        {
            var row = table.Row.Number;
            for (var at = 0; at < table.Headings.Count; at++)
                if (TableFormulas.IsFormula(table.Whole(at)))
                    faults.Add(new(row, table.Headings[at], $"“{table.Whole(at)}” is a formula. Copy the values only."));
            var title = Line(table.Whole(0));
            if (title.Length == 0 && columns.All(column => Line(table.Whole(column.At)).Length == 0))
                continue;
            if (title.Length == 0)
                faults.Add(new(row, table.Headings[0], "This row has no criterion. Say in the first column what is judged."));
            else if (title.Length > WrittenRubric.LongestName)
                faults.Add(
                    new(row, table.Headings[0], $"A criterion’s name can have up to {WrittenRubric.LongestName} characters. Shorten it.")
                );
            else if (!rows.TryAdd(title, row))
                faults.Add(new(row, table.Headings[0], $"“{title}” is already in row {rows[title]}. Give each criterion its own name."));
            var levels = columns.Select(column => LevelOf(column, table.Whole(column.At), row, faults)).OfType<WrittenLevel>().ToList();
            if (levels.Count == 0 && faults.All(fault => fault.Row != row))
                faults.Add(new(row, null, "This criterion has no level. Give it at least one."));
            criteria.Add(
                new("", title, [.. levels])
                {
                    Weight = weight < 0 ? 1 : WeightOf(table.Whole(weight), row, table.Headings[weight], faults),
                    IsOptional = optional >= 0 && IsYes(table.Whole(optional), row, table.Headings[optional], faults),
                }
            );
        }
        if (criteria.Count == 0 && faults.Count == 0)
            return Refused("There is nothing below the first row. Write one criterion per row.");
        if (criteria.Count > WrittenRubric.MostCriteria)
            return Refused($"There are {criteria.Count} criteria. A rubric has up to {WrittenRubric.MostCriteria}.");
        return new(faults.Count == 0 ? criteria : null, faults);
    }

    private static int Place(Table table, string heading)
    {
        for (var at = 1; at < table.Headings.Count; at++)
            if (string.Equals(table.Headings[at], heading, StringComparison.OrdinalIgnoreCase))
                return at;
        return -1;
    }

    private static LevelColumn ColumnOf(int at, string heading, List<RubricFault> faults)
    {
        var line = Line(heading);
        var (name, points) =
            AllPoints().Match(line) is { Success: true } only ? ("", PointsOf(only, 1, heading, faults))
            : PointsAtEnd().Match(line) is { Success: true } end ? (end.Groups[1].Value, PointsOf(end, 1, heading, faults))
            : (line, null);
        if (name.Length > WrittenRubric.LongestName)
            faults.Add(new(1, heading, $"A level’s name can have up to {WrittenRubric.LongestName} characters. Shorten it."));
        return new(at, heading, name, points);
    }

    private static WrittenLevel? LevelOf(LevelColumn column, string cell, int row, List<RubricFault> faults)
    {
        var line = Line(cell);
        var own = PointsAtStart().Match(line) is { Success: true } match ? match : null;
        if (line is NoLevel or "-" || (line.Length == 0 && column.Points is null))
            return null;
        var words = own is null ? line : line[own.Length..].TrimStart();
        var points = own is null ? column.Points : PointsOf(own, row, column.Heading, faults);
        if (words.Length > WrittenRubric.LongestWords)
            faults.Add(new(row, column.Heading, $"Describe a level in up to {WrittenRubric.LongestWords:N0} characters."));
        if (points is null)
        {
            if (own is null)
                faults.Add(new(row, column.Heading, $"How many points is this? Write them in the first row: {column.Name} (3)."));
            return null;
        }
        return new("", column.Name, points.From, points.To, points.IsRange) { Words = words };
    }

    private static Points? PointsOf(Match match, int row, string heading, List<RubricFault> faults)
    {
        var from = NumberOf(match.Groups["from"].Value);
        var isRange = match.Groups["to"].Success;
        var to = isRange ? NumberOf(match.Groups["to"].Value) : from;
        if (from is null || to is null || to > MostPoints)
            faults.Add(new(row, heading, $"Points are numbers from 0 to {MostPoints:N0}, with at most two decimals."));
        else if (to < from)
            faults.Add(new(row, heading, "The lower number of points comes first: 1–3."));
        else
            return new(from.Value, to.Value, isRange);
        return null;
    }

    private static decimal WeightOf(string cell, int row, string heading, List<RubricFault> faults)
    {
        if (Line(cell) is not { Length: > 0 } line)
            return 1;
        if (NumberOf(line) is { } weight and <= MostPoints)
            return weight;
        faults.Add(new(row, heading, $"“{line}” isn’t a weight. Write a number, or leave it empty for 1."));
        return 1;
    }

    private static bool IsYes(string cell, int row, string heading, List<RubricFault> faults)
    {
        switch (Line(cell).ToUpperInvariant())
        {
            case "YES" or "Y" or "X" or "TRUE" or "OPTIONAL":
                return true;
            case "" or "NO" or "N" or "FALSE":
                return false;
            default:
                faults.Add(new(row, heading, $"“{Line(cell)}” is neither yes nor no."));
                return false;
        }
    }

    private static decimal? NumberOf(string text) =>
        decimal.TryParse(text.Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number)
        && decimal.Round(number, 2) == number
            ? number
            : null;

    private static string Number(decimal number) => number.ToString("0.##", CultureInfo.InvariantCulture);

    // A cell as one line; without the apostrophe that keeps a spreadsheet from reading it as a formula.
    private static string Line(string cell)
    {
        var line = string.Join(' ', Spaced(cell).Split(' ', StringSplitOptions.RemoveEmptyEntries));
        return line is ['\'', '=' or '+' or '-' or '@', ..] ? line[1..] : line;

        static string Spaced(string text) =>
            string.Concat(text.Select(letter => char.IsWhiteSpace(letter) || char.IsControl(letter) || letter == '\uFEFF' ? ' ' : letter));
    }

    // Levels stand in one column where they have one name and the same points, and in the order of their criterion.
    private static List<LevelColumn> Columns(WrittenRubric rubric)
    {
        var columns = new List<LevelColumn>();
        foreach (var criterion in rubric.Criteria)
        {
            var next = 0;
            foreach (var level in criterion.Levels)
            {
                var at = columns.FindIndex(next, column => Is(column, level));
                if (at < 0)
                    columns.Insert(at = next, new(0, Heading(level), level.Name, new(level.From, level.To, level.IsRange)));
                next = at + 1;
            }
        }
        return columns;
    }

    private static bool Is(LevelColumn column, WrittenLevel level) =>
        column.Name == level.Name && column.Points == new Points(level.From, level.To, level.IsRange);

    private static IEnumerable<string> Cells(WrittenCriterion criterion, List<LevelColumn> columns)
    {
        var next = 0;
        foreach (var column in columns)
        {
            if (next < criterion.Levels.Length && Is(column, criterion.Levels[next]))
            {
                var level = criterion.Levels[next++];
                // What would be read as something else is told apart by its points.
                yield return level.Words is NoLevel or "-" || PointsAtStart().IsMatch(level.Words)
                    ? $"({Range(level)}) {level.Words}"
                    : level.Words;
            }
            else
                yield return NoLevel;
        }
    }

    private static string Heading(WrittenLevel level) => level.Name.Length == 0 ? Range(level) : $"{level.Name} ({Range(level)})";

    private static string Range(WrittenLevel level) => level.IsRange ? $"{Number(level.From)}–{Number(level.To)}" : Number(level.From);

    private const string OneOrTwo = @"(?<from>\d+(?:[.,]\d+)?)(?:\s*(?:-|–|—|to)\s*(?<to>\d+(?:[.,]\d+)?))?\s*(?:points?|pts?\.?|p)?";

    [GeneratedRegex($@"^{OneOrTwo}$", RegexOptions.CultureInvariant | RegexOptions.IgnoreCase | RegexOptions.ExplicitCapture)]
    private static partial Regex AllPoints();

    [GeneratedRegex(
        $@"^(?<1>.*?)\s*[(\[]\s*{OneOrTwo}\s*[)\]]$",
        RegexOptions.CultureInvariant | RegexOptions.IgnoreCase | RegexOptions.ExplicitCapture
    )]
    private static partial Regex PointsAtEnd();

    [GeneratedRegex(
        $@"^[(\[]\s*{OneOrTwo}\s*[)\]]",
        RegexOptions.CultureInvariant | RegexOptions.IgnoreCase | RegexOptions.ExplicitCapture
    )]
    private static partial Regex PointsAtStart();
}
