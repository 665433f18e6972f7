using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Scores;
using Polycline.Data.Students;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Web.Work;

/// <summary>What students can read or work on, before and after something is done for them.</summary>
internal static class OpensBy
{
    /// <summary>In reading order.</summary>
    public static async Task<IReadOnlyList<Ref<Item>>> Open(NpgsqlConnection connection, EditionPlan plan, Id<Person> person, Instant at) =>
        (await Open(connection, plan, [person], at))[person];

    /// <summary>The same of several.</summary>
    public static async Task<IReadOnlyDictionary<Id<Person>, IReadOnlyList<Ref<Item>>>> Open(
        NpgsqlConnection connection,
        EditionPlan plan,
        IReadOnlyList<Id<Person>> people,
        Instant at
    )
    {
        var (records, _) = await StudentStore.Read(connection, plan, people, at);
        return records.ToDictionary(
            one => one.Key,
            one =>
                (IReadOnlyList<Ref<Item>>)
                    [.. new Sights(plan.Schedule, one.Value).At(at).Where(sight => sight.MayRead).Select(sight => sight.Item)]
        );
    }

    /// <summary>
    /// What is open to students only because an earlier score let them in, with a later one in its place. It closes where it is
    /// <paramref name="close"/>d, else it stays.
    /// </summary>
    /// <param name="scored">Whose score in which item was put right.</param>
    /// <param name="open">What is open to them now.</param>
    public static async Task<IReadOnlyDictionary<Id<Person>, IReadOnlyList<Ref<Item>>>> ByEarlierScores(
        WorkContext work,
        EditionPlan plan,
        IReadOnlyList<(Id<Person> Person, Id<Item> Item)> scored,
        IReadOnlyDictionary<Id<Person>, IReadOnlyList<Ref<Item>>> open,
        bool close
    )
    {
        if (scored.Count == 0)
            return new Dictionary<Id<Person>, IReadOnlyList<Ref<Item>>>();
        var (connection, at) = (work.Connection, work.Viewpoint.At);
        var without = await GivenScores.WithoutEarlier(connection, scored, work.Access.Person.Id, at, work.Key, close, () =>
            Open(connection, plan, [.. scored.Select(one => one.Person).Distinct()], at)
        );
        return without
            .Select(one => (one.Key, Only: (IReadOnlyList<Ref<Item>>)[.. open[one.Key].Except(one.Value)]))
            .Where(one => one.Only.Count > 0)
            .ToDictionary(one => one.Key, one => one.Only);
    }

    /// <summary>What opens meanwhile, each with its code and title.</summary>
    public static IReadOnlyList<string> Since(EditionPlan plan, IReadOnlyList<Ref<Item>> before, IReadOnlyList<Ref<Item>> after) =>
        [
            .. after
                .Where(opened => !before.Contains(opened))
                .Select(opened => $"{plan.Schedule.CodeOf[opened]} {plan.Schedule.Item(opened).Title}"),
        ];

    /// <summary>What opens, as the end of a sentence: <c>for whom 3.08 opens</c>; null: nothing does.</summary>
    public static string? Words(IReadOnlyList<string> opens) =>
        opens.Count == 0 ? null : $"for whom {Counting.Joined(opens, "and")} {(opens.Count == 1 ? "opens" : "open")}";

    /// <summary>What opens, closes, and stays open or closes because a score was put right: sentences, each thing once.</summary>
    /// <param name="names">Of everybody that it is about.</param>
    public static IEnumerable<string> Told(
        EditionPlan plan,
        IReadOnlyDictionary<Id<Person>, string> names,
        IReadOnlyDictionary<Id<Person>, IReadOnlyList<Ref<Item>>> before,
        IReadOnlyDictionary<Id<Person>, IReadOnlyList<Ref<Item>>> after,
        IReadOnlyDictionary<Id<Person>, IReadOnlyList<Ref<Item>>>? byEarlier = null,
        bool closed = false
    ) =>
        [
            .. Each(plan, names, after.Select(one => (one.Key, one.Value.Except(before[one.Key]))))
                .Select(one => $"{one.What} opens for {one.Who}."),
            .. Each(plan, names, after.Select(one => (one.Key, before[one.Key].Except(one.Value))))
                .Select(one => $"{one.What} closes for {one.Who}."),
            .. Each(plan, names, (byEarlier ?? after.Take(0).ToDictionary()).Select(one => (one.Key, one.Value.AsEnumerable())))
                .Select(one =>
                    closed
                        ? $"{one.What} closes for {one.Who}, whom only the earlier score had let in."
                        : $"{one.What} stays open for {one.Who}, whom the earlier score had let in."
                ),
        ];

    // Each thing with everybody for whom it is so, in reading order and in order of name.
    private static IEnumerable<(string What, string Who)> Each(
        EditionPlan plan,
        IReadOnlyDictionary<Id<Person>, string> names,
        IEnumerable<(Id<Person> Person, IEnumerable<Ref<Item>> Items)> some
    ) =>
        some.SelectMany(one => one.Items.Select(item => (item, Name: names[one.Person])))
            .GroupBy(one => one.item, one => one.Name)
            .OrderBy(thing => plan.Schedule.CodeOf[thing.Key], StringComparer.Ordinal)
            .Select(thing =>
                (
                    $"{plan.Schedule.CodeOf[thing.Key]} {plan.Schedule.Item(thing.Key).Title}",
                    Counting.Joined([.. thing.Order(StringComparer.Ordinal)], "and")
                )
            );
}
