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
);

/// <param name="State">Such as <c>open</c>.</param>
/// <param name="Progress">Such as <c>handed-in</c>.</param>
/// <param name="Unit">The title of its unit.</param>
/// <param name="CanOpen">Whether there is more of it to be seen than this row.</param>
/// <param name="Missing">What would open it; of one to come, beside its moment.</param>
/// <param name="BeforeJoining">It was due before the student joined, or on that day: it is not late.</param>
public sealed record StudentRow(
    Id<Item> Item,
    string Code,
    string Title,
    string Kind,
    string State,
    string Progress,
    string Unit,
    Moment? Opens,
    Moment? Due,
    string? DueRelative,
    string? OpensRelative,
    bool CanOpen,
    IReadOnlyList<string> Missing,
    bool BeforeJoining
);

/// <param name="Again">Given back to be tried again.</param>
public sealed record BackRow(Id<Item> Item, string Code, string Title, string By, bool Again, Moment At, string Begins);

/// <summary>Now and next: what is open and what comes, for one student.</summary>
public static class ReadNow
{
    private const int MostBack = 5;
    private const int BeginsWith = 140;
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
        );

        IReadOnlyList<StudentRow> Rows(IEnumerable<(Sight Sight, int Place)> sights) =>
            [.. sights.Select(pair => RowOf(course, pair.Sight))];
    }

    private static StudentRow RowOf(StudentCourse course, Sight sight) =>
        new(
            course.IdOf(sight),
            sight.Code,
            sight.Title,
            EnumNames.Of(sight.Kind),
            EnumNames.Of(sight.State),
            EnumNames.Of(sight.Progress),
            sight.Unit,
            Moment.Of(sight.Opens, course.Zone),
            Moment.Of(sight.Due, course.Zone),
            Relative(sight.Due, course),
            Relative(sight.Opens, course),
            sight.MayRead,
            course.Missing(sight),
            sight.BeforeJoining
        );

    private static string? Relative(Instant? moment, StudentCourse course) =>
        moment is { } at ? MomentWords.Relative(at, course.At, course.Zone) : null;

    private static string Beginning(string text)
    {
        var line = text.ReplaceLineEndings(" ").Trim();
        return line.Length <= BeginsWith ? line : line[..BeginsWith].TrimEnd() + " …";
    }
}
