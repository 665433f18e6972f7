using System.Collections.Immutable;
using System.Net;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Formats.Schemes;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Editions;

/// <param name="Line">From 1, as it stands in the text.</param>
/// <param name="Code">Of an item; null: it is none, or is left out.</param>
/// <param name="Words">What was understood of it.</param>
/// <param name="Asks">It is not plain what it is.</param>
/// <param name="Wrong">What is to be looked at; null: nothing.</param>
public sealed record UnderstoodLine(int Line, SchemeLevel Level, string? Code, string Title, string Words, bool Asks, string? Wrong);

/// <summary>A course made from a scheme of work: nothing in it is published yet.</summary>
public sealed class SchemeCourse
{
    private const int MostMeetings = 60;

    private readonly Basis basis;
    private readonly int classMinutes;
    private readonly List<WrittenUnit> units = [];
    private readonly Dictionary<Ref<Item>, SchemeLine> lines = [];
    private readonly Dictionary<string, int> shortest = [];

    // A unit or a lesson while the lines below it are read.
    private sealed record WrittenLesson(SchemeLine Line, List<Item> Items);

    private sealed record WrittenUnit(SchemeLine Line)
    {
        public List<WrittenLesson> Lessons { get; } = [];

        public List<Item> Items { get; } = [];

        /// <summary>It takes time, so that it has a lesson of its own name where it has no others.</summary>
        public bool TakesTime => Line.Length is not null || Line.Optional;
    }

    /// <summary>What is kept beside the course: the texts of its items.</summary>
    public List<Body> Bodies { get; } = [];

    public CourseFile Course { get; }

    /// <summary>Every line of the scheme, as it was understood.</summary>
    public IReadOnlyList<UnderstoodLine> Understood { get; }

    /// <summary>What is in it: "3 units, 6 lessons for 9 classes, 7 items".</summary>
    public string Sentence { get; }

    /// <param name="edition">The edition as it is without anything in it.</param>
    /// <param name="classMinutes">How long a class lasts, where lengths are given the other way.</param>
    public SchemeCourse(string title, Edition edition, Scheme scheme, int classMinutes)
    {
        (basis, this.classMinutes) = (edition.Basis, classMinutes);
        foreach (var line in scheme.Lines)
            Take(line, title);
        var made = edition with { Units = [.. units.Select(UnitOf)] };
        Course = new(title, made, shortest);
        var codes = Codes.Of(made);
        var codeOf = new Dictionary<object, string>(ReferenceEqualityComparer.Instance);
        foreach (var (item, line) in lines)
            codeOf.Add(line, codes[item]);
        Understood =
        [
            .. scheme.Lines.Select(line => new UnderstoodLine(
                line.Line,
                line.Level,
                codeOf.GetValueOrDefault(line),
                line.Title,
                Words(line),
                line.Asks,
                line.Wrong
            )),
        ];
        var lessons = made.Units.SelectMany(unit => unit.Lessons).ToList();
        Sentence = Counting.Joined(
            [
                Counting.Counted(made.Units.Length, "unit", "units"),
                $"{Counting.Counted(lessons.Count, "lesson", "lessons")} for {basis.Counted(lessons.Sum(lesson => lesson.Length))}",
                Counting.Counted(lines.Count, "item", "items"),
            ],
            "and"
        );
    }

    private void Take(SchemeLine line, string title)
    {
        if (line.Level == SchemeLevel.LeftOut)
            return;
        if (line.Level == SchemeLevel.Unit)
        {
            units.Add(new(line));
            return;
        }
        // What comes before any unit is in one that is called as the course is.
        if (units.Count == 0)
            units.Add(
                new(
                    new()
                    {
                        Line = line.Line,
                        Level = SchemeLevel.Unit,
                        Title = title,
                    }
                )
            );
        var unit = units[^1];
        if (line.Level == SchemeLevel.Lesson)
            unit.Lessons.Add(new(line, []));
        else
            (unit.Lessons.Count > 0 ? unit.Lessons[^1].Items : unit.Items).Add(ItemOf(line, unit));
    }

    private Unit UnitOf(WrittenUnit unit)
    {
        var ofItself = unit.Lessons.Count == 0 && unit.TakesTime;
        return new(
            New<Unit>(),
            unit.Line.Title,
            ofItself ? [LessonOf(new(unit.Line, unit.Items))] : [.. unit.Lessons.Select(LessonOf)],
            ofItself ? [] : [.. unit.Items],
            Published: false
        );
    }

    private Lesson LessonOf(WrittenLesson lesson)
    {
        var line = lesson.Line;
        var made = new Lesson(New<Lesson>(), line.Title, LengthOf(line), [.. lesson.Items], line.Optional);
        if (line.Shortest is { } least && InBasis(least, line.InMinutes) < made.Length)
            shortest.Add(made.Ref.Name, InBasis(least, line.InMinutes));
        return made;
    }

    private Item ItemOf(SchemeLine line, WrittenUnit unit)
    {
        var html = string.Concat(
            line.Address is { } address ? $"<p><a href=\"{WebUtility.HtmlEncode(address)}\">{WebUtility.HtmlEncode(address)}</a></p>" : "",
            line.Note is { } note ? $"<p>{WebUtility.HtmlEncode(note)}</p>" : ""
        );
        Body? body = null;
        if (html.Length > 0 && FormattedText.Fault(html) is null)
            Bodies.Add(body = new(FormattedText.Canonical(html)));
        var item = new Item
        {
            Ref = New<Item>(),
            Kind = line.Kind,
            Options = line.Kind == ItemKind.Choice ? [.. Offered.New.Options.Select(one => one.Option)] : default,
            Offered = line.Kind == ItemKind.Choice ? Offered.New : null,
            Title = line.Title,
            Purpose = line.Purpose,
            // On no lesson it counts from the end of its unit.
            Due = line.Due is { } due && unit.Lessons.Count == 0 && !unit.TakesTime ? due with { At = AnchorBase.UnitEnd } : line.Due,
            Body = body?.Hash,
            Published = false,
        };
        lines.Add(item.Ref, line);
        return item;
    }

    private int LengthOf(SchemeLine line) =>
        line.Length is { } length ? InBasis(length, line.InMinutes)
        : basis == Basis.Meetings ? 1
        : classMinutes;

    // A small number without a unit is a number of classes: no lesson lasts three minutes.
    private int InBasis(int length, bool inMinutes) =>
        basis == Basis.Meetings ? Math.Clamp(inMinutes ? (length + classMinutes - 1) / classMinutes : length, 0, MostMeetings)
        : inMinutes || length > 15 ? Math.Min(length, MostMeetings * classMinutes)
        : Math.Min(length, MostMeetings) * classMinutes;

    private string Words(SchemeLine line)
    {
        var parts = new List<string>();
        switch (line.Level)
        {
            case SchemeLevel.Unit:
                var unit = units.First(one => ReferenceEquals(one.Line, line));
                if (unit.Lessons.Count > 0)
                    parts.Add(basis.Counted(unit.Lessons.Sum(lesson => LengthOf(lesson.Line))));
                else if (unit.TakesTime)
                    parts.Add(basis.Counted(LengthOf(line)));
                if (line.Optional)
                    parts.Add("optional");
                break;
            case SchemeLevel.Lesson:
                parts.Add(basis.Counted(LengthOf(line)));
                if (line.Shortest is { } least)
                    parts.Add($"at least {InBasis(least, line.InMinutes)}");
                if (line.Optional)
                    parts.Add("optional");
                break;
            case SchemeLevel.Item:
                parts.Add(EnumNames.Of(line.Kind));
                if (line.Purpose == Purpose.ForMarks)
                    parts.Add("for marks");
                else if (line.Kind == ItemKind.Page)
                    parts.Add("to read");
                if (line.Due is { } due)
                    parts.Add($"due {new AnchorWords(_ => "", LevelNames.Plain).Of(due)}");
                if (line.Note is { } note)
                    parts.Add($"with the text “{note}”");
                break;
            default:
                parts.Add("left out");
                break;
        }
        return string.Join(", ", parts);
    }

    private static Ref<T> New<T>() => new($"{Guid.NewGuid()}");
}
