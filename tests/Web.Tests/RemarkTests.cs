using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Remarks in the margin of a piece, each at the place it is about, and those offered again.</summary>
public sealed class RemarkTests : LeadOfASchool
{
    private const string Step = "Isobars by hand";

    private long work;
    private string text = "";

    protected override async Task Prepare() =>
        (work, text) = await School.Sql(async connection =>
            await connection.QuerySingleAsync<(long, string)>(
                "SELECT w.id, v.text FROM work w JOIN work_version v ON v.work = w.id WHERE w.person = @person AND w.item = @item",
                new { person = School.Ids["person:" + DemoPeople.HeldUp], item = await School.Item(Step) }
            )
        );

    private Task<Reply> GiveBack(params object?[] remarks) =>
        Lead.Post(
            $"/api/sections/{School.Ids["section:9 Birch"]}/give-back",
            new
            {
                work,
                n = 1,
                text = "Go on.",
                again = false,
                remarks,
            },
            Guid.NewGuid()
        );

    private static object On(int from, int to, string text, int? entry = null) =>
        new
        {
            at = new
            {
                from,
                to,
                entry,
            },
            text,
        };

    private static object OnFile(long file, int[]? box, string text, int? page = null) =>
        new
        {
            at = new
            {
                file,
                page,
                box,
            },
            text,
        };

    private async Task<JsonArray> Read(Caller student)
    {
        var seen = (await student.Get($"/api/sections/{School.Ids["section:9 Birch"]}/items/{await School.Item(Step)}")).Json;
        return seen["history"]![0]!["feedback"]![0]!["remarks"]!.AsArray();
    }

    [Fact]
    public async Task Remarks_go_back_in_the_order_of_their_places_and_their_student_reads_them()
    {
        var first = text.IndexOf('.', StringComparison.Ordinal) + 1;
        (await GiveBack(On(first + 1, text.Length, "  Which one?  "), On(0, first, "Yes."))).Status.ShouldBe(HttpStatusCode.OK);
        using var student = await School.As(DemoPeople.HeldUp);
        var read = await Read(student);
        read.Select(one => (one!["text"]!.GetValue<string>(), one["at"]!["from"]!.GetValue<int>(), one["at"]!["to"]!.GetValue<int>()))
            .ShouldBe([("Yes.", 0, first), ("Which one?", first + 1, text.Length)]);

        // Put right, the later ones stand in their place; the score given in the table takes them along.
        (await GiveBack(On(0, first, "Yes, indeed."))).Status.ShouldBe(HttpStatusCode.OK);
        (await Read(student)).Single()!["text"]!.GetValue<string>().ShouldBe("Yes, indeed.");
    }

    [Theory]
    [InlineData("remarks[0].at", 0, 100_000, "Too far.")]
    [InlineData("remarks[0].at", 5, 5, "Nothing.")]
    [InlineData("remarks[0].at", -1, 4, "Before it.")]
    [InlineData("remarks[0]", 0, 4, " ")]
    public async Task A_place_the_piece_does_not_have_and_a_remark_without_words_are_refused(string field, int from, int to, string said)
    {
        var refused = await GiveBack(On(from, to, said));
        refused.Status.ShouldBe(HttpStatusCode.UnprocessableEntity, refused.Text);
        refused.Json["field"]!.GetValue<string>().ShouldBe(field);
    }

    [Fact]
    public async Task Neither_another_files_place_nor_a_rectangle_beyond_the_edge_nor_too_many_are_taken()
    {
        var file = await School.Sql(connection =>
            connection.ExecuteScalarAsync<long>(
                """
                WITH kept AS (INSERT INTO stored_file (hash, size, type, stored_at)
                       VALUES (decode(repeat('01', 32), 'hex'), 3, 'image/png', now()) RETURNING hash),
                     made AS (INSERT INTO work_file (name, file, brought_at) SELECT 'sky.png', hash, now() FROM kept RETURNING id),
                     laid AS (UPDATE work_version SET files = ARRAY[made.id] FROM made WHERE work = @work AND n = 1)
                SELECT id FROM made
                """,
                new { work }
            )
        );
        foreach (
            var wrong in new[]
            {
                OnFile(file + 1, null, "Not theirs."),
                OnFile(file, [900, 0, 200, 100], "Beyond the edge."),
                OnFile(file, [0, 0, 0, 100], "No width."),
                OnFile(file, [0, 0, 10], "Three numbers."),
                OnFile(file, null, "Page 0.", page: 0),
                On(0, 4, "No such entry.", entry: 0),
            }
        )
            (await GiveBack(wrong)).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await GiveBack([.. Enumerable.Range(0, 101).Select(_ => On(0, 4, "Again."))])).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await GiveBack(OnFile(file, [100, 200, 300, 400], "This cloud."), OnFile(file, null, "All of it."))).Status.ShouldBe(
            HttpStatusCode.OK
        );
    }

    [Fact]
    public async Task What_one_has_remarked_is_offered_to_oneself_alone_first_of_the_same_item()
    {
        (await GiveBack(On(0, 4, "Count the lines again."))).Status.ShouldBe(HttpStatusCode.OK);
        var here = await Made(Lead, Step);
        here.Single(one => one!["text"]!.GetValue<string>() == "Count the lines again.")!["here"]!.GetValue<bool>().ShouldBeTrue();
        // What was said of the same item comes before all that was said elsewhere.
        here.Select(one => one!["here"]!.GetValue<bool>()).ShouldBe(here.Select(one => one!["here"]!.GetValue<bool>()).OrderDescending());
        (await Made(Lead, "Cloud diary")).Single(one => one!["text"]!.GetValue<string>() == "Count the lines again.")!["here"]!
            .GetValue<bool>()
            .ShouldBeFalse();
        using var colleague = await School.As(DemoPeople.CoTeacher);
        (await Made(colleague, Step)).ShouldBeEmpty();
    }

    private async Task<JsonArray> Made(Caller caller, string item) =>
        (await caller.Get(Route($"items/{await School.Item(item)}/remarks"))).Json.AsArray();
}
