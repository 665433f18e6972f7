namespace Polycline.Core.Courses;

/// <summary>What can come of an item at all, whoever works on it: what a condition may ask for.</summary>
public static class Outcomes
{
    /// <summary>Whether <paramref name="item"/> can ever produce what a leaf asks for; true for leaves that name no item.</summary>
    public static bool CanCome(this Item item, GateNode leaf) =>
        leaf switch
        {
            GateNode.Done { Deed: Deed.Submitted } => item.Kind
                is ItemKind.Task
                    or ItemKind.Quiz
                    or ItemKind.Discussion
                    or ItemKind.Handout,
            GateNode.Done { Deed: Deed.Returned } => item.Kind is ItemKind.Task or ItemKind.Discussion or ItemKind.Handout,
            GateNode.Scored => item.Kind == ItemKind.Quiz
                || item.Marked is not null
                || (item.Kind is ItemKind.Task or ItemKind.Discussion && item.Purpose == Purpose.ForMarks),
            GateNode.Picked => item.Kind == ItemKind.Choice,
            _ => true,
        };
}
