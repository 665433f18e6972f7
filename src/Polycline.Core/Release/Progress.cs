using NodaTime;
using Polycline.Core.Courses;

namespace Polycline.Core.Release;

/// <summary>What a student has done with an item, as they and their teacher say it.</summary>
public enum Progress
{
    None,

    /// <summary>Something written, nothing handed in.</summary>
    Begun,

    /// <summary>Handed in, and nothing is to come back.</summary>
    HandedIn,

    /// <summary>Handed in, and feedback is to come.</summary>
    WithTeacher,

    /// <summary>Given back to go on.</summary>
    GivenBack,

    /// <summary>Given back to be done again.</summary>
    TryAgain,
    Done,
}

/// <summary>Facts → progress.</summary>
public static class ProgressOf
{
    /// <summary>How far a student has come with an item at a moment.</summary>
    public static Progress Of(Item item, FactBook facts, Instant at)
    {
        if (!facts.KnowsOf(item.Ref))
            return Progress.None;
        if (
            item.Asked is { Way: not AskedWay.Tick }
            && facts.On(item.Ref, at).LastOrDefault(fact => fact.Event is FactEvent.Submitted or FactEvent.TakenBack or FactEvent.Returned)
                is { } last
        )
            return last switch
            {
                { Event: FactEvent.Returned, Again: true } => Progress.TryAgain,
                { Event: FactEvent.Returned } => Progress.GivenBack,
                { Event: FactEvent.Submitted } => Progress.WithTeacher,
                _ => Progress.Begun,
            };
        if (facts.IsDone(item, at))
            return item.Kind == ItemKind.Discussion ? Progress.HandedIn : Progress.Done;
        // An item that is only given out, or talked about, is dealt with once it has been opened.
        if (item.Kind is ItemKind.Handout or ItemKind.Discussion && item.Due is null && facts.Holds(item.Ref, Deed.Opened, at))
            return Progress.Done;
        return facts.HasBegun(item.Ref, at) ? Progress.Begun : Progress.None;
    }

    /// <summary>Whether the student has nothing to do with it now.</summary>
    public static bool IsSettled(this Progress progress) =>
        progress is Progress.HandedIn or Progress.WithTeacher or Progress.GivenBack or Progress.Done;
}
