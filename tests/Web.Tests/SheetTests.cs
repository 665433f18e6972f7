using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>One together: a section's sheet, who wrote what in it, two at once, and its end.</summary>
public sealed class SheetTests : LeadOfASchool
{
    private string Address(string rest) => $"/api/sections/{School.Ids["section:9 Alder"]}/{rest}";

    private async Task<long> Given(string item, string text)
    {
        var id = await School.Item(item);
        await Post(
            "attach-files",
            new { item = id, uploads = new[] { await Lead.SendFile("sheet.txt", System.Text.Encoding.UTF8.GetBytes(text)) } }
        );
        var file = (await Lead.Get(Route($"items/{id}"))).Json["files"]!.AsArray()[^1]!;
        await Post(
            "give-file",
            new
            {
                item = id,
                file = file["file"]!["id"]!.GetValue<long>(),
                given = "together",
                copyName = (string?)null,
                version = file["version"]!.GetValue<long>(),
            }
        );
        return id;
    }

    private async Task<List<string>> Neighbours() =>
        [
            .. await School.Sql(connection =>
                connection.QueryAsync<string>(
                    "SELECT p.name FROM place n JOIN person p ON p.id = n.person WHERE n.section = @section AND p.name <> @OnTrack "
                        + "AND upper_inf(n.period) ORDER BY p.id",
                    new { section = School.Ids["section:9 Alder"], DemoPeople.OnTrack }
                )
            ),
        ];

    private async Task<JsonNode> Sheet(Caller who, long item) => (await who.Get(Address($"items/{item}/sheet"))).Json;

    private static IEnumerable<string> Texts(JsonNode sheet) =>
        sheet["blocks"]!.AsArray().Select(block => block!["text"]!.GetValue<string>());

    private async Task<Reply> Write(Caller who, long item, JsonNode? block, string text, long? after = null) =>
        await who.Post(
            Address("write-sheet"),
            new
            {
                item,
                block = block?["id"]!.GetValue<long>(),
                after,
                @base = block?["n"]!.GetValue<int>() ?? 0,
                text,
            },
            Guid.NewGuid()
        );

    [Fact]
    public async Task It_begins_with_the_file_and_says_who_wrote_what()
    {
        using var imke = await School.As(DemoPeople.OnTrack);
        using var neighbour = await School.As((await Neighbours())[0]);
        var item = await Given("Cloud diary", "What did we see?\r\n\r\nIt rained all day.\n\n \n\n");
        // Opened by several at once it begins once.
        await Task.WhenAll(
            new[] { imke, neighbour, imke, neighbour }.Select(who => who.Post(Address("record-opened"), new { item }, Guid.NewGuid()))
        );
        var sheet = await Sheet(imke, item);
        Texts(sheet).ShouldBe(["What did we see?", "It rained all day."]);
        sheet["blocks"]![1]!["by"].ShouldBeNull();
        var rain = sheet["blocks"]![1]!;

        // Two change the same words apart: put together. Two change them alike in place: both stand there.
        (await Write(imke, item, rain, "It rained hard all day.")).Status.ShouldBe(HttpStatusCode.OK);
        var merged = (await Write(neighbour, item, rain, "It rained all day, in the end.")).Json;
        merged["apart"]!.GetValue<bool>().ShouldBeFalse();
        Texts(merged).ShouldBe(["What did we see?", "It rained hard all day, in the end."]);
        var apart = (await Write(imke, item, rain, "It rained softly all day.")).Json;
        apart["apart"]!.GetValue<bool>().ShouldBeTrue();
        Texts(apart).ShouldBe(["What did we see?", "It rained hard all day, in the end.", "It rained softly all day."]);

        // From what one wrote oneself one goes on, whatever came of it.
        (
            await Write(
                neighbour,
                item,
                new JsonObject { ["id"] = rain["id"]!.GetValue<long>(), ["n"] = merged["mine"]!.GetValue<int>() },
                "It rained all day, in the end. Fog."
            )
        ).Json["apart"]!
            .GetValue<bool>()
            .ShouldBeFalse();
        sheet = await Sheet(imke, item);
        Texts(sheet).ElementAt(1).ShouldBe("It rained hard all day, in the end. Fog.");
        sheet["blocks"]![1]!["isOwn"]!.GetValue<bool>().ShouldBeFalse();
        var history = (await imke.Get(Address($"items/{item}/sheet/{rain["id"]}"))).Json.AsArray();
        history
            .Select(version => version!["text"]!.GetValue<string>())
            .ShouldBe([
                "It rained hard all day, in the end. Fog.",
                "It rained hard all day, in the end.",
                "It rained hard all day.",
                "It rained all day.",
            ]);
        history[^2]!["by"]!.GetValue<string>().ShouldBe(DemoPeople.OnTrack);

        // Taken out, it can still be read in its history; what somebody changed meanwhile is not taken out.
        (await Write(imke, item, rain, "")).Json["apart"]!.GetValue<bool>().ShouldBeTrue();
        (await Write(imke, item, sheet["blocks"]![1], "")).Json["apart"]!.GetValue<bool>().ShouldBeFalse();
        Texts(await Sheet(imke, item)).ShouldBe(["What did we see?", "It rained softly all day."]);
        // Its teacher writes too, and another section knows nothing of it.
        (await Write(Lead, item, null, "Well seen.", sheet["blocks"]![0]!["id"]!.GetValue<long>())).Status.ShouldBe(HttpStatusCode.OK);
        Texts(await Sheet(Lead, item)).ShouldBe(["What did we see?", "Well seen.", "It rained softly all day."]);
        using var co = await School.As(DemoPeople.CoTeacher);
        (await co.Get(Address($"items/{item}/sheet"))).Status.ShouldBe(HttpStatusCode.NotFound);
        Texts((await Lead.Get($"/api/sections/{School.Ids["section:9 Birch"]}/items/{item}/sheet")).Json).ShouldBeEmpty();
        (await Lead.Get(Route($"items/{item}"))).Json["sheets"]!.AsArray().Single()!["writers"]!.GetValue<int>().ShouldBe(3);
        (await Verifier.Run(School.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_class_that_writes_all_at_once_loses_no_word()
    {
        var item = await Given("Cloud diary", "Sky:");
        var students = new List<Caller>();
        foreach (var name in (await Neighbours()).Take(12))
            students.Add(await School.As(name));
        await students[0].Post(Address("record-opened"), new { item }, Guid.NewGuid());
        var sky = (await Sheet(students[0], item))["blocks"]![0]!;
        await Task.WhenAll(
            students.Select(
                async (student, n) =>
                {
                    (await Write(student, item, null, $"new {n}", sky["id"]!.GetValue<long>())).Status.ShouldBe(HttpStatusCode.OK);
                    var reply = await Write(student, item, sky, $"Sky: seen {n}");
                    reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
                }
            )
        );
        var texts = Texts(await Sheet(students[0], item)).ToList();
        foreach (var n in Enumerable.Range(0, 12))
        {
            texts.ShouldContain($"new {n}");
            texts.ShouldContain($"Sky: seen {n}");
        }
        texts.Count.ShouldBe(24);
        students.ForEach(student => student.Dispose());
    }

    [Fact]
    public async Task What_has_closed_is_frozen_and_stays_whatever_becomes_of_the_file()
    {
        using var imke = await School.As(DemoPeople.OnTrack);
        var item = await Given("Cloud diary", "Sky:");
        await Write(imke, item, null, "Grey.");
        var open = await Sheet(imke, item);
        open["mayWrite"]!.GetValue<bool>().ShouldBeTrue();
        var version = (await Lead.Get(Route($"items/{item}"))).Json["version"]!.GetValue<long>();
        await Post(
            "time-item",
            new
            {
                item,
                field = "closes",
                anchor = new
                {
                    at = "fixed",
                    date = "2026-10-06",
                    time = "12:00",
                },
                version,
            }
        );
        (await Sheet(imke, item))["mayWrite"]!.GetValue<bool>().ShouldBeFalse();
        foreach (var who in new[] { imke, Lead })
            (await Write(who, item, open["blocks"]![0], "Too late")).Json["code"]!.GetValue<string>().ShouldBe("not-open");
        var file = (await Lead.Get(Route($"items/{item}"))).Json["files"]!.AsArray()[^1]!;
        await Post(
            "remove-file",
            new
            {
                item,
                file = file["file"]!["id"]!.GetValue<long>(),
                version = file["version"]!.GetValue<long>(),
            }
        );
        (await imke.Get(Address($"items/{item}"))).Json["hasSheet"]!.GetValue<bool>().ShouldBeTrue();
        Texts(await Sheet(imke, item)).ShouldBe(["Grey.", "Sky:"]);
        Texts(await Sheet(Lead, item)).ShouldBe(["Grey.", "Sky:"]);
    }
}
