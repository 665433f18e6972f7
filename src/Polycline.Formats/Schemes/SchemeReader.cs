using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Polycline.Core.Courses;

namespace Polycline.Formats.Schemes;

/// <summary>
/// Reads a scheme of work as teachers keep it: indented text, or rows of a spreadsheet. Nothing is refused: a line that is not plain is
/// asked about, and what nobody answers comes along as it seems to be.
/// </summary>
public static class SchemeReader
{
    public const int MostLines = 3_000;

    // Beyond it nobody writes a line, and reading one takes longer than its length.
    private const int LongestLine = 2_000;
    private const int LongestTitle = 200;

    /// <param name="text">At most <see cref="MostLines"/> lines; what is beyond is not looked at.</param>
    /// <param name="answers">What somebody said that a line is, by its number.</param>
    public static Scheme Read(string text, IReadOnlyDictionary<int, SchemeLevel> answers)
    {
        var written = text.ReplaceLineEndings("\n")
            .Split('\n')
            .Take(MostLines)
            .Select((line, n) => new Written(n + 1, line.Length <= LongestLine ? line : line[..LongestLine]))
            .Where(line => line.Text.Length > 0)
            .ToList();
        var table = TableOf(written);
        var lines = table is null ? Indented(written, answers) : Rows(table, answers);
        return new([.. Checked([.. lines.Select(Shortened)])]);
    }

    private sealed record Written(int Number, string Raw)
    {
        public string Text { get; } = Raw.Trim();

        // A tab counts as far as the next eighth column.
        public int Indent { get; } =
            Raw.TakeWhile(char.IsWhiteSpace).Aggregate(0, (at, letter) => letter == '\t' ? (at / 8 * 8) + 8 : at + 1);

        // Lists come with their bullets.
        public string Bare { get; } = Raw.Trim().TrimStart('-', '*', '•', '·', '–').TrimStart();
    }

    private static IEnumerable<SchemeLine> Indented(List<Written> written, IReadOnlyDictionary<int, SchemeLevel> answers)
    {
        var lines = new List<SchemeLine>();
        // The indents that are open, the outermost first: how deep a line is is how many it stands right of.
        var open = new Stack<int>();
        foreach (var line in written)
        {
            while (open.Count > 0 && line.Indent <= open.Peek())
                open.Pop();
            var depth = open.Count;
            open.Push(line.Indent);
            var doubted = line.Bare.StartsWith("??", StringComparison.Ordinal);
            var bare = doubted ? line.Bare.TrimStart('?').TrimStart() : line.Bare;
            if (bare.Length == 0)
                continue;
            var seems = depth switch
            {
                0 => SchemeLevel.Unit,
                1 => ItemWords.BeginsAsItem(bare) ? SchemeLevel.Item : SchemeLevel.Lesson,
                _ => SchemeLevel.Item,
            };
            // Where a course has one unit only it may be left away, and a line that begins as an item is hardly a unit.
            var odd = depth == 0 && lines.Count > 0 && ItemWords.BeginsAsItem(bare);
            var level =
                answers.TryGetValue(line.Number, out var said) ? said
                : odd ? SchemeLevel.Item
                : seems;
            lines.Add(Read(line.Number, bare, level) with { Asks = doubted || odd });
        }
        return lines;
    }

    private static SchemeLine Read(int number, string bare, SchemeLevel level) =>
        level switch
        {
            SchemeLevel.Item => ItemWords.Item(number, bare),
            SchemeLevel.LeftOut => new()
            {
                Line = number,
                Level = level,
                Title = bare,
            },
            _ => ItemWords.Part(number, bare, level),
        };

    private enum Column
    {
        Other,
        Unit,
        Lesson,
        Length,
        Item,
        Kind,
        Due,
    }

    private sealed record Rowed(ImmutableArray<Column> Columns, List<(int Number, string[] Cells)> Rows);

    // Rows of a spreadsheet come with tabs between their cells, the first of them perhaps with the headings.
    private static Rowed? TableOf(List<Written> written)
    {
        var tabbed = written.Where(line => line.Text.Contains('\t', StringComparison.Ordinal)).ToList();
        var headings = written.Count == 0 ? [] : written[0].Raw.Split('\t').Select(ColumnOf).ToImmutableArray();
        var isHeaded = headings.Length > 1 && headings.Count(column => column != Column.Other) > 1;
        if (
            !isHeaded
            && (
                tabbed.Count < 2
                || tabbed.Count * 2 < written.Count
                || written.Any(line => line.Raw.StartsWith('\t') && line.Raw.Count(c => c == '\t') == 1)
            )
        )
            return null;
        return new(
            isHeaded ? headings : [Column.Unit, Column.Lesson, Column.Length, Column.Item, Column.Kind, Column.Due],
            [.. written.Skip(isHeaded ? 1 : 0).Select(line => (line.Number, line.Raw.Split('\t')))]
        );
    }

    private static Column ColumnOf(string heading) =>
        heading.Trim().ToLowerInvariant() switch
        {
            "unit" or "topic" or "module" or "chapter" => Column.Unit,
            "lesson" or "lessons" or "title" => Column.Lesson,
            "classes" or "class" or "length" or "periods" or "minutes" or "time" or "hours" => Column.Length,
            "item" or "items" or "resource" or "resources" or "activity" or "material" => Column.Item,
            "kind" or "type" or "what" => Column.Kind,
            "due" or "deadline" => Column.Due,
            _ => Column.Other,
        };

    // A cell that is empty, or says what the row above says, stands for what is above it.
    private static IEnumerable<SchemeLine> Rows(Rowed table, IReadOnlyDictionary<int, SchemeLevel> answers)
    {
        var (unit, lesson) = ("", "");
        foreach (var (number, cells) in table.Rows)
        {
            if (answers.GetValueOrDefault(number, SchemeLevel.Unit) == SchemeLevel.LeftOut)
            {
                yield return Read(number, string.Join(' ', cells).Trim(), SchemeLevel.LeftOut);
                continue;
            }
            string Cell(Column column) => table.Columns.IndexOf(column) is >= 0 and var n && n < cells.Length ? cells[n].Trim() : "";
            var length = ItemWords.LengthOf(Cell(Column.Length)) ?? (null, null, false);
            if (Cell(Column.Unit) is { Length: > 0 } named && named != unit)
            {
                (unit, lesson) = (named, "");
                var read = ItemWords.Part(number, named, SchemeLevel.Unit);
                yield return Cell(Column.Lesson).Length == 0 && Cell(Column.Item).Length == 0
                    ? read with
                    {
                        Length = read.Length ?? length.Length,
                    }
                    : read;
            }
            if (Cell(Column.Lesson) is { Length: > 0 } taught && taught != lesson)
            {
                lesson = taught;
                var read = ItemWords.Part(number, taught, SchemeLevel.Lesson);
                yield return read with
                {
                    Length = read.Length ?? length.Length,
                    Shortest = read.Shortest ?? length.Shortest,
                    InMinutes = read.Length is null ? length.InMinutes : read.InMinutes,
                };
            }
            if (Cell(Column.Item) is { Length: > 0 } item)
            {
                var read = ItemWords.Item(number, item);
                var kind = ItemWords.KindOf(Cell(Column.Kind)) ?? read.Kind;
                var due = Cell(Column.Due);
                yield return read with
                {
                    Kind = kind,
                    Purpose = kind == read.Kind ? read.Purpose : ItemRules.UsualPurpose(kind),
                    Due = ItemWords.DueOf(due) ?? read.Due,
                    Note = due.Length > 0 && ItemWords.DueOf(due) is null ? Joined(read.Note, $"due {due}") : read.Note,
                };
            }
        }
    }

    private static string Joined(string? note, string more) => note is null ? more : $"{note}, {more}";

    // The title of an item is kept whole as its text.
    private static SchemeLine Shortened(SchemeLine line) =>
        line.Title.Length <= LongestTitle
            ? line
            : line with
            {
                Title = line.Title[..(LongestTitle - 1)] + "…",
                Note = line.Level == SchemeLevel.Item ? Joined(line.Note, line.Title) : line.Note,
                Wrong = $"The title is longer than {LongestTitle} characters, so it is cut.",
            };

    // What does not add up, and what has no place to be in.
    private static IEnumerable<SchemeLine> Checked(ImmutableArray<SchemeLine> lines)
    {
        for (var n = 0; n < lines.Length; n++)
        {
            var line = lines[n];
            if (line.Level == SchemeLevel.LeftOut)
                yield return line;
            else if (!IsVisible(line.Title))
                yield return line with
                {
                    Wrong = "There is no title.",
                    Level = SchemeLevel.LeftOut,
                };
            else if (line.Level == SchemeLevel.Unit && line.Length is { } said)
            {
                var lessons = lines
                    .Skip(n + 1)
                    .TakeWhile(one => one.Level != SchemeLevel.Unit)
                    .Where(one => one.Level == SchemeLevel.Lesson)
                    .ToList();
                var come = lessons.Sum(one => one.Length ?? 1);
                yield return lessons.Count > 0 && come != said ? line with { Wrong = $"{said} said, lessons come to {come}" } : line;
            }
            else
                yield return line;
        }
    }

    private static bool IsVisible(string title) =>
        title.EnumerateRunes().Any(rune => !Rune.IsWhiteSpace(rune) && Rune.GetUnicodeCategory(rune) is not UnicodeCategory.Format);
}
