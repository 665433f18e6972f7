using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Groups;

/// <param name="Groups">1 to 100, each name once, each student in at most one of them.</param>
public sealed record GroupStudentsRequest(Id<Section> Section, IReadOnlyList<GroupOfStudents> Groups);

/// <param name="Name">1 to 60 characters. A group that is called so already is used.</param>
/// <param name="Members">Students of the section: at most 500.</param>
public sealed record GroupOfStudents(string Name, IReadOnlyList<Id<Person>> Members);

/// <summary>
/// Divides a section's students into groups, which are made where there are none of those names. Of these groups each has the given
/// students of the section afterwards, and no others of it; students of other sections stay in them.
/// </summary>
public sealed class GroupStudents : IPlanningCommand<EditionPlan, IReadOnlyList<Id<GroupRow>>, GroupStudentsRequest>
{
    private const int MostGroups = 100;

    public static string Name => "group-students";

    public static IValidator<GroupStudentsRequest> Validator { get; } = new Rules();

    /// <summary>The numbers of groups that are new.</summary>
    public static Task<IReadOnlyList<Id<GroupRow>>> Read(NpgsqlConnection connection, EditionPlan plan, GroupStudentsRequest request) =>
        GroupStore.Numbers(connection, request.Groups.Count(group => plan.Groups.All(known => known.Name != group.Name.Trim())));

    public static CommandDecision Decide(
        EditionPlan plan,
        IReadOnlyList<Id<GroupRow>> numbers,
        GroupStudentsRequest request,
        Viewpoint viewpoint
    )
    {
        var section = plan.Following(request.Section) ?? throw Problem.Unknown("section");
        var here = section.PeopleOn(plan.Term.Local(viewpoint.At).Date).ToHashSet();
        var (made, moved) = (0, new HashSet<Id<Person>>());
        var (groups, members) = (new List<Change>(), new List<Change>());
        for (var n = 0; n < request.Groups.Count; n++)
        {
            var (name, wanted) = (request.Groups[n].Name.Trim(), request.Groups[n].Members);
            for (var m = 0; m < wanted.Count; m++)
                if (!here.Contains(wanted[m]))
                    throw Problem.Unknown($"groups[{n}].members[{m}]");
            var known = plan.Groups.FirstOrDefault(group => group.Name == name);
            var id = known?.Id ?? numbers[made];
            if (known is null)
            {
                made++;
                groups.Add(Change.Add(Tables.Groups.Number.Is(id), Tables.Groups.Edition.Is(plan.Id), Tables.Groups.Name.Is(name)));
            }
            var before = known?.Members ?? [];
            foreach (var student in wanted.Except(before))
                Put(student, true);
            foreach (var student in before.Where(here.Contains).Except(wanted))
                Put(student, false);

            void Put(Id<Person> student, bool isIn)
            {
                Cell[] row = [Tables.InGroup.Group.Is(id), Tables.InGroup.Person.Is(student), Tables.InGroup.At.Is(viewpoint.At)];
                members.Add(isIn ? Change.Add(row) : Change.Delete(1, row));
                moved.Add(student);
            }
        }
        if (groups.Count + members.Count == 0)
            return new($"left the groups of {section.Name} as they are", []);
        var who = Counting.Counted(moved.Count, "student", "students");
        var into = Counting.Counted(request.Groups.Count, "group", "groups");
        return new($"divided {who} of {section.Name} into {into}", [.. groups, .. members]) { Act = $"Put {who} into {into}" };
    }

    private sealed class Rules : AbstractValidator<GroupStudentsRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Groups)
                .Must(groups => groups.Count is > 0 and <= MostGroups)
                .WithMessage($"Make from 1 to {MostGroups} groups at once.")
                .Must(groups => groups.DistinctBy(group => group.Name.Trim()).Count() == groups.Count)
                .WithMessage("Two of the groups have the same name. Give each its own.")
                .Must(groups => groups.SelectMany(group => group.Members).GroupBy(student => student).All(twice => twice.Count() == 1))
                .WithMessage("Somebody is in two of the groups. Take them out of one.");
            RuleForEach(request => request.Groups)
                .ChildRules(group =>
                {
                    group.RuleFor(one => one.Name).IsGroupName();
                    group
                        .RuleFor(one => one.Members)
                        .Must(members => members.Count <= 500)
                        .WithMessage("A group takes at most 500 students at once.");
                });
        }
    }
}

/// <summary>What a group may be called.</summary>
internal static class GroupRules
{
    /// <summary>1 to 60 characters of one line.</summary>
    public static void IsGroupName<T>(this IRuleBuilder<T, string> rule) =>
        rule.Must(name => Bounds.IsVisible(name) && name.Trim().Length <= 60 && !name.Any(char.IsControl))
            .WithMessage("A group's name has 1 to 60 characters.");
}
