using System.IO.Compression;
using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Core.PlanFiles;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>A course goes out as a file and comes in as one, and nothing is lost or let in on the way.</summary>
public sealed class PackageTests(SchoolOfClass shared) : IClassFixture<SchoolOfClass>, IAsyncLifetime
{
    private School school = null!;
    private Caller lead = null!;
    private long term;

    public async ValueTask InitializeAsync()
    {
        school = await shared.Open();
        lead = await school.As(DemoPeople.Lead);
        term = await school.Sql(connection => connection.ExecuteScalarAsync<long>("SELECT id FROM term WHERE name = 'Spring term 2027'"));
    }

    public ValueTask DisposeAsync()
    {
        lead.Dispose();
        return ValueTask.CompletedTask;
    }

    [Fact]
    public async Task Out_in_and_out_again_a_package_is_the_same_to_the_byte_and_taken_back_nothing_is_left()
    {
        (
            await lead.Post(
                $"/api/editions/{school.WeatherWatch}/change-course",
                await CommandExamples.All["change-course"](school),
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
        var first = await Package(school.WeatherWatch);
        var rows = await school.RowCounts("audit", "request", "body", "session");
        var shown = await TakeIn(first, preview: true);
        shown.Json["sentence"]!
            .GetValue<string>()
            .ShouldBe(
                "“Sky and Weather”, edition 2026: 6 weeks, 38 topics, 110 pieces of work, "
                    + "33 texts. It becomes a course of your own; no section follows it yet."
            );
        (await school.RowCounts("audit", "request", "body", "session")).ShouldBe(rows);
        var key = Guid.NewGuid();
        var made = await Task.WhenAll(Enumerable.Range(0, 3).Select(_ => TakeIn(first, key: key)));
        made.Select(reply => reply.Text).Distinct().ShouldHaveSingleItem();
        var edition = made[0].Json["edition"]!.GetValue<long>();
        (await Package(edition)).ShouldBe(first);
        // It is a course of its own: what is changed in it is changed in no other.
        (
            await school.Sql(connection =>
                connection.ExecuteScalarAsync<int>(
                    "SELECT count(*)::int FROM item a JOIN item b USING (lineage) WHERE a.edition = @edition AND b.edition <> @edition",
                    new { edition }
                )
            )
        ).ShouldBe(0);
        (await lead.Get($"/api/editions/{edition}/outline")).Json["canChange"]!.GetValue<bool>().ShouldBeTrue();
        using var co = await school.As(DemoPeople.CoTeacher);
        (await co.Get($"/api/editions/{edition}/outline")).Status.ShouldBe(HttpStatusCode.NotFound);
        (await lead.Get($"/api/editions/{edition}/editions")).Json["canTakeBackCourse"]!.GetValue<bool>().ShouldBeTrue();
        (await lead.Post($"/api/editions/{edition}/take-back-course", new { }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        (await school.RowCounts("audit", "request", "body", "session")).ShouldBe(rows);
    }

    [Fact]
    public async Task The_plan_file_of_a_course_has_its_sections_with_their_differences_and_none_of_its_students()
    {
        var text = (await lead.Get($"/api/editions/{school.WeatherWatch}/plan.json")).Text;
        var plan = PlanFile.Read(Encoding.UTF8.GetBytes(text)).Plan;
        plan.Sections.Select(section => section.Title).ShouldBe(["9 Alder", "9 Birch", "9 Cedar", "9 Dogwood"]);
        plan.Sections.ShouldEachBe(section => section.Students.IsEmpty);
        plan.Sections[1].Adjustments.Length.ShouldBe(2);
        foreach (var name in new[] { DemoPeople.OnTrack, DemoPeople.HeldUp, DemoPeople.Lead })
            text.ShouldNotContain(name);
        // What the computation makes of the file is what the screen says.
        var schedule = Polycline.Core.Planning.PlanSchedule.Of(
            Polycline.Core.Calendars.TermDays.Of(plan.Term),
            plan.Edition,
            plan.Sections
        );
        schedule
            .Section(plan.Sections[3].Ref)
            .Forecast.Lacking.ShouldBe(
                (await lead.Get($"/api/editions/{school.WeatherWatch}/dates")).Json["sections"]![3]!["lacking"]!.GetValue<int>()
            );
    }

    [Fact]
    public async Task A_file_that_is_none_or_hostile_is_refused_with_what_is_wrong_and_nothing_is_written()
    {
        var good = await Package(school.WeatherWatch);
        var rows = await school.RowCounts("audit", "request");
        async Task Refused(byte[] bytes, string says)
        {
            var reply = await TakeIn(bytes);
            reply.Status.ShouldBe(HttpStatusCode.UnprocessableEntity, reply.Text);
            reply.Json["title"]!.GetValue<string>().ShouldContain(says);
        }
        await Refused([], "not a zip file");
        await Refused(Encoding.UTF8.GetBytes("PK, but no"), "not a zip file");
        await Refused(Zip(("plan.json", "{}")), "course.json");
        await Refused(Zip(("course.json", "[]")), "course.json: must be an object");
        await Refused(
            Zip(("course.json", Course(course => course["edition"]!["units"]![0]!["lessons"]![0]!["length"] = -1))),
            "course.json.edition.units[0].lessons[0].length"
        );
        await Refused(Zip(("course.json", Course(course => course["purposes"]!["nothing"] = "practice"))), "course.json.purposes.nothing");
        await Refused(
            Zip(
                (
                    "course.json",
                    Course(course =>
                        course["edition"]!["units"]![0]!["items"]![0]!["gate"] = JsonNode.Parse("""{"item":"i999","is":"returned"}""")
                    )
                )
            ),
            "course.json.edition.units[0].items[0].gate"
        );
        await Refused(Zip(("course.json", Course(_ => { }))), "is missing from this package");
        await Refused(Zip(("course.json", new string(' ', 60_000_000))), "50 MB");
        (await school.RowCounts("audit", "request")).ShouldBe(rows);
        // A text is taken in the one form in which texts are kept.
        var name = JsonNode.Parse(Entry(good, "course.json"))!["texts"]!.AsObject().First().Value!.GetValue<string>();
        var made = await TakeIn(
            Zip([
                .. Entries(good).Where(entry => entry.Name != $"texts/{name}"),
                ($"texts/{name}", "<p onclick='x()'>Clouds<script>alert(1)</script></p>"),
            ])
        );
        var edition = made.Json["edition"]!.GetValue<long>();
        Entries(await Package(edition)).ShouldContain(entry => entry.Text == "<p>Clouds</p>");
        await lead.Post($"/api/editions/{edition}/take-back-course", new { }, Guid.NewGuid());

        string Course(Action<JsonNode> change)
        {
            var course = JsonNode.Parse(Entry(good, "course.json"))!;
            change(course);
            return course.ToJsonString();
        }
    }

    [Fact]
    public async Task A_package_is_held_to_what_the_screens_allow_and_is_refused_within_seconds_with_the_limit_it_breaks()
    {
        var good = await Package(school.WeatherWatch);
        var text = JsonNode.Parse(Entry(good, "course.json"))!["texts"]!.AsObject().First().Value!.GetValue<string>();
        async Task Refused(string says, Action<JsonNode>? change = null, string? html = null)
        {
            var course = JsonNode.Parse(Entry(good, "course.json"))!;
            change?.Invoke(course);
            var entries = Entries(good)
                .Select(entry =>
                    entry.Name == "course.json" ? (entry.Name, course.ToJsonString())
                    : entry.Name == $"texts/{text}" && html is not null ? (entry.Name, html)
                    : entry
                );
            var reply = await TakeIn(Zip([.. entries]), preview: true);
            (reply.Status, reply.Json["field"]!.GetValue<string>()).ShouldBe(
                (HttpStatusCode.UnprocessableEntity, "package"),
                reply.Text[..Math.Min(300, reply.Text.Length)]
            );
            reply.Json["title"]!.GetValue<string>().ShouldContain(says);
        }
        static JsonNode Unit(JsonNode course) => course["edition"]!["units"]![0]!;
        static JsonNode Lesson(JsonNode course) => Unit(course)["lessons"]![0]!;
        await Refused("1 to 200 characters", course => Unit(course)["title"] = new string('x', 201));
        await Refused("1 to 200 characters", course => Lesson(course)["title"] = "\u200b\u00a0");
        await Refused("1 to 200 characters", course => course["edition"]!["title"] = new string('x', 201));
        await Refused("from 0 to 10000", course => Lesson(course)["length"] = 10_001);
        await Refused("more than 5,000 units, lessons and items", course =>
        {
            var lessons = Unit(course)["lessons"]!.AsArray();
            for (var n = 0; n < 20_000; n++)
                lessons.Add(
                    new JsonObject
                    {
                        ["id"] = $"more{n}",
                        ["title"] = $"Lesson {n}",
                        ["length"] = 1,
                    }
                );
        });
        await Refused("at most 200 parts", course =>
        {
            var named = Unit(course)["items"]![0]!["id"]!.GetValue<string>();
            course["edition"]!["units"]![2]!["gate"] = new JsonObject
            {
                ["all"] = new JsonArray([
                    .. Enumerable.Range(0, 4_000).Select(_ => new JsonObject { ["item"] = named, ["is"] = "opened" }),
                ]),
            };
        });
        await Refused("nested more than 100 levels deep", html: string.Concat(Enumerable.Repeat("<em>", 50_000)));
        await Refused("nested more than 100 levels deep", html: string.Concat(Enumerable.Repeat("<ul><li>", 20_000)));
        await Refused("longer than 200,000", html: new string('x', 200_001));
        await Refused($"texts/{text}: ", html: "a\u0000b");
    }

    private static byte[] Zip(params IEnumerable<(string Name, string Text)> entries)
    {
        using var stream = new MemoryStream();
        using (var zip = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (name, text) in entries)
            {
                using var to = new StreamWriter(zip.CreateEntry(name).Open());
                to.Write(text);
            }
        return stream.ToArray();
    }

    private static List<(string Name, string Text)> Entries(byte[] bytes)
    {
        using var zip = new ZipArchive(new MemoryStream(bytes));
        return [.. zip.Entries.Select(entry => (entry.FullName, new StreamReader(entry.Open()).ReadToEnd()))];
    }

    private static string Entry(byte[] bytes, string name) => Entries(bytes).Single(entry => entry.Name == name).Text;

    private async Task<byte[]> Package(long edition)
    {
        var reply = await lead.Get($"/api/editions/{edition}/course.zip");
        reply.Status.ShouldBe(HttpStatusCode.OK);
        return await reply.Message.Content.ReadAsByteArrayAsync();
    }

    private Task<Reply> TakeIn(byte[] bytes, bool preview = false, Guid? key = null) =>
        lead.Post(
            $"/api/editions/{school.WeatherWatch}/take-in{(preview ? "?preview=true" : "")}",
            new { term, package = Convert.ToBase64String(bytes) },
            preview ? null : key ?? Guid.NewGuid()
        );
}
