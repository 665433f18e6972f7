using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Core.WhatIf;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Web.Conditions;
using Polycline.Web.Today;

namespace Polycline.Web.Work;

/// <summary>What giving back pieces of one item would open in a section.</summary>
/// <param name="Pieces">How many of them would open something.</param>
/// <param name="Words">What it does, such as <c>giving back 3.07 to 7 students opens 3.08 for them</c>.</param>
/// <param name="Student">Whose piece it is, where there is one only.</param>
public sealed record FreeingWork(Id<Item> Item, int Pieces, string Words, Id<Person>? Student);

/// <summary>Students of a section who have nothing to work on although something is still to come, for one reason.</summary>
/// <param name="Students">In order of name.</param>
/// <param name="Item">The first thing still to come for them.</param>
/// <param name="Words">Why it is not open, such as <c>3.08 is kept back</c>.</param>
/// <param name="Mend">Null: nothing needs to be done, or it is not the same for all of them.</param>
public sealed record NothingOpen(IReadOnlyList<NamedStudent> Students, Id<Item> Item, string Words, TodayMend? Mend);

/// <summary>Who waits, told section by section. Source: the computation, chapter 11, <i>waiting</i>.</summary>
/// <param name="nameOf">Null: they are not the viewer's to name, and are left out.</param>
internal sealed class WaitingTold(EditionPlan plan, WhoWaits waits, Func<Ref<Core.Courses.Student>, string?> nameOf)
{
    private readonly ILookup<Ref<Section>, OpeningPiece> pieces = waits.Pieces.ToLookup(piece => piece.Section);
    private readonly ILookup<Ref<Core.Courses.Student>, Ref<Item>> freeing = waits.Pieces.ToLookup(
        piece => piece.Student,
        piece => piece.Item
    );
    private readonly ILookup<Ref<Section>, NothingToDo> nothing = waits.Nothing.ToLookup(one => one.Section);

    /// <summary>By item; what opens something for most students first.</summary>
    public IReadOnlyList<FreeingWork> Freeing(FollowingSection section) =>
        [
            .. pieces[section.Section.Ref]
                .Where(piece => nameOf(piece.Student) is not null)
                .GroupBy(piece => piece.Item)
                .OrderByDescending(item => item.Count())
                .Select(item => new FreeingWork(
                    plan.IdOf(item.Key),
                    item.Count(),
                    Words(item.Key, [.. item]),
                    item.Count() == 1 ? PlanIds.IdOf(item.First().Student) : null
                )),
        ];

    /// <summary>By reason, the largest group first.</summary>
    public IReadOnlyList<NothingOpen> Nothing(FollowingSection section) =>
        [
            .. nothing[section.Section.Ref]
                .Where(one => nameOf(one.Student) is not null)
                .GroupBy(one => (one.Because, one.Item, By: string.Join(' ', ToGiveBackOr(one))))
                .OrderByDescending(group => group.Count())
                .Select(group => Of(section, [.. group.OrderBy(one => nameOf(one.Student), StringComparer.OrdinalIgnoreCase)])),
        ];

    private IEnumerable<Ref<Item>> ToGiveBackOr(NothingToDo one) => one.Because == Stalled.GivingBack ? freeing[one.Student] : one.By;

    private string Words(Ref<Item> item, IReadOnlyList<OpeningPiece> some)
    {
        var opens = Codes(some[0].Opens);
        return some.Count == 1 ? $"giving back {Code(item)} to {nameOf(some[0].Student)} opens {opens}"
            : some.All(piece => piece.Opens.SequenceEqual(some[0].Opens))
                ? $"giving back {Code(item)} to {some.Count} students opens {opens} for them"
            : $"giving back {Code(item)} to {some.Count} students opens something for each of them";
    }

    // Of a group in order of name.
    private NothingOpen Of(FollowingSection section, IReadOnlyList<NothingToDo> group)
    {
        var (first, item) = (group[0], plan.IdOf(group[0].Item));
        var row = plan.Row(first.Item);
        return new(
            [.. group.Select(one => new NamedStudent(PlanIds.IdOf(one.Student), nameOf(one.Student)!))],
            item,
            Why(section, first),
            first.Because switch
            {
                Stalled.GivingBack => new("read it", "work", section.Id, plan.IdOf(freeing[first.Student].First()), null, Student()),
                Stalled.Closed when group.Count == 1 => new("give more time", "one-student", section.Id, null, null, Student()),
                Stalled.Held => new("stop keeping it back", "outline", null, null, null, $"item-{row.Id}"),
                Stalled.Unscheduled => new("set when it opens", "dates", section.Id, item, "opens", null),
                Stalled.Locked => new("see who waits for what", "conditions", null, null, null, first.Item.Name),
                _ => null,
            }
        );

        string Student() => $"student-{PlanIds.IdOf(first.Student)}";
    }

    private string Why(FollowingSection section, NothingToDo one) =>
        one.Because switch
        {
            Stalled.GivingBack => $"{Codes([.. freeing[one.Student]])} is still to be given back",
            Stalled.Closed => $"{Code(one.Item)} needs {Codes(one.By)}, which closed before it was done",
            Stalled.Held => $"{Code(one.Item)} is kept back",
            Stalled.Unscheduled => $"{Code(one.Item)} would open at a moment that never comes",
            Stalled.Upcoming => Opening(section, one.Item) is { } opens
                ? $"{Code(one.Item)} opens on {opens}"
                : $"{Code(one.Item)} opens later",
            _ => one.By.IsEmpty ? $"the condition on {Code(one.Item)} is not met" : $"{Code(one.Item)} waits for {Codes(one.By)}",
        };

    // For a student with a date of their own the section's may be past.
    private string? Opening(FollowingSection section, Ref<Item> item) =>
        plan.Schedule.Section(section.Section.Ref).Item(item)?.Dates?.Opens.At is { } at ? MomentWords.InWords(at, plan.Term.Zone) : null;

    private string Code(Ref<Item> item) => plan.Schedule.CodeOf[item];

    private string Codes(IReadOnlyList<Ref<Item>> items) => Counting.Joined([.. items.Select(Code)], "and");
}
