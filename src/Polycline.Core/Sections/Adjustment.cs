using NodaTime;
using Polycline.Core.Courses;

namespace Polycline.Core.Sections;

/// <summary>A value that was given, which may be a cleared one (null), or none: then it is inherited.</summary>
public readonly record struct Given<T>(bool Is, T? Value)
{
    public static implicit operator Given<T>(T? value) => new(true, value);

    /// <summary>This where it was given, else <paramref name="earlier"/>.</summary>
    public Given<T> Or(Given<T> earlier) => Is ? this : earlier;

    public Given<T> ToGiven() => this;
}

/// <summary>
/// One thing a section does differently from the course. Where two give the same field of the same thing, the later
/// stands; order changes are carried out in turn. Source: the computation, chapters 3 and 4.
/// </summary>
public abstract record Adjustment
{
    private Adjustment() { }

    /// <summary>A unit that only this section has, directly after <see cref="After"/>; null: first.</summary>
    public sealed record AddUnit(Ref<Unit> Unit, string Title, Ref<Unit>? After) : Adjustment;

    /// <summary>
    /// A lesson that only this section has: directly after <see cref="After"/>, or first in the unit <see cref="In"/>.
    /// </summary>
    public sealed record AddLesson(Ref<Lesson> Lesson, string Title, int Length, Ref<Lesson>? After, Ref<Unit>? In) : Adjustment;

    /// <summary>An item that only this section has, on <see cref="Lesson"/>, or else directly on <see cref="Unit"/>.</summary>
    public sealed record AddItem(Item Item, Ref<Lesson>? Lesson, Ref<Unit>? Unit) : Adjustment;

    /// <param name="Order">The unit's place, from 1, among the section's units, skipped ones counted.</param>
    public sealed record OfUnit(Ref<Unit> Unit, int? Order = null, bool? Skip = null, bool? Hold = null, bool? Published = null)
        : Adjustment;

    /// <param name="After">In this section it stands directly after that one; it stays a lesson of its own unit.</param>
    /// <param name="Length">Its length here.</param>
    /// <param name="Pin">Fixed to a date.</param>
    public sealed record OfLesson(
        Ref<Lesson> Lesson,
        Ref<Lesson>? After = null,
        bool? Skip = null,
        int? Length = null,
        LocalDate? Pin = null,
        bool? Hold = null,
        bool? Published = null
    ) : Adjustment;

    public sealed record OfItem : Adjustment
    {
        public required Ref<Item> Item { get; init; }

        public Given<Anchor> Opens { get; init; }

        public Given<Anchor> Due { get; init; }

        public Given<Anchor> Closes { get; init; }

        public Given<ForWhom> For { get; init; }

        public bool? Published { get; init; }

        public bool? Hold { get; init; }

        public bool? Skip { get; init; }

        /// <summary>Hung on another lesson of this section.</summary>
        public Ref<Lesson>? Lesson { get; init; }
    }
}

/// <summary>What a lesson has really taken in a section; the last record of a lesson counts. Source: the computation, chapter 3.</summary>
/// <param name="Took">In what the edition measures.</param>
/// <param name="Left">Where it is not done: how much is left; null: what was planned less what it took.</param>
/// <param name="At">When it was recorded; without it no condition knows of it.</param>
public sealed record Taught(Ref<Lesson> Lesson, int Took, bool Done, int? Left, Instant? At);

/// <summary>An item did open in a section. What has opened stays open. Source: the computation, chapter 4.</summary>
/// <param name="Due">The due then announced.</param>
public sealed record OpeningRecord(Ref<Item> Item, Instant At, Instant? Due);
