using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using NodaTime;
using NodaTime.Text;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>What students hand in, what is given back, and what opens by it.</summary>
public sealed class WorkTests : IAsyncLifetime
{
    private School school = null!;
    private Caller student = null!;
    private Caller lead = null!;
    private string section = "";

    public async ValueTask InitializeAsync()
    {
        school = await School.Open();
        student = await school.As(DemoPeople.HeldUp);
        lead = await school.As(DemoPeople.Lead);
        section = $"/api/sections/{school.Ids["section:9 Birch"]}";
    }

    public async ValueTask DisposeAsync()
    {
        student.Dispose();
        lead.Dispose();
        await school.DisposeAsync();
    }

    /// <summary>A piece of 9 Alder's that waits, as a request to give it back.</summary>
    public static async Task<object?> SomePiece(School school)
    {
        var work = await school.Sql(connection =>
            connection.ExecuteScalarAsync<long>(
                "SELECT min(w.id) FROM work w WHERE w.section = @section AND NOT EXISTS (SELECT 1 FROM feedback f WHERE f.work = w.id)",
                new { section = school.Ids["section:9 Alder"] }
            )
        );
        return new
        {
            work,
            n = 1,
            text = "Good.",
            again = false,
        };
    }

    [Fact]
    public async Task Giving_back_to_go_on_opens_the_next_step_for_that_student_only()
    {
        var (step, next) = (await school.Item("Isobars by hand"), await school.Item("Arrows on the chart"));
        var others = await OpenFor(next);
        (await StateOf(next)).ShouldBe("locked");
        var row = (await student.Get($"{section}/now")).Json["locked"]!.AsArray().Single(row => row!["item"]!.GetValue<long>() == next)!;
        row["missing"]!
            .AsArray()
            .Select(missing => missing!.GetValue<string>())
            .ShouldBe(["feedback on 2.12 Isobars by hand is given back"]);
        (await student.Get($"{section}/items/{next}")).Json["html"].ShouldBeNull();

        var piece = await Piece(step);
        var request = new
        {
            work = piece,
            n = 1,
            text = "Go on.",
            again = false,
        };
        var before = await school.RowCounts();
        var shown = await lead.Post($"{section}/give-back?preview=true", request);
        (await school.RowCounts()).ShouldBe(before);
        shown.Json["sentence"]!.GetValue<string>().ShouldBe("2.12 goes back to Davit Lindqvist, for whom 2.15 Arrows on the chart opens.");
        var key = Guid.NewGuid();
        var given = await lead.Post($"{section}/give-back", request, key);
        given.Json["opens"]!.AsArray().Count.ShouldBe(1);
        (await lead.Post($"{section}/give-back", request, key)).Text.ShouldBe(given.Text);
        (await StateOf(next)).ShouldBe("open");
        (await OpenFor(next)).ShouldBe(others + 1);
        (await student.Get($"{section}/now")).Json["back"]!.AsArray()[0]!["begins"]!.GetValue<string>().ShouldBe("Go on.");
        var history = (await student.Get($"{section}/items/{step}")).Json["history"]!.AsArray();
        history.Single()!["feedback"]![0]!["text"]!.GetValue<string>().ShouldBe("Go on.");
    }

    [Fact]
    public async Task What_frees_most_stands_first_and_frees_what_it_says()
    {
        var sections = (await lead.Get($"/api/editions/{school.WeatherWatch}/work")).Json["sections"]!.AsArray();
        var first = sections.Single(one => one!["name"]!.GetValue<string>() == "9 Alder")!["pieces"]![0]!;
        var frees = first["frees"]!.AsArray().Select(code => code!.GetValue<string>()).ToList();
        frees.ShouldBe(["3.08"]);
        var shown = await lead.Post(
            $"/api/sections/{school.Ids["section:9 Alder"]}/give-back?preview=true",
            new
            {
                work = first["work"]!.GetValue<long>(),
                n = first["n"]!.GetValue<int>(),
                text = "",
                again = false,
            }
        );
        shown.Json["opens"]!.AsArray().Select(opened => opened!.GetValue<string>().Split(' ')[0]).ShouldBe(frees);
        foreach (var pieces in sections.Select(one => one!["pieces"]!.AsArray()))
        {
            // Those that wait, then those that do not; of the first those that free more before those that free less.
            pieces
                .Select(piece => piece!["back"] is null && piece["work"] is not null ? piece["frees"]!.AsArray().Count : -1)
                .ShouldBeInOrder(SortDirection.Descending);
            pieces.Where(piece => piece!["back"] is not null).ShouldAllBe(piece => piece!["frees"]!.AsArray().Count == 0);
        }
    }

    [Fact]
    public async Task Given_back_to_try_again_opens_nothing_and_a_second_hand_in_is_numbered_on()
    {
        var (step, next) = (await school.Item("Isobars by hand"), await school.Item("Arrows on the chart"));
        await lead.Post(
            $"{section}/give-back",
            new
            {
                work = await Piece(step),
                n = 1,
                text = "Nearly.",
                again = true,
            },
            Guid.NewGuid()
        );
        (await StateOf(next)).ShouldBe("locked");
        (await student.Get($"{section}/items/{step}")).Json["progress"]!.GetValue<string>().ShouldBe("try-again");
        (await HandIn(step, "Better")).Json["n"]!.GetValue<int>().ShouldBe(2);
        // Whoever read the first hand-in meanwhile is told that there is another.
        var late = await lead.Post(
            $"{section}/give-back",
            new
            {
                work = await Piece(step),
                n = 1,
                text = "Again.",
                again = false,
            },
            Guid.NewGuid()
        );
        (late.Status, late.Code).ShouldBe((HttpStatusCode.Conflict, "changed-meanwhile"));

        // Both stand beside each other for whoever reads the section's work, and for nobody else.
        var address = $"/api/editions/{school.WeatherWatch}/items/{step}/students/{school.Ids["person:" + DemoPeople.HeldUp]}/versions";
        var versions = (await lead.Get(address)).Json.AsArray();
        versions.Select(version => version!["n"]!.GetValue<int>()).ShouldBe([2, 1]);
        versions[0]!["text"]!.GetValue<string>().ShouldBe("Better");
        versions[1]!["feedback"]!.AsArray().ShouldHaveSingleItem()!["text"]!.GetValue<string>().ShouldBe("Nearly.");
        versions[0]!["feedback"]!.AsArray().ShouldBeEmpty();
        using var other = await school.As(DemoPeople.CoTeacher);
        (await other.Get(address)).Status.ShouldBe(HttpStatusCode.NotFound);
        (await student.Get(address)).Status.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_draft_is_kept_and_of_two_pages_the_one_that_read_less_is_told()
    {
        var item = await school.Item("Cloud diary");
        (await Draft(item, "One", 0)).Json["version"]!.GetValue<long>().ShouldBe(1);
        (await Draft(item, "One and two", 1)).Json["version"]!.GetValue<long>().ShouldBe(2);
        var late = await Draft(item, "Something else", 1);
        (late.Code, late.Json["conflict"]!["theirs"]!.GetValue<string>()).ShouldBe(("changed-meanwhile", "One and two"));
        (await student.Get($"{section}/items/{item}")).Json["draft"]!["text"]!.GetValue<string>().ShouldBe("One and two");
        await HandIn(item, "All of it");
        (await student.Get($"{section}/items/{item}")).Json["draft"].ShouldBeNull();
    }

    [Fact]
    public async Task What_is_taken_back_is_written_on_and_the_teacher_has_it_no_more()
    {
        var item = await school.Item("Cloud diary");
        var handedIn = await HandedIn(item);
        await HandIn(item, "Too soon");
        (await HandedIn(item)).ShouldBe(handedIn + 1);
        var reader = (await Waiting(item)).ShouldHaveSingleItem();

        (await TakeBack(item)).Status.ShouldBe(HttpStatusCode.OK);
        var seen = (await student.Get($"{section}/items/{item}")).Json;
        seen["progress"]!.GetValue<string>().ShouldBe("begun");
        seen["draft"]!["text"]!.GetValue<string>().ShouldBe("Too soon");
        seen["history"]!.AsArray().Single()!["takenBackAt"].ShouldNotBeNull();
        (await HandedIn(item)).ShouldBe(handedIn);
        (await Waiting(item)).ShouldBeEmpty();
        // A teacher who still has it on the screen cannot give it back, and there is no second time.
        (await Back(reader, 1)).Status.ShouldBe(HttpStatusCode.NotFound);
        (await TakeBack(item)).Code.ShouldBe("nothing-to-take-back");

        // What was written since stays; the next hand-in is numbered on.
        (await HandIn(item, "Now it is done")).Json["n"]!.GetValue<int>().ShouldBe(2);
        await Draft(item, "And one thing more", 0);
        (await TakeBack(item)).Status.ShouldBe(HttpStatusCode.OK);
        (await student.Get($"{section}/items/{item}")).Json["draft"]!["text"]!.GetValue<string>().ShouldBe("And one thing more");
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task Of_taking_back_and_giving_back_at_once_the_first_is_done_and_the_other_told(bool backFirst)
    {
        var item = await school.Item("Isobars by hand");
        var piece = await Piece(item);
        await using var held = await school.Owner.Source.OpenConnectionAsync();
        await using var holding = await held.BeginTransactionAsync();
        await held.ExecuteAsync("SELECT 1 FROM work WHERE id = @piece FOR UPDATE", new { piece });
        // Both wait for the piece, in this order.
        var first = backFirst ? Back(piece, 1) : TakeBack(item);
        await school.UntilWaiting(1);
        var second = backFirst ? TakeBack(item) : Back(piece, 1);
        await school.UntilWaiting(2);
        await holding.CommitAsync();

        (await first).Status.ShouldBe(HttpStatusCode.OK);
        (await second).Status.ShouldBe(backFirst ? HttpStatusCode.Conflict : HttpStatusCode.NotFound);
        (await StateOf(await school.Item("Arrows on the chart"))).ShouldBe(backFirst ? "open" : "locked");
        (await TakeBack(item)).Code.ShouldBe("nothing-to-take-back");
    }

    [Fact]
    public async Task What_is_not_open_takes_neither_draft_nor_work_and_does_not_open_by_trying()
    {
        var locked = await school.Item("Arrows on the chart");
        (await Draft(locked, "Let me in", 0)).Code.ShouldBe("not-open");
        (await HandIn(locked, "Let me in")).Code.ShouldBe("not-open");
        (await student.Post($"{section}/record-opened", new { item = locked }, Guid.NewGuid())).Code.ShouldBe("not-open");
        (await StateOf(locked)).ShouldBe("locked");
        var unpublished = await school.Item("Project, step 1: your question");
        (await student.Get($"{section}/items/{unpublished}")).Status.ShouldBe(HttpStatusCode.NotFound);
        (await Draft(unpublished, "x", 0)).Status.ShouldBe(HttpStatusCode.NotFound);
        (await HandIn(await school.Item("Cloud diary"), "  ")).Json["field"]!.GetValue<string>().ShouldBe("text");
    }

    [Fact]
    public async Task What_arrives_after_closing_is_kept_as_a_draft_and_the_team_sees_it()
    {
        var (item, version) = await CommandExamples.At(school, "item", "Cloud diary");
        (
            await lead.Post(
                $"/api/editions/{school.WeatherWatch}/time-item",
                new
                {
                    item,
                    field = "closes",
                    anchor = new
                    {
                        at = "fixed",
                        date = "2026-10-08",
                        time = "10:00",
                    },
                    version,
                },
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
        var pressed = InstantPattern.General.Format(school.Clock.GetCurrentInstant() - Duration.FromHours(1));
        var late = await student.Post(
            $"{section}/hand-in",
            new
            {
                item,
                text = "It was the net",
                pressedAt = pressed,
            },
            Guid.NewGuid()
        );
        (late.Status, late.Json["handedIn"]!.GetValue<bool>()).ShouldBe((HttpStatusCode.OK, false));
        var own = (await student.Get($"{section}/items/{item}")).Json;
        (own["state"]!.GetValue<string>(), own["draft"]!["text"]!.GetValue<string>()).ShouldBe(("closed", "It was the net"));
        own["draft"]!["missedAt"].ShouldNotBeNull();
        var seen = (await Work()).Single(piece => piece["item"]!.GetValue<long>() == item && piece["work"] is null);
        (seen["name"]!.GetValue<string>(), seen["text"]!.GetValue<string>()).ShouldBe((DemoPeople.HeldUp, "It was the net"));
        seen["pressedAt"]!["instant"]!.GetValue<string>().ShouldBe(pressed);
    }

    [Fact]
    public async Task Sent_many_times_at_once_it_is_handed_in_once()
    {
        var item = await school.Item("Cloud diary");
        var key = Guid.NewGuid();
        var replies = await Task.WhenAll(
            Enumerable
                .Range(0, 8)
                .Select(_ =>
                    student.Post(
                        $"{section}/hand-in",
                        new
                        {
                            item,
                            text = "Once",
                            pressedAt = (string?)null,
                        },
                        key
                    )
                )
        );
        replies.Select(reply => reply.Text).Distinct().Count().ShouldBe(1);
        (await student.Get($"{section}/items/{item}")).Json["history"]!.AsArray().Count.ShouldBe(1);
        // Two that differ are two hand-ins, whichever comes first.
        var two = await Task.WhenAll(Enumerable.Range(0, 2).Select(n => HandIn(item, $"Again {n}")));
        two.Select(reply => reply.Json["n"]!.GetValue<int>()).Order().ShouldBe([2, 3]);
    }

    private Task<Reply> TakeBack(long item) => student.Post($"{section}/take-back", new { item }, Guid.NewGuid());

    private Task<Reply> Back(long work, int n) =>
        lead.Post(
            $"{section}/give-back",
            new
            {
                work,
                n,
                text = "",
                again = false,
            },
            Guid.NewGuid()
        );

    // Davit's pieces of an item that wait to be read.
    private async Task<IReadOnlyList<long>> Waiting(long item) =>
        [
            .. (await lead.Get($"/api/editions/{school.WeatherWatch}/work")).Json["sections"]!
                .AsArray()
                .SelectMany(of => of!["pieces"]!.AsArray())
                .Where(piece => piece!["item"]!.GetValue<long>() == item && piece["back"] is null)
                .Where(piece => piece!["name"]!.GetValue<string>() == DemoPeople.HeldUp)
                .Select(piece => piece!["work"]!.GetValue<long>()),
        ];

    private async Task<int> HandedIn(long item) =>
        (await lead.Get($"/api/editions/{school.WeatherWatch}/handed-in")).Json["items"]!
            .AsArray()
            .Where(row => row!["item"]!.GetValue<long>() == item)
            .Sum(row => row!["students"]!.AsArray().Sum(count => count!.GetValue<int>()));

    private Task<Reply> HandIn(long item, string text) =>
        student.Post(
            $"{section}/hand-in",
            new
            {
                item,
                text,
                pressedAt = (string?)null,
            },
            Guid.NewGuid()
        );

    private Task<Reply> Draft(long item, string text, long version) =>
        student.Post(
            $"{section}/save-draft",
            new
            {
                item,
                text,
                version,
            },
            Guid.NewGuid()
        );

    private async Task<string> StateOf(long item) => (await student.Get($"{section}/items/{item}")).Json["state"]!.GetValue<string>();

    private async Task<List<JsonNode>> Work() =>
        [
            .. (await lead.Get($"/api/editions/{school.WeatherWatch}/work")).Json["sections"]!
                .AsArray()
                .SelectMany(of => of!["pieces"]!.AsArray())
                .Select(piece => piece!),
        ];

    private async Task<long> Piece(long item) =>
        (await Work()).Single(piece => piece["item"]!.GetValue<long>() == item && piece["name"]!.GetValue<string>() == DemoPeople.HeldUp)[
            "work"
        ]!.GetValue<long>();

    // For how many students of the section an item is open, seen through the eyes of each.
    private async Task<int> OpenFor(long item)
    {
        var students = (await lead.Get($"/api/editions/{school.WeatherWatch}/students")).Json["sections"]!
            .AsArray()
            .Single(of => of!["name"]!.GetValue<string>() == "9 Birch")!["students"]!
            .AsArray()
            .Select(one => one!["id"]!.GetValue<long>());
        var open = 0;
        foreach (var one in students)
            open += (await lead.Get($"{section}/items/{item}?as=student:{one}")).Json["mayWork"]!.GetValue<bool>() ? 1 : 0;
        return open;
    }
}
