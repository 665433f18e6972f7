using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Data.Choices;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Choices;

/// <summary>What the students of a section have picked in a choice.</summary>
internal sealed class Picks(Item choice, IReadOnlyList<Id<Person>> students, IReadOnlyList<PickRow> rows, Instant at)
{
    private readonly Dictionary<Id<Person>, IReadOnlyList<string>> picked = rows.GroupBy(row => row.Person)
        .ToDictionary(own => own.Key, own => new FactBook(own.Select(row => row.Fact(choice.Ref))).Picked(choice.Ref, choice.Picks, at));

    public static async Task<Picks> Read(
        NpgsqlConnection connection,
        EditionPlan plan,
        Id<Section> section,
        Id<Item> item,
        Instant at,
        bool locked = false
    )
    {
        var choice = Of(plan, item);
        var today = at.InZone(plan.Term.Zone).Date;
        List<Id<Person>> students =
        [
            .. plan.Following(section)!
                .Listed.Where(place => !(place.From > today) && !(place.To < today))
                .Select(place => place.Person)
                .Distinct(),
        ];
        return new(choice, students, await PickStore.Of(connection, item, students, at, locked), at);
    }

    /// <exception cref="ProblemException">It is no choice of this course.</exception>
    public static Item Of(EditionPlan plan, Id<Item> item) =>
        plan.Item(item) is { Kind: ItemKind.Choice } choice ? choice : throw Problem.Unknown("item");

    public IReadOnlyList<Id<Person>> Students => students;

    /// <summary>What a student has picked, in the order of the choice.</summary>
    public IReadOnlyList<string> By(Id<Person> student) =>
        picked.TryGetValue(student, out var own) ? [.. choice.Options.Where(own.Contains)] : [];

    /// <summary>Up to <paramref name="most"/> of a student’s picks, the latest first.</summary>
    public IReadOnlyList<string> Lasting(Id<Person> student, int most) =>
        picked.TryGetValue(student, out var own) ? [.. own.Where(choice.Options.Contains).Take(most)] : [];

    /// <summary>The last pick of a student that stands, and who made it.</summary>
    public PickRow? LastOf(Id<Person> student) => rows.LastOrDefault(row => row.Person == student && row.Option is not null);

    /// <summary>For how many more there is room in an option; null: for any number.</summary>
    public int? RoomIn(string option) =>
        choice.Offered?.Options.FirstOrDefault(one => one.Option == option)?.Room is { } room
            ? Math.Max(0, room - students.Count(student => By(student).Contains(option)))
            : null;

    /// <summary>Records what a student has from now on.</summary>
    /// <param name="wanted">All of it; empty: nothing.</param>
    /// <returns>False: they had just that.</returns>
    public async Task<bool> Turn(
        NpgsqlConnection connection,
        Id<Item> item,
        Id<Section> section,
        Id<Person> student,
        IReadOnlyList<string> wanted,
        Id<Person> by,
        Guid request
    )
    {
        var before = By(student);
        if (before.Order(StringComparer.Ordinal).SequenceEqual(wanted.Order(StringComparer.Ordinal)))
            return false;
        IReadOnlyList<string?> options = before.All(wanted.Contains) ? [.. wanted.Except(before)] : [null, .. wanted];
        await PickStore.Record(connection, student, item, section, options, by, at, request);
        return true;
    }

    /// <summary>Whether what is wanted can be had by anybody at all.</summary>
    /// <exception cref="ProblemException">It cannot, and why.</exception>
    public void Check(IReadOnlyList<string> wanted)
    {
        for (var n = 0; n < wanted.Count; n++)
            if (!choice.Options.Contains(wanted[n]))
                throw Problem.Unknown($"options[{n}]");
        if (wanted.Distinct().Count() < wanted.Count)
            throw Problem.Field("options", "The same option is here twice.");
        if (wanted.Count > choice.Picks)
            throw Problem.Field("options", choice.Picks == 1 ? "Pick only one." : $"Pick {choice.Picks} at most.");
    }
}
