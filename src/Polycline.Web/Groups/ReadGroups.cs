using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Groups;

public sealed record GroupsAnswer(bool CanChange, IReadOnlyList<GroupCard> Groups, IReadOnlyList<GroupSection> Sections);

/// <param name="Members">Persons: those whom the viewer teaches, or all for a lead.</param>
/// <param name="Others">How many more are in it.</param>
/// <param name="Items">How many items are for it, or not for it.</param>
public sealed record GroupCard(Id<GroupRow> Id, string Name, long Version, IReadOnlyList<Id<Person>> Members, int Others, int Items);

/// <summary>A section whose students the team can put into groups.</summary>
public sealed record GroupSection(Id<Section> Id, string Name, string Letter, IReadOnlyList<GroupStudent> Students);

public sealed record GroupStudent(Id<Person> Id, string Name);

/// <summary>Reads the groups of an edition, and who could be in them.</summary>
public static class ReadGroups
{
    public static async Task<GroupsAnswer> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("Groups");
        var plan = await compiled.Edition(access);
        var rows = await database.Read(connection => AccessStore.StudentsOf(connection, plan.Id, access.Person.Id, access.IsLead), stop);
        var today = plan.Term.Local(viewpoint.At).Date;
        // Of the others in a group, whom somebody does not teach, they learn how many there are.
        var seen = rows.Select(row => row.Student).OfType<Id<Person>>().ToHashSet();
        return new(
            plan.State != EditionState.Resting && viewpoint.TakesCommands,
            [
                .. plan.Groups.Select(group => new GroupCard(
                    group.Id,
                    group.Name,
                    group.Version,
                    [.. group.Members.Where(seen.Contains)],
                    group.Members.Count(member => !seen.Contains(member)),
                    plan.UsesOf(group.Name)
                )),
            ],
            [
                .. rows.GroupBy(row => (row.Section, row.SectionName, row.Letter))
                    .Select(section => new GroupSection(
                        section.Key.Section,
                        section.Key.SectionName,
                        section.Key.Letter,
                        [
                            .. section
                                .Where(row =>
                                    row.Student is { } student
                                    && plan.Following(section.Key.Section)?.PeopleOn(today).Contains(student) == true
                                )
                                .Select(row => new GroupStudent(row.Student!.Value, row.Name!)),
                        ]
                    )),
            ]
        );
    }
}
