using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>A copy each: made when a student first opens the item, worked in, handed in; the master changed afterwards.</summary>
public sealed class CopyTests : LeadOfASchool
{
    /// <summary>Gives each student of an item a copy of a file.</summary>
    public static async Task<(long Item, long File)> Given(School school, string item, string name, string text)
    {
        using var lead = await school.As(DemoPeople.Lead);
        var id = await school.Item(item);
        async Task<JsonNode> Do(string command, object body)
        {
            var reply = await lead.Post($"/api/editions/{school.WeatherWatch}/{command}", body, Guid.NewGuid());
            reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
            return reply.Json;
        }
        await Do(
            "attach-files",
            new { item = id, uploads = new[] { await lead.SendFile(name, System.Text.Encoding.UTF8.GetBytes(text)) } }
        );
        var file = (await lead.Get($"/api/editions/{school.WeatherWatch}/items/{id}")).Json["files"]!.AsArray()[^1]!;
        var number = file["file"]!["id"]!.GetValue<long>();
        await Do(
            "give-file",
            new
            {
                item = id,
                file = number,
                given = "copy",
                copyName = "{code} {file}: {student}",
                version = file["version"]!.GetValue<long>(),
            }
        );
        return (id, number);
    }

    private string Address(string rest) => $"/api/sections/{School.Ids["section:9 Alder"]}/{rest}";

    private static async Task<JsonNode> Do(Caller who, string address, object body)
    {
        var reply = await who.Post(address, body, Guid.NewGuid());
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return reply.Json;
    }

    private async Task<JsonNode> Open(Caller student, long item)
    {
        await Do(student, Address("record-opened"), new { item });
        return (await student.Get(Address($"items/{item}"))).Json;
    }

    private async Task<Caller> Neighbour() =>
        await School.As(
            await School.Sql(connection =>
                connection.QueryFirstAsync<string>(
                    "SELECT p.name FROM place n JOIN person p ON p.id = n.person WHERE n.section = @section AND p.name <> @OnTrack "
                        + "AND upper_inf(n.period) ORDER BY p.id",
                    new { section = School.Ids["section:9 Alder"], DemoPeople.OnTrack }
                )
            )
        );

    private static object Listed(long id) => new { id, upload = (Guid?)null };

    [Fact]
    public async Task Each_student_gets_one_copy_under_their_name_works_in_it_and_hands_it_in()
    {
        using var imke = await School.As(DemoPeople.OnTrack);
        var (item, file) = await Given(School, "Cloud diary", "sheet.csv", "day,cloud\nMon,\n");
        // Looked at, nothing is made; opened twice at once, one copy is.
        (await imke.Get(Address($"items/{item}"))).Json["copies"]![0]!["own"].ShouldBeNull();
        await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => Open(imke, item)));
        var read = (await imke.Get(Address($"items/{item}"))).Json;
        read["files"]!.AsArray().ShouldBeEmpty();
        var copy = read["draft"]!["files"]!.AsArray().Single()!;
        var own = copy["id"]!.GetValue<long>();
        // A colon can stand in no file's name.
        copy["name"]!.GetValue<string>().ShouldEndWith($"sheet- {DemoPeople.OnTrack}.csv");
        read["copies"]![0]!["own"]!.GetValue<long>().ShouldBe(own);
        read["draft"]!["version"]!.GetValue<long>().ShouldBe(0);
        read["progress"]!.GetValue<string>().ShouldNotBe("begun");
        read["stillAsked"]![0]!.GetValue<string>().ShouldContain("sheet");
        (await imke.Get($"{copy["address"]}")).Text.ShouldBe("day,cloud\nMon,\n");

        // Written in it: kept beside it, and the file itself is as it was until it is handed in.
        var saved = await Do(
            imke,
            Address("save-draft"),
            new
            {
                item,
                text = "",
                version = 0,
                files = new[] { Listed(own) },
                copies = new[] { new { file = own, text = "day,cloud\nMon,cirrus\n" } },
            }
        );
        saved["stillAsked"]!.AsArray().ShouldBeEmpty();
        read = (await imke.Get(Address($"items/{item}"))).Json;
        read["copies"]![0]!["written"]!.GetValue<string>().ShouldBe("day,cloud\nMon,cirrus\n");
        (await imke.Get($"{copy["address"]}")).Text.ShouldBe("day,cloud\nMon,\n");

        // What a spreadsheet would carry out is not kept.
        var formula = await imke.Post(
            Address("save-draft"),
            new
            {
                item,
                text = "",
                version = 1,
                files = new[] { Listed(own) },
                copies = new[] { new { file = own, text = "day,cloud\nMon,=1+1\n" } },
            },
            Guid.NewGuid()
        );
        (formula.Status, formula.Json["field"]?.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "copies[0].text"));

        // Handed in by a page that says nothing of copies, it goes along as it was last written.
        await Do(
            imke,
            Address("hand-in"),
            new
            {
                item,
                text = "Done",
                pressedAt = (string?)null,
            }
        );
        var handed = (await imke.Get(Address($"items/{item}"))).Json["history"]![0]!["files"]!.AsArray().Single()!;
        handed["name"]!.GetValue<string>().ShouldBe(copy["name"]!.GetValue<string>());
        (await imke.Get($"{handed["address"]}")).Text.ShouldBe("day,cloud\nMon,cirrus\n");
        (await Lead.Get(Address($"work-files/{handed["id"]}"))).Text.ShouldBe("day,cloud\nMon,cirrus\n");
        // Opened again, there is still one.
        (await Open(imke, item))["copies"]![0]!["own"]!.GetValue<long>().ShouldBe(handed["id"]!.GetValue<long>());
        (await Lead.Get(Route($"items/{item}"))).Json["files"]!.AsArray()[^1]!["copies"]!["students"]!.GetValue<int>().ShouldBe(1);
        // To another student all of it is not there, and through a lens none is made.
        using var neighbour = await Neighbour();
        (await neighbour.Get($"{copy["address"]}")).Status.ShouldBe(HttpStatusCode.NotFound);
        var stolen = await neighbour.Post(
            Address("save-draft"),
            new
            {
                item,
                text = "",
                version = 0,
                copies = new[] { new { file = own, text = "mine now" } },
            },
            Guid.NewGuid()
        );
        (stolen.Status, stolen.Json["field"]?.GetValue<string>()).ShouldBe((HttpStatusCode.NotFound, "copies[0].file"));
        (await Verifier.Run(School.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
        _ = file;
    }

    [Fact]
    public async Task A_copy_that_is_worked_in_elsewhere_comes_back_under_its_name_and_keeps_its_kind()
    {
        using var imke = await School.As(DemoPeople.OnTrack);
        var (item, _) = await Given(School, "Cloud diary", "plan.txt", "Plan:\n");
        var own = (await Open(imke, item))["draft"]!["files"]![0]!;
        object Put(Guid upload) =>
            new
            {
                item,
                text = "",
                version = 0,
                files = new[] { new { id = own["id"]!.GetValue<long>(), upload = (Guid?)upload } },
            };
        var wrong = await imke.Post(Address("save-draft"), Put(await imke.SendFile("plan.csv", "a,b"u8.ToArray())), Guid.NewGuid());
        (wrong.Status, wrong.Json["field"]?.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "files[0]"));
        var saved = await Do(imke, Address("save-draft"), Put(await imke.SendFile("plan (1).txt", "Plan: go up"u8.ToArray())));
        saved["files"]!.AsArray().Single()!["name"]!.GetValue<string>().ShouldBe(own["name"]!.GetValue<string>());
        var read = await Open(imke, item);
        read["draft"]!["files"]!.AsArray().Count.ShouldBe(1);
        (await imke.Get($"{read["draft"]!["files"]![0]!["address"]}")).Text.ShouldBe("Plan: go up");
    }

    [Fact]
    public async Task A_file_changed_afterwards_reaches_only_copies_nobody_has_worked_in()
    {
        using var imke = await School.As(DemoPeople.OnTrack);
        using var neighbour = await Neighbour();
        var (item, file) = await Given(School, "Cloud diary", "sheet.txt", "First");
        var written = (await Open(imke, item))["draft"]!["files"]![0]!;
        var untouched = (await Open(neighbour, item))["draft"]!["files"]![0]!;
        await Do(
            imke,
            Address("save-draft"),
            new
            {
                item,
                text = "",
                version = 0,
                files = new[] { Listed(written["id"]!.GetValue<long>()) },
                copies = new[] { new { file = written["id"]!.GetValue<long>(), text = "First, and mine" } },
            }
        );
        var version = (await Lead.Get(Route($"items/{item}"))).Json["files"]!.AsArray()[^1]!["version"]!.GetValue<long>();
        var batch = (
            await Do(
                Lead,
                Route("replace-file"),
                new
                {
                    item,
                    file,
                    upload = await Lead.SendFile("sheet.txt", "Second"u8.ToArray()),
                    version,
                }
            )
        )["batch"]!.GetValue<long>();
        var now = (await Lead.Get(Route($"items/{item}"))).Json["files"]!.AsArray()[^1]!;
        now["copies"]!.ToJsonString().ShouldBe("""{"students":2,"asGiven":1,"behind":1}""");
        var body = new { item, file = now["file"]!["id"]!.GetValue<long>() };

        // Said before, and nothing done by it.
        var before = (await Lead.Post(Route("refresh-copies?preview=true"), body)).Json;
        (before["given"]!.GetValue<bool>(), before["followed"]!.GetValue<int>(), before["kept"]!.GetValue<int>()).ShouldBe((false, 1, 1));
        (await neighbour.Get($"{untouched["address"]}")).Text.ShouldBe("First");
        (await Do(Lead, Route("refresh-copies"), body))["followed"]!.GetValue<int>().ShouldBe(1);
        (await neighbour.Get($"{untouched["address"]}")).Text.ShouldBe("Second");
        (await Open(imke, item))["copies"]![0]!["written"]!.GetValue<string>().ShouldBe("First, and mine");

        // The file is put back: those copies can be too.
        await Do(Lead, Route("undo"), new { batch });
        (await Do(Lead, Route("refresh-copies"), new { item, file }))["followed"]!.GetValue<int>().ShouldBe(1);
        (await neighbour.Get($"{untouched["address"]}")).Text.ShouldBe("First");
        // Nobody gets a second one for it.
        (await Open(neighbour, item))["draft"]!["files"]!.AsArray().Count.ShouldBe(1);
    }

    [Fact]
    public async Task Copies_are_only_given_where_something_is_handed_in()
    {
        async Task<(HttpStatusCode, string?)> Give(string item, string copyName)
        {
            var (id, file, version) = await FileTests.Attached(School, item, "sheet.txt");
            var reply = await Lead.Post(
                Route("give-file"),
                new
                {
                    item = id,
                    file,
                    given = "copy",
                    copyName,
                    version,
                },
                Guid.NewGuid()
            );
            return (reply.Status, reply.Json["field"]?.GetValue<string>());
        }
        (await Give("Guide: the rain gauge", "{student}")).ShouldBe((HttpStatusCode.UnprocessableEntity, "given"));
        (await Give("Cloud diary", "{pupil}")).ShouldBe((HttpStatusCode.UnprocessableEntity, "copyName"));
        var (item, _) = await Given(School, "Cloud diary", "sheet.txt", "Write here.");
        var version = (await Lead.Get(Route($"items/{item}"))).Json["version"]!.GetValue<long>();
        var tick = await Lead.Post(
            Route("ask-item"),
            new
            {
                item,
                version,
                asks = new
                {
                    way = "tick",
                    text = "welcome",
                    links = "welcome",
                    files = Array.Empty<object>(),
                    others = true,
                },
            },
            Guid.NewGuid()
        );
        (tick.Status, tick.Json["field"]?.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "asks"));
    }
}
