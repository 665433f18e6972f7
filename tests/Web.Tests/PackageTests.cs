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
    // What is sent stays for a while, whether it is taken in or not.
    private static readonly string[] Kept = ["audit", "request", "body", "body_file", "session", "stored_file", "file_chunk", "file_part"];

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
        (
            await lead.Post(
                $"/api/editions/{school.WeatherWatch}/add-up-scores",
                await CommandExamples.All["add-up-scores"](school),
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
        // A picture in a text travels too.
        var page = await school.Item("A slow ramp");
        var drawing = await lead.SendFile("ramp.svg", "<svg xmlns=\"http://www.w3.org/2000/svg\"><path d=\"M0 9h9\"/></svg>"u8.ToArray());
        var written = await lead.Post(
            $"/api/editions/{school.WeatherWatch}/write-item",
            new
            {
                item = page,
                html = $"<p>Warm air climbs.</p><img src=\"/api/me/uploads/{drawing}/bytes\" alt=\"A ramp\">",
                version = (await lead.Get($"/api/editions/{school.WeatherWatch}/items/{page}")).Json["version"]!.GetValue<long>(),
            },
            Guid.NewGuid()
        );
        written.Status.ShouldBe(HttpStatusCode.OK, written.Text);
        await lead.Post("/api/me/cancel-upload", new { upload = drawing }, Guid.NewGuid());
        // So does one of an option of a choice.
        var choice = await school.Item(ChoiceTests.Title);
        var gauge = await lead.SendFile("gauge.svg", "<svg xmlns=\"http://www.w3.org/2000/svg\"><path d=\"M9 0v9\"/></svg>"u8.ToArray());
        var offered = (await lead.Get($"/api/editions/{school.WeatherWatch}/items/{choice}")).Json;
        var offers = offered["offers"]!.DeepClone().AsObject();
        offers["options"]![0]!["picture"] = new JsonObject { ["source"] = $"/api/me/uploads/{gauge}/bytes", ["words"] = "A gauge" };
        offers["item"] = choice;
        offers["version"] = offered["version"]!.DeepClone();
        (await lead.Post($"/api/editions/{school.WeatherWatch}/offer-options", offers, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        await lead.Post("/api/me/cancel-upload", new { upload = gauge }, Guid.NewGuid());
        // So does who hands in together, and what items are tied to.
        await lead.Post($"/api/editions/{school.WeatherWatch}/add-group", new { name = "Pier pair" }, Guid.NewGuid());
        var asked = await lead.Post(
            $"/api/editions/{school.WeatherWatch}/ask-item",
            new
            {
                item = await school.Item("Cloud diary"),
                asks = new
                {
                    way = "work",
                    text = "asked",
                    links = "no",
                    files = Array.Empty<object>(),
                    others = true,
                    together = new[] { "Pier pair" },
                },
                version = 1,
            },
            Guid.NewGuid()
        );
        asked.Status.ShouldBe(HttpStatusCode.OK, asked.Text);
        // How it is marked.
        var marked = await lead.Post(
            $"/api/editions/{school.WeatherWatch}/mark-item-as",
            new
            {
                item = await school.Item("Isobars by hand"),
                marked = new
                {
                    @as = "scale",
                    outOf = 12.5,
                    levels = new[] { new { name = "not yet", percent = 0.0 }, new { name = "there", percent = 87.25 } },
                },
                version = 1,
            },
            Guid.NewGuid()
        );
        marked.Status.ShouldBe(HttpStatusCode.OK, marked.Text);
        var first = await Package(school.WeatherWatch);
        var course = string.Concat(Entry(first, "course.json").Where(sign => !char.IsWhiteSpace(sign)));
        course.ShouldContain("\"together\":[\"Pierpair\"]");
        course.ShouldContain("\"groups\":[\"Pierpair\"]");
        course.ShouldContain("\"outcomes\":{\"i");
        course.ShouldContain("\"rubrics\":{\"i");
        course.ShouldContain("\"addingUp\":{\"by\":\"unit\",\"weights\":{\"u4\":2.5},\"missing\":\"zero\",\"drop\":{\"u4\":1}}");
        Entries(first).Count(entry => entry.Name.StartsWith("files/", StringComparison.Ordinal)).ShouldBe(27);
        var rows = await school.RowCounts(Kept);
        var shown = await TakeIn(first, preview: true);
        shown.Json["sentence"]!
            .GetValue<string>()
            .ShouldBe(
                "“Sky and Weather”, edition 2026: 6 weeks, 38 topics, 110 pieces of work, "
                    + "96 texts, 6 files. It becomes a course of your own; no section follows it yet."
            );
        (await school.RowCounts(Kept)).ShouldBe(rows);
        var (key, upload) = (Guid.NewGuid(), await lead.SendFile("course.zip", first));
        var made = await Task.WhenAll(Enumerable.Range(0, 3).Select(_ => TakeIn(upload, key: key)));
        made.Select(reply => reply.Text).Distinct().ShouldHaveSingleItem();
        var edition = made[0].Json["edition"]!.GetValue<long>();
        (await Package(edition)).ShouldBe(first);
        // Its files are read there as they were here.
        var there = (await lead.Get($"/api/editions/{edition}/outline")).Json["units"]!
            .AsArray()
            .SelectMany(unit => unit!["lessons"]!.AsArray())
            .SelectMany(lesson => lesson!["items"]!.AsArray())
            .Single(item => item!["title"]!.GetValue<string>() == "The twelve forces of wind")!;
        var taken = (await lead.Get($"/api/editions/{edition}/items/{there["id"]}")).Json["files"]![0]!["file"]!;
        taken["name"]!.GetValue<string>().ShouldBe("forces of wind.csv");
        (await lead.Get(taken["address"]!.GetValue<string>())).Text.ShouldStartWith("force,");
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
        (await school.RowCounts(Kept)).ShouldBe(rows);
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
        var rows = await school.RowCounts(Kept);
        async Task Refused(byte[] bytes, string says)
        {
            var reply = await TakeIn(bytes);
            reply.Status.ShouldBe(HttpStatusCode.UnprocessableEntity, reply.Text);
            reply.Json["title"]!.GetValue<string>().ShouldContain(says);
        }
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
        // Its files are held to what files are held to that are sent by themselves.
        var item = JsonNode.Parse(Entry(good, "course.json"))!["files"]!.AsObject().First().Key;
        var file = JsonNode.Parse(Entry(good, "course.json"))!["files"]![item]![0]!["file"]!.GetValue<string>();
        await Refused(
            Zip([.. Entries(good).Where(entry => entry.Name != $"files/{file}")]),
            $"files/{file}, which the course uses, is missing"
        );
        foreach (var tricky in new[] { "../../etc/passwd", "line\nbreak.txt", "CON.txt" })
            await Refused(Named(course => course["files"]![item]![0]!["name"] = tricky), "name");
        await Refused(Named(course => course["files"]![item]![0]!["name"] = "chart.pdf"), "contains something else");
        await Refused(Named(course => course["files"]![item]![0]!["file"] = "../course.json"), "letters, digits, dots");
        await Refused(Named(course => course["files"]!["i9999"] = new JsonArray()), "course.json.files.i9999");
        (await school.RowCounts(Kept)).ShouldBe(rows);
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

        byte[] Named(Action<JsonNode> change) =>
            Zip([("course.json", Course(change)), .. Entries(good).Where(entry => entry.Name != "course.json")]);

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
                (HttpStatusCode.UnprocessableEntity, "upload"),
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

    // Sent, taken in, and where it was not taken, forgotten.
    private async Task<Reply> TakeIn(byte[] bytes, bool preview = false)
    {
        var upload = await lead.SendFile("course.bin", bytes);
        var reply = await TakeIn(upload, preview);
        await lead.Post("/api/me/cancel-upload", new { upload }, Guid.NewGuid());
        return reply;
    }

    private Task<Reply> TakeIn(Guid upload, bool preview = false, Guid? key = null) =>
        preview
            ? lead.Post($"/api/editions/{school.WeatherWatch}/take-in?preview=true", new { term, upload })
            : lead.PostUntilAnswered($"/api/editions/{school.WeatherWatch}/take-in", new { term, upload }, key ?? Guid.NewGuid());
}
