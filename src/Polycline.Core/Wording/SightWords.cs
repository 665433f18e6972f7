using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Release;

namespace Polycline.Core.Wording;

/// <summary>How the student stands with something that must be done before an item opens.</summary>
/// <param name="Item">What it is; they may see that it is there.</param>
/// <param name="Title">With its code.</param>
/// <param name="Words">Such as <c>you handed it in on Tue 6 Oct, 18:20, and your teacher has it</c>.</param>
public sealed record OwnStep(Ref<Item> Item, string Title, string Words);

/// <summary>What would open an item, in words its student may read. Source: the computation, chapter 5, <i>Explanation</i>.</summary>
public sealed class SightWords(Sights sights)
{
    /// <summary>How a student is told of something they may not see.</summary>
    public const string NotShown = "something not shown yet";

    /// <summary>Of a locked item, and of one to come that has a condition beside its moment; of others nothing.</summary>
    /// <param name="at">The moment of the sight.</param>
    public ImmutableArray<string> Missing(Sight sight, Instant at)
    {
        return sight.Why is { } decision
            ? WordsOf(decision, at).Missing(decision.Gates.Where(gate => !gate.Met).Select(gate => gate.Trace))
            : [];
    }

    /// <summary>
    /// Of the same: how the student stands with each item that is still asked for, and whose turn it is. Of what they are not
    /// told, or may not see, nothing.
    /// </summary>
    /// <param name="at">The moment of the sight.</param>
    public ImmutableArray<OwnStep> Steps(Sight sight, Instant at)
    {
        if (sight.Why is not { } decision)
            return [];
        var words = WordsOf(decision, at);
        return
        [
            .. decision
                .Gates.Where(gate => !gate.Met)
                .SelectMany(gate => GateEvaluation.Wanted(gate.Trace))
                .Where(leaf => words.Told(leaf) is not null)
                .Select(leaf => (Leaf: leaf, Sight: leaf.ItemOf is { } item ? sights.Of(item, at) : null))
                .Where(asked => asked.Sight is not null)
                .DistinctBy(asked => asked.Sight!.Item)
                .Select(asked => new OwnStep(
                    asked.Sight!.Item,
                    $"{asked.Sight.Code} {asked.Sight.Title}",
                    Standing(asked.Leaf, asked.Sight, at)
                )),
        ];
    }

    private string Standing(GateNode asked, Sight sight, Instant at) =>
        (sight.Progress, sight.State) switch
        {
            (Progress.WithTeacher, _) when sights.HandedInAt(sight.Item, at) is { } handedIn =>
                $"you handed it in on {When(handedIn)}, and your teacher has it",
            (Progress.TryAgain, _) => "it came back to you to try again",
            (_, ReleaseState.Open or ReleaseState.Overdue) => asked switch
            {
                GateNode.Scored when sight.Progress is not (Progress.None or Progress.Begun) => "your score is not high enough yet",
                _ when sight.Due is { } due => $"it is open to you, due {When(due)}",
                _ => "it is open to you",
            },
            (_, ReleaseState.Upcoming) => $"it opens on {When(sight.Opens!.Value)}",
            (_, ReleaseState.Locked) => "it is not open to you yet either",
            (_, ReleaseState.Closed) => "it has closed; ask your teacher",
            _ => "ask your teacher",
        };

    private string When(Instant moment) => MomentWords.InWords(moment, sights.Plan.Term.Term.Zone)!;

    private GateWords WordsOf(Decision decision, Instant at)
    {
        var plan = sights.Plan;
        return new(
            other => sights.Shows(other, at) ? $"{plan.CodeOf[other]} {plan.Item(other).Title}" : NotShown,
            lesson => plan.Section(decision.Section!.Value).Lesson(new(lesson))?.Title ?? NotShown,
            plan.Edition.Levels,
            (choice, option) => sights.Shows(choice, at) ? plan.Item(choice).TitleOf(option) : NotShown
        );
    }
}
