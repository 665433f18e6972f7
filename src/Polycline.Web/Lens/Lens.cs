using Polycline.Data;
using Polycline.Data.People;
using Polycline.Web.Foundation;

namespace Polycline.Web.Lens;

public sealed record LensAnswer(IReadOnlyList<LensSection> Sections);

public sealed record LensSection(long Section, string Name, string Letter, IReadOnlyList<LensStudent> Students);

public sealed record LensStudent(long Id, string Name);

/// <summary>The lens: through whose eyes one may look.</summary>
public static class LensRoutes
{
    public static void MapLens(this IEndpointRouteBuilder routes) =>
        routes.MapGet("/api/editions/{edition:long}/students", Handle).WithName("students").For(May.Team);

    public static async Task<LensAnswer> Handle(long edition, Access access, Viewpoint viewpoint, Database database, CancellationToken stop)
    {
        var rows = await database.Read(connection => AccessStore.StudentsOf(connection, access.Edition!.Value, access.Person.Id, access.IsLead), stop);
        return new([.. rows.GroupBy(row => (row.Section, row.SectionName, row.Letter))
            .Select(section => new LensSection(section.Key.Section, section.Key.SectionName, section.Key.Letter, [.. section.Select(row => new LensStudent(row.Student, row.Name))]))]);
    }
}
