using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Planning;

namespace Polycline.Core.Findings;

/// <summary>
/// Items that look as if they belong to one option of a choice, though they open whatever is picked. They stand beside the findings of
/// chapter 6, like <see cref="ConditionChecks"/>.
/// </summary>
internal static class ChoiceTies
{
    /// <summary><c>choice-untied</c>: the item, then the choice, with the option that it seems to be for.</summary>
    public static IEnumerable<PlanFinding> Of(PlanSchedule plan)
    {
        foreach (var unit in plan.Edition.Units)
        {
            var items = unit.InReadingOrder().ToList();
            foreach (var choice in items.Where(item => item.Kind == ItemKind.Choice))
            foreach (var item in items.Where(item => item.Ref != choice.Ref && !IsTied(unit, item, choice, [])))
                if ((Named(choice, item) ?? Around(unit, item, choice)) is { } option)
                    yield return new(FindingCode.ChoiceUntied, null, [item.Ref.Name, choice.Ref.Name], Options: [option]);
        }
    }

    // By its own condition, by that of its lesson or unit, or by waiting for something that is.
    private static bool IsTied(Unit unit, Item item, Item choice, HashSet<Ref<Item>> seen)
    {
        var lesson = unit.Lessons.FirstOrDefault(one => one.Items.Any(own => own.Ref == item.Ref));
        return seen.Add(item.Ref)
            && new[] { item.Gate, lesson?.Gate, unit.Gate }
                .OfType<Gate>()
                .SelectMany(gate => gate.Root.Leaves())
                .Any(leaf =>
                    leaf is GateNode.Picked picked
                        ? picked.Choice == choice.Ref
                        : leaf.ItemOf is { } waited
                            && unit.InReadingOrder().FirstOrDefault(one => one.Ref == waited) is { } other
                            && IsTied(unit, other, choice, seen)
                );
    }

    // Its title has one option's title in it, in whole words.
    private static string? Named(Item choice, Item item)
    {
        var named = choice.Options.Where(option => Has(item.Title, choice.TitleOf(option))).ToList();
        return named.Count == 1 ? named[0] : null;
    }

    private static bool Has(string title, string option)
    {
        var words = option.Trim();
        if (words.Length < 3)
            return false;
        for (var at = -1; (at = title.IndexOf(words, at + 1, StringComparison.OrdinalIgnoreCase)) >= 0; )
            if (!IsWord(at - 1) && !IsWord(at + words.Length))
                return true;
        return false;

        bool IsWord(int place) => place >= 0 && place < title.Length && char.IsLetterOrDigit(title[place]);
    }

    // It stands between two items of its lesson that open by the same option.
    private static string? Around(Unit unit, Item item, Item choice)
    {
        var beside = unit.Lessons.Select(lesson => lesson.Items).FirstOrDefault(items => items.Any(one => one.Ref == item.Ref));
        if (beside.IsDefaultOrEmpty)
            return null;
        var at = beside.IndexOf(item);
        return at > 0 && at < beside.Length - 1 && OptionOf(beside[at - 1]) is { } before && OptionOf(beside[at + 1]) == before
            ? before
            : null;

        string? OptionOf(Item one) =>
            one
                .Gate?.Root.Leaves()
                .OfType<GateNode.Picked>()
                .Where(leaf => leaf.Choice == choice.Ref)
                .Select(leaf => leaf.Option)
                .Distinct()
                .ToList()
                is [var only]
                ? only
                : null;
    }
}
