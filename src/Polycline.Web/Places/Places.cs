using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Places;

/// <param name="School">What the school is called; null: it has no name yet.</param>
/// <param name="IsOffice">They work in the school's office.</param>
/// <param name="MakesCourses">They may make courses.</param>
/// <param name="SchoolCourses">Everybody’s that are not past: the office sees to their teams.</param>
/// <param name="Terms">The school's terms, for the office and for whoever may make courses; the latest first.</param>
public sealed record PlacesAnswer(
    string Name,
    string? School,
    bool IsOffice,
    bool MakesCourses,
    IReadOnlyList<EditionPlace> Courses,
    IReadOnlyList<SectionPlace> Sections,
    IReadOnlyList<TermPlace> Terms,
    IReadOnlyList<EditionPlace> SchoolCourses
);

/// <param name="Role"><c>lead</c>, <c>co</c>, <c>sections</c> or <c>reader</c>; empty: none.</param>
public sealed record EditionPlace(
    Id<Edition> Edition,
    string Course,
    string Subject,
    string Title,
    string State,
    string Role,
    int Sections
);

public sealed record SectionPlace(Id<Section> Section, string Name, string? Course, string Term);

/// <param name="IsOver">Its last day is past.</param>
public sealed record TermPlace(Id<Term> Term, string Name, string Dates, string Zone, int Sections, bool IsOver);

/// <summary>Where somebody can go: courses they teach, sections they are in, the office's terms.</summary>
public static class PlacesRoutes
{
    public static void MapPlaces(this IEndpointRouteBuilder routes) =>
        routes.MapGet("/api/places", Handle).WithName("places").For(May.SignedIn);

    public static async Task<PlacesAnswer> Handle(Access access, Viewpoint viewpoint, Database database, CancellationToken stop)
    {
        var (courses, sections, terms, school, all) = await database.Read(
            connection => PlacesStore.Of(connection, access.Person.Id, access.IsOffice || access.IsTeacher, access.IsOffice),
            stop
        );
        return new(
            access.Person.Name,
            school,
            access.IsOffice,
            access.IsTeacher,
            [.. courses.Select(PlaceOf)],
            [
                .. sections
                    .Where(row => Lists(row, viewpoint.At))
                    .Select(row => new SectionPlace(row.Section, row.Name, row.Course, row.TermName)),
            ],
            [
                .. terms.Select(row => new TermPlace(
                    row.Term,
                    row.Name,
                    $"{Moment.InWords(row.First)} – {Moment.InWords(row.Last)} {row.Last.Year}",
                    row.Zone,
                    row.Sections,
                    row.Last < viewpoint.At.InZone(DateTimeZoneProviders.Tzdb[row.Zone]).Date
                )),
            ],
            [.. all.Select(PlaceOf)]
        );
    }

    private static EditionPlace PlaceOf(EditionRow row) =>
        new(row.Edition, row.Course, row.Subject, row.Title, row.State, row.Role, row.Sections);

    private static bool Lists(OwnSectionRow row, Instant at)
    {
        var today = at.InZone(DateTimeZoneProviders.Tzdb[row.TermZone]).Date;
        return row.From <= today && today <= row.To;
    }
}
