using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Release;

namespace Polycline.Core.WhatIf;

/// <summary>Who would pass at which threshold of a score. Source: the computation, chapter 10, <i>Threshold</i>.</summary>
/// <param name="Scored">Everyone with a score: the one that counts, the highest first; of equal ones in the order given.</param>
/// <param name="Unscored">Everyone without: they pass at no threshold.</param>
public sealed record Thresholds(ImmutableArray<(Ref<Student> Student, decimal Score)> Scored, ImmutableArray<Ref<Student>> Unscored)
{
    /// <param name="latest">Whether the attempt with the highest number counts, and not the best.</param>
    /// <param name="latched">Whether who passed once has passed for good: then the highest that ever counted counts.</param>
    public static Thresholds Of(IEnumerable<StudentRecord> students, Ref<Item> item, bool latest, bool latched, Instant at)
    {
        var counted = students.Select(student => (student.Student, Score: ScoreOf(student.Facts, item, latest, latched, at))).ToList();
        return new(
            [
                .. counted
                    .Where(pair => pair.Score is not null)
                    .Select(pair => (pair.Student, pair.Score!.Value))
                    .OrderByDescending(pair => pair.Value),
            ],
            [.. counted.Where(pair => pair.Score is null).Select(pair => pair.Student)]
        );
    }

    /// <summary>Who passes at a threshold, the highest score first.</summary>
    public IEnumerable<Ref<Student>> Passing(decimal threshold) =>
        Scored.TakeWhile(pair => pair.Score >= threshold).Select(pair => pair.Student);

    /// <summary>Who changes sides where a threshold moves: they pass then and did not, or did and do not then.</summary>
    public (ImmutableArray<Ref<Student>> Gain, ImmutableArray<Ref<Student>> Lose) Moved(decimal from, decimal to)
    {
        var between = Scored
            .Where(pair => Math.Min(from, to) <= pair.Score && pair.Score < Math.Max(from, to))
            .Select(pair => pair.Student)
            .ToImmutableArray();
        return to < from ? (between, []) : ([], between);
    }

    /// <summary>Every threshold at which the number who pass changes, the highest first, with that number.</summary>
    public IEnumerable<(decimal Threshold, int Pass)> Steps()
    {
        for (var n = 0; n < Scored.Length; n++)
            if (n + 1 == Scored.Length || Scored[n + 1].Score < Scored[n].Score)
                yield return (Scored[n].Score, n + 1);
    }

    private static decimal? ScoreOf(FactBook facts, Ref<Item> item, bool latest, bool latched, Instant at) =>
        latched
            ? facts
                .On(item, at)
                .Where(fact => fact.Event == FactEvent.Scored)
                .Select(fact => fact.At)
                .Distinct()
                .Max(moment => facts.Score(item, latest, moment))
            : facts.Score(item, latest, at);
}
