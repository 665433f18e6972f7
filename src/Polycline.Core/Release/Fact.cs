using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Core.Release;

/// <summary>
/// What happened. Of facts at the same moment the one later in the list is the later. Source: the computation, chapter 5.
/// </summary>
/// <param name="Score">Percent; of <see cref="FactEvent.Scored"/> only.</param>
/// <param name="Attempt">From 1; of <see cref="FactEvent.Scored"/> only.</param>
/// <param name="Option">Of <see cref="FactEvent.Picked"/> only; null withdraws all earlier picks.</param>
/// <param name="Again">Given back to try again; of <see cref="FactEvent.Returned"/> only.</param>
public sealed record Fact(
    Ref<Student> Student,
    Ref<Item> Item,
    FactEvent Event,
    Instant At,
    decimal? Score = null,
    int Attempt = 1,
    string? Option = null,
    bool Again = false
);

public enum FactEvent
{
    Opened,

    /// <summary>Something written, nothing handed in.</summary>
    Begun,
    Ticked,
    Unticked,
    Submitted,
    TakenBack,
    Returned,
    Scored,
    Picked,
}

/// <summary>That a student moved from one section to another on a date.</summary>
/// <param name="On">The first date in the new section.</param>
public sealed record MoveMark(Ref<Section> From, Ref<Section> To, LocalDate On);

/// <summary>
/// What one student has been given for every item in every section. The reason is private and no part of a plan.
/// Source: the computation, chapter 11.
/// </summary>
/// <param name="DueDays">How many days later everything is due for them, from 0; null: not said.</param>
/// <param name="QuizTime">How much more time a quiz gives them, in percent from 0; null: not said. No date depends on it.</param>
public sealed record Arrangement(Ref<Student> Student, int? DueDays, int? QuizTime)
{
    /// <summary>This laid over <paramref name="earlier"/>: of a field given twice the later stands.</summary>
    public Arrangement Over(Arrangement? earlier) =>
        earlier is null ? this : this with { DueDays = DueDays ?? earlier.DueDays, QuizTime = QuizTime ?? earlier.QuizTime };
}

/// <summary>What is different for one student. A field left out inherits. Source: the computation, chapter 4, <i>Layers</i>.</summary>
public sealed record ForOneStudent
{
    public required Ref<Student> Student { get; init; }

    public required Ref<Item> Item { get; init; }

    public Given<Anchor> Opens { get; init; }

    public Given<Anchor> Due { get; init; }

    public Given<Anchor> Closes { get; init; }

    public bool? Excused { get; init; }

    /// <summary>Beats <c>for</c> only.</summary>
    public bool? Include { get; init; }

    public bool? Exclude { get; init; }

    /// <summary>Meets the gates of unit, lesson and item.</summary>
    public bool? Unlocked { get; init; }

    /// <summary>The move to another section by which it was given; null: none.</summary>
    public MoveMark? Move { get; init; }

    /// <summary>This laid over <paramref name="earlier"/>: of a field given twice the later stands.</summary>
    public ForOneStudent Over(ForOneStudent? earlier) =>
        earlier is null
            ? this
            : this with
            {
                Opens = Opens.Or(earlier.Opens),
                Due = Due.Or(earlier.Due),
                Closes = Closes.Or(earlier.Closes),
                Excused = Excused ?? earlier.Excused,
                Include = Include ?? earlier.Include,
                Exclude = Exclude ?? earlier.Exclude,
                Unlocked = Unlocked ?? earlier.Unlocked,
            };
}
