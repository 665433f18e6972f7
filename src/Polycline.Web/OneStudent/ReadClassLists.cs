using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.OneStudent;

/// <param name="Today">A date, local.</param>
public sealed record ClassListsAnswer(bool CanChange, string Today, IReadOnlyList<ClassList> Sections);

/// <param name="Students">Those it lists now or later, by name; then those who have left.</param>
public sealed record ClassList(Id<Section> Section, string Name, IReadOnlyList<ListedLine> Students);

/// <summary>One student in a class list.</summary>
public sealed record ListedLine
{
    public required Id<Person> Student { get; init; }

    public required string Name { get; init; }

    /// <summary>Null: from the beginning.</summary>
    public required string? From { get; init; }

    /// <summary>Null: for good.</summary>
    public required string? To { get; init; }

    /// <summary>They have left.</summary>
    public required bool Left { get; init; }

    /// <summary>The other sections of the course that list them on the same days.</summary>
    public required IReadOnlyList<string> AlsoIn { get; init; }

    /// <summary>The section that decides their dates where there are several; null: nobody has said.</summary>
    public required string? Home { get; init; }

    /// <summary>The items in which something is different for them.</summary>
    public required IReadOnlyList<Id<Item>> Differs { get; init; }

    /// <summary>More time is agreed for everything.</summary>
    public required bool Agreed { get; init; }
}

/// <summary>Reads who is in the sections of a course that the viewer teaches, or in all for a lead.</summary>
public static class ReadClassLists
{
    public static async Task<ClassListsAnswer> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("Class lists");
        var plan = await compiled.Edition(access);
        var rows = await database.Read(connection => AccessStore.StudentsOf(connection, plan.Id, access.Person.Id, access.IsLead), stop);
        var names = rows.Where(row => row.Student is not null).ToDictionary(row => (row.Section, row.Student!.Value), row => row.Name!);
        var today = plan.Term.Local(viewpoint.At).Date;
        return new(
            plan.State != EditionState.Resting && viewpoint.TakesCommands,
            StudentsHere.Iso(today)!,
            [
                .. rows.Select(row => row.Section)
                    .Distinct()
                    .Select(id => plan.Following(id)!)
                    .Select(section => new ClassList(
                        section.Id,
                        section.Name,
                        [
                            .. section
                                .Listed.Where(place => names.ContainsKey((section.Id, place.Person)))
                                .Select(place => Line(plan, section, place, names[(section.Id, place.Person)], place.To < today))
                                .OrderBy(line => line.Left)
                                .ThenBy(line => line.Name, StringComparer.Ordinal),
                        ]
                    )),
            ]
        );
    }

    private static ListedLine Line(EditionPlan plan, FollowingSection section, ListedStudent place, string name, bool left) =>
        new()
        {
            Student = place.Person,
            Name = name,
            From = StudentsHere.Iso(place.From),
            To = StudentsHere.Iso(place.To),
            Left = left,
            AlsoIn =
            [
                .. plan
                    .Sections.Where(other =>
                        other.Id != section.Id && other.Listed.Any(one => one.Person == place.Person && Meet(one, place))
                    )
                    .Select(other => other.Name),
            ],
            Home = plan.People.HomeOf(place.Person) is { } home ? plan.Following(home.Section)?.Name : null,
            Differs =
            [
                .. plan
                    .People.RowsOf(place.Person)
                    .Select(row => row.Item)
                    .Distinct()
                    .Select(plan.Find)
                    .OfType<TreeRow>()
                    .Select(row => row.As<Item>()),
            ],
            Agreed = plan.People.ArrangementOf(place.Person) is not null,
        };

    private static bool Meet(ListedStudent one, ListedStudent other) =>
        (one.From is null || other.To is null || one.From <= other.To) && (one.To is null || other.From is null || other.From <= one.To);
}
