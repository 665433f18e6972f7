using System.Net;
using Dapper;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Foundation.AccessControl;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Every endpoint asked as everybody. An endpoint without a row here fails; so does a row without an endpoint.</summary>
public sealed class EndpointTests(SchoolOfClass shared) : IClassFixture<SchoolOfClass>, IAsyncLifetime
{
    private const string TermOf = "SELECT term FROM edition WHERE id = @WeatherWatch";

    // What everybody gets, in this order.
    private static readonly string[] Everybody =
    [
        "nobody",
        "student of the section",
        "student of another",
        "removed student",
        "lead",
        "co-teacher of another section",
        "other team",
        "office",
        "withdrawn session",
    ];

    private static readonly int[] All200 = [200, 200, 200, 200, 200, 200, 200, 200, 200];
    private static readonly int[] NoneOfOffice = [401, 404, 404, 404, 404, 404, 404, 404, 401];
    private static readonly int[] All302 = [302, 302, 302, 302, 302, 302, 302, 302, 302];
    private static readonly int[] All422 = [422, 422, 422, 422, 422, 422, 422, 422, 422];
    private static readonly int[] Team = [401, 404, 404, 404, 200, 200, 404, 404, 401];

    // The co-teacher changes nothing of a section they do not teach, and knows nothing of its students.
    private static readonly int[] TheirSections = [401, 404, 404, 404, 200, 403, 404, 404, 401];
    private static readonly string[] InOtherSections =
    [
        "add-lesson",
        "add-item",
        "confirm-taught",
        "change-classes",
        "change-timetable",
        "lose-classes",
        "differ",
        "stop-following",
        "join-students",
        "leave-section",
        "move-students",
    ];

    // To whoever teaches none of a student's sections, the student is not there; nor is a section that is not theirs theirs to change,
    // nor a file that another is sending.
    private static readonly int[] TheirStudents = [401, 404, 404, 404, 200, 404, 404, 404, 401];
    private static readonly string[] OfStudents =
    [
        "put-in-group",
        "group-students",
        "for-students",
        "arrange",
        "accept-catch-up",
        "attach-files",
        "replace-file",
    ];

    private static readonly int[] SectionReaders = [401, 200, 404, 404, 200, 404, 404, 404, 401];

    private static readonly int[] Student = [401, 200, 404, 404, 404, 404, 404, 404, 401];

    private static readonly string SomeToken = new('A', 43);
    private static readonly int[] NoSuch = [404, 404, 404, 404, 404, 404, 404, 404, 404];

    private static readonly int[] Office = [401, 404, 404, 404, 404, 404, 404, 200, 401];

    internal sealed record Row(string Address, int[] Expected, Func<School, Task<object?>>? Body = null);

    // {edition} is Weather Watch 2026, {section} is 9 Alder, {task} is open there. Every command is asked for its preview.
    internal static readonly Dictionary<string, Row> Rows = new(
        CommandExamples
            .All.Where(example => example.Key != "join-section")
            .Select(example =>
                KeyValuePair.Create(
                    $"POST /api/editions/{{edition:long}}/{example.Key}",
                    new Row(
                        $"/api/editions/{{edition}}/{example.Key}?preview=true",
                        InOtherSections.Contains(example.Key) ? TheirSections
                            : OfStudents.Contains(example.Key) ? TheirStudents
                            : Team,
                        example.Value
                    )
                )
            )
    )
    {
        ["GET /api/editions/{edition:long}/notes"] = new("/api/editions/{edition}/notes", Team),
        ["GET /api/editions/{edition:long}/team"] = new("/api/editions/{edition}/team", [401, 404, 404, 404, 200, 200, 404, 200, 401]),
        ["POST /api/editions/{edition:long}/set-team-member"] = new(
            "/api/editions/{edition}/set-team-member?preview=true",
            [401, 404, 404, 404, 200, 403, 404, 200, 401],
            TeamTests.Reader
        ),
        ["POST /api/editions/{edition:long}/end-team-member"] = new(
            "/api/editions/{edition}/end-team-member?preview=true",
            [401, 404, 404, 404, 200, 200, 404, 200, 401],
            TeamTests.CoTeacher
        ),
        ["GET /api/editions/{edition:long}/class-lists"] = new("/api/editions/{edition}/class-lists", Team),
        ["GET /api/editions/{edition:long}/students/{student:long}"] = new("/api/editions/{edition}/students/{student}", TheirStudents),
        ["GET /api/editions/{edition:long}/students/{student:long}/total"] = new(
            "/api/editions/{edition}/students/{student}/total",
            TheirStudents
        ),
        ["GET /api/editions/{edition:long}/scores"] = new("/api/editions/{edition}/scores", Team),
        ["GET /api/editions/{edition:long}/scores.csv"] = new("/api/editions/{edition}/scores.csv?section={section}", TheirStudents),
        ["GET /api/editions/{edition:long}/scores.xlsx"] = new("/api/editions/{edition}/scores.xlsx?section={section}", TheirStudents),
        ["GET /api/editions/{edition:long}/results.zip"] = new("/api/editions/{edition}/results.zip?section={section}", TheirStudents),
        ["GET /api/editions/{edition:long}/items/{item:long}/questions"] = new("/api/editions/{edition}/items/{quiz}/questions", Team),
        ["GET /api/sections/{section:long}/scores"] = new("/api/sections/{section}/scores", Student),
        ["GET /api/editions/{edition:long}/students/{student:long}/catch-up"] = new(
            "/api/editions/{edition}/students/{student}/catch-up",
            TheirStudents
        ),
        ["GET /api/editions/{edition:long}/conditions"] = new("/api/editions/{edition}/conditions", Team),
        ["GET /api/editions/{edition:long}/ready/{section:long}"] = new("/api/editions/{edition}/ready/{section}", Team),
        ["GET /api/editions/{edition:long}/askable"] = new("/api/editions/{edition}/askable", Team),
        ["POST /api/editions/{edition:long}/would-admit"] = new("/api/editions/{edition}/would-admit", Team, async school => new
        {
            of = "item",
            place = await school.Item("Cloud diary"),
            gate = new { item = await CommandExamples.Lineage(school, "Label the ramp"), @is = "opened" },
        }),
        ["POST /api/editions/{edition:long}/what-if"] = new("/api/editions/{edition}/what-if", Team, async school => new
        {
            drop = await school.Item("Cloud diary"),
        }),
        ["GET /api/editions/{edition:long}/items/{item:long}/scores-reached"] = new(
            "/api/editions/{edition}/items/{quiz}/scores-reached",
            Team
        ),
        ["GET /api/editions/{edition:long}/items/{item:long}/date-path/{section:long}"] = new(
            "/api/editions/{edition}/items/{task}/date-path/{section}",
            Team
        ),
        ["GET /api/editions/{edition:long}/items/{item:long}/who-can"] = new("/api/editions/{edition}/items/{task}/who-can", Team),
        ["GET /api/editions/{edition:long}/students/{student:long}/items/{item:long}/why"] = new(
            "/api/editions/{edition}/students/{student}/items/{task}/why",
            TheirStudents
        ),
        ["GET /api/editions/{edition:long}/students/{student:long}/move"] = new(
            "/api/editions/{edition}/students/{student}/move?from={section}&to={other}&on=2026-10-12",
            TheirStudents
        ),
        ["GET /health/live"] = new("/health/live", All200),
        ["GET /health/ready"] = new("/health/ready", All200),
        ["GET /index.html"] = new("/index.html", [302, 302, 302, 302, 302, 302, 302, 302, 302]),
        ["* {*path:nonfile}"] = new("/no/such/page", [404, 404, 404, 404, 404, 404, 404, 404, 404]),
        ["GET /api/demo/people"] = new("/api/demo/people", All200),
        ["GET /api/demo/mail"] = new("/api/demo/mail", All200),
        ["GET /api/demo/clock"] = new("/api/demo/clock", [401, 200, 200, 200, 200, 200, 200, 200, 401]),
        ["POST /api/demo/clock"] = new("/api/demo/clock", [401, 422, 422, 422, 422, 422, 422, 422, 401], _ =>
            Body(new { days = 1000, at = (string?)null })
        ),
        ["POST /api/sign-in"] = new("/api/sign-in", [422, 422, 422, 422, 422, 422, 422, 422, 422], _ =>
            Body(new { email = "", password = "" })
        ),
        ["POST /api/sign-out"] = new("/api/sign-out", [401, 204, 204, 204, 204, 204, 204, 204, 401]),
        ["POST /api/sign-out-everywhere"] = new("/api/sign-out-everywhere", [401, 204, 204, 204, 204, 204, 204, 204, 401]),
        // No such link is good; whoever has one that is needs no account yet.
        ["GET /api/begin/{token:length(43)}"] = new($"/api/begin/{SomeToken}", NoSuch),
        ["POST /api/begin/{token:length(43)}"] = new($"/api/begin/{SomeToken}", NoSuch, _ => Body(BeginTests.Good)),
        ["GET /api/welcome/{token:length(43)}"] = new($"/api/welcome/{SomeToken}", NoSuch),
        ["POST /api/welcome/{token:length(43)}"] = new($"/api/welcome/{SomeToken}", NoSuch, _ =>
            Body(new { password = "a long one of these" })
        ),
        ["GET /api/account"] = new("/api/account", [401, 200, 200, 200, 200, 200, 200, 200, 401]),
        ["POST /api/account/password"] = new("/api/account/password", [401, 422, 422, 422, 422, 422, 422, 422, 401], _ =>
            Body(new { current = "", password = "a heron on one leg" })
        ),
        ["POST /api/me/sign-out-elsewhere"] = new(
            "/api/me/sign-out-elsewhere?preview=true",
            [401, 200, 200, 200, 200, 200, 200, 200, 401],
            _ => Body(new { session = (string?)null })
        ),
        ["GET /api/people/{person:long}/data"] = new("/api/people/1/data", Office),
        ["POST /api/school/erase-person"] = new("/api/school/erase-person?preview=true", Office, school =>
            Body(new { person = school.Ids["person:" + DemoPeople.OnTrack], name = DemoPeople.OnTrack })
        ),
        ["POST /api/school/join-people"] = new("/api/school/join-people?preview=true", Office, school =>
            Body(new { kept = school.Ids["person:" + DemoPeople.OnTrack], other = school.Ids["person:" + DemoPeople.HeldUp] })
        ),
        // Nobody is joined yet.
        ["POST /api/school/separate-people"] = new("/api/school/separate-people?preview=true", NoneOfOffice, school =>
            Body(new { person = school.Ids["person:" + DemoPeople.HeldUp] })
        ),
        ["GET /api/sign-in/provider"] = new("/api/sign-in/provider", All200),
        ["GET /api/sign-in/with-provider"] = new("/api/sign-in/with-provider", All302),
        ["GET /api/sign-in/return"] = new("/api/sign-in/return?state=none", All302),
        ["GET /demo/roster.zip"] = new("/demo/roster.zip", All200),
        ["GET /api/terms/{term:long}/roster-feed"] = new("/api/terms/{term}/roster-feed", Office),
        ["GET /api/terms/{term:long}/roster-feed/{fetch:long}"] = new("/api/terms/{term}/roster-feed/1", NoneOfOffice),
        ["POST /api/terms/{term:long}/fetch-roster"] = new("/api/terms/{term}/fetch-roster", Office),
        ["POST /api/school/set-aside-roster"] = new("/api/school/set-aside-roster?preview=true", NoneOfOffice, async school => new
        {
            term = await TermCommandExamples.Autumn(school),
            fetch = 999_999,
        }),
        ["GET /api/people/record"] = new("/api/people/record?of=school&skip=0", Office),
        ["GET /api/school/outcomes"] = new("/api/school/outcomes", Office),
        ["GET /api/editions/{edition:long}/outcomes"] = new("/api/editions/{edition}/outcomes", Team),
        ["GET /api/editions/{edition:long}/units/{unit:long}"] = new("/api/editions/{edition}/units/{unit}", Team),
        ["GET /api/sections/{section:long}/units/{unit:long}"] = new("/api/sections/{section}/units/{unit}", Student),
        ["POST /api/school/import-outcomes"] = new("/api/school/import-outcomes?preview=true", Office, _ =>
            Body(new { text = "code,outcome\nG1,Read a gauge\n" })
        ),
        ["POST /api/school/undo-outcomes"] = new("/api/school/undo-outcomes?preview=true", Office, _ => Body(new { })),
        ["POST /api/school/rename-school"] = new("/api/school/rename-school?preview=true", Office, _ =>
            Body(new { name = "Fenwater School" })
        ),
        ["GET /api/people"] = new("/api/people", Office),
        ["POST /api/school/add-people"] = new("/api/school/add-people?preview=true", Office, _ => Body(PeopleTests.Newcomers)),
        ["POST /api/school/invite-people"] = new("/api/school/invite-people?preview=true", Office, school =>
            Body(PeopleTests.Invited(true, school.Ids["person:" + DemoPeople.Lead]))
        ),
        ["POST /api/school/deactivate-person"] = new("/api/school/deactivate-person?preview=true", Office, PeopleTests.Lead),
        ["POST /api/school/reactivate-person"] = new("/api/school/reactivate-person?preview=true", Office, PeopleTests.Lead),
        ["POST /api/school/end-sessions"] = new("/api/school/end-sessions?preview=true", Office, PeopleTests.Lead),
        ["POST /api/school/set-role"] = new("/api/school/set-role?preview=true", Office, school => Body(
                new
                {
                    person = school.Ids["person:" + DemoPeople.Lead],
                    role = "office",
                    has = true,
                }
            )),
        ["POST /api/school/roster-columns"] = new("/api/school/roster-columns", Office, _ => Body(RosterTests.Table)),
        ["POST /api/school/import-roster"] = new("/api/school/import-roster?preview=true", Office, RosterTests.Newcomer),
        ["POST /api/school/take-back-roster"] = new("/api/school/take-back-roster?preview=true", Office, RosterTests.Made),
        ["GET /api/terms/{term:long}/rosters"] = new("/api/terms/{term}/rosters", Office),
        ["POST /api/school/make-term"] = new("/api/school/make-term?preview=true", Office, _ => Body(TermTests.Good())),
        ["POST /api/school/remove-term"] = new("/api/school/remove-term?preview=true", Office, async school => new
        {
            term = await TermTests.Empty(school),
        }),
        ["POST /api/school/make-sections"] = new("/api/school/make-sections?preview=true", Office, MakingTests.Sections),
        ["POST /api/school/remove-section"] = new("/api/school/remove-section?preview=true", Office, async school => new
        {
            section = await MakingTests.EmptySection(school),
        }),
        // Teachers make courses; a student does not, nor does the office.
        ["POST /api/me/make-course"] = new(
            "/api/me/make-course?preview=true",
            [401, 404, 404, 404, 200, 200, 200, 404, 401],
            MakingTests.Course
        ),
        ["POST /api/me/keep-rubric"] = new("/api/me/keep-rubric?preview=true", [401, 404, 404, 404, 200, 200, 200, 404, 401], _ =>
            Body(ShelfTests.Good())
        ),
        // What another keeps is not there.
        ["POST /api/me/take-off-shelf"] = new("/api/me/take-off-shelf?preview=true", NoneOfOffice, _ => Body(new { kept = long.MaxValue })),
        ["GET /api/me/room"] = new("/api/me/room", [401, 200, 200, 200, 200, 200, 200, 200, 401]),
        // Another's upload is not there.
        ["GET /api/me/uploads/{upload:guid}"] = new($"/api/me/uploads/{Guid.Empty}", NoneOfOffice),
        ["PUT /api/me/uploads/{upload:guid}"] = new($"/api/me/uploads/{Guid.Empty}?from=0", NoneOfOffice),
        ["POST /api/me/begin-upload"] = new("/api/me/begin-upload?preview=true", [401, 200, 200, 200, 200, 200, 200, 200, 401], _ =>
            Body(new { name = "winds.csv", size = 10 })
        ),
        ["POST /api/me/finish-upload"] = new("/api/me/finish-upload?preview=true", NoneOfOffice, _ => Body(new { upload = Guid.Empty })),
        ["POST /api/me/cancel-upload"] = new("/api/me/cancel-upload?preview=true", [401, 200, 200, 200, 200, 200, 200, 200, 401], _ =>
            Body(new { upload = Guid.Empty })
        ),
        ["GET /api/editions/{edition:long}/items/{item:long}/files/{file:long}"] = new(
            "/api/editions/{edition}/items/{task}/files/{file}",
            Team
        ),
        ["GET /api/sections/{section:long}/items/{item:long}/files/{file:long}"] = new(
            "/api/sections/{section}/items/{task}/files/{file}",
            Student
        ),
        // What nobody has listed is nobody's to read.
        ["GET /api/sections/{section:long}/items/{item:long}/work-files/{file:long}"] = new(
            "/api/sections/{section}/items/{task}/work-files/999999",
            NoneOfOffice
        ),
        ["GET /api/sections/{section:long}/work-files/{file:long}"] = new("/api/sections/{section}/work-files/999999", NoneOfOffice),
        ["GET /api/me/uploads/{upload:guid}/bytes"] = new($"/api/me/uploads/{Guid.Empty}/bytes", NoneOfOffice),
        // Nobody has put a picture into this text.
        ["GET /api/editions/{edition:long}/items/{item:long}/pictures/{picture:length(64)}"] = new(
            $"/api/editions/{{edition}}/items/{{task}}/pictures/{new string('0', 64)}",
            NoneOfOffice
        ),
        ["GET /api/sections/{section:long}/items/{item:long}/pictures/{picture:length(64)}"] = new(
            $"/api/sections/{{section}}/items/{{task}}/pictures/{new string('0', 64)}",
            NoneOfOffice
        ),
        ["GET /api/places"] = new("/api/places", [401, 200, 200, 200, 200, 200, 200, 200, 401]),
        ["GET /api/sections/{section:long}"] = new("/api/sections/{section}", [401, 200, 404, 404, 200, 404, 404, 404, 401]),
        ["GET /api/calendar-links"] = new("/api/calendar-links", [401, 200, 200, 200, 200, 200, 200, 200, 401]),
        ["POST /api/me/make-calendar-link"] = new("/api/me/make-calendar-link", [401, 404, 404, 404, 200, 404, 404, 404, 401], school =>
            Body(new { kind = "section-calendar", section = school.Ids["section:9 Alder"] })
        ),
        ["POST /api/me/withdraw-calendar-link"] = new(
            "/api/me/withdraw-calendar-link",
            [401, 404, 404, 404, 200, 404, 404, 404, 401],
            school => Body(new { kind = "section-calendar", section = school.Ids["section:9 Alder"] })
        ),
        ["GET /calendars/{token:length(22)}.ics"] = new(
            "/calendars/AAAAAAAAAAAAAAAAAAAAAA.ics",
            [404, 404, 404, 404, 404, 404, 404, 404, 404]
        ),
        ["GET /api/editions/{edition:long}/outline"] = new("/api/editions/{edition}/outline", Team),
        ["GET /api/editions/{edition:long}/handed-in"] = new("/api/editions/{edition}/handed-in", Team),
        ["GET /api/editions/{edition:long}/ribbon"] = new("/api/editions/{edition}/ribbon", Team),
        ["GET /api/editions/{edition:long}/history"] = new("/api/editions/{edition}/history", Team),
        ["GET /api/editions/{edition:long}/search"] = new("/api/editions/{edition}/search?words=cloud", Team),
        ["GET /api/sections/{section:long}/search"] = new("/api/sections/{section}/search?words=cloud", Student),
        ["GET /api/editions/{edition:long}/items/{item:long}"] = new("/api/editions/{edition}/items/{task}", Team),
        ["GET /api/editions/{edition:long}/dates"] = new("/api/editions/{edition}/dates", Team),
        ["GET /api/editions/{edition:long}/dates.csv"] = new("/api/editions/{edition}/dates.csv", Team),
        ["GET /api/editions/{edition:long}/checks"] = new("/api/editions/{edition}/checks", Team),
        ["GET /api/editions/{edition:long}/today"] = new("/api/editions/{edition}/today", Team),
        ["POST /api/editions/{edition:long}/mark-changes-seen"] = new(
            "/api/editions/{edition}/mark-changes-seen",
            [401, 404, 404, 404, 404, 404, 404, 404, 401],
            _ => Body(new { batch = 1_000_000 })
        ),
        ["GET /api/editions/{edition:long}/groups"] = new("/api/editions/{edition}/groups", Team),
        ["GET /api/editions/{edition:long}/draw-groups"] = new(
            "/api/editions/{edition}/draw-groups?section={section}&size=3&seed=1&apart=",
            TheirStudents
        ),
        ["GET /api/editions/{edition:long}/sections"] = new("/api/editions/{edition}/sections", Team),
        ["GET /api/editions/{edition:long}/pace"] = new("/api/editions/{edition}/pace", Team),
        ["GET /api/editions/{edition:long}/ways"] = new(
            "/api/editions/{edition}/ways?section={section}&from=2026-10-14T10:40&to=2026-10-14T10:40",
            Team
        ),
        ["GET /api/editions/{edition:long}/work"] = new("/api/editions/{edition}/work", Team),
        // Evening watch is its teachers' to let follow.
        ["GET /api/editions/{edition:long}/join-check"] = new(
            "/api/editions/{edition}/join-check?section={evening}",
            [401, 404, 404, 404, 200, 404, 404, 404, 401]
        ),
        ["GET /api/editions/{edition:long}/joinable"] = new("/api/editions/{edition}/joinable", Team),
        // A section is its teachers' to let follow: the co-teacher does not teach this one.
        ["POST /api/editions/{edition:long}/join-section"] = new(
            "/api/editions/{edition}/join-section?preview=true",
            [401, 404, 404, 404, 200, 404, 404, 404, 401],
            CommandExamples.Join
        ),
        ["GET /api/editions/{edition:long}/students"] = new("/api/editions/{edition}/students", Team),
        ["GET /api/editions/{edition:long}/editions"] = new("/api/editions/{edition}/editions", Team),
        ["POST /api/editions/{edition:long}/roll-over"] = new(
            "/api/editions/{edition}/roll-over?preview=true",
            [401, 404, 404, 404, 200, 403, 404, 404, 401],
            RollOverTests.Spring
        ),
        ["GET /api/editions/{edition:long}/plan.json"] = new("/api/editions/{edition}/plan.json", Team),
        ["GET /api/editions/{edition:long}/course.zip"] = new("/api/editions/{edition}/course.zip", Team),
        ["POST /api/editions/{edition:long}/end-edition"] = new(
            "/api/editions/{edition}/end-edition?preview=true",
            [401, 404, 404, 404, 200, 403, 404, 404, 401],
            _ => Body(new { on = (string?)null })
        ),
        ["POST /api/editions/{edition:long}/resume-edition"] = new(
            "/api/editions/{edition}/resume-edition?preview=true",
            [401, 404, 404, 404, 200, 403, 404, 404, 401],
            Nothing
        ),
        ["POST /api/editions/{edition:long}/take-in"] = new(
            "/api/editions/{edition}/take-in?preview=true",
            [401, 404, 404, 404, 404, 404, 404, 404, 401],
            _ => Body(new { term = 1, upload = Guid.Empty })
        ),
        ["POST /api/editions/{edition:long}/take-back-course"] = new(
            "/api/editions/{edition}/take-back-course",
            [401, 404, 404, 404, 409, 403, 404, 404, 401],
            Nothing
        ),
        ["POST /api/editions/{edition:long}/take-back-roll-over"] = new(
            "/api/editions/{edition}/take-back-roll-over",
            [401, 404, 404, 404, 409, 403, 404, 404, 401],
            Nothing
        ),
        ["GET /api/terms/{term:long}/calendar"] = new("/api/terms/{term}/calendar", Office),
        ["GET /api/terms/{term:long}/ahead"] = new("/api/terms/{term}/ahead", Office),
        ["GET /api/terms/{term:long}/history"] = new("/api/terms/{term}/history", Office),
        ["POST /api/terms/{term:long}/closures-of-file"] = new("/api/terms/{term}/closures-of-file", Office, _ =>
            Body(new { text = "BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n" })
        ),
        ["POST /api/terms/{term:long}/mark-days"] = new("/api/terms/{term}/mark-days?preview=true", Office, _ => Body(
                new
                {
                    marks = new[]
                    {
                        new
                        {
                            id = (long?)null,
                            version = 0,
                            gone = false,
                            kind = "closure",
                            first = "2026-11-09",
                            last = "2026-11-09",
                            name = "Storm",
                            runs = (string?)null,
                            periods = (object?)null,
                        },
                    },
                }
            )),
        ["POST /api/terms/{term:long}/change-section"] = new(
            "/api/terms/{term}/change-section?preview=true",
            Office,
            TermCommandExamples.All["change-section"]
        ),
        ["POST /api/terms/{term:long}/end-section"] = new(
            "/api/terms/{term}/end-section?preview=true",
            Office,
            TermCommandExamples.All["end-section"]
        ),
        ["POST /api/terms/{term:long}/set-term"] = new(
            "/api/terms/{term}/set-term?preview=true",
            [401, 404, 404, 404, 404, 404, 404, 422, 401],
            _ =>
                Body(
                    new
                    {
                        first = "soon",
                        last = "2026-12-18",
                        weekdays = new[] { "mon" },
                        rotation = new { kind = "weekly" },
                        periods = Array.Empty<object>(),
                        offDays = "stay",
                        version = 1,
                    }
                )
        ),
        ["POST /api/terms/{term:long}/undo"] = new(
            "/api/terms/{term}/undo?preview=true",
            [401, 404, 404, 404, 404, 404, 404, 404, 401],
            _ => Body(new { batch = 1_000_000 })
        ),
        // The team sees these through a student's eyes only, and does nothing in a student's place.
        ["POST /api/join/look"] = new("/api/join/look", All422, _ => Body(new { code = "" })),
        ["POST /api/join"] = new("/api/join", All422, _ => Body(
                new
                {
                    code = "",
                    name = (string?)null,
                    email = (string?)null,
                }
            )),
        ["GET /api/sections/{section:long}/codes"] = new("/api/sections/{section}/codes", TheirStudents),
        ["POST /api/sections/{section:long}/make-section-code"] = new(
            "/api/sections/{section}/make-section-code?preview=true",
            TheirStudents,
            _ => Body(SectionCodeTests.Good())
        ),
        ["POST /api/sections/{section:long}/withdraw-section-code"] = new(
            "/api/sections/{section}/withdraw-section-code?preview=true",
            [401, 404, 404, 404, 404, 404, 404, 404, 401],
            async school => new { code = await SectionCodeTests.Code(school) }
        ),
        ["POST /api/sections/{section:long}/answer-joins"] = new(
            "/api/sections/{section}/answer-joins?preview=true",
            [401, 404, 404, 404, 404, 404, 404, 404, 401],
            async school => new { waiting = new[] { await SectionCodeTests.Waiting(school) }, letIn = true }
        ),
        ["GET /api/sections/{section:long}/now"] = new("/api/sections/{section}/now", Student),
        ["GET /api/sections/{section:long}/items/{item:long}"] = new("/api/sections/{section}/items/{task}", Student),
        ["GET /api/sections/{section:long}/items/{item:long}/why"] = new("/api/sections/{section}/items/{task}/why", Student),
        ["POST /api/sections/{section:long}/record-opened"] = new("/api/sections/{section}/record-opened", Student, async school => new
        {
            item = await school.Item("Cloud diary"),
        }),
        ["GET /api/editions/{edition:long}/items/{item:long}/students/{student:long}/versions"] = new(
            "/api/editions/{edition}/items/{task}/students/{student}/versions",
            TheirStudents
        ),
        ["GET /api/editions/{edition:long}/items/{item:long}/remarks"] = new("/api/editions/{edition}/items/{task}/remarks", Team),
        ["POST /api/sections/{section:long}/say-cannot-open"] = new(
            "/api/sections/{section}/say-cannot-open?preview=true",
            Student,
            async school => new { item = await school.Item("Cloud diary"), note = "It stays white." }
        ),
        ["POST /api/editions/{edition:long}/settle-cannot-open"] = new(
            "/api/editions/{edition}/settle-cannot-open?preview=true",
            TheirStudents,
            async school => new { cannotOpen = await CannotOpenTests.Said(school, "Cloud diary") }
        ),
        ["GET /api/sections/{section:long}/items/{item:long}/sheet"] = new("/api/sections/{section}/items/{task}/sheet", SectionReaders),
        ["GET /api/sections/{section:long}/items/{item:long}/sheet/{block:long}"] = new(
            "/api/sections/{section}/items/{task}/sheet/1000000",
            NoneOfOffice
        ),
        ["POST /api/sections/{section:long}/write-sheet"] = new(
            "/api/sections/{section}/write-sheet?preview=true",
            SectionReaders,
            async school => new
            {
                item = await school.Item("Compare your charts"),
                block = (long?)null,
                after = (long?)null,
                @base = 0,
                text = "We all went north of the lighthouse.",
            }
        ),
        ["POST /api/editions/{edition:long}/refresh-copies"] = new(
            "/api/editions/{edition}/refresh-copies?preview=true",
            Team,
            async school =>
            {
                var (item, file) = await CopyTests.Given(school, "Cloud diary", "sheet.txt", "Write here.");
                return new { item, file };
            }
        ),
        ["GET /api/editions/{edition:long}/items/{item:long}/text"] = new("/api/editions/{edition}/items/{task}/text", Team),
        ["POST /api/editions/{edition:long}/write-text"] = new("/api/editions/{edition}/write-text?preview=true", Team, async school => new
        {
            item = await school.Item("Guide: the rain gauge"),
            @base = "",
            html = "<p>Empty it every morning.</p>",
        }),
        ["POST /api/editions/{edition:long}/end-text"] = new("/api/editions/{edition}/end-text?preview=true", Team, async school => new
        {
            item = await school.Item("Guide: the rain gauge"),
            @base = "",
        }),
        ["GET /api/editions/{edition:long}/items/{item:long}/rubric"] = new("/api/editions/{edition}/items/{task}/rubric", Team),
        ["GET /api/editions/{edition:long}/items/{item:long}/rubric.csv"] = new("/api/editions/{edition}/items/{task}/rubric.csv", Team),
        ["GET /api/editions/{edition:long}/rubrics"] = new("/api/editions/{edition}/rubrics", Team),
        ["POST /api/editions/{edition:long}/understand-rubric"] = new("/api/editions/{edition}/understand-rubric", Team, async school => new
        {
            item = await school.Item("Cloud diary"),
            text = "Criterion,0,1\nTime,none,given",
        }),
        ["GET /api/editions/{edition:long}/items/{item:long}/quiz"] = new("/api/editions/{edition}/items/{quiz}/quiz", Team),
        ["GET /api/editions/{edition:long}/items/{item:long}/questions.zip"] = new(
            "/api/editions/{edition}/items/{quiz}/questions.zip",
            Team
        ),
        ["POST /api/editions/{edition:long}/take-questions"] = new(
            "/api/editions/{edition}/take-questions?preview=true",
            [401, 404, 404, 404, 404, 404, 404, 404, 401],
            _ => Body(new { upload = Guid.Empty })
        ),
        ["POST /api/editions/{edition:long}/understand-quiz"] = new("/api/editions/{edition}/understand-quiz", Team, _ =>
            Body(new { text = "Is it?\ntrue" })
        ),
        ["POST /api/editions/{edition:long}/try-quiz"] = new("/api/editions/{edition}/try-quiz", Team, _ => Body(
                new
                {
                    text = "Is it?\ntrue",
                    mixesQuestions = true,
                    mixesOptions = true,
                    lot = "one",
                    answers = new { k1 = true },
                    isDone = true,
                }
            )),
        // It opens later in the term: until then it is nothing to a student, and to its team one of the choices.
        ["GET /api/sections/{section:long}/items/{item:long}/offer"] = new(
            "/api/sections/{section}/items/{choice}/offer",
            [401, 404, 404, 404, 404, 404, 404, 404, 401]
        ),
        ["GET /api/editions/{edition:long}/items/{item:long}/picks"] = new("/api/editions/{edition}/items/{choice}/picks", Team),
        ["POST /api/sections/{section:long}/pick-options"] = new(
            "/api/sections/{section}/pick-options?preview=true",
            [401, 409, 404, 404, 404, 404, 404, 404, 401],
            async school => new { item = await school.Item(ChoiceTests.Title), options = new[] { "briefing" } }
        ),
        ["POST /api/sections/{section:long}/pick-for-student"] = new(
            "/api/sections/{section}/pick-for-student?preview=true",
            [401, 404, 404, 404, 200, 404, 404, 404, 401],
            ChoiceTests.Some
        ),
        ["GET /api/sections/{section:long}/items/{item:long}/quiz"] = new("/api/sections/{section}/items/{quiz}/quiz", Student),
        ["POST /api/sections/{section:long}/begin-quiz"] = new(
            "/api/sections/{section}/begin-quiz?preview=true",
            Student,
            async school => new { item = await school.Item("Reading scales") }
        ),
        // Nobody's first attempt runs: it is over, or was never begun.
        ["POST /api/sections/{section:long}/answer-quiz"] = new(
            "/api/sections/{section}/answer-quiz?preview=true",
            [401, 409, 404, 404, 404, 404, 404, 404, 401],
            async school => new
            {
                item = await school.Item("Reading scales"),
                n = 1,
                question = "k5",
                answer = true,
            }
        ),
        ["POST /api/sections/{section:long}/end-quiz"] = new("/api/sections/{section}/end-quiz?preview=true", Student, async school => new
        {
            item = await school.Item("Reading scales"),
            n = 1,
        }),
        ["POST /api/sections/{section:long}/tick-off"] = new("/api/sections/{section}/tick-off", Student, async school => new
        {
            item = await school.Item("Guide: the rain gauge"),
            done = true,
        }),
        ["POST /api/editions/{edition:long}/items/{item:long}/check-link"] = new(
            "/api/editions/{edition}/items/{film}/check-link",
            Team,
            _ => Body(new { })
        ),
        ["POST /api/sections/{section:long}/save-draft"] = new("/api/sections/{section}/save-draft", Student, async school => new
        {
            item = await school.Item("Cloud diary"),
            text = "So far",
            version = 0,
        }),
        ["POST /api/sections/{section:long}/hand-in"] = new("/api/sections/{section}/hand-in", Student, async school => new
        {
            item = await school.Item("Cloud diary"),
            text = "All of it",
            pressedAt = (string?)null,
        }),
        ["POST /api/sections/{section:long}/take-back"] = new(
            "/api/sections/{section}/take-back",
            [401, 409, 404, 404, 404, 404, 404, 404, 401],
            async school => new { item = await school.Item("Isobars by hand") }
        ),
        ["POST /api/sections/{section:long}/give-back"] = new(
            "/api/sections/{section}/give-back?preview=true",
            [401, 404, 404, 404, 200, 404, 404, 404, 401],
            WorkTests.SomePiece
        ),
        ["POST /api/sections/{section:long}/ready-mark"] = new(
            "/api/sections/{section}/ready-mark?preview=true",
            [401, 404, 404, 404, 200, 404, 404, 404, 401],
            WorkTests.SomePiece
        ),
        // Nothing is ready: to whoever may ask it is as if there were no such piece.
        ["POST /api/sections/{section:long}/give-back-ready"] = new(
            "/api/sections/{section}/give-back-ready?preview=true",
            [401, 404, 404, 404, 404, 404, 404, 404, 401],
            _ => Task.FromResult<object?>(new { works = new[] { 1_000_000 } })
        ),
        ["POST /api/sections/{section:long}/take-to-read"] = new(
            "/api/sections/{section}/take-to-read?preview=true",
            [401, 404, 404, 404, 200, 404, 404, 404, 401],
            ReaderTests.SomePiece
        ),
        ["GET /api/sections/{section:long}/missing"] = new(
            "/api/sections/{section}/missing",
            [401, 404, 404, 404, 200, 404, 404, 404, 401]
        ),
        ["POST /api/sections/{section:long}/remind-students"] = new(
            "/api/sections/{section}/remind-students?preview=true",
            [401, 404, 404, 404, 200, 404, 404, 404, 401],
            async school => new { item = await school.Item("Cloud diary"), students = new[] { school.Ids["person:" + DemoPeople.OnTrack] } }
        ),
        ["POST /api/sections/{section:long}/mark-answers"] = new(
            "/api/sections/{section}/mark-answers?preview=true",
            [401, 404, 404, 404, 200, 404, 404, 404, 401],
            AnswerReadingTests.SomeAnswer
        ),
        ["POST /api/sections/{section:long}/give-scores"] = new(
            "/api/sections/{section}/give-scores?preview=true",
            [401, 404, 404, 404, 200, 404, 404, 404, 401],
            GiveScoresTests.Some
        ),
        // Nothing was given under that key: to whoever may ask it is as if there were no such thing.
        ["POST /api/sections/{section:long}/take-back-scores"] = new(
            "/api/sections/{section}/take-back-scores",
            [401, 404, 404, 404, 404, 404, 404, 404, 401],
            _ => Task.FromResult<object?>(new { key = Guid.Parse("8b0c1f0e-5f0e-4a53-9d5c-6f9a3c1b7d20") })
        ),
        // Neither is a WebSocket here, which is all that is spoken: whoever may come gets no further than that.
        ["* /live"] = new("/live", [401, 400, 400, 400, 400, 400, 400, 400, 401]),
        ["* /live/negotiate"] = new("/live/negotiate", [401, 200, 200, 200, 200, 200, 200, 200, 401]),
    };

    private School school = null!;

    public async ValueTask InitializeAsync() => school = await shared.Open();

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public void Every_endpoint_has_its_row_and_says_who_may_call()
    {
        var endpoints = school
            .Instance.Services.GetServices<EndpointDataSource>()
            .SelectMany(source => source.Endpoints)
            .OfType<RouteEndpoint>()
            .ToList();
        endpoints.Select(Name).Distinct().Order().ShouldBe(Rows.Keys.Order());
        endpoints
            .Where(endpoint => endpoint.RoutePattern.RawText!.Contains("api/", StringComparison.Ordinal))
            .ShouldEachBe(endpoint => endpoint.Metadata.GetMetadata<AccessRule>() != null);
    }

    public static TheoryData<string> Endpoints => [.. Rows.Keys];

    [Theory]
    [MemberData(nameof(Endpoints))]
    public async Task Everybody_gets_what_is_theirs_and_no_more(string endpoint)
    {
        var row = Rows[endpoint];
        var address = await Filled(school, endpoint);
        var body = row.Body is null ? null : await row.Body(school);
        var method =
            endpoint.StartsWith("POST", StringComparison.Ordinal) || endpoint.EndsWith("negotiate", StringComparison.Ordinal)
                ? HttpMethod.Post
            : endpoint.StartsWith("PUT", StringComparison.Ordinal) ? HttpMethod.Put
            : HttpMethod.Get;
        var got = new List<string>();
        foreach (var who in Everybody)
        {
            using var caller = await Persona(who);
            var reply = await caller.Send(method, address, body, request => request.Headers.Add("Idempotency-Key", $"{Guid.NewGuid()}"));
            got.Add($"{who}: {(int)reply.Status}");
            if (
                (int)reply.Status >= 400
                && reply.Message.Content.Headers.ContentType?.MediaType is { } type
                && !endpoint.Contains("/live", StringComparison.Ordinal)
            )
                type.ShouldBe("application/problem+json");
            if (reply.Status == HttpStatusCode.NotFound)
                reply.Text.ShouldNotContain("Alder");
        }
        got.ShouldBe(Everybody.Zip(row.Expected).Select(pair => $"{pair.First}: {pair.Second}"));
    }

    [Theory]
    [InlineData("/api/editions/999999/outline")]
    [InlineData("/api/sections/999999")]
    [InlineData("/api/editions/0/outline")]
    [InlineData("/api/editions/99999999999999999999/outline")]
    public async Task What_does_not_exist_answers_as_what_is_not_for_one_to_see(string address)
    {
        using var lead = await school.As(DemoPeople.Lead);
        using var student = await school.As(DemoPeople.OnTrack);
        (await lead.Get(address)).Status.ShouldBe(HttpStatusCode.NotFound);
        (await student.Get(address)).Text.ShouldBe((await student.Get($"/api/editions/{school.WeatherWatch}/outline")).Text);
    }

    [Fact]
    public async Task The_co_teacher_of_a_section_reads_it_and_the_lead_reads_all_that_follow()
    {
        using var co = await school.As(DemoPeople.CoTeacher);
        (await co.Get($"/api/sections/{school.Ids["section:9 Dogwood"]}")).Status.ShouldBe(HttpStatusCode.OK);
        using var lead = await school.As(DemoPeople.Lead);
        foreach (var name in new[] { "9 Alder", "9 Birch", "9 Cedar", "9 Dogwood", "Evening watch" })
            (await lead.Get($"/api/sections/{school.Ids["section:" + name]}")).Status.ShouldBe(HttpStatusCode.OK, name);
    }

    /// <summary>The address at which an endpoint is asked, with what there is in this school.</summary>
    internal static async Task<string> Filled(School school, string endpoint)
    {
        var address = Rows[endpoint]
            .Address.Replace("{edition}", $"{school.WeatherWatch}", StringComparison.Ordinal)
            .Replace("{section}", $"{school.Ids["section:9 Alder"]}", StringComparison.Ordinal)
            .Replace("{evening}", $"{school.Ids["section:Evening watch"]}", StringComparison.Ordinal)
            .Replace("{other}", $"{school.Ids["section:9 Birch"]}", StringComparison.Ordinal)
            .Replace("{student}", $"{school.Ids["person:" + DemoPeople.OnTrack]}", StringComparison.Ordinal)
            .Replace(
                "{term}",
                $"{await school.Sql(connection => connection.ExecuteScalarAsync<long>(TermOf, new { school.WeatherWatch }))}",
                StringComparison.Ordinal
            )
            .Replace("{task}", $"{await school.Item("Cloud diary")}", StringComparison.Ordinal)
            .Replace("{unit}", $"{await school.Unit("Looking up")}", StringComparison.Ordinal)
            .Replace("{film}", $"{await school.Item("Film: a day over the harbour")}", StringComparison.Ordinal)
            .Replace("{quiz}", $"{await school.Item("Reading scales")}", StringComparison.Ordinal)
            .Replace("{choice}", $"{await school.Item(ChoiceTests.Title)}", StringComparison.Ordinal);
        if (address.Contains("{file}", StringComparison.Ordinal))
            address = address.Replace(
                "{file}",
                $"{(await FileTests.Attached(school, "Cloud diary", "winds.csv")).File}",
                StringComparison.Ordinal
            );
        return address;
    }

    private static Task<object?> Nothing(School school) => Body(new { });

    private static Task<object?> Body(object body) => Task.FromResult<object?>(body);

    private static string Name(RouteEndpoint endpoint)
    {
        var methods = endpoint.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods;
        var path = endpoint.RoutePattern.RawText!;
        return (
                methods is [var one] ? one
                : methods is null ? "*"
                : string.Join(',', methods.Where(method => method != "OPTIONS").Order())
            ) + $" {path}";
    }

    private async Task<Caller> Persona(string who)
    {
        switch (who)
        {
            case "nobody":
                return await school.As(null);
            case "withdrawn session":
                var caller = await school.As(DemoPeople.Lead);
                using (var elsewhere = new Caller(school.Address()) { Session = caller.Session })
                    (await elsewhere.Post("/api/sign-out")).Status.ShouldBe(HttpStatusCode.NoContent);
                return caller;
            default:
                return await school.As(
                    who switch
                    {
                        "student of the section" => DemoPeople.OnTrack,
                        "student of another" => DemoPeople.HeldUp,
                        "removed student" => DemoPeople.Leaver,
                        "lead" => DemoPeople.Lead,
                        "co-teacher of another section" => DemoPeople.CoTeacher,
                        "other team" => DemoPeople.Colleague,
                        _ => DemoPeople.Office,
                    }
                );
        }
    }
}
