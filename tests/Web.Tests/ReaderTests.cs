using System.Net;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Two teachers of a section do not read one piece: each sees which pieces the other one reads.</summary>
public sealed class ReaderTests : LeadOfASchool
{
    private Caller tomas = null!;
    private long item;
    private long student;

    // The first piece of the section that waits, as a command names it.
    internal static async Task<object?> SomePiece(School school)
    {
        var (item, student) = await Waiting(school, "9 Alder");
        return new { item, student };
    }

    private static Task<(long Item, long Student)> Waiting(School school, string section) =>
        school.Sql(connection =>
            connection.QueryFirstAsync<(long, long)>(
                "SELECT w.item, w.person FROM work w WHERE w.section = @section "
                    + "AND NOT EXISTS (SELECT 1 FROM feedback f WHERE f.work = w.id) ORDER BY w.id",
                new { section = school.Ids["section:" + section] }
            )
        );

    // The co-teacher's own section, which the lead reads too.
    protected override async Task Prepare()
    {
        tomas = await School.As(DemoPeople.CoTeacher);
        (item, student) = await Waiting(School, "9 Dogwood");
    }

    public override async ValueTask DisposeAsync()
    {
        tomas.Dispose();
        await base.DisposeAsync();
    }

    private async Task<string?> Take(Caller who, bool over = false, bool done = false)
    {
        var reply = await who.Post(
            $"/api/sections/{School.Ids["section:9 Dogwood"]}/take-to-read",
            new
            {
                item,
                student,
                over,
                done,
            },
            Guid.NewGuid()
        );
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return reply.Json["reader"]?["name"]!.GetValue<string>();
    }

    // Whom somebody sees reading the piece.
    private async Task<string?> Seen(Caller who) =>
        (await who.Get(Route("work"))).Json["sections"]!
            .AsArray()
            .SelectMany(section => section!["pieces"]!.AsArray())
            .Single(piece => piece!["item"]!.GetValue<long>() == item && piece["student"]!.GetValue<long>() == student)!["reader"]
            ?["name"]!.GetValue<string>();

    [Fact]
    public async Task A_piece_is_taken_seen_by_the_other_taken_over_and_let_go()
    {
        (await Seen(Lead)).ShouldBeNull();
        (await Take(tomas)).ShouldBeNull();
        (await Seen(Lead)).ShouldBe(DemoPeople.CoTeacher);
        (await Seen(tomas)).ShouldBeNull();
        // The second one is told, and takes nothing away unless that is meant.
        (await Take(Lead)).ShouldBe(DemoPeople.CoTeacher);
        (await Seen(tomas)).ShouldBeNull();
        // Nor does whoever does not read it end it.
        await Take(Lead, done: true);
        (await Seen(Lead)).ShouldBe(DemoPeople.CoTeacher);
        (await Take(Lead, over: true)).ShouldBeNull();
        (await Seen(tomas)).ShouldBe(DemoPeople.Lead);
        await Take(Lead, done: true);
        (await Seen(tomas)).ShouldBeNull();
    }

    [Fact]
    public async Task It_ends_when_the_piece_goes_back_or_by_itself()
    {
        await Take(tomas);
        await School.Sql(connection => connection.ExecuteAsync("UPDATE reader SET at = at - interval '31 minutes'"));
        (await Seen(Lead)).ShouldBeNull();
        (await Take(Lead)).ShouldBeNull();
        (await Seen(tomas)).ShouldBe(DemoPeople.Lead);
        var work = await School.Sql(connection =>
            connection.ExecuteScalarAsync<long>("SELECT id FROM work WHERE item = @item AND person = @student", new { item, student })
        );
        // Reading it keeps nobody from giving it back.
        (
            await tomas.Post(
                $"/api/sections/{School.Ids["section:9 Dogwood"]}/give-back",
                new
                {
                    work,
                    n = 1,
                    text = "Good.",
                    again = false,
                },
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
        (await School.Sql(connection => connection.ExecuteScalarAsync<int>("SELECT count(*)::int FROM reader"))).ShouldBe(0);
    }

    [Fact]
    public async Task Nobody_takes_what_is_no_piece_of_the_section()
    {
        foreach (var section in new[] { "9 Alder", "9 Dogwood" })
        {
            var reply = await Lead.Post(
                $"/api/sections/{School.Ids["section:" + section]}/take-to-read",
                new { item, student = section == "9 Alder" ? student : School.Ids["person:" + DemoPeople.OnTrack] },
                Guid.NewGuid()
            );
            (reply.Status, reply.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.NotFound, "student"));
        }
    }
}
