using System.Collections.Immutable;
using NodaTime;
using NodaTime.Text;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Core.Wording;

/// <summary>A node of a condition with what became of it, for showing as a tree.</summary>
/// <param name="Text">What it asks.</param>
/// <param name="Outcome">How it came out.</param>
/// <param name="Note">Why it does not count as written; null: it does.</param>
public sealed record ReasonNode(string Text, Outcome Outcome, string? Note, ImmutableArray<ReasonNode> Below);

/// <summary>Why an item stands as it does for a student, for the team.</summary>
/// <param name="Sentence">What decided.</param>
/// <param name="Dates">The moments, and which layer gives each.</param>
/// <param name="Conditions">Those of unit, lesson and item, as far as it came to them.</param>
public sealed record Reasons(string Sentence, ImmutableArray<string> Dates, ImmutableArray<ReasonNode> Conditions);

/// <summary>
/// Decisions as sentences: with every reason for the team, and as a student may read them. Source: the computation,
/// chapter 5, <i>Explanation</i>; the words of the product.
/// </summary>
/// <param name="plan">Where titles, codes and the zone come from.</param>
/// <param name="names">How units, lessons, items and sections are called.</param>
public sealed class DecisionWords(PlanSchedule plan, PlanNames names)
{
    private static readonly LocalDatePattern Day = LocalDatePattern.CreateWithInvariantCulture("ddd d MMM uuuu");

    /// <summary>For the team.</summary>
    /// <param name="student">How the student is called.</param>
    public Reasons ForTeam(Decision decision, Ref<Item> item, Instant at, string student)
    {
        var gates = new GateWords(other => names.Of(other.Name), names.Of, plan.Edition.Levels);
        return new(
            decision.State == ReleaseState.Withdrawn
                ? $"{student} has begun it, so it stays readable. {Deciding(decision, item, at, student, gates)}"
                : Deciding(decision, item, at, student, gates),
            decision.Dates is { } dates ? DatesOf(dates) : [],
            [.. decision.Gates.Select(gate => NodeOf(gate, gates))]
        );
    }

    /// <summary>For the student; null: they are told nothing.</summary>
    /// <param name="missing">What would open it, in words a student may read; of a locked one.</param>
    public string? ForStudent(ReleaseState state, Sees sees, ItemDates? dates, IReadOnlyList<string> missing) =>
        sees == Sees.Nothing
            ? null
            : state switch
            {
                ReleaseState.Upcoming => $"Opens on {When(dates!.Opens.At)}.",
                ReleaseState.Locked when missing.Count > 0 => $"Opens when {Joined(missing, "and")}.",
                ReleaseState.Locked => "Not open to you yet: ask your teacher.",
                ReleaseState.Excused => "You are excused from it.",
                ReleaseState.Closed => $"Closed on {When(dates!.Closes.At)}; you can still read it.",
                ReleaseState.Overdue => $"Was due on {When(dates!.Due.At)}; you can still do it.",
                ReleaseState.Withdrawn => "No longer open. You can still read it, and what you have begun.",
                _ => dates?.Due.At is { } due ? $"Due on {When(due)}." : "Open.",
            };

    private string Deciding(Decision decision, Ref<Item> item, Instant at, string student, GateWords gates) =>
        decision.Deciding switch
        {
            ReleaseState.NotEnrolled => $"No section lists {student} on {Day.Format(plan.Term.Local(at).Date)}.",
            ReleaseState.Unpublished =>
                $"{Owner(decision, item).Capital()} is not published{(decision.DecidedIn == Layer.Section ? " in this section" : "")}.",
            ReleaseState.Excused => $"{student} is excused from it.",
            ReleaseState.NotAssigned => NotAssigned(decision, item, student),
            ReleaseState.Held => $"{Owner(decision, item).Capital()} is kept back in this section.",
            ReleaseState.Unscheduled => $"It would open at a moment that never comes, {Given(decision.Dates!.Opens)}.",
            ReleaseState.Upcoming => $"It opens only on {When(decision.Dates!.Opens.At)}, {Given(decision.Dates.Opens)}.",
            ReleaseState.Locked => Locked(decision, item, gates),
            ReleaseState.Closed => $"It closed on {When(decision.Dates!.Closes.At)}, {Given(decision.Dates.Closes)}.",
            ReleaseState.Overdue =>
                $"It was due on {When(decision.Dates!.Due.At)}, {Given(decision.Dates.Due)}, and {student} has not done it.",
            _ => decision.Dates!.Opens.At is { } opened
                ? $"Open since {When(opened)}, {Given(decision.Dates.Opens)}."
                : "Open: it has no opening date.",
        };

    private string NotAssigned(Decision decision, Ref<Item> item, string student)
    {
        if (plan.Section(decision.Section!.Value).Item(item) is not { Item: var here })
            return "It belongs to another section only.";
        if (decision.DecidedIn == Layer.Student)
            return $"{student} is left out.";
        return here.Skipped
            ? $"{Owner(decision, item).Capital()} is dropped in this section."
            : $"It is for some students only, {LayerWords(here.ForBy)}, and {student} is not one of them.";
    }

    private string Locked(Decision decision, Ref<Item> item, GateWords gates)
    {
        var unmet = decision.Gates.Where(gate => !gate.Met).Select(gate => Owner(gate.Level, decision.Section!.Value, item)).ToList();
        // What is asked for, or must not be: of a condition that is never met, nothing at all.
        var missing = decision.Missing.Select(gates.Of).Distinct().ToList();
        return $"The condition of {Joined(unmet, "and")} is not "
            + $"met{(missing.Count == 0 ? "" : $"; in the way: {Joined(missing, "and")}")}.";
    }

    private string Owner(Decision decision, Ref<Item> item) => Owner(decision.DecidedBy ?? Level.Item, decision.Section!.Value, item);

    private string Owner(Level level, Ref<Sections.Section> section, Ref<Item> item) =>
        (level, plan.Section(section).Item(item)?.Item) switch
        {
            (Level.Unit, { } here) => $"the {plan.Edition.Levels.Unit.One} “{here.Unit.Title}”",
            (Level.Lesson, { Lesson: { } lesson }) => $"the {plan.Edition.Levels.Lesson.One} “{lesson.Title}”",
            _ => $"the {plan.Edition.Levels.Item.One}",
        };

    private ImmutableArray<string> DatesOf(ItemDates dates)
    {
        var said = ImmutableArray.CreateBuilder<string>();
        Say("Opens", dates.Opens);
        Say("Due", dates.Due);
        Say("Closes", dates.Closes);
        return said.ToImmutable();

        void Say(string what, ItemDate date)
        {
            if (date.IsGiven)
                said.Add($"{what} {(date.At is { } at ? $"on {When(at)}" : "at a moment that does not come")}, {Given(date)}.");
        }
    }

    private static ReasonNode NodeOf(GateReason gate, GateWords words)
    {
        var node = NodeOf(gate.Trace, words);
        return gate switch
        {
            { Unlocked: true } => node with { Outcome = Outcome.Met, Note = "opened for this student" },
            { Met: true, Trace.Outcome: Outcome.NotMet } => node with { Outcome = Outcome.Met, Note = "was met once, and stays met" },
            _ => node,
        };
    }

    private static ReasonNode NodeOf(GateTrace trace, GateWords words) =>
        new(
            trace.Node switch
            {
                GateNode.AllOf { Nodes.Length: > 0 } => "all of these",
                GateNode.AnyOf { Nodes.Length: > 0 } => "one of these",
                GateNode.AtLeast { Nodes.Length: > 0 } some => $"at least {some.Least} of these",
                GateNode.Not => "not this",
                var other => words.Of(other),
            },
            trace.Outcome,
            trace switch
            {
                { Outcome: Outcome.Waived } => "not needed here",
                { Replaced: not null } => "not for this student: its own condition stands here instead",
                _ => null,
            },
            [.. trace.Below.Select(below => NodeOf(below, words))]
        );

    private static string Given(ItemDate date) => LayerWords(date.Layer);

    private static string LayerWords(Layer layer) =>
        layer switch
        {
            Layer.Master => "as in the course",
            Layer.Section => "as changed in this section",
            Layer.Opened => "as it opened and was announced",
            Layer.Always => "with the extra time agreed for this student",
            _ => "for this student only",
        };

    private string When(Instant? moment) => MomentWords.InWords(moment, plan.Term.Term.Zone)!;
}
