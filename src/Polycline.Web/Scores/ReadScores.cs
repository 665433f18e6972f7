using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Scores;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Scores;

/// <param name="Sections">Those whose students are the viewer's, in order of name.</param>
/// <param name="Items">What is marked, handed in or for marks, in the order of the course.</param>
public sealed record ScoresAnswer(bool CanChange, IReadOnlyList<ScoreSection> Sections, IReadOnlyList<ScoreItem> Items)
{
    /// <summary>How they are added up.</summary>
    public required AddingUpForm AddingUp { get; init; }

    /// <summary>Of the edition's own settings.</summary>
    public required long Version { get; init; }

    /// <summary>What the units are called.</summary>
    public required IReadOnlyList<NamedUnit> Units { get; init; }
}

public sealed record NamedUnit(Id<Core.Courses.Unit> Unit, string Title);

/// <param name="Students">In order of name.</param>
/// <param name="Spreads">Of each item; null: nobody has a score in it.</param>
public sealed record ScoreSection(
    Id<Section> Section,
    string Name,
    string Letter,
    IReadOnlyList<ScoreLine> Students,
    IReadOnlyList<ScoreSpread?> Spreads
)
{
    /// <summary>What was last given here in one go, and can be taken back; null: nothing.</summary>
    public required LastGiving? Last { get; init; }
}

/// <param name="Key">With this it is taken back.</param>
/// <param name="Scores">How many they were.</param>
public sealed record LastGiving(Guid Key, int Scores, string By, Moment At)
{
    internal static LastGiving? Of(GivingRow? row, DateTimeZone zone) =>
        row is null ? null : new(row.Given, row.Scores, row.By, Moment.Of(row.At, zone));
}

/// <param name="Kind">Such as <c>quiz</c>.</param>
/// <param name="Purpose"><c>for-marks</c>, <c>practice</c> or <c>to-read</c>.</param>
/// <param name="OutOf">Such as <c>of 12</c>, <c>in per cent</c>; null: it has no score.</param>
public sealed record ScoreItem(Id<Item> Item, string Code, string Title, string Unit, string Kind, string Purpose, string? OutOf)
{
    /// <summary>How it is marked by whoever reads it; null: by itself, or in words only.</summary>
    public required MarkedForm? Marked { get; init; }
}

/// <param name="Cells">Of each item.</param>
/// <param name="SoFar">Such as <c>81.5 %</c>; null: nothing counts yet.</param>
public sealed record ScoreLine(Id<Person> Student, string Name, IReadOnlyList<ScoreCell> Cells, string? SoFar);

/// <summary>How an item went in a section, in per cent.</summary>
/// <param name="Students">How many have a score.</param>
/// <param name="Low">Where the middle half begins.</param>
/// <param name="High">Where it ends.</param>
public sealed record ScoreSpread(int Students, decimal Low, decimal Median, decimal High);

/// <summary>Reads the scores of all students that are the viewer's.</summary>
public static class ReadScores
{
    public static async Task<ScoresAnswer> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("Scores");
        var plan = await compiled.Edition(access);
        var rows = await database.Read(
            connection => ScoreStore.Read(connection, plan, access.Person.Id, access.IsLead, viewpoint.At),
            stop
        );
        return Of(plan, rows, plan.State != EditionState.Resting && viewpoint.TakesCommands, viewpoint.At);
    }

    internal static ScoresAnswer Of(EditionPlan plan, ScoreRows rows, bool canChange, Instant at)
    {
        var course = rows.Marks.Course;
        var cells = new ScoreCells(rows.Marks, at, plan.Term.Zone);
        var marked = course.Items.ToDictionary(place => place.Item.Item, place => place.Item);
        var items = plan.ItemsByUnit()
            .SelectMany(unit =>
                unit.Items.Select(row => (Row: row, Item: plan.Schedule.Item(new(row.Lineage)), Unit: plan.UnitOf(unit.Unit)))
            )
            .Where(one => marked.ContainsKey(one.Item.Ref) || one.Item.Purpose == Purpose.ForMarks)
            .ToList();
        return new(
            canChange,
            [
                .. rows
                    .Students.GroupBy(place => place.Section)
                    .Select(section => SectionOf(section.Key, section.Select(place => (place.Student, place.Name)))),
            ],
            [
                .. items.Select(one => new ScoreItem(
                    new(one.Row.Id),
                    plan.Schedule.CodeOf[one.Item.Ref],
                    one.Item.Title,
                    one.Unit.Title,
                    EnumNames.Of(one.Item.Kind),
                    EnumNames.Of(one.Item.Purpose),
                    marked.TryGetValue(one.Item.Ref, out var known) ? OutOf(course, known) : null
                )
                {
                    Marked = MarkedForm.Of(one.Item.Marked),
                }),
            ]
        )
        {
            AddingUp = AddUpScores.FormOf(plan),
            Version = plan.Settings.Version,
            Units = [.. plan.ItemsByUnit().Select(unit => new NamedUnit(new(unit.Unit.Id), plan.UnitOf(unit.Unit).Title))],
        };

        ScoreSection SectionOf(Id<Section> section, IEnumerable<(Id<Person> Student, string Name)> students)
        {
            var following = plan.Following(section)!;
            var own = course.Book.Sections.FirstOrDefault(one => one.Section == section.InPlan());
            var spreads = own is null ? [] : ItemStatistics.Of(course, own).ToDictionary(one => one.Item.Item);
            return new(
                section,
                following.Name,
                following.Letter,
                [
                    .. students
                        .Where(student => course.SectionOf(student.Student.InPlan())?.Section == section.InPlan())
                        .Select(student => new ScoreLine(
                            student.Student,
                            student.Name,
                            [.. items.Select(one => cells.Of(student.Student.InPlan(), one.Item))],
                            Total.Of(course, student.Student.InPlan()).Share is { } share ? ScoreWords.Percent(share) : null
                        )),
                ],
                [.. items.Select(one => spreads.TryGetValue(one.Item.Ref, out var spread) ? SpreadOf(spread) : null)]
            )
            {
                Last = LastGiving.Of(rows.Givings.FirstOrDefault(one => one.Section == section), plan.Term.Zone),
            };
        }
    }

    private static ScoreSpread? SpreadOf(ItemStatistics item) =>
        item.Median is { } median ? new(item.Students, InPercent(item.Low!.Value), InPercent(median), InPercent(item.High!.Value)) : null;

    private static decimal InPercent(Fraction share) => (share * 100).Rounded(1);

    private static string? OutOf(MarkedCourse course, MarkedItem item) =>
        item switch
        {
            MarkedItem.MarkedQuiz quiz => $"of {course.Keys[quiz.Item].OutOf(course.Keys[quiz.Item].At(course.Now)).PointsShown()}",
            MarkedItem.MarkedTask { Score: TaskScore.Points } task => $"of {task.OutOf.PointsShown()}",
            MarkedItem.MarkedTask { Score: TaskScore.Percent } => "in per cent",
            MarkedItem.MarkedTask { Score: TaskScore.Scale } => "in words",
            _ => null,
        };
}
