using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Planning;

namespace Polycline.Core.Findings;

/// <summary>What an item may lack that students are to work on.</summary>
public enum Lack
{
    /// <summary>It, its lesson or its unit is not published.</summary>
    Published,

    /// <summary>It has rules for a date, and no date comes of them.</summary>
    Place,

    /// <summary>It is for marks, and has no due date.</summary>
    Due,

    /// <summary>Neither a text nor a file.</summary>
    Content,

    /// <summary>Of a link: where it leads.</summary>
    Address,

    /// <summary>It is due, and there is nothing to hand in or tick off.</summary>
    Asks,

    /// <summary>It is for marks, and has no rubric.</summary>
    Rubric,

    /// <summary>Of a quiz.</summary>
    Questions,

    /// <summary>Of a choice: it has fewer than two.</summary>
    Options,
}

/// <summary>Whether what comes in a section is ready for its students.</summary>
public static class Readiness
{
    /// <summary>What the items lack that open or are due in a stretch of time, in reading order.</summary>
    /// <param name="hasFiles">Whether files are given with an item.</param>
    /// <param name="isWhole">The stretch is the whole term: what has no date at all is looked at too.</param>
    public static IEnumerable<(Ref<Item> Item, Lack Lack)> Of(
        SectionSchedule schedule,
        Func<Ref<Item>, bool> hasFiles,
        Interval within,
        bool isWhole
    ) =>
        from here in schedule.Items
        where !here.Item.Skipped && (isWhole || Comes(here, within))
        from lack in Of(here, hasFiles(here.Item.Ref))
        select (here.Item.Ref, lack);

    /// <summary>Whether an item opens or is due in a stretch of time, at the section's layer.</summary>
    public static bool Comes(ScheduledItem here, Interval within) =>
        here.Dates is { } dates
        && ((dates.Opens.At is { } opens && within.Contains(opens)) || (dates.Due.At is { } due && within.Contains(due)));

    private static IEnumerable<Lack> Of(ScheduledItem here, bool hasFiles)
    {
        var item = here.Item.Item;
        if (!here.Item.Published)
            yield return Lack.Published;
        if (
            here.Dates is { } dates
            && (dates.BeyondTerm || dates.Opens.IsUnresolved || dates.Due.IsUnresolved || dates.Closes.IsUnresolved)
        )
            yield return Lack.Place;
        if (item is { Purpose: Purpose.ForMarks } && here.Dates is not { Due.IsGiven: true })
            yield return Lack.Due;
        if (item.Body is null && !hasFiles && item.Kind is not (ItemKind.Link or ItemKind.Quiz or ItemKind.Choice))
            yield return Lack.Content;
        if (item is { Kind: ItemKind.Link, Address: null })
            yield return Lack.Address;
        if (
            here.Dates is { Due.IsGiven: true }
            && item is { Purpose: not Purpose.ToRead, Kind: ItemKind.Page or ItemKind.Link, Asked: null }
        )
            yield return Lack.Asks;
        if (item is { Purpose: Purpose.ForMarks, Kind: ItemKind.Task, Rubric: null })
            yield return Lack.Rubric;
        if (item is { Kind: ItemKind.Quiz, Quiz: null })
            yield return Lack.Questions;
        if (item.Kind == ItemKind.Choice && (item.Options.IsDefault || item.Options.Length < 2))
            yield return Lack.Options;
    }

    /// <summary>The days on which more is due than a number, with what is due then; at the section's layer.</summary>
    public static IEnumerable<(LocalDate Day, IReadOnlyList<Ref<Item>> Due)> Crowded(
        SectionSchedule schedule,
        Func<Instant, LocalDate> dayOf,
        Interval within,
        int most
    ) =>
        schedule
            .Items.Where(here => here.Item is { Skipped: false, Published: true } && here.Dates?.Due.At is { } due && within.Contains(due))
            .GroupBy(here => dayOf(here.Dates!.Due.At!.Value), here => here.Item.Ref)
            .Where(day => day.Count() > most)
            .OrderBy(day => day.Key)
            .Select(day => (day.Key, (IReadOnlyList<Ref<Item>>)[.. day]));
}
