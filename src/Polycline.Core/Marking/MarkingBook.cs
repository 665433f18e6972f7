using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Core.Marking;

/// <summary>Whether what was not handed in counts as nothing reached or is left out.</summary>
public enum MissingCounts
{
    LeftOut,
    AsZero,
}

/// <summary>What the parts of a total are weighed by.</summary>
public enum WeightsBy
{
    Nothing,
    Purpose,
    Unit,
}

/// <param name="Of">The weight of each purpose (<c>marks</c>, <c>practice</c>, <c>read</c>) or unit.</param>
public sealed record Weights(WeightsBy By, ImmutableDictionary<string, Fraction> Of)
{
    public static readonly Weights None = new(WeightsBy.Nothing, ImmutableDictionary<string, Fraction>.Empty);
}

/// <summary>More time: so many per cent of the limit, and so many minutes.</summary>
public sealed record ExtraTime(Fraction Percent, int Minutes)
{
    public static readonly ExtraTime None = new(0, 0);
}

/// <summary>All that marks are worked out from. Lists with times are in their order. Source: the computation, chapter 13.</summary>
public sealed record MarkingBook
{
    public ImmutableArray<MarkedUnit> Units { get; init; } = [];
    public ImmutableArray<ShortScale> Scales { get; init; } = [];
    public ImmutableArray<MarkedStudent> Students { get; init; } = [];
    public ImmutableArray<MarkedSection> Sections { get; init; } = [];
    public ImmutableArray<DifferentFor> Exceptions { get; init; } = [];
    public ImmutableArray<QuizAttempt> Attempts { get; init; } = [];
    public ImmutableArray<HandIn> Work { get; init; } = [];
    public ImmutableArray<Mark> Marks { get; init; } = [];
    public ImmutableArray<KeyCorrection> Corrections { get; init; } = [];
    public Weights Weights { get; init; } = Weights.None;
    public MissingCounts Missing { get; init; }
    public DecimalMark DecimalMark { get; init; }
}

public sealed record MarkedStudent(Ref<Student> Student, string Name, ExtraTime Extra);

/// <param name="Dates">Of the items that have any here.</param>
public sealed record MarkedSection(
    Ref<Section> Section,
    ImmutableHashSet<Ref<Item>> Skips,
    ImmutableDictionary<Ref<Item>, MarkingDates> Dates,
    ImmutableArray<SectionStudent> Students
);

public sealed record MarkingDates(Instant? Due, Instant? Closes);

/// <param name="From">When the local day begins on which the section first lists them; null: from the beginning.</param>
public sealed record SectionStudent(Ref<Student> Student, Instant? From);

/// <summary>What is different for one student with one item.</summary>
public sealed record DifferentFor(Ref<Student> Student, Ref<Item> Item)
{
    public bool? Excused { get; init; }
    public bool? Include { get; init; }
    public bool? Exclude { get; init; }

    /// <summary>Given as null: there is no due.</summary>
    public Given<Instant?> Due { get; init; }

    public Given<Instant?> Closes { get; init; }
    public ExtraTime? Extra { get; init; }
}

/// <summary>One try at a quiz.</summary>
public sealed record QuizAttempt
{
    public required Ref<Student> Student { get; init; }
    public required Ref<Item> Item { get; init; }

    /// <summary>From 1; a later attempt has a higher one.</summary>
    public required int Number { get; init; }
    public required Instant Began { get; init; }

    /// <summary>When it was handed in; null: it was not.</summary>
    public Instant? Ended { get; init; }

    /// <summary>The questions that were put; null: all.</summary>
    public ImmutableArray<string>? Asked { get; init; }

    /// <summary>What it is marked by where it was put before its quiz was written anew; null: by the key of the quiz.</summary>
    public ImmutableArray<QuizQuestion>? Keys { get; init; }

    /// <summary>When a teacher let answers count that came after the stop.</summary>
    public Instant? LateAllowed { get; init; }

    /// <summary>In the order of time.</summary>
    public ImmutableArray<GivenAnswer> Answers { get; init; } = [];
}

/// <param name="Answer">Null: cleared again.</param>
public sealed record GivenAnswer(string Question, Instant At, Answer? Answer);

/// <summary>Work handed in.</summary>
public sealed record HandIn(Ref<Student> Student, Ref<Item> Item, Instant At);

/// <summary>What somebody gave for a piece, or for one question of an attempt.</summary>
public sealed record Mark(Ref<Student> Student, Ref<Item> Item, Instant At)
{
    /// <summary>Of a quiz: the attempt's number.</summary>
    public int? Attempt { get; init; }

    /// <summary>Of a quiz.</summary>
    public string? Question { get; init; }

    /// <summary>Whether it is to be tried again: then it gives no score.</summary>
    public bool IsAgain { get; init; }

    public Fraction? Points { get; init; }

    /// <summary>Of full points.</summary>
    public Fraction? Share { get; init; }
    public string? Level { get; init; }

    /// <summary>The scale it was given on; null: the item's.</summary>
    public ShortScale? Scale { get; init; }
    public RubricMark? Rubric { get; init; }
}

/// <param name="Rubric">The version it was made with.</param>
public sealed record RubricMark(PointRubric Rubric, ImmutableArray<CriterionMark> Levels);

/// <summary>Questions of a quiz given anew, from a moment on.</summary>
public sealed record KeyCorrection(Ref<Item> Item, Instant At, ImmutableArray<QuizQuestion> Questions);
