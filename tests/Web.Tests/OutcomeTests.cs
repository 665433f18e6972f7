using System.Net;
using System.Text.Json.Nodes;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>The school's outcomes, the items tied to them, and the overview of a unit.</summary>
public sealed class OutcomeTests : LeadOfASchool
{
    private static Task<Reply> Import(Caller office, string text, bool preview = false) =>
        office.Post("/api/school/import-outcomes" + (preview ? "?preview=true" : ""), new { text }, preview ? null : Guid.NewGuid());

    private static async Task<List<string>> Codes(Caller office) =>
        [.. (await office.Get("/api/school/outcomes")).Json["outcomes"]!.AsArray().Select(one => one!["code"]!.GetValue<string>())];

    private async Task<Reply> Tie(string item, params string[] outcomes)
    {
        var id = await School.Item(item);
        return await Lead.Post(
            Route("tie-outcomes"),
            new
            {
                item = id,
                outcomes,
                version = (await Lead.Get(Route($"items/{id}"))).Json["version"]!.GetValue<long>(),
            },
            Guid.NewGuid()
        );
    }

    private async Task<List<string>> Of(string item) =>
        [
            .. (await Lead.Get(Route($"items/{await School.Item(item)}"))).Json["outcomes"]!
                .AsArray()
                .Select(code => code!.GetValue<string>()),
        ];

    [Fact]
    public async Task A_file_is_looked_at_taken_in_and_undone()
    {
        using var office = await School.As(DemoPeople.Office);
        var before = (await office.Get("/api/school/outcomes")).Json["outcomes"]!.ToJsonString();
        var rows = await School.RowCounts();
        const string File = "code,outcome\nG1.1,Read any gauge\nX1,Tell the time by the sun\n";
        var shown = (await Import(office, File, preview: true)).Json;
        (shown["added"]!.GetValue<int>(), shown["changed"]!.GetValue<int>()).ShouldBe((1, 1));
        shown["sentence"]!.GetValue<string>().ShouldContain("items still have outcomes that are removed");
        (await School.RowCounts()).ShouldBe(rows);

        var done = await Import(office, File);
        (done.Status, done.Json["sentence"]!.GetValue<string>()).ShouldBe((HttpStatusCode.OK, shown["sentence"]!.GetValue<string>()));
        (await Codes(office)).ShouldBe(["G1.1", "X1"]);
        // What was tied stays tied, and says that the school has it no more.
        (await Of("Isobars by hand")).ShouldContain("G2.2");
        (await Lead.Get(Route("outcomes"))).Json.AsArray().Single(one => one!["code"]!.GetValue<string>() == "G2.2")!["removed"]!
            .GetValue<bool>()
            .ShouldBeTrue();
        (await Tie("A slow ramp", "G4.1", "G3.1")).Json["field"]!.GetValue<string>().ShouldBe("outcomes");
        (await Tie("A slow ramp", "G4.1", "X1")).Status.ShouldBe(HttpStatusCode.OK);

        (await office.Post("/api/school/undo-outcomes", new { }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        (await office.Get("/api/school/outcomes")).Json["outcomes"]!.ToJsonString().ShouldBe(before);
        (await Verifier.Run(School.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("", "empty")]
    [InlineData("a,b\n1,2", "No column is headed “code”")]
    [InlineData("code,outcome\nA,=1+1", "formula")]
    public async Task What_is_no_list_is_refused_and_nothing_is_lost(string text, string says)
    {
        using var office = await School.As(DemoPeople.Office);
        var before = await School.RowCounts();
        var refused = await Import(office, text);
        (refused.Status, refused.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "text"));
        refused.Json["title"]!.GetValue<string>().ShouldContain(says);
        (await School.RowCounts()).ShouldBe(before);
    }

    [Fact]
    public async Task An_item_is_tied_in_the_order_of_the_list_and_that_is_undone_carried_and_taken_out_again()
    {
        var tied = await Tie("Film: how a low goes by", "M5.1", "G2.3", "E2.1");
        tied.Status.ShouldBe(HttpStatusCode.OK, tied.Text);
        (await Of("Film: how a low goes by")).ShouldBe(["G2.3", "E2.1", "M5.1"]);
        (await Tie("Film: how a low goes by", "E2.1", "M5.1", "G2.3")).Json["applied"]!.GetValue<bool>().ShouldBeFalse();
        (await Tie("Film: how a low goes by", "G2.3", "G2.3")).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Tie("Film: how a low goes by", [.. Enumerable.Range(0, 21).Select(n => $"G{n}")])).Json["title"]!
            .GetValue<string>()
            .ShouldBe("An item can have up to 20 outcomes.");
        await Post("undo", new { batch = tied.Json["batch"]!.GetValue<long>() });
        (await Of("Film: how a low goes by")).ShouldBe(["G2.3"]);
    }

    private async Task<JsonNode> Unit(Caller who, string title, string at = "") =>
        (await who.Get($"/api/sections/{School.Ids["section:9 Alder"]}/units/{await UnitOf(title)}{at}")).Json;

    private async Task<long> UnitOf(string title) =>
        (await Lead.Get(Route("outline"))).Json["units"]!.AsArray().Single(unit => unit!["title"]!.GetValue<string>() == title)![
            "id"
        ]!.GetValue<long>();

    private static List<string> Outcomes(JsonNode unit) => [.. unit["outcomes"]!.AsArray().Select(one => one!["code"]!.GetValue<string>())];

    [Fact]
    public async Task The_overview_of_a_unit_is_made_from_what_is_in_it_and_a_student_reads_what_they_may_know_of()
    {
        using var imke = await School.As(DemoPeople.OnTrack);
        var team = (await Lead.Get(Route($"units/{await UnitOf("Looking up")}"))).Json;
        team["contents"]!.GetValue<string>().ShouldMatch("^[0-9]+ pages, .* and [0-9]+ discussions?$");
        Outcomes(team).ShouldBe(["G1.1", "G1.2", "G1.3", "E2.1", "M4.2"]);

        var theirs = await Unit(imke, "Looking up");
        theirs["title"]!.GetValue<string>().ShouldBe("Looking up");
        Outcomes(theirs).ShouldBe(Outcomes(team));
        var gauge = theirs["outcomes"]![0]!;
        gauge["words"]!.GetValue<string>().ShouldStartWith("Read a rain gauge");
        gauge["items"]!.AsArray().Count.ShouldBe(5);
        gauge["done"]!.GetValue<int>().ShouldBeInRange(1, 5);
        theirs["parts"]!.AsArray().Select(part => part!["lesson"]?.GetValue<string>()).ShouldContain("Welcome to the watch");

        // What is unpublished is not in it, nor what it alone is tied to.
        Outcomes(await Unit(imke, "Clouds by name")).ShouldContain("M4.2");
        var ascent = await School.Item("Reading an ascent");
        await Post(
            "publish-item",
            new
            {
                item = ascent,
                published = false,
                version = (await Lead.Get(Route($"items/{ascent}"))).Json["version"]!.GetValue<long>(),
            }
        );
        Outcomes(await Unit(imke, "Clouds by name")).ShouldNotContain("M4.2");
        (await Lead.Get(Route($"units/{await UnitOf("Clouds by name")}"))).Json["unpublished"]!.GetValue<int>().ShouldBePositive();
        // A unit of which they may know nothing, and one of another course, are not there.
        var storm = await UnitOf("Storm season");
        (await imke.Get($"/api/sections/{School.Ids["section:9 Alder"]}/units/{storm}")).Status.ShouldBe(HttpStatusCode.NotFound);
        (await imke.Get($"/api/sections/{School.Ids["section:9 Alder"]}/units/999999")).Status.ShouldBe(HttpStatusCode.NotFound);
        (await Lead.Get(Route("units/999999"))).Status.ShouldBe(HttpStatusCode.NotFound);
    }
}
