using System.Globalization;
using Polycline.Core.Marking;

namespace Polycline.Core.Wording;

/// <summary>What is right, in words.</summary>
public static class KeyWords
{
    /// <param name="words">What the options, things and pairs of the key say, by their ids.</param>
    public static string Of(QuestionKey key, IReadOnlyDictionary<string, string> words) =>
        key switch
        {
            QuestionKey.One one => Counting.Joined([.. one.Right.Select(id => words[id])], "or"),
            QuestionKey.Many { Right.IsEmpty: true } => "none of them",
            QuestionKey.Many many => Counting.Joined([.. many.Right.Select(id => words[id])], "and"),
            QuestionKey.Truth truth => truth.Right ? "true" : "false",
            QuestionKey.Number number => Number(number),
            QuestionKey.Text text => Counting.Joined([.. text.Accepted], "or"),
            QuestionKey.Order order => string.Join(", ", order.Sequence.Select(id => words[id])),
            QuestionKey.Match match => string.Join(", ", match.Pairs.Select(pair => $"{words[pair.Left]}: {words[pair.Right]}")),
            QuestionKey.Gaps gaps => string.Join("; ", gaps.Parts.Select(part => Of(part, words))),
            _ => "",
        };

    /// <summary>Why a number has not full points.</summary>
    public static string Of(NumberNote note) =>
        note switch
        {
            NumberNote.NotANumber => "That is not a number.",
            NumberNote.UnitWrong => "The number is right, the unit is not.",
            NumberNote.UnitMissing => "The number is right, but its unit is missing.",
            _ => "The number is right, but has the wrong number of significant figures.",
        };

    private static string Number(QuestionKey.Number number) =>
        Decimal(number.Value)
        + (number.Tolerance.Sign > 0 ? $" ± {Decimal(number.Tolerance)}" : "")
        + (number.Units.IsEmpty ? "" : $" {number.Units[0]}");

    private static string Decimal(Fraction number) =>
        ((decimal)number.Above / (decimal)number.Below).ToString("0.#########", CultureInfo.InvariantCulture);
}
