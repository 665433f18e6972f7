using Polycline.Core.Courses;
using Polycline.Core.Marking;

namespace Polycline.Core.Wording;

/// <summary>Scores and totals in words.</summary>
public static class ScoreWords
{
    /// <summary>Why an item does not enter a total.</summary>
    /// <param name="own">Whether it is said to the student.</param>
    public static string Of(LeftOut why, bool own = false) =>
        why switch
        {
            LeftOut.Excused => "excused",
            LeftOut.NotNeeded => "not needed in this section",
            LeftOut.NotAssigned => own ? "not for you" : "not for this student",
            LeftOut.BeforeJoining => own ? "due before you joined" : "due before they joined",
            LeftOut.NoScore => "has no score",
            LeftOut.NotCounted => "does not count",
            LeftOut.Scale => "on a scale without percentages",
            LeftOut.NoWeight => "has no weight",
            LeftOut.Waiting => "waiting to be read",
            LeftOut.Missing => "not handed in",
            LeftOut.NotDue => "not due yet",
            _ => "the lowest of its unit, left out",
        };

    public static string Of(Purpose purpose) =>
        purpose switch
        {
            Purpose.ForMarks => "for marks",
            Purpose.Practice => "practice",
            _ => "to read",
        };

    /// <summary>How a total is added up.</summary>
    public static string How(WeightsBy by, MissingCounts missing) =>
        (
            by switch
            {
                WeightsBy.Unit => "The percentages of the units, by their weights.",
                WeightsBy.Purpose => "The percentages of what is for marks, for practice and to read, by their weights.",
                _ => "All points reached, out of all there were to reach.",
            }
        ) + (missing == MissingCounts.AsZero ? " What is due and not handed in counts as 0." : " What is not handed in is left out.");

    /// <summary>A share: <c>81.5 %</c>.</summary>
    public static string Percent(Fraction share) => $"{share.PercentShown()} %";

    /// <summary>What stands: <c>8 of 10</c>, or a level.</summary>
    public static string Of(StandingScore score) => score.Level ?? (score.Points is { } points ? PointsOf(points, score.OutOf) : "");

    /// <summary>Points: <c>8 of 10</c>.</summary>
    public static string PointsOf(Fraction points, Fraction outOf) => $"{points.PointsShown()} of {outOf.PointsShown()}";
}
