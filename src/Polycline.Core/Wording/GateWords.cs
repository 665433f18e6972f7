using System.Collections.Immutable;
using System.Globalization;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Core.Wording;

/// <summary>Conditions as running sentences. Source: the computation, chapter 5; the words of the product.</summary>
/// <param name="nameOf">How an item is called: its code, or code and title.</param>
/// <param name="titleOf">The title of a lesson or unit.</param>
/// <param name="optionOf">What an option of a choice is called; null: as conditions name it.</param>
public sealed class GateWords(
    Func<Ref<Item>, string> nameOf,
    Func<string, string> titleOf,
    LevelNames levels,
    Func<Ref<Item>, string, string>? optionOf = null
)
{
    private readonly AnchorWords anchors = new(titleOf, levels);

    /// <summary>
    /// The whole, for the team: <c>Opens when feedback on 5.02 is given back and the score in 3.06 is at least 70 %. Students are told.</c>
    /// </summary>
    public string Sentence(Gate gate) =>
        $"Opens when {Of(gate.Root)}{(gate.IsLatched ? "" : ", as long as that holds")}. "
        + $"{(gate.IsHidden ? "Until then students see nothing of it." : "Students are told.")}";

    /// <summary>What must be so, for the team.</summary>
    public string Of(GateNode node) =>
        node switch
        {
            GateNode.AllOf { Nodes.IsEmpty: true } => "always",
            GateNode.AnyOf { Nodes.IsEmpty: true } => "never",
            GateNode.AllOf all => Together(all.Nodes, "and"),
            GateNode.AnyOf any => Together(any.Nodes, "or"),
            GateNode.AtLeast some =>
                $"at least {some.Least.ToString(CultureInfo.InvariantCulture)} of these: {Together(some.Nodes, "and")}",
            GateNode.Not not => $"it is not the case that {Of(not.Node)}",
            GateNode.Scored { Min: { } min, Below: { } below } scored =>
                $"the score in {nameOf(scored.Item)} is from {Percent(min)} to below {Percent(below)}",
            GateNode.Scored { Below: { } below } scored => $"the score in {nameOf(scored.Item)} is below {Percent(below)}",
            GateNode.InGroup group => $"the student is in {group.Group}",
            _ => Told(node)!,
        };

    /// <summary>What a leaf asks of an item, without the item, such as <c>given back</c> or <c>at least 70 %</c>.</summary>
    public string Asked(GateNode leaf) =>
        leaf switch
        {
            GateNode.Done { Deed: Deed.Opened } => "opened",
            GateNode.Done { Deed: Deed.Ticked } => "ticked off",
            GateNode.Done { Deed: Deed.Submitted } => "handed in",
            GateNode.Done => "given back",
            GateNode.Scored { Min: { } min, Below: { } below } => $"{Percent(min)} to below {Percent(below)}",
            GateNode.Scored { Below: { } below } => $"below {Percent(below)}",
            GateNode.Scored { Min: var min } => $"at least {Percent(min ?? 0)}",
            GateNode.Picked picked => $"“{optionOf?.Invoke(picked.Choice, picked.Option) ?? picked.Option}”",
            _ => Of(leaf),
        };

    /// <summary>
    /// What a leaf asks, for a student; null where they are not told: of a group, a score <i>below</i>, or a <c>not</c>.
    /// </summary>
    public string? Told(GateNode leaf) =>
        leaf switch
        {
            GateNode.Done { Deed: Deed.Opened } done => $"{nameOf(done.Item)} is opened",
            GateNode.Done { Deed: Deed.Ticked } done => $"{nameOf(done.Item)} is ticked off",
            GateNode.Done { Deed: Deed.Submitted } done => $"{nameOf(done.Item)} is handed in",
            GateNode.Done done => $"feedback on {nameOf(done.Item)} is given back",
            GateNode.Scored { Below: null, Min: { } min } scored => $"the score in {nameOf(scored.Item)} is at least {Percent(min)}",
            GateNode.Picked picked =>
                $"“{optionOf?.Invoke(picked.Choice, picked.Option) ?? picked.Option}” is picked in {nameOf(picked.Choice)}",
            GateNode.HasTaught taught => $"“{titleOf(taught.Lesson.Name)}” has been taught",
            GateNode.From from => $"its moment has come, {anchors.Of(from.Anchor)}",
            _ => null,
        };

    /// <summary>
    /// What is missing, for a student: one entry for each thing that must still be so, of gates that are not met, unit's first.
    /// </summary>
    public ImmutableArray<string> Missing(IEnumerable<GateTrace> unmet) =>
        [.. unmet.SelectMany(trace => trace.Node is GateNode.AllOf ? trace.Below : [trace]).Select(Told).OfType<string>().Distinct()];

    // What must still be so; null: it is so, does not apply, or is not told.
    private string? Told(GateTrace trace)
    {
        if (trace.Outcome != Outcome.NotMet || trace.Node is GateNode.Not)
            return null;
        if (trace.Node.IsLeaf)
            return trace.Below.IsEmpty ? Told(trace.Node) : Told(trace.Below[0]);
        var told = trace.Below.Select(Told).OfType<string>().Distinct().ToList();
        return (trace.Node, told.Count) switch
        {
            (_, 0) => null,
            (_, 1) => told[0],
            (GateNode.AtLeast some, _) when some.Least > 1 =>
                $"{(some.Least - trace.Below.Count(below => below.Outcome == Outcome.Met)).ToString(CultureInfo.InvariantCulture)} "
                    + $"more of these: {Joined(told, "and")}",
            (GateNode.AllOf, _) => $"({Joined(told, "and")})",
            _ => Joined(told, "or"),
        };
    }

    private string Together(ImmutableArray<GateNode> nodes, string word) =>
        Joined([.. nodes.Select(node => node.IsLeaf || node is GateNode.Not ? Of(node) : $"({Of(node)})")], word);

    private static string Percent(decimal score) => $"{score.ToString("0.##", CultureInfo.InvariantCulture)} %";
}
