using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Release;

namespace Polycline.Core.Wording;

/// <summary>What would open an item, in words its student may read. Source: the computation, chapter 5, <i>Explanation</i>.</summary>
public sealed class SightWords(Sights sights)
{
    /// <summary>How a student is told of something they may not see.</summary>
    public const string NotShown = "something not shown yet";

    /// <summary>Of a locked item, and of one to come that has a condition beside its moment; of others nothing.</summary>
    /// <param name="at">The moment of the sight.</param>
    public ImmutableArray<string> Missing(Sight sight, Instant at)
    {
        if (sight.Why is not { } decision)
            return [];
        var plan = sights.Plan;
        var words = new GateWords(
            other => sights.Shows(other, at) ? $"{plan.CodeOf[other]} {plan.Item(other).Title}" : NotShown,
            lesson => plan.Section(decision.Section!.Value).Lesson(new(lesson))?.Title ?? NotShown,
            plan.Edition.Levels,
            (choice, option) => sights.Shows(choice, at) ? plan.Item(choice).TitleOf(option) : NotShown
        );
        return words.Missing(decision.Gates.Where(gate => !gate.Met).Select(gate => gate.Trace));
    }
}
