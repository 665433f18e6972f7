using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Files that students hand in: whose they are, who reads them, and that none is lost.</summary>
public sealed class WorkFileTests : LeadOfASchool
{
    private string Address(string rest) => $"/api/sections/{School.Ids["section:9 Alder"]}/{rest}";

    private static object File(Guid upload) => new { id = (long?)null, upload };

    private static object File(JsonNode listed) => new { id = listed["id"]!.GetValue<long>(), upload = (Guid?)null };

    private async Task<JsonNode> Do(Caller student, string command, object body)
    {
        var reply = await student.Post(Address(command), body, Guid.NewGuid());
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return reply.Json;
    }

    private async Task<JsonNode> Save(Caller student, long item, string text, long version, params object[] files) =>
        await Do(
            student,
            "save-draft",
            new
            {
                item,
                text,
                version,
                files,
            }
        );

    // Somebody else of 9 Alder.
    private Task<string> Neighbour() =>
        School.Sql(connection =>
            connection.QueryFirstAsync<string>(
                "SELECT p.name FROM place n JOIN person p ON p.id = n.person WHERE n.section = @section AND p.name <> @OnTrack "
                    + "AND upper_inf(n.period) ORDER BY p.id",
                new { section = School.Ids["section:9 Alder"], DemoPeople.OnTrack }
            )
        );

    private Task<JsonNode> HandIn(Caller student, long item, string text, params object[] files) =>
        Do(
            student,
            "hand-in",
            new
            {
                item,
                text,
                pressedAt = (string?)null,
                files,
            }
        );

    [Fact]
    public async Task A_file_goes_from_draft_to_hand_in_to_teacher_and_back_and_its_bytes_stay_the_same()
    {
        using var imke = await School.As(DemoPeople.OnTrack);
        var item = await School.Item("Cloud diary");
        var first = (await imke.Get(Address($"items/{item}"))).Json["history"]!.AsArray().Count;
        var saved = await Save(imke, item, "So far", 0, File(await imke.SendFile("monday.txt", "six eighths"u8.ToArray())));
        var monday = saved["files"]![0]!;
        saved = await Save(
            imke,
            item,
            "So far",
            saved["version"]!.GetValue<long>(),
            File(await imke.SendFile("sky.txt", "grey"u8.ToArray())),
            File(monday)
        );
        saved["files"]!.AsArray().Select(file => file!["name"]!.GetValue<string>()).ShouldBe(["sky.txt", "monday.txt"]);
        (await imke.Get($"{monday["address"]}")).Text.ShouldBe("six eighths");

        // No text at all: the files are what is handed in.
        await HandIn(imke, item, "", [.. saved["files"]!.AsArray().Select(file => File(file!))]);
        var read = (await imke.Get(Address($"items/{item}"))).Json;
        read["draft"].ShouldBeNull();
        read["history"]!.AsArray().Count.ShouldBe(first + 1);
        read["history"]![0]!["files"]!.AsArray().Select(file => file!["name"]!.GetValue<string>()).ShouldBe(["sky.txt", "monday.txt"]);

        var piece = await Piece(item, DemoPeople.OnTrack);
        var shown = piece["files"]!.AsArray().Single(file => file!["name"]!.GetValue<string>() == "monday.txt")!;
        (await Lead.Get($"{shown["address"]}")).Text.ShouldBe("six eighths");

        // What is handed in counts as theirs, each file once, whatever becomes of the upload.
        await School.Sql(connection => connection.ExecuteAsync("DELETE FROM upload"));
        (await imke.Get("/api/me/room")).Json["taken"]!.GetValue<long>().ShouldBe("six eighths".Length + "grey".Length);

        // Taken back, text and files are a draft again; handed in once more, both versions keep their own.
        await Do(imke, "take-back", new { item });
        var draft = (await imke.Get(Address($"items/{item}"))).Json["draft"]!;
        draft["files"]!.AsArray().Count.ShouldBe(2);
        await HandIn(imke, item, "Only one", File(draft["files"]![1]!));
        var history = (await imke.Get(Address($"items/{item}"))).Json["history"]!;
        history[0]!["files"]!.AsArray().Count.ShouldBe(1);
        history[1]!["files"]!.AsArray().Count.ShouldBe(2);
        (await Verifier.Run(School.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
    }

    private async Task<JsonNode> Piece(long item, string name) =>
        (await Lead.Get(Route("work"))).Json["sections"]!
            .AsArray()
            .SelectMany(section => section!["pieces"]!.AsArray())
            .Single(piece => piece!["item"]!.GetValue<long>() == item && piece["name"]!.GetValue<string>() == name)!;

    [Fact]
    public async Task Nobody_reads_or_lists_what_another_brought()
    {
        using var imke = await School.As(DemoPeople.OnTrack);
        using var noor = await School.As(await Neighbour());
        var item = await School.Item("Cloud diary");
        var upload = await imke.SendFile("mine.txt", "mine"u8.ToArray());
        var mine = (await Save(imke, item, "", 0, File(upload)))["files"]![0]!;

        foreach (var stolen in new[] { File(mine), File(upload) })
        {
            var reply = await noor.Post(
                Address("save-draft"),
                new
                {
                    item,
                    text = "",
                    version = 0,
                    files = new[] { stolen },
                },
                Guid.NewGuid()
            );
            (reply.Status, reply.Json["field"]?.GetValue<string>()).ShouldBe((HttpStatusCode.NotFound, "files[0]"));
        }
        // Listed twice it is refused, and nothing is lost by it.
        foreach (var twice in new[] { File(mine), File(upload) })
        {
            var refused = await imke.Post(
                Address("hand-in"),
                new
                {
                    item,
                    text = "",
                    pressedAt = (string?)null,
                    files = new[] { twice, twice },
                },
                Guid.NewGuid()
            );
            (refused.Status, refused.Json["field"]?.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "files"));
        }
        (await noor.Get($"{mine["address"]}")).Status.ShouldBe(HttpStatusCode.NotFound);
        // A draft is nobody's but the student's; handed in, it is read by those who teach the section, and by no other team.
        var teachers = Address($"work-files/{mine["id"]}");
        (await Lead.Get(teachers)).Status.ShouldBe(HttpStatusCode.NotFound);
        await HandIn(imke, item, "", File(mine));
        (await Lead.Get(teachers)).Status.ShouldBe(HttpStatusCode.OK);
        using var co = await School.As(DemoPeople.CoTeacher);
        using var other = await School.As(DemoPeople.Colleague);
        foreach (var who in new[] { co, other, noor, imke })
            (await who.Get(teachers)).Status.ShouldBe(HttpStatusCode.NotFound);
        (await Lead.Get($"/api/sections/{School.Ids["section:9 Birch"]}/work-files/{mine["id"]}")).Status.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Whatever_a_team_does_every_file_stays_with_its_student_and_its_teacher()
    {
        using var imke = await School.As(DemoPeople.OnTrack);
        var item = await School.Item("Cloud diary");
        await HandIn(imke, item, "All of it", File(await imke.SendFile("kept.txt", "kept for good"u8.ToArray())));
        var file = (await imke.Get(Address($"items/{item}"))).Json["history"]![0]!["files"]![0]!;
        var (charts, done) = (await School.Item("Compare your charts"), new List<string>());
        foreach (var entry in School.Commands.Where(entry => entry is { Planning: true, Place: "edition" }).OrderBy(entry => entry.Name))
        {
            if (entry.Name is "undo")
                continue;
            var reply = await Lead.Post(Route(entry.Name), await CommandExamples.All[entry.Name](School), Guid.NewGuid());
            if (reply.Status != HttpStatusCode.OK)
                continue;
            done.Add(entry.Name);
            (await Lead.Get(Address($"work-files/{file["id"]}"))).Text.ShouldBe("kept for good", entry.Name);
            // Whoever moved finds it where they are now.
            var here = (await imke.Get("/api/places")).Json["sections"]!.AsArray();
            foreach (var place in here.Where(one => one!["course"]?.GetValue<string>() == "Weather Watch"))
            {
                // What a section wrote together stays with the section.
                if (place!["section"]!.GetValue<long>() == School.Ids["section:9 Alder"])
                    (await imke.Get(Address($"items/{charts}/sheet"))).Text.ShouldContain("South of Lisken", Case.Sensitive, entry.Name);
                (await imke.Get($"/api/sections/{place!["section"]}/items/{item}/work-files/{file["id"]}")).Text.ShouldBe(
                    "kept for good",
                    entry.Name
                );
            }
            if (reply.Json["batch"] is JsonValue batch)
                await Lead.Post(Route("undo"), new { batch = batch.GetValue<long>() }, Guid.NewGuid());
        }
        done.Count.ShouldBeGreaterThan(30);
    }

    [Fact]
    public async Task What_came_too_late_keeps_its_files_and_the_team_reads_them()
    {
        using var imke = await School.As(DemoPeople.OnTrack);
        var item = await School.Item("Cloud diary");
        var upload = await imke.SendFile("late.txt", "late but whole"u8.ToArray());
        await Post(
            "time-item",
            new
            {
                item,
                field = "closes",
                anchor = new
                {
                    at = "fixed",
                    date = "2026-10-07",
                    time = "12:00",
                },
                version = await School.Sql(connection =>
                    connection.ExecuteScalarAsync<long>("SELECT version FROM item WHERE id = @item", new { item })
                ),
            }
        );
        (await HandIn(imke, item, "", File(upload)))["handedIn"]!.GetValue<bool>().ShouldBeFalse();
        var missed = (await Lead.Get(Route("work"))).Json["sections"]!
            .AsArray()
            .SelectMany(section => section!["pieces"]!.AsArray())
            .Single(piece => piece!["work"] is null && piece["item"]!.GetValue<long>() == item)!;
        (await Lead.Get($"{missed["files"]![0]!["address"]}")).Text.ShouldBe("late but whole");
    }

    [Fact]
    public async Task Of_somebody_who_is_erased_no_file_stays_unless_another_brought_the_same()
    {
        using var imke = await School.As(DemoPeople.OnTrack);
        using var noor = await School.As(await Neighbour());
        using var office = await School.As(DemoPeople.Office);
        var item = await School.Item("Cloud diary");
        await HandIn(
            imke,
            item,
            "",
            File(await imke.SendFile("imke-alone.txt", "of nobody else"u8.ToArray())),
            File(await imke.SendFile("imke-both.txt", "of both"u8.ToArray()))
        );
        await HandIn(noor, item, "", File(await noor.SendFile("both.txt", "of both"u8.ToArray())));
        var person = School.Ids["person:" + DemoPeople.OnTrack];
        (await office.Get($"/api/people/{person}/data")).Text.ShouldContain("imke-alone.txt");
        (await office.Post("/api/school/deactivate-person", new { person }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        var erased = await office.Post("/api/school/erase-person", new { person, name = DemoPeople.OnTrack }, Guid.NewGuid());
        erased.Status.ShouldBe(HttpStatusCode.OK, erased.Text);
        (await School.TablesWith("imke-")).ShouldBeEmpty();
        var chunks = await School.Sql(connection => connection.QueryAsync<byte[]>("SELECT bytes FROM file_chunk"));
        var texts = chunks.Select(System.Text.Encoding.UTF8.GetString).ToList();
        texts.ShouldContain("of both");
        texts.ShouldNotContain("of nobody else");
        (await Verifier.Run(School.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
    }
}
