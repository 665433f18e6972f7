using System.Collections.Immutable;
using Polycline.Core.Unicode;

namespace Polycline.Core.Marking;

/// <summary>Why a number was not taken as right although it may be. Source: the computation, chapter 13.1, <i>Number</i>.</summary>
public enum NumberNote
{
    NotANumber,
    UnitWrong,
    UnitMissing,
    Figures,
}

/// <summary>What an answer is worth.</summary>
/// <param name="Share">Of the question's points, 0 to 1; null: a person has to read it.</param>
/// <param name="Note">Of a number only.</param>
public readonly record struct MarkedAnswer(Fraction? Share, NumberNote? Note = null);

/// <summary>Marks answers by their key. Source: the computation, chapter 13.1.</summary>
public static class QuestionMarking
{
    private static readonly MarkedAnswer Nothing = new(Fraction.Zero);

    /// <param name="answer">Null: none.</param>
    public static MarkedAnswer Of(QuestionKey key, Answer? answer, DecimalMark mark) =>
        (key, answer) switch
        {
            _ when Answer.IsBlank(answer) => Nothing,
            (QuestionKey.OneKey one, Answer.PickedOption picked) => Whole(one.Right.Contains(picked.Option)),
            (QuestionKey.ManyKey many, Answer.ListedOptions listed) => new(Many(many, listed.Options)),
            (QuestionKey.TruthKey truth, Answer.Said said) => Whole(truth.Right == said.IsTrue),
            (QuestionKey.NumberKey number, Answer.Typed written) => Number(number, written.Text, mark),
            (QuestionKey.TextKey text, Answer.Typed written) => Whole(IsAccepted(text, written.Text)),
            (QuestionKey.OrderKey order, Answer.ListedOptions listed) => new(Order(order, listed.Options)),
            (QuestionKey.MatchKey match, Answer.Matched matched) => new(Match(match, matched.Pairs)),
            (QuestionKey.GapsKey gaps, Answer.Filled filled) => new(Gaps(gaps, filled.Parts, mark)),
            (QuestionKey.FreeKey or QuestionKey.FileKey, _) => new(null),
            _ => throw new ArgumentException("This question does not take such an answer.", nameof(answer)),
        };

    /// <summary>An answer as statistics name it: without what is of no account.</summary>
    /// <returns>Null: such answers are not told apart.</returns>
    public static string? Told(QuestionKey key, Answer answer) =>
        (key, answer) switch
        {
            (QuestionKey.OneKey, Answer.PickedOption picked) => picked.Option,
            (QuestionKey.ManyKey many, Answer.ListedOptions listed) => string.Join(' ', many.Options.Where(listed.Options.Contains)),
            (QuestionKey.TruthKey, Answer.Said said) => said.IsTrue ? "true" : "false",
            (QuestionKey.NumberKey, Answer.Typed written) => Spaces.Tidy(written.Text),
            (QuestionKey.TextKey text, Answer.Typed written) => NormalForms.TextOf(WrittenForm.Folded(written.Text, text)),
            (QuestionKey.OrderKey, Answer.ListedOptions listed) => string.Join(' ', listed.Options),
            _ => null,
        };

    private static MarkedAnswer Whole(bool isRight) => new(isRight ? Fraction.One : Fraction.Zero);

    private static Fraction Many(QuestionKey.ManyKey key, ImmutableArray<string> picked)
    {
        var right = picked.Count(key.Right.Contains);
        var wrong = picked.Length - right;
        var wrongOnes = key.Options.Length - key.Right.Length;
        if (key.AllOrNothing || key.Right.IsEmpty)
            return right == key.Right.Length && wrong == 0 ? Fraction.One : Fraction.Zero;
        var found = new Fraction(right, key.Right.Length);
        return wrongOnes == 0 ? found : Fraction.Max(0, found - new Fraction(wrong, wrongOnes));
    }

    private static MarkedAnswer Number(QuestionKey.NumberKey key, string text, DecimalMark mark)
    {
        if (TypedNumber.Read(text, mark) is not { } typed)
            return new(Fraction.Zero, NumberNote.NotANumber);
        if ((typed.Value - key.Value).Abs() > key.Tolerance)
            return Nothing;
        NumberNote? note = null;
        if (typed.Rest.Length > 0 && !key.Units.Any(unit => TypedNumber.WithPlainMinus(unit) == typed.Rest))
            note = NumberNote.UnitWrong;
        else if (typed.Rest.Length == 0 && key.Units.Length > 0 && key.NeedsUnit)
            note = NumberNote.UnitMissing;
        else if (key.Figures is { } figures && (figures < typed.FewestFigures || figures > typed.MostFigures))
            note = NumberNote.Figures;
        return note is null ? new(Fraction.One) : new(key.Slip, note);
    }

    private static bool IsAccepted(QuestionKey.TextKey key, string text)
    {
        var answer = WrittenForm.Folded(text, key);
        if (key.NotAccepted.Any(form => WrittenForm.Folded(form, key).SequenceEqual(answer)))
            return false;
        foreach (var accepted in key.Accepted)
        {
            var form = WrittenForm.Folded(accepted, key);
            if (WrittenForm.IsWithin(form, answer, Math.Min(key.Edits, form.Count / 4)))
                return true;
        }
        return false;
    }

    private static Fraction Order(QuestionKey.OrderKey key, ImmutableArray<string> given)
    {
        if (key.AllOrNothing)
            return given.SequenceEqual(key.Sequence) ? Fraction.One : Fraction.Zero;
        var places = key.Sequence.Select((id, place) => (id, place)).ToDictionary(pair => pair.id, pair => pair.place);
        return new(Math.Max(0, LongestRising(given.Select(id => places[id])) - 1), key.Sequence.Length - 1);
    }

    // The length of the longest part of it, not necessarily together, that rises.
    private static int LongestRising(IEnumerable<int> places)
    {
        var ends = new List<int>();
        foreach (var place in places)
        {
            var at = ends.BinarySearch(place);
            if (at < 0)
                at = ~at;
            if (at == ends.Count)
                ends.Add(place);
            else
                ends[at] = place;
        }
        return ends.Count;
    }

    private static Fraction Match(QuestionKey.MatchKey key, ImmutableArray<MatchPair> given)
    {
        var rights = key.Pairs.ToDictionary(pair => pair.Left, pair => pair.Right);
        var right = given.Count(pair => rights[pair.Left] == pair.Right);
        if (key.AllOrNothing)
            return right == key.Pairs.Length ? Fraction.One : Fraction.Zero;
        return new(right, key.Pairs.Length);
    }

    private static Fraction Gaps(QuestionKey.GapsKey key, ImmutableArray<Answer?> given, DecimalMark mark)
    {
        var shares = key.Parts.Zip(given, (part, answer) => Of(part, answer, mark).Share!.Value).ToList();
        if (key.AllOrNothing)
            return shares.All(share => share == Fraction.One) ? Fraction.One : Fraction.Zero;
        return Fraction.Sum(shares) / shares.Count;
    }
}
