using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Enrolling;
using Polycline.Core.Release;
using Polycline.Core.Sections;

namespace Polycline.Core.PlanFiles;

/// <summary>What a plan file can ask beyond how an item stands. Source: the plan file, <i>Further questions</i>.</summary>
public abstract record FurtherQuestion
{
    private FurtherQuestion() { }

    /// <summary>What a student who joined late is asked to catch up.</summary>
    public sealed record OfCatchUp(Ref<Student> Student, Instant At, int PerClass, ImmutableArray<Ref<Item>> Leave) : FurtherQuestion;

    /// <summary>What a move to another section comes to.</summary>
    /// <param name="At">When it is judged; null: the last second before it.</param>
    public sealed record OfMove(Ref<Student> Student, MoveMark Move, Instant? At, ImmutableDictionary<Ref<Item>, MoveChoice> Choices)
        : FurtherQuestion;

    /// <summary>Why a student can or cannot see an item.</summary>
    public sealed record OfWhy(Question Asked) : FurtherQuestion;

    /// <summary>Who waits for feedback, and who has nothing to go on with.</summary>
    /// <param name="Section">Null: in all sections.</param>
    public sealed record OfWaiting(Instant At, Ref<Section>? Section) : FurtherQuestion;

    /// <summary>What it comes to that a section follows the course.</summary>
    public sealed record OfJoin(Ref<Section> Section, LocalDate From, OtherTerm? Term, ImmutableArray<OwnThing> Holds) : FurtherQuestion;
}
