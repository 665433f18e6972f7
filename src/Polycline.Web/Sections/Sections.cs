using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Sections;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Sections;

/// <summary>A section, as whoever is in it may know of it.</summary>
public sealed record SectionAnswer(
    Id<Section> Section,
    string Name,
    string? Course,
    string Term,
    string Dates,
    IReadOnlyList<string> Teachers
);

/// <summary>Sections.</summary>
public static class SectionRoutes
{
    public static void MapSections(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/sections/{section:long}", Handle).WithName("section").For(May.SectionTeacher | May.SectionStudent);
        routes.MapGet("/api/editions/{edition:long}/sections", ReadSections.Handle).WithName("sections").For(May.Team);
        routes.MapGet("/api/editions/{edition:long}/ways", ReadWays.Handle).WithName("ways").For(May.Team);
        routes.MapEditionCommand<AdjustSections, AdjustSectionsRequest>();
        routes.MapEditionCommand<OrderUnit, OrderUnitRequest>();
        routes.MapEditionCommand<OrderLesson, OrderLessonRequest>();
        routes.MapEditionCommand<ChangeTimetable, ChangeTimetableRequest>();
        routes.MapEditionCommand<LoseClasses, LoseClassesRequest>();
        routes.MapEditionCommand<MakePretendSection, MakePretendSectionRequest>();
        routes.MapEditionCommand<MakeUpStudents, MakeUpStudentsRequest>();
        routes.MapEditionCommand<RemovePretendSection, RemovePretendSectionRequest>();
    }

    public static async Task<SectionAnswer> Handle(
        long section,
        Access access,
        Viewpoint viewpoint,
        Database database,
        CancellationToken stop
    )
    {
        var row = await database.Read(connection => SectionStore.Read(connection, access.Section!.Value), stop) ?? throw Problem.Unknown();
        return new(
            row.Id,
            row.Name,
            row.Course,
            row.TermName,
            $"{Moment.InWords(row.First)} – {Moment.InWords(row.Last)} {row.Last.Year}",
            row.Teachers
        );
    }
}
