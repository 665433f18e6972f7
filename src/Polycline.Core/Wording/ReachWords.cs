using System.Collections.Immutable;
using System.Globalization;
using NodaTime;
using Polycline.Core.Changes;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Sections;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Core.Wording;

/// <summary>What a change reaches, in sentences for the team. Students are counted as people: who is in two sections counts once.</summary>
public sealed class ReachWords(
    PlanSchedule before,
    PlanSchedule after,
    ImmutableArray<SectionSize> sizes,
    ImmutableArray<SightChange> sights
)
{
    // So many are named; of more, how many.
    private const int MostNamed = 3;

    /// <summary>Who starts or stops following, with how many students.</summary>
    public static string Follow(ImmutableArray<SectionSize> sections, string one, string many) =>
        $"{Joined([.. sections.Select(size => size.Name)], "and")} "
        + $"{(sections.Length == 1 ? one : many)}, with {Students(SectionSize.Together(sections))}.";

    /// <summary>What opens, shows, shuts and disappears for students now.</summary>
    public IEnumerable<string> Sights()
    {
        foreach (
            var (which, one, many) in new (Func<SightChange, bool>, string, string)[]
            {
                (change => change is { Loses: true, After: Release.Sees.Nothing }, "disappears", "disappear"),
                (change => change is { Loses: true, After: Release.Sees.Title }, "shuts", "shut"),
                (
                    change => change is { Loses: true, After: Release.Sees.Read, HasBegun: false },
                    "can be read but no longer worked on",
                    "can be read but no longer worked on"
                ),
                (change => change.BecomesOverdue, "is overdue at once", "are overdue at once"),
                (change => change is { Gains: true, After: >= Release.Sees.Read, Before: < Release.Sees.Read }, "opens now", "open now"),
                (change => change is { Gains: true, After: Release.Sees.Title }, "is listed from now on", "are listed from now on"),
                (change => change is { Gains: true, Before: Release.Sees.Read }, "can be worked on again", "can be worked on again"),
            }
        )
            if (sights.Where(which).ToList() is { Count: > 0 } found)
                yield return $"{What(found, one, many)} {In(found.Select(change => change.Section))}, for {Students(People(found))}.";
        if (sights.Where(change => change is { Loses: true, HasBegun: true, After: Release.Sees.Read }).ToList() is { Count: > 0 } kept)
            yield return $"{Students(People(kept))} who {(People(kept) == 1 ? "has" : "have")} begun "
                + $"{It(kept)} can still read {(Items(kept) == 1 ? "it" : "them")}, with all they wrote.";
    }

    /// <summary>Who will not get what they have not seen yet, and who keeps what is no longer for some.</summary>
    public IEnumerable<string> Narrower(ImmutableArray<(Ref<Student> Student, Ref<Section> Section, Ref<Item> Item)> keep)
    {
        var narrower = sights.Where(change => change.WasTheirs).ToList();
        if (narrower.Count == 0)
            yield break;
        var it = It(narrower);
        if (narrower.Where(change => !change.Loses).ToList() is { Count: > 0 } unseen)
            yield return $"{Students(People(unseen))} who {(People(unseen) == 1 ? "has" : "have")} "
                + $"not seen {it} yet will not get {(Items(unseen) == 1 ? "it" : "them")}.";
        var kept = keep.Select(one => one.Student).Distinct().Count();
        yield return kept == 0 ? $"Nobody keeps {it}." : $"{Students(kept)} {(kept == 1 ? "keeps" : "keep")} {it}.";
    }

    /// <summary>What is published by the change and opens later, with the first moment.</summary>
    public IEnumerable<string> Later(Instant at)
    {
        var later = new List<(SectionSize Section, Ref<Item> Item, Instant At)>();
        foreach (var size in sizes.Where(size => before.Follows(size.Section) && after.Follows(size.Section)))
        foreach (var (item, dates) in after.Section(size.Section).Items)
            if (
                item is { Published: true, Held: false }
                && dates?.Opens.At is { } opens
                && opens > at
                && before.Section(size.Section).Item(item.Ref) is not { Item.Published: true }
            )
                later.Add((size, item.Ref, opens));
        if (later.Count == 0)
            yield break;
        var first = later.MinBy(one => one.At);
        var many = later.Select(one => one.Item).Distinct().Count() is > 1 and var count
            ? $"{after.Edition.Levels.Item.Counted(count)} open later"
            : "Opens later";
        yield return $"{many} {In(later.Select(one => one.Section.Section))}, first "
            + $"{MomentWords.InWords(first.At, after.Term.Term.Zone)} in {first.Section.Name}.";
    }

    /// <summary>The sections in which something that students see reads differently.</summary>
    public ImmutableArray<SectionSize> Reading() =>
        [.. sizes.Where(size => sights.Any(change => change.Alters && change.Section == size.Section))];

    /// <summary>What reads differently, what is kept back or dropped, and which dates move.</summary>
    /// <param name="reading">Where something reads differently.</param>
    public IEnumerable<string> Course(ImmutableArray<SectionSize> reading, IReadOnlyList<ReachRow> dates)
    {
        if (!reading.IsEmpty)
        {
            var own = dates.Any(row => row.Field is "added" or "removed" or "title") && reading.Length == 1;
            yield return $"Changes in {Names(reading)}{(own ? " only" : " at once")}, for {Students(SectionSize.Together(reading))}.";
        }
        foreach (
            var (field, isSo, verb) in new[]
            {
                ("kept back", "True", "Keeps {0} back"),
                ("kept back", "False", "No longer keeps {0} back"),
                ("dropped here", "True", "Drops {0}"),
                ("dropped here", "False", "No longer drops {0}"),
            }
        )
            if (dates.Where(row => row.Field == field && row.After == isSo).ToList() is { Count: > 0 } rows)
                yield return $"{string.Format(CultureInfo.InvariantCulture, verb, ItemsCounted(rows.Select(row => row.Target)))} "
                    + $"in {Names(Of(rows))}, for {Students(SectionSize.Together(Of(rows)))}.";
        if (dates.Where(Reach.IsDate).ToList() is { Count: > 0 } moving)
            yield return $"{Counted(moving.Count, "date moves", "dates move")} in "
                + $"{Names(Of(moving))}, for {Students(SectionSize.Together(Of(moving)))}.";
        if (dates.Where(row => row.Field == Reach.OffDay).ToList() is { Count: > 0 } off)
            yield return OffDays(off);
    }

    /// <summary>What fits and what does not. Of many sections only what does not fit is told in sentences; the rows have it all.</summary>
    public IEnumerable<string> Fits(IReadOnlyList<ReachRow> fits, bool isOne) =>
        fits.Where(row => row.Field != Reach.Classes || isOne).Select(row => Fit(row, after.Edition)).OfType<string>();

    /// <summary>Whose work is touched without being shut: dates of it move, or it reads differently.</summary>
    public IEnumerable<string> Work()
    {
        // What the levels are called is read everywhere and touches nobody's work.
        var touched =
            before.Edition.Levels != after.Edition.Levels
                ? []
                : sights.Where(change => change.HasBegun && !(change is { Loses: true, After: Release.Sees.Read })).ToList();
        if (touched.Count == 0)
            yield break;
        var (begun, handed) = (People(touched), People(touched.Where(change => change.HasHandedIn)));
        var them = Items(touched) == 1 ? "it" : "some of this";
        yield return handed == begun
            ? $"{Students(begun)} {(begun == 1 ? "has" : "have")} handed in work for {them}."
            : $"{Students(begun)} {(begun == 1 ? "has" : "have")} begun "
                + $"{them}{(handed == 0 ? "" : $", and {handed} of them {(handed == 1 ? "has" : "have")} handed in")}.";
    }

    /// <summary>Dues that come to stand on days without classes.</summary>
    internal static string OffDays(IReadOnlyList<ReachRow> rows) =>
        $"{Counted(rows.Count, "due stands", "dues stand")} on a day without classes: "
        + $"{Joined([.. rows.Take(MostNamed).Select(DueIn), .. More(rows.Count - MostNamed)], "and")}.";

    private static string[] More(int count) => count > 0 ? [$"{count} more"] : [];

    private static string DueIn(ReachRow row) => $"{row.Name} in {row.Section} ({row.After})";

    /// <summary>Null: there is nothing to tell of it.</summary>
    internal static string? Fit(ReachRow row, Edition edition)
    {
        var (was, will) = (int.Parse(row.Before!, CultureInfo.InvariantCulture), int.Parse(row.After!, CultureInfo.InvariantCulture));
        return row.Field switch
        {
            Reach.Classes => $"{row.Section} meets {Counted(will, "time", "times")} instead of {was}.",
            Reach.Lacking when will == 0 => $"{row.Section} fits now.",
            Reach.Lacking => $"{row.Section} {(was == 0 ? "no longer fits" : "does not fit")}, by "
                + $"{edition.Basis.Counted(will)}{(was == 0 ? "" : $" instead of {was}")}.",
            Reach.Outside when will > was =>
                $"{edition.Levels.Item.Counted(will - was)} {(will - was == 1 ? "falls" : "fall")} out of the term in {row.Section}.",
            Reach.Sleeping when will > was =>
                $"{Counted(will - was, "changed class", "changed classes")} of {row.Section} {(will - was == 1 ? "sleeps" : "sleep")}.",
            _ => null,
        };
    }

    // One item is named where the change is about several.
    private string What(List<SightChange> changes, string one, string many) =>
        Items(changes) is > 1 and var count ? $"{after.Edition.Levels.Item.Counted(count)} {many}"
        : Items(sights) > 1 ? $"{It(changes)} {one}"
        : one.Capital();

    private string It(List<SightChange> changes) =>
        Items(changes) > 1 ? "them"
        : Items(sights) > 1 && changes[0].Item is var item && (after.Knows(item) ? after : before) is var plan
            ? $"{plan.CodeOf[item]} {plan.Item(item).Title}"
        : "it";

    private string ItemsCounted(IEnumerable<string> items) => after.Edition.Levels.Item.Counted(items.Distinct().Count());

    private static int Items(IEnumerable<SightChange> changes) => changes.Select(change => change.Item).Distinct().Count();

    private static int People(IEnumerable<SightChange> changes) => changes.Select(change => change.Student).Distinct().Count();

    private static string Students(int count) => Counted(count, "student", "students");

    private string In(IEnumerable<Ref<Section>> sections)
    {
        var named = sections.ToHashSet();
        return $"in {Names([.. sizes.Where(size => named.Contains(size.Section))])}";
    }

    private ImmutableArray<SectionSize> Of(IEnumerable<ReachRow> rows)
    {
        var named = rows.Select(row => row.Section).ToHashSet();
        return [.. sizes.Where(size => named.Contains(size.Name))];
    }

    private string Names(ImmutableArray<SectionSize> sections) =>
        sections.Length == sizes.Length && sizes.Length > 1
            ? sizes.Length == 2
                ? "both sections"
                : $"all {sizes.Length} sections"
            : Joined([.. sections.Select(size => size.Name)], "and");
}
