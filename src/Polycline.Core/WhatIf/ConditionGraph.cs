using System.Collections.Immutable;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Sections;

namespace Polycline.Core.WhatIf;

/// <summary>A unit, lesson or item that has a gate, or that a gate asks about.</summary>
/// <param name="Gate">Null: it has none, and is only asked about.</param>
/// <param name="Only">The section that added it; null: it is the edition's.</param>
public sealed record ConditionNode(Level Level, string Name, Gate? Gate, Ref<Section>? Only);

/// <summary>That a gate asks something of an item.</summary>
/// <param name="From">The item asked about.</param>
/// <param name="To">What has the gate.</param>
/// <param name="Asks">What is asked of it, in the order written.</param>
public sealed record ConditionLink(Ref<Item> From, string To, ImmutableArray<GateNode> Asks);

/// <summary>Who waits for what, over a whole course. Source: the computation, chapter 5.</summary>
/// <param name="Nodes">In reading order, each section's own after the edition's.</param>
/// <param name="Links">By what has the gate, then in the order in which it names items; two of the same ends are one.</param>
public sealed record ConditionGraph(ImmutableArray<ConditionNode> Nodes, ImmutableArray<ConditionLink> Links)
{
    public static ConditionGraph Of(PlanSchedule plan)
    {
        var all = plan
            .Edition.Units.SelectMany(InUnit)
            .Concat(
                plan.Sections.SelectMany(section =>
                    section
                        .Section.Adjustments.OfType<Adjustment.AddItem>()
                        .Select(add => new ConditionNode(Level.Item, add.Item.Ref.Name, add.Item.Gate, section.Section.Ref))
                )
            )
            .ToList();
        var links = all.Where(node => node.Gate is not null)
            .SelectMany(node =>
                node.Gate!.Root.Leaves()
                    .Where(leaf => leaf.ItemOf is not null)
                    .GroupBy(leaf => leaf.ItemOf!.Value)
                    .Select(asked => new ConditionLink(asked.Key, node.Name, [.. asked]))
            )
            .ToImmutableArray();
        var named = links.Select(link => link.From.Name).ToHashSet();
        return new([.. all.Where(node => node.Gate is not null || named.Contains(node.Name))], links);
    }

    private static IEnumerable<ConditionNode> InUnit(Unit unit) =>
        unit
            .Lessons.SelectMany(lesson =>
                lesson.Items.Select(OfItem).Prepend(new ConditionNode(Level.Lesson, lesson.Ref.Name, lesson.Gate, null))
            )
            .Prepend(new ConditionNode(Level.Unit, unit.Ref.Name, unit.Gate, null))
            .Concat(unit.Items.Select(OfItem));

    private static ConditionNode OfItem(Item item) => new(Level.Item, item.Ref.Name, item.Gate, null);
}
