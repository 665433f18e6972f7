using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Choices;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Choices;

/// <param name="Options">All that is picked from now on; empty: nothing.</param>
/// <param name="WaitFor">The full options whose queues the student is in from now on; empty: none; null: as before.</param>
public sealed record PickOptionsRequest(Id<Item> Item, IReadOnlyList<string> Options, IReadOnlyList<string>? WaitFor = null);

/// <param name="Opens">What opens by it, each with its code and title.</param>
/// <param name="Closes">What closes by it.</param>
public sealed record PickedAnswer(bool Applied, IReadOnlyList<string> Opens, IReadOnlyList<string> Closes, string Sentence)
    : IAnswer<PickedAnswer>
{
    public PickedAnswer AsPreview() => this with { Applied = false };
}

/// <summary>Picks options of a choice, or others in their place.</summary>
public sealed class PickOptions : IWorkCommand<PickOptionsRequest, PickingStudents, PickedAnswer>
{
    public static string Name => "pick-options";

    public static May May => May.SectionStudent;

    public static WorkPlace Place => WorkPlace.Section;

    public static async Task<PickingStudents> Prepare(Access access, PlanCache plans, PickOptionsRequest request) =>
        new(await plans.Edition(access), await CourseOfStudents.Of(access, plans));

    public static async Task<PickedAnswer> Do(WorkContext work, PickingStudents ready, PickOptionsRequest request)
    {
        var (connection, at) = (work.Connection, work.Viewpoint.At);
        var course = await ready.Students.SeenBy(connection, work.Access, work.Viewpoint);
        var sight = course.See(request.Item);
        if (sight.Kind != ItemKind.Choice)
            throw Problem.Unknown("item");
        if (!IsOpen(sight))
            throw Problem.NotOpen("Nothing was picked.");
        var choice = Picks.Of(ready.Plan, request.Item);
        var picks = await Picks.Read(connection, ready.Plan, work.Section, request.Item, at, locked: true);
        picks.Check(request.Options);
        var before = picks.By(course.Oneself);
        if (choice.Offered?.IsFinal == true && !before.All(request.Options.Contains))
            throw Problem.Field("options", "This pick can’t be changed. If you need another one, ask your teacher.");
        var queue = await OptionQueue.Read(connection, ready.Plan, work.Section, request.Item, picks);
        var waits = queue.By(course.Oneself);
        for (var n = 0; n < request.Options.Count; n++)
            if (!before.Contains(request.Options[n]) && picks.RoomIn(request.Options[n]) == 0)
                throw Problem.Field(
                    $"options[{n}]",
                    $"“{choice.TitleOf(request.Options[n])}” is full. Pick something else, or join its queue."
                );
        IReadOnlyList<string> waitFor = [.. (request.WaitFor ?? waits).Except(request.Options)];
        for (var n = 0; n < waitFor.Count; n++)
            CheckWait(choice, picks, request.Options, waits, waitFor[n], $"waitFor[{n}]");
        var open = Open(course);
        var turned = await picks.Turn(connection, request.Item, work.Section, course.Oneself, request.Options, course.Oneself, work.Key);
        var joined = waitFor.Except(waits).ToList();
        var gone = waits.Except(waitFor).Concat(before.Except(request.Options)).ToList();
        await QueueStore.Leave(connection, request.Item, course.Oneself, gone);
        foreach (var option in joined)
            await QueueStore.Join(connection, request.Item, work.Section, course.Oneself, option, at);
        if (!turned && joined.Count == 0 && waits.SequenceEqual(waitFor))
            return new(false, [], [], "That is what you have picked.");
        await OptionQueue.MoveUp(connection, ready.Plan, work.Section, request.Item, at);
        var now = Open(await ready.Students.SeenBy(connection, work.Access, work.Viewpoint));
        var (opens, closes) = (Told(now.Except(open)), Told(open.Except(now)));
        var queued = await Queued(work, ready.Plan, request.Item, course.Oneself, joined);
        IEnumerable<string> said = turned ? [Sentence(opens, closes), .. queued] : queued;
        return new(true, opens, closes, string.Join(' ', said.DefaultIfEmpty("You have left the queue.")));

        IReadOnlyList<string> Told(IEnumerable<Ref<Item>> items) =>
            [.. items.Select(item => $"{ready.Plan.Schedule.CodeOf[item]} {ready.Plan.Schedule.Item(item).Title}")];
    }

    // Only what is full has a queue.
    private static void CheckWait(
        Item choice,
        Picks picks,
        IReadOnlyList<string> wanted,
        IReadOnlyList<string> waits,
        string option,
        string field
    )
    {
        if (!choice.Options.Contains(option))
            throw Problem.Unknown(field);
        if (waits.Contains(option))
            return;
        if (picks.RoomIn(option) != 0)
            throw Problem.Field(field, $"There is room in “{choice.TitleOf(option)}”. Pick it.");
        if (choice.Offered?.IsFinal == true && wanted.Count >= choice.Picks)
            throw Problem.Field(
                field,
                "What you pick here stays picked, so you can’t join a queue. If you need another option, ask your teacher."
            );
    }

    // Where they stand in the queues that they have joined, and what they give up when they come up.
    private static async Task<IReadOnlyList<string>> Queued(
        WorkContext work,
        EditionPlan plan,
        Id<Item> item,
        Id<Person> student,
        IReadOnlyList<string> joined
    )
    {
        if (joined.Count == 0)
            return [];
        var choice = Picks.Of(plan, item);
        var picks = await Picks.Read(work.Connection, plan, work.Section, item, work.Viewpoint.At);
        var queue = await OptionQueue.Read(work.Connection, plan, work.Section, item, picks);
        var instead = queue.GivenUpFor(student) is { } title ? $" in place of “{title}”" : "";
        return
        [
            .. joined.Select(option =>
                queue.For(option).Count == 1
                    ? $"You are first in the queue for “{choice.TitleOf(option)}”: if a place comes free, you get it{instead}."
                    : $"You are number {queue.For(option).Count} in the queue for “{choice.TitleOf(option)}”: "
                        + $"when it is your turn, you get it{instead}."
            ),
        ];
    }

    /// <summary>Whether something can be done with it now.</summary>
    public static bool IsOpen(Sight sight) => sight is { MayRead: true, State: ReleaseState.Open or ReleaseState.Overdue };

    private static IReadOnlyList<Ref<Item>> Open(StudentCourse course) => [.. course.All.Where(IsOpen).Select(sight => sight.Item)];

    private static string Sentence(IReadOnlyList<string> opens, IReadOnlyList<string> closes)
    {
        var parts = new List<string>();
        if (opens.Count > 0)
            parts.Add($"{Counting.Joined(opens, "and")} {(opens.Count == 1 ? "opens" : "open")}.");
        if (closes.Count > 0)
            parts.Add($"{Counting.Joined(closes, "and")} {(closes.Count == 1 ? "closes" : "close")}; what you began there stays readable.");
        return parts.Count == 0 ? "Nothing depends on it yet." : string.Join(' ', parts);
    }
}

/// <summary>The course of whoever picks, as it is and as they see it.</summary>
public sealed record PickingStudents(EditionPlan Plan, CourseOfStudents Students);
