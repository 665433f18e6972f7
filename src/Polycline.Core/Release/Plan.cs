using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Core.Release;

/// <summary>
/// An edition, the sections that follow it in a term, and what is known of their students: the whole input of the computation.
/// </summary>
/// <param name="Groups">Who is in each group.</param>
/// <param name="Home">The home section of students who are in several.</param>
/// <param name="Facts">In the order recorded.</param>
public sealed record Plan(
    Term Term,
    Edition Edition,
    ImmutableArray<Section> Sections,
    ImmutableDictionary<string, ImmutableArray<Ref<Student>>> Groups,
    ImmutableDictionary<Ref<Student>, Ref<Section>> Home,
    ImmutableArray<ForOneStudent> Exceptions,
    ImmutableArray<Fact> Facts
)
{
    /// <summary>Of several of one student the later field stands.</summary>
    public ImmutableArray<Arrangement> Arrangements { get; init; } = [];
}

/// <summary>One thing asked: how an item stands for a student at a moment.</summary>
public sealed record Question(Ref<Student> Student, Ref<Item> Item, Instant At);
