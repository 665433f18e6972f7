using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Microsoft.Extensions.DependencyInjection;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Host;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Choices: offered by the team, picked by students for as long as there is room, and by teachers for them.</summary>
public sealed class ChoiceTests : LeadOfASchool
{
    internal const string Title = "Your project: instrument or harbour briefing";
    private const string Hanging = "Film: a day over the harbour";
    private const string Alder = "9 Alder";
    private long choice;
    private long hanging;
    private List<long> students = [];
    private Caller imke = null!;

    protected override async Task Prepare()
    {
        (choice, hanging) = (await School.Item(Title), await School.Item(Hanging));
        students = [.. (await PicksOf(Alder))["students"]!.AsArray().Select(line => line!["student"]!.GetValue<long>())];
        // It comes later in the term; for this section it is open now.
        await Post(
            "for-students",
            new
            {
                students,
                items = new[] { choice },
                change = "open",
                days = (int?)null,
                until = (string?)null,
            }
        );
        imke = await School.As(DemoPeople.OnTrack);
    }

    public override async ValueTask DisposeAsync()
    {
        imke.Dispose();
        await base.DisposeAsync();
    }

    private long Imke => School.Ids["person:" + DemoPeople.OnTrack];

    private string In(string route) => $"/api/sections/{School.Ids["section:" + Alder]}/{route}";

    private async Task<JsonNode> PicksOf(string section) =>
        (await Lead.Get(Route($"items/{await School.Item(Title)}/picks"))).Json["sections"]!
            .AsArray()
            .Single(one => one!["name"]!.GetValue<string>() == section)!;

    private Task<Reply> Pick(Caller who, params string[] options) =>
        who.Post(In("pick-options"), new { item = choice, options }, Guid.NewGuid());

    private Task<Reply> PickFor(long student, params string[] options) =>
        Lead.Post(
            In("pick-for-student"),
            new
            {
                item = choice,
                student,
                options,
            },
            Guid.NewGuid()
        );

    private async Task<Reply> Offer(JsonNode offers, bool preview = false)
    {
        var request = offers.DeepClone().AsObject();
        request["item"] = choice;
        request["version"] = (await Lead.Get(Route($"items/{choice}"))).Json["version"]!.GetValue<long>();
        return await Lead.Post(Route("offer-options") + (preview ? "?preview=true" : ""), request, preview ? null : Guid.NewGuid());
    }

    private async Task<JsonNode> Offers() => (await Lead.Get(Route($"items/{choice}"))).Json["offers"]!;

    private async Task Hang(string option)
    {
        var request = new JsonObject
        {
            ["item"] = hanging,
            ["gate"] = new JsonObject
            {
                ["choice"] = await School.Sql(connection =>
                    connection.ExecuteScalarAsync<string>("SELECT lineage::text FROM item WHERE id = @choice", new { choice })
                ),
                ["picked"] = option,
            },
            ["version"] = (await Lead.Get(Route($"items/{hanging}"))).Json["version"]!.GetValue<long>(),
        };
        (await Lead.Post(Route("condition-item"), request, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
    }

    /// <summary>A pick for somebody in 9 Alder.</summary>
    public static async Task<object?> Some(School school) =>
        new
        {
            item = await school.Item(Title),
            student = school.Ids["person:" + DemoPeople.OnTrack],
            options = new[] { "briefing" },
        };

    private static List<string> Strings(JsonNode? list) => [.. list!.AsArray().Select(one => one!.GetValue<string>())];

    [Fact]
    public async Task What_is_picked_opens_what_hangs_on_it_and_another_pick_closes_that_again()
    {
        await Hang("briefing");
        (await Lead.Get(Route($"items/{hanging}"))).Json["conditionInWords"]!
            .GetValue<string>()
            .ShouldContain("“A harbour briefing” is picked");
        var shown = (await imke.Get(In($"items/{choice}/offer"))).Json;
        shown["mayPick"]!.GetValue<bool>().ShouldBeTrue();
        shown["options"]!
            .AsArray()
            .Select(one => one!["title"]!.GetValue<string>())
            .ShouldBe(["An instrument of your own", "A harbour briefing"]);
        shown["options"]!.AsArray().ShouldAllBe(one => !one!["isPicked"]!.GetValue<bool>());

        var picked = await Pick(imke, "briefing");
        picked.Status.ShouldBe(HttpStatusCode.OK, picked.Text);
        picked.Json["sentence"]!.GetValue<string>().ShouldEndWith($"{Hanging} opens.");
        (await imke.Get(In($"items/{hanging}"))).Json["state"]!.GetValue<string>().ShouldBe("open");
        (await Pick(imke, "briefing")).Json["applied"]!.GetValue<bool>().ShouldBeFalse();

        var instead = await Pick(imke, "instrument");
        instead.Json["sentence"]!.GetValue<string>().ShouldEndWith($"{Hanging} closes; what you began there stays readable.");
        var line = (await PicksOf(Alder))["students"]!.AsArray().Single(one => one!["student"]!.GetValue<long>() == Imke)!;
        Strings(line["options"]).ShouldBe(["instrument"]);
        line["by"].ShouldBeNull();
        // Nothing of it is picked any more, and nobody of another section is asked about.
        (await Pick(imke)).Status.ShouldBe(HttpStatusCode.OK);
        (await PicksOf(Alder))["students"]!.AsArray().ShouldAllBe(one => one!["options"]!.AsArray().Count == 0);
    }

    [Fact]
    public async Task An_option_that_is_full_takes_nobody_more_but_by_a_teacher_whose_pick_it_says()
    {
        var offers = await Offers();
        offers["options"]![0]!["room"] = 1;
        (await Offer(offers)).Status.ShouldBe(HttpStatusCode.OK);
        var other = students.First(one => one != Imke);
        (await PickFor(other, "instrument")).Status.ShouldBe(HttpStatusCode.OK);
        (await imke.Get(In($"items/{choice}/offer"))).Json["options"]![0]!["room"]!.GetValue<int>().ShouldBe(0);
        var full = await Pick(imke, "instrument");
        (full.Status, full.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "options[0]"));
        full.Json["title"]!.GetValue<string>().ShouldContain("“An instrument of your own” is full.");

        var all = (await PickFor(Imke, "instrument")).Json["sentence"]!.GetValue<string>();
        all.ShouldContain($"is full already; {DemoPeople.OnTrack} gets it all the same.");
        var own = (await imke.Get(In($"items/{choice}/offer"))).Json["options"]![0]!;
        (own["isPicked"]!.GetValue<bool>(), own["by"]!.GetValue<string>()).ShouldBe((true, DemoPeople.Lead));
        // Two who pick the last place at the same moment do not both get it.
        await PickFor(other);
        await PickFor(Imke);
        using var second = await School.As(await NameOf(other));
        var both = await Task.WhenAll(Pick(imke, "instrument"), Pick(second, "instrument"));
        both.Count(reply => reply.Status == HttpStatusCode.OK).ShouldBe(1);
    }

    [Fact]
    public async Task Who_waits_for_a_full_option_comes_up_in_turn_and_gives_up_what_they_had_meanwhile()
    {
        await Hang("instrument");
        var offers = await Offers();
        offers["options"]![0]!["room"] = 1;
        (await Offer(offers)).Status.ShouldBe(HttpStatusCode.OK);
        var (first, behind) = (students.First(one => one != Imke), students.Last(one => one != Imke));
        using var last = await School.As(await NameOf(behind));
        async Task<JsonNode> Instrument(Caller who) => (await who.Get(In($"items/{choice}/offer"))).Json["options"]![0]!;
        Task<Reply> Wait(Caller who, string[] options, params string[] waitFor) =>
            who.Post(
                In("pick-options"),
                new
                {
                    item = choice,
                    options,
                    waitFor,
                },
                Guid.NewGuid()
            );

        // Only what is full has a queue.
        (await Wait(imke, [], "instrument")).Json["title"]!
            .GetValue<string>()
            .ShouldStartWith("There is room in “An instrument of your own”.");
        (await PickFor(first, "instrument")).Status.ShouldBe(HttpStatusCode.OK);
        (await Wait(imke, [], [null!])).Status.ShouldBe(HttpStatusCode.BadRequest);
        (await Wait(imke, [], "nothing such")).Json["field"]!.GetValue<string>().ShouldBe("waitFor[0]");
        (await Wait(imke, ["briefing"], "instrument")).Json["sentence"]!
            .GetValue<string>()
            .ShouldEndWith(
                "You are first in the queue for “An instrument of your own”: "
                    + "if a place comes free, you get it in place of “A harbour briefing”."
            );
        (await Wait(last, [], "instrument")).Json["sentence"]!
            .GetValue<string>()
            .ShouldBe("You are number 2 in the queue for “An instrument of your own”: when it is your turn, you get it.");
        var own = await Instrument(last);
        (own["queue"]!["waiting"]!.GetValue<int>(), own["queue"]!["place"]!.GetValue<int>(), own["room"]!.GetValue<int>()).ShouldBe(
            (2, 2, 0)
        );
        Strings((await PicksOf(Alder))["options"]![0]!["waiting"]).ShouldBe([DemoPeople.OnTrack, await NameOf(behind)]);

        // A place that is given up is the first one’s at once, with what hangs on it.
        (await PickFor(first)).Json["sentence"]!
            .GetValue<string>()
            .ShouldContain($"{DemoPeople.OnTrack} was in the queue for “An instrument of your own” and gets it.");
        var now = (await imke.Get(In($"items/{choice}/offer"))).Json["options"]!.AsArray();
        now.Select(one => one!["isPicked"]!.GetValue<bool>()).ShouldBe([true, false]);
        now[0]!["queue"]!["cameUpAt"].ShouldNotBeNull();
        (await imke.Get(In($"items/{hanging}"))).Json["state"]!.GetValue<string>().ShouldBe("open");
        (await Instrument(last))["queue"]!["place"]!.GetValue<int>().ShouldBe(1);

        // Where there is more room, it is given away by itself; whoever waits no longer gets nothing.
        offers["options"]![0]!["room"] = 2;
        offers["options"]![0]!["title"] = "A gauge";
        (await Wait(last, [])).Json["sentence"]!.GetValue<string>().ShouldBe("You have left the queue.");
        (await Offer(offers)).Status.ShouldBe(HttpStatusCode.OK);
        await Sweep();
        (await Instrument(last))["isPicked"]!.GetValue<bool>().ShouldBeFalse();
        offers["options"]![0]!["room"] = 1;
        (await Offer(offers)).Status.ShouldBe(HttpStatusCode.OK);
        (await Wait(last, [], "instrument")).Status.ShouldBe(HttpStatusCode.OK);
        offers["options"]![0]!["room"] = 2;
        (await Offer(offers)).Status.ShouldBe(HttpStatusCode.OK);
        await Sweep();
        (await Instrument(last))["isPicked"]!.GetValue<bool>().ShouldBeTrue();

        Task Sweep() => School.Instance.Services.GetRequiredService<QueueSweep>().Sweep(CancellationToken.None);
    }

    [Fact]
    public async Task An_option_shows_a_picture_to_whoever_can_pick_it()
    {
        var drawing = await Lead.SendFile("gauge.svg", "<svg xmlns=\"http://www.w3.org/2000/svg\"><path d=\"M0 0v9\"/></svg>"u8.ToArray());
        var offers = await Offers();
        offers["options"]![0]!["picture"] = new JsonObject
        {
            ["source"] = $"/api/me/uploads/{drawing}/bytes",
            ["words"] = " A rain gauge ",
        };
        var saved = await Offer(offers);
        saved.Status.ShouldBe(HttpStatusCode.OK, saved.Text);
        // It is the choice’s now, whatever becomes of what was sent; saved again as it is read, nothing changes.
        await Lead.Post("/api/me/cancel-upload", new { upload = drawing }, Guid.NewGuid());
        var read = await Offers();
        var source = read["options"]![0]!["picture"]!["source"]!.GetValue<string>();
        read["options"]![0]!["picture"]!["words"]!.GetValue<string>().ShouldBe("A rain gauge");
        (await Lead.Get(source)).Status.ShouldBe(HttpStatusCode.OK);
        (await Offer(read)).Json["applied"]!.GetValue<bool>().ShouldBeFalse();

        var own = (await imke.Get(In($"items/{choice}/offer"))).Json["options"]![0]!["picture"]!["source"]!.GetValue<string>();
        own.ShouldStartWith("/api/sections/");
        (await imke.Get(own)).Status.ShouldBe(HttpStatusCode.OK);
        (await imke.Get(source)).Status.ShouldBe(HttpStatusCode.NotFound);
        // For another section it is not open yet.
        using var davit = await School.As(DemoPeople.HeldUp);
        var theirs = own.Replace($"/{School.Ids["section:" + Alder]}/", $"/{School.Ids["section:9 Birch"]}/", StringComparison.Ordinal);
        (await davit.Get(theirs)).Status.ShouldBe(HttpStatusCode.NotFound);
        // What somebody else has sent is no picture of theirs.
        var mine = await imke.SendFile("mine.svg", "<svg xmlns=\"http://www.w3.org/2000/svg\"/>"u8.ToArray());
        read["options"]![1]!["picture"] = new JsonObject { ["source"] = $"/api/me/uploads/{mine}/bytes", ["words"] = "" };
        var refused = await Offer(read);
        (refused.Status, refused.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "options[1].picture"));
        (await Lead.Post(Route("undo"), new { batch = saved.Json["batch"]!.GetValue<long>() }, Guid.NewGuid())).Status.ShouldBe(
            HttpStatusCode.OK
        );
        (await imke.Get(own)).Status.ShouldBe(HttpStatusCode.NotFound);
    }

    private Task<string> NameOf(long person) =>
        School.Sql(async connection =>
            (await connection.ExecuteScalarAsync<string>("SELECT name FROM person WHERE id = @person", new { person }))!
        );

    [Fact]
    public async Task What_is_offered_is_undone_like_everything_and_an_option_in_use_stays()
    {
        var before = await Offers();
        var offers = before.DeepClone();
        offers["options"]![0]!["title"] = "A gauge";
        offers["options"]!
            .AsArray()
            .Add(
                new JsonObject
                {
                    ["option"] = null,
                    ["title"] = "A logbook",
                    ["words"] = "",
                    ["room"] = null,
                }
            );
        offers["picks"] = 2;
        var reply = await Offer(offers);
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        reply.Json["words"]!.GetValue<string>().ShouldContain("”: up to 2 of A gauge, A harbour briefing and A logbook");
        (await Offers())["options"]!.AsArray().Select(one => one!["option"]!.GetValue<string>()).ShouldBe(["instrument", "briefing", "o1"]);
        // It leads nowhere yet: that is said by its title, before anything is released.
        (await Lead.Get(Route("today"))).Json["course"]!
            .AsArray()
            .Select(check => check!["words"]!.GetValue<string>())
            .ShouldContain($"In “5.04 {Title}”, nothing depends on “A logbook”, nor on not picking at all.");
        (await Pick(imke, "o1", "briefing")).Status.ShouldBe(HttpStatusCode.OK);
        (await Pick(imke, "o1", "briefing", "instrument")).Json["field"]!.GetValue<string>().ShouldBe("options");

        // Picked, or with something hanging on it, it stays.
        var without = await Offers();
        without["options"]!.AsArray().RemoveAt(2);
        without["picks"] = 1;
        (await Offer(without, preview: true)).Json["title"]!.GetValue<string>().ShouldStartWith("Somebody has picked “A logbook”");
        var tied = await Offers();
        tied["options"]!.AsArray().RemoveAt(0);
        tied["picks"] = 1;
        (await Offer(tied, preview: true)).Json["title"]!.GetValue<string>().ShouldMatch("open by “A gauge”. Change that condition first.");
        (await Lead.Post(Route("undo"), new { batch = reply.Json["batch"]!.GetValue<long>() }, Guid.NewGuid())).Status.ShouldBe(
            HttpStatusCode.OK
        );
        (await Offers()).ToJsonString().ShouldBe(before.ToJsonString());
    }

    [Fact]
    public async Task What_is_picked_for_good_is_changed_by_a_teacher_only()
    {
        var offers = await Offers();
        offers["isFinal"] = true;
        (await Offer(offers)).Status.ShouldBe(HttpStatusCode.OK);
        (await Pick(imke, "briefing")).Status.ShouldBe(HttpStatusCode.OK);
        (await Pick(imke, "instrument")).Json["title"]!.GetValue<string>().ShouldStartWith("This pick can’t be changed.");
        (await Pick(imke)).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await PickFor(Imke, "instrument")).Status.ShouldBe(HttpStatusCode.OK);
        (await Pick(imke, "no such")).Json["field"]!.GetValue<string>().ShouldBe("options[0]");
        // It is closed for everybody else: their section does not have it open.
        using var davit = await School.As(DemoPeople.HeldUp);
        var birch = $"/api/sections/{School.Ids["section:9 Birch"]}";
        (
            await davit.Post($"{birch}/pick-options", new { item = choice, options = new[] { "briefing" } }, Guid.NewGuid())
        ).Status.ShouldBeOneOf(HttpStatusCode.Conflict, HttpStatusCode.NotFound);
        (await PickFor(School.Ids["person:" + DemoPeople.HeldUp], "briefing")).Status.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_form_that_is_given_up_counts_nowhere()
    {
        var step = await School.Item("Isobars by hand");
        await Hang("instrument");
        await School.Sql(connection =>
            connection.ExecuteAsync(
                "UPDATE item SET gate = (SELECT gate FROM item WHERE id = @hanging) WHERE id = @step",
                new { hanging, step }
            )
        );
        await School.Sql(connection =>
            connection.ExecuteAsync("UPDATE edition SET version = version + 1 WHERE id = @id", new { id = School.WeatherWatch })
        );
        var total = Route($"students/{Imke}/total");
        async Task<bool> Counts() =>
            (await Lead.Get(total)).Json["total"]!["parts"]!
                .AsArray()
                .SelectMany(part => part!["lines"]!.AsArray())
                .Any(line => line!["title"]!.GetValue<string>() == "Isobars by hand");
        (await PickFor(Imke, "instrument")).Status.ShouldBe(HttpStatusCode.OK);
        (await Counts()).ShouldBeTrue();
        (await PickFor(Imke, "briefing")).Status.ShouldBe(HttpStatusCode.OK);
        (await Counts()).ShouldBeFalse();
        // What she did there can still be read.
        (await imke.Get(In($"items/{step}"))).Json["history"]!.AsArray().ShouldNotBeEmpty();
    }
}
