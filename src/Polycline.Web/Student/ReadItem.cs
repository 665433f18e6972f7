using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

public sealed record StudentItemAnswer
{
    public required Id<Item> Item { get; init; }

    public required string Course { get; init; }

    public required string Section { get; init; }

    public required string Code { get; init; }

    public required string Title { get; init; }

    public required string Kind { get; init; }

    public required string Purpose { get; init; }

    public required string State { get; init; }

    public required string Progress { get; init; }

    public required string Unit { get; init; }

    public required string? Lesson { get; init; }

    public required Moment? Opens { get; init; }

    public required Moment? Due { get; init; }

    public required Moment? Closes { get; init; }

    public required string? DueRelative { get; init; }

    public required IReadOnlyList<string> Missing { get; init; }

    /// <summary>What is to be read; null: there is nothing, or not now.</summary>
    public required string? Html { get; init; }

    /// <summary>Whether work can be written and handed in.</summary>
    public required bool MayWork { get; init; }

    /// <summary>What was written and not handed in.</summary>
    public required DraftAnswer? Draft { get; init; }

    /// <summary>What was handed in and what came back, the latest first.</summary>
    public required IReadOnlyList<HandedIn> History { get; init; }

    /// <summary>What the course calls its levels.</summary>
    public required LevelNames Levels { get; init; }
}

/// <param name="Version">To be named when it is saved again; 0: there is none yet.</param>
/// <param name="MissedAt">It was sent, but came after the item had closed.</param>
public sealed record DraftAnswer(string Text, Moment SavedAt, long Version, Moment? MissedAt);

/// <param name="ClaimedAt">When the page says it was sent first, where it arrived later.</param>
/// <param name="TakenBackAt">When the student took it back; null: it stands.</param>
public sealed record HandedIn(int N, string Text, Moment At, Moment? ClaimedAt, Moment? TakenBackAt, IReadOnlyList<BackAnswer> Feedback);

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
        return new()
        {
            Item = new(item),
            Course = course.Title,
            Section = course.SectionName,
            Code = sight.Code,
            Title = sight.Title,
            Kind = EnumNames.Of(sight.Kind),
            Purpose = EnumNames.Of(sight.Purpose),
            State = EnumNames.Of(sight.State),
            Progress = EnumNames.Of(sight.Progress),
            Unit = sight.Unit,
            Lesson = sight.Lesson,
            Opens = Moment.Of(sight.Opens, zone),
            Due = Moment.Of(sight.Due, zone),
            Closes = Moment.Of(sight.Closes, zone),
            DueRelative = sight.Due is { } due ? MomentWords.Relative(due, course.At, zone) : null,
            Missing = course.Missing(sight),
            Html = html,
            MayWork = sight.MayWork && sight.Kind == ItemKind.Task,
            Draft = work.Draft is { } draft
                ? new(draft.Text, Moment.Of(draft.SavedAt, zone), draft.Version, Moment.Of(draft.MissedAt, zone))
                : null,
            History =
            [
                .. work.Versions.Select(version => new HandedIn(
                    version.N,
                    version.Text,
                    Moment.Of(version.HandedInAt, zone),
                    Moment.Of(version.ClaimedAt, zone),
                    Moment.Of(version.TakenBackAt, zone),
                    [
                        .. course
                            .Feedback.Where(row => row.Item.Value == item && row.N == version.N)
                            .Select(row => new BackAnswer(row.By, row.Text, row.Again, Moment.Of(row.ReturnedAt, zone))),
                    ]
                )),
            ],
            Levels = course.Levels,
        };
    }
}
