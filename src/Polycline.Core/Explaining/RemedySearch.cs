using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;

namespace Polycline.Core.Explaining;

/// <summary>What would open an item for a student: each is tried by doing it and deciding again.</summary>
internal sealed class RemedySearch(
    PlanSchedule plan,
    SectionSchedule schedule,
    StudentRecord student,
    CourseItem here,
    Instant at,
    ImmutableArray<InTheWay> stands,
    ImmutableArray<GateReason> reasons
)
{
    private const int MostTogether = 8;

    private readonly StudentOpening opening = new(
        stands.Any(one => one.What == Obstacle.Locked),
        stands.Any(one => one.What is Obstacle.Unscheduled or Obstacle.Upcoming),
        stands.Any(one => one.What == Obstacle.Closed),
        stands.Any(one => one.What == Obstacle.NotAmong),
        stands.Any(one => one.What == Obstacle.Excused),
        stands.Any(one => one.What == Obstacle.LeftOut)
    );

    private readonly ImmutableArray<string> held = Places(stands, Obstacle.Held);
    private readonly ImmutableArray<string> unpublished = Places(stands, Obstacle.Unpublished);
    private readonly ImmutableArray<string> locked = Places(stands, Obstacle.Locked);

    private StudentRecord Opened =>
        student with
        {
            Exceptions = new Dictionary<Ref<Item>, ForOneStudent>(student.Exceptions)
            {
                [here.Ref] = opening.For(student.Student, here.Ref).Over(student.Exceptions.GetValueOrDefault(here.Ref)),
            },
        };

    /// <summary>What somebody can do that opens it alone, from what touches nobody else to what touches everybody.</summary>
    public IEnumerable<Remedy> Alone()
    {
        if (GivenBack() is { } items)
            yield return new Remedy.GiveBack(items);
        if (opening.IsSomething && Opens(Opened, here))
            yield return new Remedy.OpenForStudent(opening);
        if (here.Opens.Anchor is not null && Opens(student, here with { Opens = new(null, Layer.Section) }))
            yield return new Remedy.MoveOpening(here.Ref);
        if (!held.IsEmpty && Opens(student, here with { Held = false }))
            yield return new Remedy.PutBackHold(held);
        if (!unpublished.IsEmpty && Opens(student, here with { Published = true }))
            yield return new Remedy.Publish(unpublished);
        if (!locked.IsEmpty && Opens(student, Unconditioned()))
            yield return new Remedy.DropCondition(locked);
    }

    /// <summary>What opens it only together, where nothing does alone; null: nothing does.</summary>
    public ImmutableArray<Remedy>? Together()
    {
        ImmutableArray<Remedy> all =
        [
            .. opening.IsSomething ? [new Remedy.OpenForStudent(opening)] : Array.Empty<Remedy>(),
            .. held.IsEmpty ? [] : new Remedy[] { new Remedy.PutBackHold(held) },
            .. unpublished.IsEmpty ? [] : new Remedy[] { new Remedy.Publish(unpublished) },
        ];
        return !all.IsEmpty && Opens(opening.IsSomething ? Opened : student, here with { Held = false, Published = true }) ? all : null;
    }

    private static ImmutableArray<string> Places(ImmutableArray<InTheWay> stands, Obstacle what) =>
        [.. stands.Where(one => one.What == what).Select(one => one.Id!)];

    private bool Opens(StudentRecord then, CourseItem item) =>
        Explanation.IsOpenIn(new Explain(plan, then).DecideAs(schedule, item, new(schedule, then), at).State);

    private CourseItem Unconditioned()
    {
        var levels = stands.Where(one => one.What == Obstacle.Locked).Select(one => one.Level).ToHashSet();
        return here with
        {
            Unit = levels.Contains(Level.Unit) ? here.Unit with { Gate = null } : here.Unit,
            Lesson = levels.Contains(Level.Lesson) ? here.Lesson! with { Gate = null } : here.Lesson,
            Item = levels.Contains(Level.Item) ? here.Item with { Gate = null } : here.Item,
        };
    }

    // The fewest pieces that open it; of equally few the first in reading order.
    private ImmutableArray<Ref<Item>>? GivenBack()
    {
        var wanted = reasons
            .Where(reason => !reason.Met)
            .SelectMany(reason => GateEvaluation.Wanted(reason.Trace))
            .OfType<GateNode.Done>()
            .Where(leaf => leaf.Deed == Deed.Returned && IsWaiting(leaf.Item))
            .Select(leaf => leaf.Item)
            .ToHashSet();
        ImmutableArray<Ref<Item>> waiting = [.. plan.InReadingOrder().Where(wanted.Contains)];
        if (waiting.IsEmpty)
            return null;
        if (waiting.Length > MostTogether)
            return OpensWith(waiting) ? waiting : null;
        for (var many = 1; many <= waiting.Length; many++)
            foreach (var some in Chosen(waiting, many, 0))
                if (OpensWith(some))
                    return some;
        return null;
    }

    private bool OpensWith(ImmutableArray<Ref<Item>> items) =>
        Opens(
            student with
            {
                Facts = new([.. student.Facts.All, .. items.Select(item => new Fact(student.Student, item, FactEvent.Returned, at))]),
            },
            here
        );

    private bool IsWaiting(Ref<Item> item) => student.Facts.IsWithTeacher(item, at);

    private static IEnumerable<ImmutableArray<Ref<Item>>> Chosen(ImmutableArray<Ref<Item>> items, int many, int from)
    {
        if (many == 0)
        {
            yield return [];
            yield break;
        }
        for (var first = from; first <= items.Length - many; first++)
            foreach (var rest in Chosen(items, many - 1, first + 1))
                yield return [items[first], .. rest];
    }
}
