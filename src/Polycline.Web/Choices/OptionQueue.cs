using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Data.Choices;
using Polycline.Data.Courses;
using Polycline.Data.Students;

namespace Polycline.Web.Choices;

/// <summary>The queues for the full options of a choice in one section.</summary>
internal sealed class OptionQueue(Item choice, IReadOnlyList<QueueRow> rows, Picks picks)
{
    /// <param name="picks">Of the same choice and section.</param>
    public static async Task<OptionQueue> Read(
        NpgsqlConnection connection,
        EditionPlan plan,
        Id<Section> section,
        Id<Item> item,
        Picks picks
    )
    {
        var choice = Picks.Of(plan, item);
        var rows = await QueueStore.Of(connection, item, section);
        // Whoever left the section waits no longer, nor does anybody for what is not offered any more.
        return new(choice, [.. rows.Where(row => choice.Options.Contains(row.Option) && picks.Students.Contains(row.Person))], picks);
    }

    /// <summary>The students in the queue for an option, longest wait first.</summary>
    public IReadOnlyList<Id<Person>> For(string option) =>
        [.. rows.Where(row => row.Option == option && row.CameUpAt is null).Select(row => row.Person)];

    /// <summary>The options whose queues a student is in.</summary>
    public IReadOnlyList<string> By(Id<Person> student) =>
        [.. choice.Options.Where(option => rows.Any(row => row.Person == student && row.Option == option && row.CameUpAt is null))];

    /// <summary>When a student got an option from its queue; null: they got it otherwise, or not at all.</summary>
    public Instant? CameUp(Id<Person> student, string option) =>
        rows.FirstOrDefault(row => row.Person == student && row.Option == option)?.CameUpAt;

    /// <summary>What a student would have to give up for one more option; null: nothing.</summary>
    public string? GivenUpFor(Id<Person> student) =>
        picks.Lasting(student, choice.Picks - 1) is var kept && picks.By(student).Count > kept.Count
            ? choice.TitleOf(picks.By(student).Except(kept).Single())
            : null;

    /// <summary>
    /// Gives each place that has come free to whoever has waited for it longest and can still pick, in place of what they picked first
    /// where they can have no more. What they give up by it may free another place.
    /// </summary>
    /// <returns>Who came up, for what.</returns>
    public static async Task<IReadOnlyList<(Id<Person> Student, string Option)>> MoveUp(
        NpgsqlConnection connection,
        EditionPlan plan,
        Id<Section> section,
        Id<Item> item,
        Instant at
    )
    {
        var choice = Picks.Of(plan, item);
        var moved = new List<(Id<Person>, string)>();
        IReadOnlySet<Id<Person>>? able = null;
        while (true)
        {
            var picks = await Picks.Read(connection, plan, section, item, at, locked: true);
            var queue = await Read(connection, plan, section, item, picks);
            var waiting = choice
                .Options.Where(option => picks.RoomIn(option) != 0)
                .SelectMany(option => queue.For(option).Select(student => (Student: student, Option: option)))
                .ToList();
            if (waiting.Count == 0)
                return moved;
            able ??= await Able(connection, plan, choice, [.. waiting.Select(one => one.Student).Distinct()], at);
            // A circle of wishes ends: nobody comes up for the same option twice.
            if (waiting.FirstOrDefault(one => able.Contains(one.Student) && !moved.Contains(one)) is not { Option: { } option } next)
                return moved;
            IReadOnlyList<string> wanted = [.. picks.Lasting(next.Student, choice.Picks - 1).Reverse(), option];
            await picks.Turn(connection, item, section, next.Student, wanted, next.Student, Guid.NewGuid());
            await QueueStore.Leave(connection, item, next.Student, [.. picks.By(next.Student).Except(wanted)]);
            await QueueStore.CameUp(connection, item, next.Student, option, at);
            moved.Add(next);
        }
    }

    // To whom it is open: one that has closed is settled.
    private static async Task<IReadOnlySet<Id<Person>>> Able(
        NpgsqlConnection connection,
        EditionPlan plan,
        Item choice,
        IReadOnlyList<Id<Person>> students,
        Instant at
    )
    {
        var (records, _) = await StudentStore.Read(connection, plan, students, at);
        return students
            .Where(student =>
                records.TryGetValue(student, out var record)
                && new Sights(plan.Schedule, record).Of(choice.Ref, at) is { } sight
                && PickOptions.IsOpen(sight)
            )
            .ToHashSet();
    }
}
