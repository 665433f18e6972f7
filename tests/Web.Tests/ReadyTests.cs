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

/// <summary>Pieces that were read, are ready, and go back later, together.</summary>
public sealed class ReadyTests : LeadOfASchool
{
    private long item;
    private List<(long Work, string Name)> pieces = [];

    private string Section(string rest) => $"/api/sections/{School.Ids["section:9 Birch"]}/{rest}";

    // Those of one step in one section that wait, the one whose student is held up by it among them.
    protected override async Task Prepare()
    {
        item = await School.Item("Isobars by hand");
        pieces = await School.Sql(async connection =>
            (
                await connection.QueryAsync<(long, string)>(
                    "SELECT w.id, p.name FROM work w JOIN person p ON p.id = w.person WHERE w.item = @item AND w.section = @section "
                        + "AND NOT EXISTS (SELECT 1 FROM feedback f WHERE f.work = w.id) ORDER BY p.name",
                    new { item, section = School.Ids["section:9 Birch"] }
                )
            ).AsList()
        );
        pieces.Select(piece => piece.Name).ShouldContain(DemoPeople.HeldUp);
    }

    private static object Back(long work, string text = "Good.", int n = 1, object[]? remarks = null) =>
        new
        {
            work,
            n,
            text,
            again = false,
            remarks = remarks ?? [],
        };

    /// <summary>A piece of 9 Alder that is ready, as giving it back names it.</summary>
    internal static async Task<object> SomeReady(School school)
    {
        var piece = (await WorkTests.SomePiece(school))!;
        using var lead = await school.As(DemoPeople.Lead);
        var reply = await lead.Post($"/api/sections/{school.Ids["section:9 Alder"]}/ready-mark", piece, Guid.NewGuid());
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return new { works = new[] { JsonNode.Parse(System.Text.Json.JsonSerializer.Serialize(piece))!["work"]!.GetValue<long>() } };
    }

    private async Task<Reply> Ready(object back)
    {
        var reply = await Lead.Post(Section("ready-mark"), back, Guid.NewGuid());
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return reply;
    }

    private Task<Reply> GiveBack(IEnumerable<long> works, bool preview = false, bool wait = false) =>
        Lead.Post(Section("give-back-ready") + (preview ? "?preview=true" : ""), new { works, wait }, preview ? null : Guid.NewGuid());

    private async Task<JsonNode> Birch() =>
        (await Lead.Get(Route("work"))).Json["sections"]!.AsArray().Single(one => one!["name"]!.GetValue<string>() == "9 Birch")!;

    private Task<int> Count(string table) =>
        School.Sql(connection => connection.ExecuteScalarAsync<int>($"SELECT count(*)::int FROM {table}"));

    [Fact]
    public async Task What_is_ready_is_nobodys_to_see_until_it_goes_back_together_and_opens_what_waits_for_it()
    {
        using var student = await School.As(DemoPeople.HeldUp);
        var address = Section($"items/{item}");
        var before = (await student.Get(address)).Text;
        var (waiting, facts) = ((await Birch())["waiting"]!.GetValue<int>(), await Count("fact"));
        foreach (var (work, _) in pieces)
            (await Ready(Back(work, "Read the third line again."))).Json["sentence"]!
                .GetValue<string>()
                .ShouldEndWith("It goes back when you give it back.");
        (await student.Get(address)).Text.ShouldBe(before);
        (await Count("fact")).ShouldBe(facts);
        var birch = await Birch();
        birch["waiting"]!.GetValue<int>().ShouldBe(waiting - pieces.Count);
        var ready = birch["pieces"]!.AsArray().Where(piece => piece!["ready"] is not null).ToList();
        ready.Count.ShouldBe(pieces.Count);
        ready.ShouldAllBe(piece => piece!["ready"]!["words"]!.GetValue<string>() == "go on");

        var works = pieces.Select(piece => piece.Work).ToList();
        var shown = (await GiveBack(works, preview: true)).Json["sentence"]!.GetValue<string>();
        shown.ShouldStartWith($"{pieces.Count} pieces go back. 2.15 Arrows on the chart opens for ");
        (await Count("fact")).ShouldBe(facts);
        (await GiveBack(works)).Json["sentence"]!.GetValue<string>().ShouldBe(shown);
        (await Count("ready_mark")).ShouldBe(0);
        var after = (await student.Get(address)).Json;
        after["history"]![0]!["feedback"]![0]!["text"]!.GetValue<string>().ShouldBe("Read the third line again.");
        // Given back, it is ready no longer; asked for again it is not there.
        (await GiveBack(works)).Status.ShouldBe(HttpStatusCode.NotFound);
        (await Lead.Post(Section("ready-mark"), Back(works[0]), Guid.NewGuid())).Json["field"]!.GetValue<string>().ShouldBe("work");
    }

    [Fact]
    public async Task It_is_checked_like_what_goes_back_at_once_replaced_and_taken_out_again()
    {
        var work = pieces[0].Work;
        var nowhere = new { at = new { from = 0, to = 100_000 }, text = "Beyond its end." };
        (await Lead.Post(Section("ready-mark"), Back(work, remarks: [nowhere]), Guid.NewGuid())).Json["field"]!
            .GetValue<string>()
            .ShouldBe("remarks[0].at");
        (await Lead.Post(Section("ready-mark"), Back(work, n: 2), Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.Conflict);
        await Ready(Back(work, "First."));
        await Ready(Back(work, "Then."));
        (await Birch())["pieces"]!.AsArray().Single(piece => piece!["ready"] is not null)!["ready"]!["back"]!["text"]!
            .GetValue<string>()
            .ShouldBe("Then.");
        (await GiveBack([work], wait: true)).Json["sentence"]!.GetValue<string>().ShouldBe("1 piece waits to be read again.");
        (await Count("ready_mark")).ShouldBe(0);
        (await GiveBack([])).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await GiveBack([work, work])).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task What_is_handed_in_again_meanwhile_is_to_be_looked_at_first_and_what_went_back_at_once_is_ready_no_longer()
    {
        var (first, second) = (pieces[0], pieces[1]);
        await Ready(Back(first.Work));
        await Ready(Back(second.Work));
        await School.Sql(connection =>
            connection.ExecuteAsync(
                "INSERT INTO work_version (work, n, text, handed_in_at, request) "
                    + "SELECT work, 2, 'Once more.', handed_in_at + interval '1 hour', gen_random_uuid() "
                    + "FROM work_version WHERE work = @Work",
                new { first.Work }
            )
        );
        var given = (await GiveBack([first.Work, second.Work])).Json;
        given["pieces"]!.GetValue<int>().ShouldBe(1);
        given["sentence"]!
            .GetValue<string>()
            .ShouldEndWith($"What {first.Name} handed in, or how it is marked, has changed since; look at that piece first.");
        // It waits like any other, and going back it leaves nothing behind.
        (await Birch())["pieces"]!.AsArray().ShouldAllBe(piece => piece!["ready"] == null);
        (await Lead.Post(Section("give-back"), Back(first.Work, n: 2), Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        (await Count("ready_mark")).ShouldBe(0);
    }

    [Fact]
    public async Task It_goes_back_by_itself_at_its_moment_or_once_all_of_its_item_are_ready()
    {
        var (first, second) = (pieces[0], pieces[1]);
        await Ready(Back(first.Work));
        await Ready(Back(second.Work));
        // The demo's clock says which moments have passed.
        async Task<Reply> Later(long[] works, string? on = null, bool withAll = false) =>
            await Lead.Post(
                Section("give-back-ready"),
                new
                {
                    works,
                    on,
                    withAll,
                },
                Guid.NewGuid()
            );
        (await Later([first.Work], "2020-01-01T08:00")).Json["title"]!.GetValue<string>().ShouldStartWith("This moment has passed.");
        (await Later([first.Work], "2099-01-01T08:00")).Json["field"]!.GetValue<string>().ShouldBe("on");
        (await Later([first.Work], "soon")).Json["field"]!.GetValue<string>().ShouldBe("on");
        (await Later([first.Work], "2026-10-12T08:00", true)).Json["field"]!.GetValue<string>().ShouldBe("on");
        (await Later([first.Work], "2026-10-12T08:00")).Json["sentence"]!
            .GetValue<string>()
            .ShouldBe("1 piece goes back by itself on Mon 12 Oct, 08:00. What opens by it opens then.");
        await Sweep();
        (await Count("ready_mark")).ShouldBe(2);
        (await Birch())["pieces"]!
            .AsArray()
            .Count(piece => piece!["ready"]?["goesAt"]?["words"]?.GetValue<string>() == "Mon 12 Oct, 08:00")
            .ShouldBe(1);
        await School.Sql(connection => connection.ExecuteAsync("UPDATE ready_mark SET goes_at = '2026-10-01' WHERE goes_at IS NOT NULL"));
        await Sweep();
        (await Count("ready_mark")).ShouldBe(1);
        (await Count("feedback WHERE text = 'Good.'")).ShouldBe(1);

        // With the others of its item: as soon as the last of them is ready.
        (await Later([second.Work], withAll: true)).Status.ShouldBe(HttpStatusCode.OK);
        await Sweep();
        (await Count("ready_mark")).ShouldBe(1);
        foreach (var (work, _) in pieces.Skip(2))
            await Ready(Back(work));
        await Sweep();
        (await Count("feedback WHERE text = 'Good.'")).ShouldBe(2);
        (await Count("ready_mark")).ShouldBe(pieces.Count - 2);

        Task Sweep() => School.Instance.Services.GetRequiredService<ReadySweep>().Sweep(CancellationToken.None);
    }

    [Fact]
    public async Task What_is_not_as_it_was_left_or_left_by_somebody_who_may_no_longer_does_not_go_back_by_itself()
    {
        var (first, second) = (pieces[0], pieces[1]);
        await Ready(Back(first.Work));
        await Ready(Back(second.Work));
        await School.Sql(connection =>
            connection.ExecuteAsync(
                """
                INSERT INTO work_version (work, n, text, handed_in_at, request)
                SELECT work, 2, 'Once more.', handed_in_at + interval '1 hour', gen_random_uuid() FROM work_version WHERE work = @First;
                UPDATE ready_mark SET goes_at = '2026-10-01';
                UPDATE ready_mark SET by = @imke WHERE work = @Second
                """,
                new
                {
                    First = first.Work,
                    Second = second.Work,
                    imke = School.Ids["person:" + DemoPeople.OnTrack],
                }
            )
        );
        await School.Instance.Services.GetRequiredService<ReadySweep>().Sweep(CancellationToken.None);
        (await Count("feedback WHERE text = 'Good.'")).ShouldBe(0);
        (await Count("ready_mark WHERE goes_at IS NULL")).ShouldBe(2);
    }

    [Fact]
    public async Task One_that_cannot_go_back_keeps_no_other_from_it()
    {
        await Ready(Back(pieces[0].Work));
        await Ready(Back(pieces[1].Work));
        // As if what was left had been checked by other rules.
        await School.Sql(connection =>
            connection.ExecuteAsync(
                """
                UPDATE ready_mark SET goes_at = '2026-10-01';
                UPDATE ready_mark SET request = request || '{"remarks": [{"at": {"from": 0, "to": 100000}, "text": "Beyond."}]}'
                WHERE work = @Work
                """,
                new { pieces[0].Work }
            )
        );
        await School.Instance.Services.GetRequiredService<ReadySweep>().Sweep(CancellationToken.None);
        (await Count("feedback WHERE text = 'Good.'")).ShouldBe(1);
        (await Count("ready_mark WHERE goes_at IS NULL")).ShouldBe(1);
    }

    [Fact]
    public async Task Two_teachers_mark_one_piece_beside_one_another_and_which_counts_is_said_when_it_goes_back()
    {
        var (work, name) = pieces[0];
        using var tomas = await School.As(DemoPeople.CoTeacher);
        await School.Sql(connection =>
            connection.ExecuteAsync(
                "INSERT INTO section_teacher (section, person) VALUES (@section, @tomas) ON CONFLICT DO NOTHING",
                new { section = School.Ids["section:9 Birch"], tomas = School.Ids["person:" + DemoPeople.CoTeacher] }
            )
        );
        await Ready(Back(work, "As Orla reads it."));
        var again = new
        {
            work,
            n = 1,
            text = "As Tomas reads it.",
            again = true,
            remarks = Array.Empty<object>(),
        };
        var beside = await tomas.Post(Section("ready-mark"), again, Guid.NewGuid());
        beside.Json["sentence"]!
            .GetValue<string>()
            .ShouldEndWith("Orla Tierney-Vance’s mark (go on) stands beside it; choose which counts when it goes back.");
        var piece = (await Birch())["pieces"]!.AsArray().Single(one => one!["work"]?.GetValue<long>() == work)!;
        (piece["ready"]!["words"]!.GetValue<string>(), piece["ready"]!["isOwn"]!.GetValue<bool>()).ShouldBe(("go on", true));
        var other = piece["beside"]!.AsArray().Single()!;
        (other["by"]!.GetValue<string>(), other["words"]!.GetValue<string>()).ShouldBe((DemoPeople.CoTeacher, "try again"));

        // Neither goes back by being one of many, nor by itself.
        (await GiveBack([work])).Json["sentence"]!
            .GetValue<string>()
            .ShouldEndWith($"Two teachers marked the work of {name} differently; open it and choose which mark counts.");
        (await Count("feedback WHERE text LIKE 'As % reads it.'")).ShouldBe(0);
        (await Lead.Post(Section("give-back") + "?preview=true", Back(work, "As Orla reads it."))).Json["sentence"]!
            .GetValue<string>()
            .ShouldEndWith("Tomas Reeve left another mark for it (try again), which does not count.");
        var nobody = School.Ids["person:" + DemoPeople.OnTrack];
        (await Lead.Post(Section("give-back-ready"), new { works = new[] { work }, by = nobody }, Guid.NewGuid())).Status.ShouldBe(
            HttpStatusCode.NotFound
        );
        var counts = other["byId"]!.GetValue<long>();
        (await Lead.Post(Section("give-back-ready"), new { works = new[] { work }, by = counts }, Guid.NewGuid())).Json["pieces"]!
            .GetValue<int>()
            .ShouldBe(1);
        (await Count("feedback WHERE text = 'As Tomas reads it.'")).ShouldBe(1);
        (await Count("ready_mark")).ShouldBe(0);
    }
}
