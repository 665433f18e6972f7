using System.Collections.Immutable;

namespace Polycline.Core.Calendars;

/// <summary>What gives class days their labels. Source: the computation, chapter 1.</summary>
public abstract record Rotation
{
    private Rotation() { }

    /// <summary>The label is the weekday: <c>mon</c>.</summary>
    public sealed record Weekly : Rotation;

    /// <summary>Weeks, Monday to Sunday, take letters in turn; the label is letter and weekday: <c>A-mon</c>.</summary>
    /// <param name="Labels">The letters, at least one.</param>
    /// <param name="TeachingOnly">
    /// True: only weeks that hold a class day take a letter. False: every week does, from the one that holds the first date.
    /// </param>
    public sealed record ByWeeks(ImmutableArray<string> Labels, bool TeachingOnly) : Rotation;

    /// <summary>Class days take the labels in turn, from the first one on the first class day.</summary>
    /// <param name="Labels">The labels, at least one.</param>
    /// <param name="ClosuresCount">True: a closed date that is a teaching weekday consumes a label too.</param>
    public sealed record ByDays(ImmutableArray<string> Labels, bool ClosuresCount) : Rotation;
}
