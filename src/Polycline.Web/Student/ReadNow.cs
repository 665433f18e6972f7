using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

/// <param name="Now">Open and not done: what is due first, then in reading order.</param>
/// <param name="Next">To come, by opening.</param>
/// <param name="Locked">What a condition keeps shut, and what would open it.</param>
/// <param name="Back">Feedback that came back, the latest first.</param>
/// <param name="Done">What is done or out of their hands, the latest unit first.</param>
public sealed record NowAnswer(
    string Course,
    string Section,
    Moment Moment,
    IReadOnlyList<StudentRow> Now,
    IReadOnlyList<StudentRow> Next,
    IReadOnlyList<StudentRow> Locked,
    IReadOnlyList<BackRow> Back,
    IReadOnlyList<StudentRow> Done
)
{
    /// <summary>When the section meets in the seven days from the moment on.</summary>
    public required IReadOnlyList<Moment> Classes { get; init; }

    /// <summary>What is in the welcome unit, in reading order: always open.</summary>
    public required IReadOnlyList<StudentRow> Welcome { get; init; }

    /// <summary>Whether there are scores to look at.</summary>
    public required bool HasScores { get; init; }
}

public sealed record StudentRow
{
    public required Id<Item> Item { get; init; }

    public required string Code { get; init; }

    public required string Title { get; init; }

    public required string Kind { get; init; }

    /// <summary>Such as <c>open</c>.</summary>
    public required string State { get; init; }

    /// <summary>Such as <c>handed-in</c>.</summary>
    public required string Progress { get; init; }

    /// <summary>The title of its unit.</summary>
    public required string Unit { get; init; }

    public required Id<Unit> UnitId { get; init; }

    public required Moment? Opens { get; init; }

    public required Moment? Due { get; init; }

    public required string? DueRelative { get; init; }

    public required string? OpensRelative { get; init; }

    /// <summary>Whether there is more of it to be seen than this row.</summary>
    public required bool CanOpen { get; init; }

    /// <summary>What would open it; of one to come, beside its moment.</summary>
    public required IReadOnlyList<string> Missing { get; init; }

    /// <summary>It was due before the student joined, or on that day: it is not late.</summary>
    public required bool BeforeJoining { get; init; }
}

/// <param name="Again">Given back to be tried again.</param>
public sealed record BackRow(Id<Item> Item, string Code, string Title, string By, bool Again, string? Mark, Moment At, string Begins);

/// <summary>Now and next: what is open and what comes, for one student.</summary>
public static class ReadNow
{
    private const int MostBack = 5;
    private const int BeginsWith = 140;
    private static readonly Duration Ahead = Duration.FromDays(7);
    private static readonly Duration BackFor = Duration.FromDays(14);

    public static async Task<NowAnswer> Handle(
        long section,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    ) => Of(await StudentCourse.Read(access, viewpoint, compiled, database, stop));

    /// <summary>The answer for what a student sees: a pure function.</summary>
    public static NowAnswer Of(StudentCourse course)
    {
        var all = course.All.Select((sight, place) => (sight, place)).ToList();
        var open = all.Where(pair =>
            pair.sight is { State: ReleaseState.Open or ReleaseState.Overdue } && !pair.sight.Progress.IsSettled()
        );
        var byItem = all.ToDictionary(pair => course.IdOf(pair.sight), pair => pair.sight);
        return new(
            course.Title,
            course.SectionName,
            Moment.Of(course.At, course.Zone),
            Rows(open.OrderBy(pair => pair.sight.Due ?? Instant.MaxValue).ThenBy(pair => pair.place)),
            Rows(all.Where(pair => pair.sight.State == ReleaseState.Upcoming).OrderBy(pair => pair.sight.Opens).ThenBy(pair => pair.place)),
            Rows(all.Where(pair => pair.sight.State == ReleaseState.Locked)),
            [
                .. course
                    .Feedback.Where(row => byItem.ContainsKey(row.Item) && course.At - row.ReturnedAt < BackFor)
                    .DistinctBy(row => row.Item)
                    .Take(MostBack)
                    .Select(row => new BackRow(
                        row.Item,
                        byItem[row.Item].Code,
                        byItem[row.Item].Title,
                        row.By,
                        row.Again,
                        MarkAnswer.Of(row.Mark)?.Words,
                        Moment.Of(row.ReturnedAt, course.Zone),
                        Beginning(row.Text)
                    )),
            ],
            Rows(
                all.Where(pair =>
                        pair.sight is { State: ReleaseState.Closed or ReleaseState.Withdrawn or ReleaseState.Excused }
                        || (pair.sight is { State: ReleaseState.Open or ReleaseState.Overdue } && pair.sight.Progress.IsSettled())
                    )
                    .Reverse()
            )
        )
        {
            Classes = [.. course.ClassesUntil(course.At + Ahead).Select(start => Moment.Of(start, course.Zone))],
            HasScores = course.HasScores,
            Welcome = Rows(all.Where(pair => pair.sight.MayRead && course.IsInWelcome(pair.sight))),
        };

        IReadOnlyList<StudentRow> Rows(IEnumerable<(Sight Sight, int Place)> sights) =>
            [.. sights.Select(pair => RowOf(course, pair.Sight))];
    }

    /// <summary>One item as a line.</summary>
    internal static StudentRow RowOf(StudentCourse course, Sight sight) =>
        new()
        {
            Item = course.IdOf(sight),
            Code = sight.Code,
            Title = sight.Title,
            Kind = EnumNames.Of(sight.Kind),
            State = EnumNames.Of(sight.State),
            Progress = EnumNames.Of(sight.Progress),
            Unit = sight.Unit,
            UnitId = course.UnitOf(sight),
            Opens = Moment.Of(sight.Opens, course.Zone),
            Due = Moment.Of(sight.Due, course.Zone),
            DueRelative = Relative(sight.Due, course),
            OpensRelative = Relative(sight.Opens, course),
            CanOpen = sight.MayRead,
            Missing = course.Missing(sight),
            BeforeJoining = sight.BeforeJoining,
        };

    private static string? Relative(Instant? moment, StudentCourse course) =>
        moment is { } at ? MomentWords.Relative(at, course.At, course.Zone) : null;

    private static string Beginning(string text)
    {
        var line = text.ReplaceLineEndings(" ").Trim();
        return line.Length <= BeginsWith ? line : line[..BeginsWith].TrimEnd() + " …";
    }
}
