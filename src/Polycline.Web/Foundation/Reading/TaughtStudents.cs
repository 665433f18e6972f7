using NodaTime;
using Polycline.Core;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.People;
using Polycline.Data.Students;
using Polycline.Web.Foundation.AccessControl;

namespace Polycline.Web.Foundation.Reading;

/// <summary>A student with all that is known of them at the moment in view.</summary>
public sealed record TaughtStudent(Id<Person> Id, string Name, StudentRecord Record);

/// <summary>A section with the students who are in it at the moment in view, by name.</summary>
public sealed record TaughtSection(FollowingSection Section, IReadOnlyList<TaughtStudent> Students)
{
    /// <summary>The sections of an edition whose students the viewer may see, in order; those without any are left out.</summary>
    public static async Task<IReadOnlyList<TaughtSection>> Read(
        Database database,
        EditionPlan plan,
        Access access,
        Instant at,
        CancellationToken stop
    )
    {
        var (rows, records) = await database.Read(
            async connection =>
            {
                var rows = await AccessStore.StudentsOf(connection, plan.Id, access.Person.Id, access.IsLead);
                var students = rows.Select(row => row.Student).OfType<Id<Person>>().Distinct().ToList();
                return (
                    rows.Where(row => row.Student is not null).ToList(),
                    (await StudentStore.Read(connection, plan, students, at)).Records
                );
            },
            stop
        );
        // Where they are now, if whoever asks may see them there.
        var here = rows.Where(row => records[row.Student!.Value].SectionAt(plan.Term, at) == row.Section.InPlan())
            .ToLookup(row => row.Section);
        return
        [
            .. plan
                .Counted.Sections.Where(section => here.Contains(section.Id))
                .Select(section => new TaughtSection(
                    section,
                    [
                        .. here[section.Id]
                            .DistinctBy(row => row.Student)
                            .Select(row => new TaughtStudent(row.Student!.Value, row.Name!, records[row.Student!.Value]))
                            .OrderBy(student => student.Name, StringComparer.OrdinalIgnoreCase),
                    ]
                )),
        ];
    }
}
