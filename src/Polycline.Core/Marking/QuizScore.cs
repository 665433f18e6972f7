namespace Polycline.Core.Marking;

/// <summary>What several attempts at a quiz come to. Source: the computation, chapter 13.2.</summary>
public static class QuizScore
{
    /// <param name="outOf">What the quiz is worth.</param>
    /// <param name="finished">Those that are finished, lowest number first.</param>
    /// <returns>Null: none is final.</returns>
    public static StandingScore? Of(AttemptsUsed used, Fraction outOf, IReadOnlyList<(int Number, AttemptResult Result)> finished)
    {
        var final = finished.Where(one => one.Result.Share is not null).ToList();
        if (final.Count == 0)
            return null;
        switch (used)
        {
            case AttemptsUsed.Mean:
                var mean = Fraction.Sum(final.Select(one => one.Result.Share!.Value)) / final.Count;
                return new(mean, outOf, !finished.Any(one => one.Result.Waits));
            case AttemptsUsed.Latest:
                var latest = final[^1];
                return new(latest.Result.Share, outOf, !finished[^1].Result.Waits) { Attempt = latest.Number };
            default:
                // Of equal ones the earliest: the order stays.
                var best = final.OrderByDescending(one => one.Result.Share!.Value).First();
                return new(best.Result.Share, outOf, !finished.Any(one => one.Result.Waits)) { Attempt = best.Number };
        }
    }
}
