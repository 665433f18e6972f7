using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Those in one group hand in one piece together: each has it whole, and whoever handed it in takes it back.</summary>
public sealed class TogetherTests : LeadOfASchool
{
    private const string Group = "Pair of the pier";

    private readonly List<string> mates = [];
    private long item;
    private Caller imke = null!;
    private Caller mate = null!;

    private string Address(string rest) => $"/api/sections/{School.Ids["section:9 Alder"]}/{rest}";

    // Imke and two others of 9 Alder are in one group, with one of 9 Birch, and a task is handed in by it.
    protected override async Task Prepare()
    {
        item = await School.Item("Cloud diary");
        mates.AddRange(
            await School.Sql(connection =>
                connection.QueryAsync<string>(
                    "SELECT p.name FROM place n JOIN person p ON p.id = n.person WHERE n.section = @section AND p.name <> @OnTrack "
                        + "AND upper_inf(n.period) ORDER BY p.name LIMIT 2",
                    new { section = School.Ids["section:9 Alder"], DemoPeople.OnTrack }
                )
            )
        );
        await Post("add-group", new { name = Group });
        var group = (await Lead.Get(Route("groups"))).Json["groups"]!.AsArray().Single()!["id"]!.GetValue<long>();
        await Post(
            "put-in-group",
            new
            {
                group,
                members = (string[])[DemoPeople.OnTrack, .. mates, DemoPeople.HeldUp] is var names
                    ? names.Select(name => new { student = School.Ids["person:" + name], @in = true }).ToArray()
                    : [],
            }
        );
        await Ask([Group]);
        imke = await School.As(DemoPeople.OnTrack);
        mate = await School.As(mates[0]);
    }

    private async Task<Reply> AskFor(string[] groups) =>
        await Lead.Post(
            Route("ask-item"),
            new
            {
                item,
                asks = new
                {
                    way = "work",
                    text = "welcome",
                    links = "welcome",
                    files = Array.Empty<object>(),
                    others = true,
                    together = groups,
                },
                version = (await Lead.Get(Route($"items/{item}"))).Json["version"]!.GetValue<long>(),
            },
            Guid.NewGuid()
        );

    private async Task Ask(string[] groups) => (await AskFor(groups)).Status.ShouldBe(HttpStatusCode.OK);

    private async Task<JsonNode> Page(Caller who) => (await who.Get(Address($"items/{item}"))).Json;

    private async Task<Reply> HandIn(Caller who, string text, params object[] files)
    {
        var reply = await who.Post(
            Address("hand-in"),
            new
            {
                item,
                text,
                pressedAt = (string?)null,
                files,
            },
            Guid.NewGuid()
        );
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return reply;
    }

    private Task<Reply> TakeBack(Caller who) => who.Post(Address("take-back"), new { item }, Guid.NewGuid());

    private async Task<JsonArray> Pieces() =>
        new([
            .. (await Lead.Get(Route("work"))).Json["sections"]!
                .AsArray()
                .SelectMany(section => section!["pieces"]!.AsArray())
                .Where(piece =>
                    piece!["item"]!.GetValue<long>() == item
                    && piece["text"]!.GetValue<string>().StartsWith("Ours", StringComparison.Ordinal)
                )
                .Select(piece => piece!.DeepClone()),
        ]);

    private static List<string> Names(JsonNode list) => [.. list.AsArray().Select(name => name!.GetValue<string>())];

    [Fact]
    public async Task One_hands_in_for_all_of_them_and_each_has_it_whole_as_their_own()
    {
        var page = await Page(imke);
        // Whoever is in the group and not in the section hands in with those of their own.
        Names(page["together"]!).ShouldBe(mates);
        page.ToJsonString().ShouldNotContain(Group);
        await mate.Post(
            Address("save-draft"),
            new
            {
                item,
                text = "Mine alone",
                version = 0,
            },
            Guid.NewGuid()
        );
        var upload = await imke.SendFile("pier.txt", "six eighths"u8.ToArray());
        var before = (await Page(mate))["history"]!.AsArray().Count;
        (await HandIn(imke, "Ours", new { id = (long?)null, upload })).Json["handedIn"]!.GetValue<bool>().ShouldBeTrue();

        var theirs = await Page(mate);
        theirs["history"]!.AsArray().Count.ShouldBe(before + 1);
        var version = theirs["history"]![0]!;
        (version["text"]!.GetValue<string>(), version["by"]!.GetValue<string>()).ShouldBe(("Ours", DemoPeople.OnTrack));
        theirs["progress"]!.GetValue<string>().ShouldBe("with-teacher");
        theirs["draft"]!["text"]!.GetValue<string>().ShouldBe("Mine alone");
        var file = version["files"]![0]!["address"]!.GetValue<string>();
        (await mate.Get(file)).Text.ShouldBe("six eighths");
        // Each has the file as their own: the other's address is not theirs.
        (await imke.Get(file)).Status.ShouldBe(HttpStatusCode.NotFound);
        var own = (await Page(imke))["history"]![0]!;
        (own["by"], Names(own["others"]!).Count).ShouldBe((null, 2));

        var pieces = await Pieces();
        pieces.Count.ShouldBe(3);
        foreach (var piece in pieces)
            Names(piece!["others"]!).Append(piece["name"]!.GetValue<string>()).ShouldBe([DemoPeople.OnTrack, .. mates], ignoreOrder: true);
        (await Verifier.Run(School.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Whoever_handed_it_in_takes_it_back_for_all_and_nobody_else_does()
    {
        await Ask([]);
        await HandIn(mate, "Mine, before we were a pair");
        await Ask([Group]);
        await HandIn(imke, "Ours");
        var refused = await TakeBack(mate);
        refused.Status.ShouldBe(HttpStatusCode.Conflict);
        refused.Json["title"]!.GetValue<string>().ShouldBe($"{DemoPeople.OnTrack} handed this in for all of you.");
        (await TakeBack(imke)).Status.ShouldBe(HttpStatusCode.OK);
        (await Page(imke))["draft"]!["text"]!.GetValue<string>().ShouldBe("Ours");
        var theirs = await Page(mate);
        theirs["history"]![0]!["takenBackAt"].ShouldNotBeNull();
        theirs["draft"].ShouldBeNull();
        // What the mate handed in alone, before there was a group, stands: nobody else takes that back.
        theirs["history"]![1]!["text"]!.GetValue<string>().ShouldBe("Mine, before we were a pair");
        theirs["history"]![1]!["takenBackAt"].ShouldBeNull();
        theirs["progress"]!.GetValue<string>().ShouldBe("with-teacher");
        (await Page(imke))["progress"]!.GetValue<string>().ShouldNotBe("with-teacher");
        (await Pieces()).ShouldBeEmpty();

        // Once one of them has it back, it stands for all.
        await HandIn(mate, "Ours anew");
        var one = (await Pieces()).First(piece => piece!["name"]!.GetValue<string>() == DemoPeople.OnTrack)!;
        (await Give(one, alone: true)).Status.ShouldBe(HttpStatusCode.OK);
        (await TakeBack(mate)).Code.ShouldBe("nothing-to-take-back");
        (await Page(mate))["progress"]!.GetValue<string>().ShouldBe("with-teacher");
    }

    private Task<Reply> Give(JsonNode piece, bool alone, bool preview = false) =>
        Lead.Post(
            Address("give-back") + (preview ? "?preview=true" : ""),
            new
            {
                work = piece["work"]!.GetValue<long>(),
                n = piece["n"]!.GetValue<int>(),
                text = "Well seen, all of you.",
                again = false,
                alone,
            },
            preview ? null : Guid.NewGuid()
        );

    [Fact]
    public async Task It_goes_back_to_all_of_them_or_to_one()
    {
        await HandIn(imke, "Ours");
        var piece = (await Pieces())[1]!;
        var all = (await Give(piece, alone: false, preview: true)).Json["sentence"]!.GetValue<string>();
        foreach (var name in mates.Append(DemoPeople.OnTrack))
            all.ShouldContain(name);
        (await Give(piece, alone: true, preview: true)).Json["name"]!.GetValue<string>().ShouldBe(piece["name"]!.GetValue<string>());
        (await Give(piece, alone: false)).Json["sentence"]!.GetValue<string>().ShouldBe(all);
        foreach (var who in new[] { imke, mate })
            (await Page(who))["history"]![0]!["feedback"]![0]!["text"]!.GetValue<string>().ShouldBe("Well seen, all of you.");
        (await Pieces()).ShouldAllBe(one => one!["back"] != null);
    }

    [Fact]
    public async Task A_group_that_hands_in_together_is_known_stays_and_is_carried_in_a_package()
    {
        (await AskFor(["Nobody's"])).Json["field"]!.GetValue<string>().ShouldBe("asks");
        (await AskFor([Group, Group])).Json["field"]!.GetValue<string>().ShouldStartWith("asks");
        var group = (await Lead.Get(Route("groups"))).Json["groups"]![0]!;
        (
            await Lead.Post(
                Route("remove-group"),
                new { group = group["id"]!.GetValue<long>(), version = group["version"]!.GetValue<long>() },
                Guid.NewGuid()
            )
        ).Code.ShouldBe("in-use");
        (await Lead.Get(Route($"items/{item}"))).Json["asks"]!["together"]![0]!.GetValue<string>().ShouldBe(Group);
        // Handed in alone again, what was handed in together stays.
        await HandIn(imke, "Ours");
        await Ask([]);
        Names((await Page(mate))["together"]!).ShouldBeEmpty();
        (await Page(mate))["history"]![0]!["by"]!.GetValue<string>().ShouldBe(DemoPeople.OnTrack);
        await HandIn(mate, "Mine");
        (await Pieces()).Count.ShouldBe(2);
    }
}
