using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Release;

namespace Polycline.Core.Explaining;

/// <summary>Something that opens an item for a student. Source: the computation, chapter 11, <i>why</i>.</summary>
public abstract record Remedy
{
    private Remedy() { }

    /// <summary>It opens by itself.</summary>
    public sealed record Wait(Instant Until) : Remedy;

    /// <summary>Pieces of the student's that wait with their teacher, given back to go on.</summary>
    public sealed record GiveBack(ImmutableArray<Ref<Item>> Items) : Remedy;

    /// <summary>It is opened for this student alone.</summary>
    public sealed record OpenForStudent(StudentOpening Opening) : Remedy;

    /// <summary>The section opens it at once.</summary>
    public sealed record MoveOpening(Ref<Item> Item) : Remedy;

    /// <summary>The section no longer holds these.</summary>
    public sealed record PutBackHold(ImmutableArray<string> Places) : Remedy;

    /// <summary>The section publishes these.</summary>
    public sealed record Publish(ImmutableArray<string> Places) : Remedy;

    /// <summary>The conditions on these are dropped for the section.</summary>
    public sealed record DropCondition(ImmutableArray<string> Places) : Remedy;
}

/// <summary>What an exception for one student has to give, so that nothing of their own stands in the way.</summary>
/// <param name="Unlocked">Conditions no longer hold them up.</param>
/// <param name="Opens">It opens at once.</param>
/// <param name="Closes">It does not close.</param>
/// <param name="Include">It is for them too.</param>
/// <param name="NotExcused">They are no longer excused.</param>
/// <param name="NotExcluded">It is no longer kept from them.</param>
public sealed record StudentOpening(bool Unlocked, bool Opens, bool Closes, bool Include, bool NotExcused, bool NotExcluded)
{
    /// <summary>Whether there is anything to give.</summary>
    public bool IsSomething => Unlocked || Opens || Closes || Include || NotExcused || NotExcluded;

    /// <summary>The exception itself.</summary>
    public ForOneStudent For(Ref<Student> student, Ref<Item> item) =>
        new()
        {
            Student = student,
            Item = item,
            Opens = Opens ? new(true, null) : default,
            Closes = Closes ? new(true, null) : default,
            Unlocked = Unlocked ? true : null,
            Include = Include ? true : null,
            Excused = NotExcused ? false : null,
            Exclude = NotExcluded ? false : null,
        };
}
