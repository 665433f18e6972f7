using System.IO.Compression;
using System.Text;
using Dapper;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using NodaTime;
using NodaTime.Text;
using Polycline.Data;
using Polycline.Demo.School;
using Polycline.Web.Rosters;

namespace Polycline.Demo;

/// <summary>
/// Stands in for the system that keeps the school's roster: OneRoster 1.2 in a zip, made from who is here, with everything in it that a
/// roster surprises a school with.
/// </summary>
public sealed class RosterStandIn(IServer server) : IRosterFeed
{
    public const string Path = "/demo/roster.zip";

    private const string Newcomer = "marit.oyelaran@fenwater.example";

    /// <summary>Where this instance serves it; null until it listens.</summary>
    public Uri? Address =>
        server.Features.Get<IServerAddressesFeature>()?.Addresses.FirstOrDefault() is { } address ? new(new Uri(address), Path) : null;

    private sealed record Place(long Person, string Name, string Email, long Section, string SectionName, bool Teaches, LocalDate? From);

    public static async Task<IResult> Serve(Database database, IClock clock, CancellationToken stop)
    {
        var today = clock.GetCurrentInstant().InZone(DateTimeZoneProviders.Tzdb[DemoSchool.Zone]).Date;
        var places = (
            await database.Read(
                connection =>
                    connection.QueryAsync<Place>(
                        """
                        SELECT p.id AS person, p.name, p.email::text, c.id AS section, c.name AS section_name, false AS teaches,
                               lower(n.period) AS "from"
                        FROM enrolment n JOIN person p ON p.id = n.person JOIN section c ON c.id = n.section JOIN term t ON t.id = c.term
                        WHERE @today BETWEEN t.first AND t.last AND n.period @> @today AND p.email <> @newcomer
                        UNION ALL
                        SELECT p.id, p.name, p.email::text, c.id, c.name, true, NULL
                        FROM section_teacher st
                        JOIN person p ON p.id = st.person JOIN section c ON c.id = st.section JOIN term t ON t.id = c.term
                        WHERE @today BETWEEN t.first AND t.last
                        ORDER BY section, teaches DESC, name
                        """,
                        new { today, newcomer = Newcomer }
                    ),
                stop
            )
        ).AsList();
        return Results.File(Zip(places, today), "application/zip", "roster.zip");
    }

    private static byte[] Zip(List<Place> places, LocalDate today)
    {
        var students = places.Where(place => !place.Teaches).ToList();
        var sections = places.Select(place => (place.Section, place.SectionName)).Distinct().ToList();
        // One has married, one leaves in a week, one is not there any more, and one is said to have come on another day.
        var (married, leaving, missing, moved) = (
            students.ElementAtOrDefault(2),
            students.ElementAtOrDefault(5),
            students.ElementAtOrDefault(30),
            students.ElementAtOrDefault(40)
        );
        var users = new List<string[]> { Row("sourcedId", "status", "enabledUser", "givenName", "familyName", "email", "username") };
        var roles = new List<string[]> { Row("sourcedId", "status", "userSourcedId", "roleType", "role") };
        foreach (var person in places.DistinctBy(place => place.Person))
        {
            if (person.Person == missing?.Person)
                continue;
            var split = person.Name.LastIndexOf(' ');
            var family = person.Name[(split + 1)..] + (person.Person == married?.Person ? "-Reyes" : "");
            users.Add(Row($"p{person.Person}", "active", "true", person.Name[..Math.Max(0, split)], family, person.Email, person.Email));
            roles.Add(Row($"r{person.Person}", "active", $"p{person.Person}", "primary", person.Teaches ? "teacher" : "student"));
        }
        users.Add(Row("new1", "active", "true", "Marit", "Oyelaran", Newcomer, "marit"));
        users.Add(Row("new2", "active", "true", "Bo", "Castellan", "", "no address"));
        users.Add(Row("home1", "active", "true", "Ada", "Morrow", "ada.morrow@home.example", "ada"));
        roles.Add(Row("rn1", "active", "new1", "primary", "student"));
        roles.Add(Row("rn2", "active", "new2", "primary", "student"));
        roles.Add(Row("rn3", "active", "home1", "primary", "guardian"));
        var enrolments = new List<string[]>
        {
            Row("sourcedId", "status", "classSourcedId", "userSourcedId", "role", "beginDate", "endDate"),
        };
        foreach (var (place, n) in places.Select((place, n) => (place, n)))
        {
            if (place.Person == missing?.Person)
                continue;
            var from = place == moved ? today.PlusDays(-14) : place.From;
            var to = place == leaving ? today.PlusDays(7) : (LocalDate?)null;
            enrolments.Add(
                Row($"e{n}", "active", $"c{place.Section}", $"p{place.Person}", place.Teaches ? "teacher" : "student", Iso(from), Iso(to))
            );
        }
        if (sections.Count > 0)
        {
            enrolments.Add(Row("en1", "active", $"c{sections[^1].Section}", "new1", "student", Iso(today), ""));
            enrolments.Add(Row("en2", "active", "c-nowhere", "new1", "student", "", ""));
            enrolments.Add(Row("en3", "active", $"c{sections[0].Section}", "new1", "student", "soon", ""));
        }
        return Packed(
            ("manifest.csv", [Row("propertyName", "value"), Row("oneroster.version", "1.2"), Row("source.systemName", "Fenwater office")]),
            ("orgs.csv", [Row("sourcedId", "status", "name", "type"), Row("o1", "active", "Fenwater College", "school")]),
            ("users.csv", users),
            ("roles.csv", roles),
            (
                "classes.csv",
                [
                    Row("sourcedId", "status", "title", "grades", "courseSourcedId", "termSourcedIds", "subjects"),
                    .. sections.Select(section => Row($"c{section.Section}", "active", section.SectionName, "", "", "", "")),
                ]
            ),
            ("enrollments.csv", enrolments)
        );
    }

    private static string[] Row(params string[] cells) => cells;

    private static string Iso(LocalDate? date) => date is { } day ? LocalDatePattern.Iso.Format(day) : "";

    private static byte[] Packed(params (string Name, IReadOnlyList<string[]> Rows)[] tables)
    {
        using var stream = new MemoryStream();
        using (var zip = new ZipArchive(stream, ZipArchiveMode.Create))
            foreach (var (name, rows) in tables)
            {
                using var entry = new StreamWriter(zip.CreateEntry(name).Open(), new UTF8Encoding(false));
                foreach (var row in rows)
                    entry.Write(
                        string.Join(',', row.Select(cell => $"\"{cell.Replace("\"", "\"\"", StringComparison.Ordinal)}\"")) + "\r\n"
                    );
            }
        return stream.ToArray();
    }
}
