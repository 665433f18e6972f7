using System.Collections.Immutable;

namespace Polycline.Core.Marking.Papers;

/// <summary>When a student sees their score, or how their answers were marked.</summary>
public enum AnswersShown
{
    AtOnce,
    AfterDue,
    Never,
}

/// <summary>One question as it is put to students.</summary>
/// <param name="Text">What is asked, as canonical HTML; the gaps of one stand in it as <c>[1]</c>, <c>[2]</c> …</param>
/// <param name="Words">What the options, things and pairs of its key say, by their ids.</param>
public sealed record PaperQuestion(QuizQuestion Question, string Text, ImmutableDictionary<string, string> Words)
{
    /// <summary>Null: none.</summary>
    public string? Hint { get; init; }

    /// <summary>What is said once it has been marked; null: nothing.</summary>
    public string? After { get; init; }

    /// <summary>What is said once it has been marked to whoever chose an option, by the option's id; most have nothing.</summary>
    public ImmutableDictionary<string, string> Replies { get; init; } = ImmutableDictionary<string, string>.Empty;

    /// <summary>What is said about the options that were chosen, in the order of the options.</summary>
    public IReadOnlyList<string> RepliesTo(Answer? answer) =>
        [
            .. (
                answer switch
                {
                    Answer.PickedOption picked => [picked.Option],
                    Answer.ListedOptions listed => OptionsIn(Question.Key).Where(listed.Options.Contains),
                    _ => Enumerable.Empty<string>(),
                }
            )
                .Select(option => Replies.GetValueOrDefault(option))
                .OfType<string>(),
        ];

    /// <summary>What there is to choose from, where one or several are chosen; else empty.</summary>
    public static ImmutableArray<string> OptionsIn(QuestionKey key) =>
        key switch
        {
            QuestionKey.OneKey one => one.Options,
            QuestionKey.ManyKey many => many.Options,
            _ => [],
        };

    /// <summary>From which pool it is drawn, from 1; 0: it is put to everybody.</summary>
    public int Pool { get; init; }

    /// <summary>Whether a new page begins with it.</summary>
    public bool BeginsPage { get; init; }

    /// <summary>Whether its options stand as they are written even where options are mixed.</summary>
    public bool KeepsOrder { get; init; }
}

/// <summary>A quiz as it is put to students, with its keys: what is kept of an item. Source: the computation, chapter 13.</summary>
public sealed record QuizPaper
{
    public const int MostQuestions = 100;

    /// <summary>At least one.</summary>
    public required ImmutableArray<PaperQuestion> Questions { get; init; }

    /// <summary>What the quiz is worth; null: what its questions add up to.</summary>
    public Fraction? OutOf { get; init; }

    public AttemptsUsed Using { get; init; }

    /// <summary>Minutes; null: as long as one likes.</summary>
    public int? Limit { get; init; }

    /// <summary>Seconds after the bell in which answers still count.</summary>
    public int Grace { get; init; } = 30;

    /// <summary>How many attempts a student has; null: any number.</summary>
    public int? Attempts { get; init; } = 1;

    /// <summary>When it is shown how answers were marked.</summary>
    public AnswersShown Shown { get; init; }

    /// <summary>When the score is shown, where that is sooner; null: with the answers.</summary>
    public AnswersShown? ScoreShown { get; init; }

    /// <summary>When the score is shown: at the latest with the answers, which tell it.</summary>
    public AnswersShown ScoreIsShown => ScoreShown is { } sooner && sooner < Shown ? sooner : Shown;

    /// <summary>
    /// Of each pool, how many of its questions are drawn for an attempt. Those of a pool stand together and give the same points.
    /// </summary>
    public ImmutableArray<int> Draws { get; init; } = [];

    /// <summary>Whether the questions of a page stand in an order that is the attempt's own.</summary>
    public bool MixesQuestions { get; init; }

    /// <summary>Whether what there is to choose from stands in an order that is the attempt's own.</summary>
    public bool MixesOptions { get; init; }

    /// <summary>How many questions are put to an attempt.</summary>
    public int Asks
    {
        get
        {
            var sound = Questions.Where(question => question.Question.Voided != Voided.Out).ToLookup(question => question.Pool);
            return sound[0].Count() + Draws.Select((draw, at) => Math.Min(draw, sound[at + 1].Count())).Sum();
        }
    }

    /// <summary>What there is to reach: what it is worth, else what the questions of an attempt add up to.</summary>
    public Fraction Worth =>
        OutOf
        ?? Fraction.Sum(
            Questions
                .Where(question => question.Pool == 0 && question.Question.CountsInFull)
                .Select(question => question.Question.Points)
                .Concat(Draws.Select((draw, at) => Questions.First(question => question.Pool == at + 1).Question.Points * draw))
        );

    /// <summary>The same paper, with what is asked written otherwise.</summary>
    public QuizPaper Reworded(Func<string, string> by) =>
        this with
        {
            Questions = [.. Questions.Select(question => question with { Text = by(question.Text) })],
        };

    /// <summary>
    /// This paper with the ids that an earlier one has for the same: questions that ask the same, stand where one of their kind stood, or
    /// have the same answers to choose from; and options that say the same. So what was answered stays answered.
    /// </summary>
    public QuizPaper KeepingIds(QuizPaper earlier)
    {
        var free = earlier.Questions.ToList();
        var kept = new PaperQuestion?[Questions.Length];
        foreach (var alike in new Func<PaperQuestion, int, PaperQuestion?>[] { SameText, SamePlace, SameWords })
            for (var place = 0; place < Questions.Length; place++)
                if (kept[place] is null && alike(Questions[place], place) is { } known)
                {
                    kept[place] = known;
                    free.Remove(known);
                }
        // An id that was used is never used for another: answers are kept under it.
        var taken = earlier.Questions.Select(known => known.Question.Id).ToHashSet(StringComparer.Ordinal);
        var next = 0;
        return this with
        {
            Questions =
            [
                .. Questions.Select((question, place) => kept[place] is { } known ? question.As(known) : question.Named(NextId())),
            ],
        };

        PaperQuestion? SameText(PaperQuestion question, int place) =>
            free.FirstOrDefault(known => known.Text == question.Text && known.IsAnsweredLike(question));

        PaperQuestion? SamePlace(PaperQuestion question, int place) =>
            place < earlier.Questions.Length
            && earlier.Questions[place] is var known
            && free.Contains(known)
            && known.IsAnsweredLike(question)
                ? known
                : null;

        PaperQuestion? SameWords(PaperQuestion question, int place) =>
            question.Words.IsEmpty ? null : free.FirstOrDefault(known => known.IsAnsweredLike(question));

        string NextId()
        {
            while (!taken.Add($"k{++next}")) { }
            return $"k{next}";
        }
    }
}

/// <summary>What of a question has ids, and giving it others.</summary>
internal static class PaperIds
{
    /// <summary>Whether both take the same answers: their kind, and what their options, things and pairs say.</summary>
    public static bool IsAnsweredLike(this PaperQuestion one, PaperQuestion other) =>
        one.Question.Key.GetType() == other.Question.Key.GetType()
        && one.Words.Values.Order(StringComparer.Ordinal).SequenceEqual(other.Words.Values.Order(StringComparer.Ordinal))
        && (one.Question.Key, other.Question.Key) switch
        {
            (QuestionKey.GapsKey gaps, QuestionKey.GapsKey others) => gaps
                .Parts.Select(part => part.GetType())
                .SequenceEqual(others.Parts.Select(part => part.GetType())),
            (QuestionKey.MatchKey pairs, QuestionKey.MatchKey others) => Lefts(one, pairs).SetEquals(Lefts(other, others)),
            _ => true,
        };

    /// <summary>The question with the ids of one that takes the same answers.</summary>
    public static PaperQuestion As(this PaperQuestion question, PaperQuestion known)
    {
        var ids = question
            .Words.OrderBy(pair => pair.Value, StringComparer.Ordinal)
            .ThenBy(pair => pair.Key, StringComparer.Ordinal)
            .Zip(known.Words.OrderBy(pair => pair.Value, StringComparer.Ordinal).ThenBy(pair => pair.Key, StringComparer.Ordinal))
            .ToDictionary(pair => pair.First.Key, pair => pair.Second.Key, StringComparer.Ordinal);
        return question with
        {
            Question = question.Question with { Id = known.Question.Id, Key = Renamed(question.Question.Key, id => ids[id]) },
            Words = question.Words.ToImmutableDictionary(pair => ids[pair.Key], pair => pair.Value),
            Replies = question.Replies.ToImmutableDictionary(pair => ids[pair.Key], pair => pair.Value),
        };
    }

    public static PaperQuestion Named(this PaperQuestion question, string id) =>
        question with
        {
            Question = question.Question with { Id = id },
        };

    private static QuestionKey Renamed(QuestionKey key, Func<string, string> to) =>
        key switch
        {
            QuestionKey.OneKey one => one with { Options = [.. one.Options.Select(to)], Right = [.. one.Right.Select(to)] },
            QuestionKey.ManyKey many => many with { Options = [.. many.Options.Select(to)], Right = [.. many.Right.Select(to)] },
            QuestionKey.OrderKey order => order with { Sequence = [.. order.Sequence.Select(to)] },
            QuestionKey.MatchKey match => match with
            {
                Pairs = [.. match.Pairs.Select(pair => new MatchPair(to(pair.Left), to(pair.Right)))],
                Spare = [.. match.Spare.Select(to)],
            },
            QuestionKey.GapsKey gaps => gaps with { Parts = [.. gaps.Parts.Select(part => Renamed(part, to))] },
            _ => key,
        };

    private static HashSet<string> Lefts(PaperQuestion question, QuestionKey.MatchKey match) =>
        [.. match.Pairs.Select(pair => question.Words[pair.Left])];
}
