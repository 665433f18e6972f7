using System.Globalization;
using Polycline.Core.Courses;
using Polycline.Core.Marking;

namespace Polycline.Core.Wording;

/// <summary>How an item is marked, and marks, in words.</summary>
public static class MarkWords
{
    /// <summary>How it is marked: <c>out of 20 points</c>.</summary>
    public static string Of(MarkedAs? marked) =>
        marked?.Form switch
        {
            null => "in words only",
            MarkForm.Points => marked.OutOf == 1 ? "out of 1 point" : $"out of {Number(marked.OutOf)} points",
            MarkForm.Percent => "in per cent",
            _ => $"as {Counting.Joined([.. marked.Levels.Select(level => level.Name)], "or")}",
        };

    /// <summary>All of it, so that two that differ are told differently.</summary>
    public static string InFull(MarkedAs marked)
    {
        var levels = Counting.Joined(
            [.. marked.Levels.Select(level => level.Percent is { } percent ? $"{level.Name} ({Number(percent)} %)" : level.Name)],
            "or"
        );
        var how = marked.Form == MarkForm.Scale ? $"as {levels}" : Of(marked);
        return marked.Form == MarkForm.Points || marked.OutOf == 100 ? how : $"{how}, counting as {Number(marked.OutOf)}";
    }

    /// <summary>A mark: <c>12 of 20</c>, <c>70 %</c>, <c>nearly there</c>.</summary>
    public static string Of(GivenMark mark) =>
        mark.Rubric is { } given
            ? Of(mark.As, given)
            : mark.As.Form switch
            {
                MarkForm.Points => $"{Number(mark.Value!.Value)} of {Number(mark.As.OutOf)}",
                MarkForm.Percent => $"{Number(mark.Value!.Value)} %",
                _ => mark.Level!,
            };

    // What the rubric comes to stands beside it where it is another number.
    private static string Of(MarkedAs marked, GivenByRubric given)
    {
        var sum = $"{Number(given.Reached)} of {Number(given.Most)}";
        if (given.Most == 0)
            return "marked by the rubric, without points";
        var share = (Fraction)given.Reached / given.Most;
        return marked.Form == MarkForm.Percent ? $"{share.PercentShown()} % ({sum} by the rubric)"
            : given.Most == marked.OutOf ? sum
            : $"{(share * marked.OutOf).PointsShown()} of {Number(marked.OutOf)} ({sum} by the rubric)";
    }

    /// <summary>A number without zeros at its end.</summary>
    public static string Number(decimal number) => number.ToString("0.##", CultureInfo.InvariantCulture);
}

/// <summary>What is right, in words.</summary>
public static class KeyWords
{
    /// <param name="words">What the options, things and pairs of the key say, by their ids.</param>
    public static string Of(QuestionKey key, IReadOnlyDictionary<string, string> words) =>
        key switch
        {
            QuestionKey.OneKey one => Counting.Joined([.. one.Right.Select(id => words[id])], "or"),
            QuestionKey.ManyKey { Right.IsEmpty: true } => "none of them",
            QuestionKey.ManyKey many => Counting.Joined([.. many.Right.Select(id => words[id])], "and"),
            QuestionKey.TruthKey truth => truth.Right ? "true" : "false",
            QuestionKey.NumberKey number => Number(number),
            QuestionKey.TextKey text => Counting.Joined([.. text.Accepted], "or"),
            QuestionKey.OrderKey order => string.Join(", ", order.Sequence.Select(id => words[id])),
            QuestionKey.MatchKey match => string.Join(", ", match.Pairs.Select(pair => $"{words[pair.Left]}: {words[pair.Right]}")),
            QuestionKey.GapsKey gaps => string.Join("; ", gaps.Parts.Select(part => Of(part, words))),
            _ => "",
        };

    /// <summary>Why a number has not full points.</summary>
    public static string Of(NumberNote note) =>
        note switch
        {
            NumberNote.NotANumber => "That isn’t a number.",
            NumberNote.UnitWrong => "The number is right, but the unit isn’t.",
            NumberNote.UnitMissing => "The number is right, but its unit is missing.",
            _ => "The value is right, but not the number of significant figures.",
        };

    private static string Number(QuestionKey.NumberKey number) =>
        Decimal(number.Value)
        + (number.Tolerance.Sign > 0 ? $" ± {Decimal(number.Tolerance)}" : "")
        + (number.Units.IsEmpty ? "" : $" {number.Units[0]}");

    private static string Decimal(Fraction number) =>
        ((decimal)number.Above / (decimal)number.Below).ToString("0.#########", CultureInfo.InvariantCulture);
}

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
            LeftOut.NotCounted => "doesn’t count",
            LeftOut.Scale => "on a scale without percentages",
            LeftOut.NoWeight => "has no weight",
            LeftOut.Waiting => "waiting to be read",
            LeftOut.Missing => "not handed in",
            LeftOut.NotDue => "not due yet",
            _ => "left out as one of the lowest",
        };

    public static string Of(Purpose purpose) =>
        purpose switch
        {
            Purpose.ForMarks => "for marks",
            Purpose.Practice => "practice",
            _ => "to read",
        };

    /// <summary>How a total is added up.</summary>
    public static string How(WeightsBy by, MissingCounts missing, LevelNames levels) =>
        (
            by switch
            {
                WeightsBy.Unit => $"The percentages of the {levels.Unit.Many}, weighted.",
                WeightsBy.Purpose => "The percentages for marks, practice and reading, weighted.",
                _ => "Points scored out of the points possible.",
            }
        ) + (missing == MissingCounts.AsZero ? " What is due and not handed in counts as 0." : " What is not handed in is left out.");

    /// <summary>A share: <c>81.5 %</c>.</summary>
    public static string Percent(Fraction share) => $"{share.PercentShown()} %";

    /// <summary>What stands: <c>8 of 10</c>, or a level.</summary>
    public static string Of(StandingScore score) => score.Level ?? (score.Points is { } points ? PointsOf(points, score.OutOf) : "");

    /// <summary>Points: <c>8 of 10</c>.</summary>
    public static string PointsOf(Fraction points, Fraction outOf) => $"{points.PointsShown()} of {outOf.PointsShown()}";
}
