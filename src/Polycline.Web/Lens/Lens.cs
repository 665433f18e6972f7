using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Sections;

namespace Polycline.Web.Lens;

/// <param name="Items">What a pretend student can be made out to have done something with.</param>
public sealed record LensAnswer(IReadOnlyList<LensSection> Sections, IReadOnlyList<LensItem> Items);

/// <param name="Version">Of the section, to be named when somebody is made up in it.</param>
/// <param name="MadeUp">Who is made up in a pretend section; null: a section like any other.</param>
public sealed record LensSection(
    Id<Section> Section,
    string Name,
    string Letter,
    IReadOnlyList<LensStudent> Students,
    long Version,
    IReadOnlyList<MadeUpStudent>? MadeUp
);

public sealed record LensStudent(Id<Person> Id, string Name);

/// <param name="Options">Of a choice.</param>
public sealed record LensItem(Id<Item> Id, string Code, string Title, string Kind, IReadOnlyList<string> Options);

/// <summary>The lens: through whose eyes one may look.</summary>
public static class LensRoutes
{
    public static void MapLens(this IEndpointRouteBuilder routes) =>
        routes.MapGet("/api/editions/{edition:long}/students", Handle).WithName("students").For(May.Team);

    public static async Task<LensAnswer> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        Database database,
        PlanCache compiled,
        CancellationToken stop
    )
    {
        var plan = await compiled.Edition(access);
        var rows = await database.Read(
            connection => AccessStore.StudentsOf(connection, access.Edition!.Value, access.Person.Id, access.IsLead),
            stop
        );
        // Whoever has left is in no list of the present.
        var on = plan.Term.Local(viewpoint.At).Date;
        bool IsHere(LensPlaceRow row) => row.Student is { } student && plan.Following(row.Section)?.PeopleOn(on).Contains(student) == true;
        return new(
            [
                .. rows.GroupBy(row => (row.Section, row.SectionName, row.Letter))
                    .Select(section => new LensSection(
                        section.Key.Section,
                        section.Key.SectionName,
                        section.Key.Letter,
                        [
                            .. section
                                .Where(row => IsHere(row) && row.Name is not null)
                                .Select(row => new LensStudent(row.Student!.Value, row.Name!)),
                        ],
                        plan.Following(section.Key.Section)?.Version ?? 0,
                        plan.Following(section.Key.Section)?.Pretend is { } made
                            ? [.. made.Select(one => new MadeUpStudent(one.Name, one.Facts))]
                            : null
                    )),
            ],
            [
                .. plan
                    .Edition.InReadingOrder()
                    .Select(item => new LensItem(
                        plan.IdOf(item.Ref),
                        plan.Schedule.CodeOf[item.Ref],
                        item.Title,
                        EnumNames.Of(item.Kind),
                        item.Options
                    )),
            ]
        );
    }
}
