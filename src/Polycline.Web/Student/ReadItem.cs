using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

/// <param name="Html">What is to be read; null: there is nothing, or not now.</param>
/// <param name="MayWork">Whether work can be written and handed in.</param>
/// <param name="Draft">What was written and not handed in.</param>
/// <param name="Levels">What the course calls its levels.</param>
/// <param name="History">What was handed in and what came back, the latest first.</param>
public sealed record StudentItemAnswer(
    Id<Item> Item,
    string Course,
    string Section,
    string Code,
    string Title,
    string Kind,
    string Purpose,
    string State,
    string Progress,
    string Unit,
    string? Lesson,
    Moment? Opens,
    Moment? Due,
    Moment? Closes,
    string? DueRelative,
    IReadOnlyList<string> Missing,
    string? Html,
    bool MayWork,
    DraftAnswer? Draft,
    IReadOnlyList<HandedIn> History,
    LevelNames Levels
);

/// <param name="Version">To be named when it is saved again; 0: there is none yet.</param>
/// <param name="MissedAt">It was sent, but came after the item had closed.</param>
public sealed record DraftAnswer(string Text, Moment SavedAt, long Version, Moment? MissedAt);

/// <param name="ClaimedAt">When the page says it was sent first, where it arrived later.</param>
public sealed record HandedIn(int N, string Text, Moment At, Moment? ClaimedAt, IReadOnlyList<BackAnswer> Feedback);

public sealed record BackAnswer(string By, string Text, bool Again, Moment At);

/// <summary>One item, as a student may see it.</summary>
public static class ReadItem
{
    public static async Task<StudentItemAnswer> Handle(
        long section,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        var course = await StudentCourse.Read(access, viewpoint, compiled, database, stop, new(item));
        var sight = course.See(new Id<Item>(item));
        var (html, work) = (await compiled.Text(sight), course.Work);
        var zone = course.Zone;
        return new(
            new(item),
            course.Title,
            course.SectionName,
            sight.Code,
            sight.Title,
            EnumNames.Of(sight.Kind),
            EnumNames.Of(sight.Purpose),
            EnumNames.Of(sight.State),
            EnumNames.Of(sight.Progress),
            sight.Unit,
            sight.Lesson,
            Moment.Of(sight.Opens, zone),
            Moment.Of(sight.Due, zone),
            Moment.Of(sight.Closes, zone),
            sight.Due is { } due ? MomentWords.Relative(due, course.At, zone) : null,
            course.Missing(sight),
            html,
            sight.MayWork && sight.Kind == ItemKind.Task,
            work.Draft is { } draft
                ? new(draft.Text, Moment.Of(draft.SavedAt, zone), draft.Version, Moment.Of(draft.MissedAt, zone))
                : null,
            [
                .. work.Versions.Select(version => new HandedIn(
                    version.N,
                    version.Text,
                    Moment.Of(version.HandedInAt, zone),
                    Moment.Of(version.ClaimedAt, zone),
                    [
                        .. course
                            .Feedback.Where(row => row.Item.Value == item && row.N == version.N)
                            .Select(row => new BackAnswer(row.By, row.Text, row.Again, Moment.Of(row.ReturnedAt, zone))),
                    ]
                )),
            ],
            course.Levels
        );
    }
}
