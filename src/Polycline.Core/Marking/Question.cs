using System.Collections.Immutable;

namespace Polycline.Core.Marking;

/// <summary>What a faulty question counts as.</summary>
public enum Voided
{
    No,

    /// <summary>Everyone it was put to has full points.</summary>
    Full,

    /// <summary>As if it were not there.</summary>
    Out,
}

/// <summary>One question of a quiz, with its key. Source: the computation, chapter 13.1.</summary>
/// <param name="Id">Its own among the questions of its quiz.</param>
/// <param name="Points">Above 0.</param>
public sealed record QuizQuestion(string Id, QuestionKey Key, Fraction Points)
{
    /// <summary>Its points count for what is reached, not for what there is to reach.</summary>
    public bool IsExtra { get; init; }

    public Voided Voided { get; init; }

    /// <summary>Whether its points are among those to be reached.</summary>
    public bool CountsInFull => !IsExtra && Voided != Voided.Out;
}

/// <summary>What a question asks for and what is right. Source: the computation, chapter 13.1.</summary>
public abstract record QuestionKey
{
    /// <summary>One of several.</summary>
    public sealed record OneKey(ImmutableArray<string> Options, ImmutableArray<string> Right) : QuestionKey;

    /// <summary>Several of several.</summary>
    /// <param name="Right">May be none.</param>
    public sealed record ManyKey(ImmutableArray<string> Options, ImmutableArray<string> Right, bool AllOrNothing) : QuestionKey;

    /// <summary>True or false.</summary>
    public sealed record TruthKey(bool Right) : QuestionKey;

    public sealed record NumberKey(Fraction Value) : QuestionKey
    {
        /// <summary>How far from the value is still right.</summary>
        public Fraction Tolerance { get; init; }

        /// <summary>Units that may follow; none: nothing may.</summary>
        public ImmutableArray<string> Units { get; init; } = [];

        public bool NeedsUnit { get; init; } = true;

        /// <summary>How many significant figures are asked for; null: any number.</summary>
        public int? Figures { get; init; }

        /// <summary>What a right number gives whose unit or figures are not as asked: 0 to 1.</summary>
        public Fraction Slip { get; init; }
    }

    public sealed record TextKey(ImmutableArray<string> Accepted) : QuestionKey
    {
        /// <summary>Forms that are wrong, however near they come.</summary>
        public ImmutableArray<string> NotAccepted { get; init; } = [];

        public bool KeepsCase { get; init; }

        /// <summary>Whether white space is dropped altogether; else each run of it is one blank.</summary>
        public bool DropsSpace { get; init; }

        public bool FoldsAccents { get; init; }

        /// <summary>How many slips of the pen are overlooked in a word that is long enough: 0 to 3.</summary>
        public int Edits { get; init; }
    }

    /// <summary>Putting things in order.</summary>
    /// <param name="Sequence">In the right order, at least two.</param>
    public sealed record OrderKey(ImmutableArray<string> Sequence, bool AllOrNothing) : QuestionKey;

    /// <summary>Matching left with right.</summary>
    /// <param name="Pairs">In the order of the file; two may have one right.</param>
    /// <param name="Spare">Rights that belong to no left.</param>
    public sealed record MatchKey(ImmutableArray<MatchPair> Pairs, ImmutableArray<string> Spare, bool AllOrNothing) : QuestionKey;

    /// <summary>Gaps in a text.</summary>
    /// <param name="Parts">Each <see cref="OneKey"/>, <see cref="NumberKey"/> or <see cref="TextKey"/>.</param>
    public sealed record GapsKey(ImmutableArray<QuestionKey> Parts, bool AllOrNothing) : QuestionKey;

    /// <summary>A text that a person reads.</summary>
    public sealed record FreeKey : QuestionKey;

    /// <summary>A file that a person looks at; its answer is the file's name.</summary>
    public sealed record FileKey : QuestionKey;

    /// <summary>Whether only a person can mark it.</summary>
    public bool IsReadByPerson => this is FreeKey or FileKey;
}

/// <summary>What belongs together.</summary>
public sealed record MatchPair(string Left, string Right);

/// <summary>What a student answered to one question.</summary>
public abstract record Answer
{
    public sealed record PickedOption(string Option) : Answer;

    /// <summary>Options picked, or things put in order.</summary>
    public sealed record ListedOptions(ImmutableArray<string> Options) : Answer;

    public sealed record Said(bool IsTrue) : Answer;

    /// <summary>A text, a number as typed, the name of a file.</summary>
    public sealed record Typed(string Text) : Answer;

    public sealed record Matched(ImmutableArray<MatchPair> Pairs) : Answer;

    /// <param name="Parts">One for each gap; null: left blank.</param>
    public sealed record Filled(ImmutableArray<Answer?> Parts) : Answer;

    /// <summary>Whether nothing was answered.</summary>
    public static bool IsBlank(Answer? answer) => answer is null || answer is Typed { Text: var text } && string.IsNullOrWhiteSpace(text);
}
