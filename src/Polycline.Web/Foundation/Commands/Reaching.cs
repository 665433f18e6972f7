using Npgsql;
using Polycline.Core;
using Polycline.Core.Changes;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.People;
using Polycline.Data.Students;
using Polycline.Web.Foundation.AccessControl;

namespace Polycline.Web.Foundation.Commands;

/// <summary>
/// Works out what a change of an edition does to its sections and to every student, from the edition before and after it.
/// </summary>
public static class Reaching
{
    private const int MostNamed = 200;

    /// <summary>What it does for each student of the sections that follow the edition before or after.</summary>
    public static async Task<SightReach> Sights(NpgsqlConnection connection, EditionPlan before, EditionPlan after, Viewpoint viewpoint)
    {
        var sections = before.Sections.Concat(after.Sections).Select(section => section.Id).Distinct().ToList();
        return sections.Count == 0
            ? new([])
            : SightReach.Between(
                before.Schedule,
                after.Schedule,
                await StudentStore.Beside(connection, before, after, sections, viewpoint.At),
                viewpoint.At
            );
    }

    /// <summary>The reach of a change of one edition.</summary>
    public static async Task<Reach> Of(NpgsqlConnection connection, EditionPlan before, EditionPlan after, Viewpoint viewpoint)
    {
        var today = after.Term.Local(viewpoint.At).Date;
        (before, after) = (before.On(today), after.On(today));
        var sizes = after.SizesAt(viewpoint.At);
        var reach = Reach.Between(
            before.Schedule,
            after.Schedule,
            [.. sizes, .. before.SizesAt(viewpoint.At).Where(size => !after.Schedule.Follows(size.Section))],
            await Sights(connection, before, after, viewpoint),
            viewpoint.At
        );
        return StudentReach.With(GroupReach.With(reach, before, after), before, after);
    }

    /// <summary>The same as it travels, without names.</summary>
    public static ReachAnswer Answer(Reach reach) =>
        new(
            reach.Rows,
            [.. reach.Sections.Select(section => new ReachSection(section.Name, section.Students))],
            reach.Sentence,
            EnumNames.Of(reach.Effect),
            null,
            0
        );

    /// <summary>What the button says that does it: the command's own word, else what it takes in numbers; empty: neither has one.</summary>
    public static string Act(CommandDecision decision, Reach reach, LevelNames levels)
    {
        if (decision.Act.Length > 0)
            return decision.Act;
        return Taken(change => change.Loses || change.WasTheirs) is { } lost ? $"Take {lost.Items} from {lost.Students}"
            : Taken(change => change.BecomesOverdue) is { } late ? $"Make {late.Items} overdue for {late.Students}"
            : "";

        (string Items, string Students)? Taken(Func<SightChange, bool> which) =>
            reach.Students.Where(which).ToList() is { Count: > 0 } changes
                ? (
                    levels.Item.Counted(changes.Select(change => change.Item).Distinct().Count()),
                    Counting.Counted(changes.Select(change => change.Student).Distinct().Count(), "student", "students")
                )
                : null;
    }

    /// <summary>The same with the names of those reached, as far as <paramref name="access"/> may know them.</summary>
    /// <param name="plans">The editions as they are after the change.</param>
    public static async Task<ReachAnswer> WithNames(
        NpgsqlConnection connection,
        Reach reach,
        Access access,
        params IReadOnlyList<EditionPlan> plans
    )
    {
        var known = new Dictionary<string, LensPlaceRow>();
        foreach (var plan in plans)
        foreach (var row in await AccessStore.StudentsOf(connection, plan.Id, access.Person.Id, access.IsLead || access.IsOffice))
            if (row.Student is { } student)
                known.TryAdd($"{student}", row);
        var kept = reach.Keep.ToLookup(one => one.Student.Name, one => one.Item);
        var changes = reach
            .Students.Select(change => change.Student.Name)
            .Concat(reach.Keep.Select(one => one.Student.Name))
            .Distinct()
            .ToList();
        var changed = reach.Students.ToLookup(change => change.Student.Name);
        var named = changes
            .Where(known.ContainsKey)
            .Take(MostNamed)
            .Select(student => Named(known[student], [.. changed[student]], kept[student]))
            .OrderByDescending(student => student.Keeps.Count > 0)
            .ThenBy(student => student.Section, StringComparer.Ordinal)
            .ThenBy(student => student.Name, StringComparer.Ordinal)
            .ToList();
        return Answer(reach) with { Students = named, Others = changes.Count - named.Count };

        ReachedStudent Named(LensPlaceRow row, List<SightChange> own, IEnumerable<Ref<Item>> keeps)
        {
            IReadOnlyList<string> Items(Func<SightChange, bool> which) =>
                [.. own.Where(which).Select(change => NameOf(change.Item)).Distinct()];
            return new(
                row.Name!,
                row.SectionName,
                Items(change => change.Gains),
                Items(change => change.Loses || change.WasTheirs),
                Items(change => change.BecomesOverdue),
                Items(change => change.DateMoves),
                Items(change => change.HasBegun),
                [.. keeps.Select(NameOf).Distinct()]
            );
        }

        string NameOf(Ref<Item> item) =>
            plans.FirstOrDefault(plan => plan.Schedule.Knows(item)) is { } plan
                ? $"{plan.Schedule.CodeOf[item]} {plan.Schedule.Item(item).Title}"
                : "something removed";
    }
}
