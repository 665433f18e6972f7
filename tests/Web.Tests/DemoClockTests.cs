using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Npgsql;
using Polycline.Demo;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Host;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>The demo's clock is moved: for everybody, on every instance, and nobody is signed out by it.</summary>
public sealed class DemoClockTests : IAsyncLifetime
{
    private School school = null!;
    private Caller lead = null!;

    public async ValueTask InitializeAsync()
    {
        school = await School.Open(instances: 2);
        lead = await school.As(DemoPeople.Lead);
    }

    public async ValueTask DisposeAsync()
    {
        lead.Dispose();
        await school.DisposeAsync();
    }

    [Fact]
    public async Task It_goes_on_by_days_to_a_date_and_back_and_everybody_stays_signed_in()
    {
        using var student = await school.As(DemoPeople.OnTrack);
        (await Now(lead)).ShouldStartWith("2026-10-08T1");
        (await Moved(days: 7)).ShouldStartWith("2026-10-15T1");
        // Longer than a session lasts.
        (await Moved(at: "2026-12-10T09:00")).ShouldStartWith("2026-12-10T09:00");
        (await Now(student)).ShouldStartWith("2026-12-10T09:00");
        (await student.Get($"/api/sections/{school.Ids["section:9 Alder"]}/now")).Json["moment"]!["local"]!
            .GetValue<string>()
            .ShouldStartWith("2026-12-10");
        (await Moved(days: -1)).ShouldStartWith("2026-12-09T09:0");
        (await Moved()).ShouldStartWith("2026-10-08T10:15");
        (await Now(student)).ShouldStartWith("2026-10-08T10:15");
    }

    [Fact]
    public async Task What_opened_in_between_is_shut_again_when_it_goes_back()
    {
        using var student = await school.As(DemoPeople.OnTrack);
        var before = await Open(student);
        await Moved(days: 14);
        var later = await Open(student);
        later.Except(before).ShouldNotBeEmpty();
        (
            await school.Sql(connection => connection.ExecuteScalarAsync<long>("SELECT count(*) FROM opened WHERE at > '2026-10-15Z'"))
        ).ShouldBeGreaterThan(0);
        await Moved();
        (await Open(student)).ShouldBe(before);
    }

    [Fact]
    public async Task What_was_handed_in_later_cannot_be_taken_back_before_it_was()
    {
        using var student = await school.As(DemoPeople.OnTrack);
        var (section, item) = ($"/api/sections/{school.Ids["section:9 Alder"]}", await school.Item("Arrows on the chart"));
        await Moved(days: 1);
        var handIn = new
        {
            item,
            text = "Tomorrow's",
            pressedAt = (string?)null,
        };
        (await student.Post($"{section}/hand-in", handIn, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        await Moved();
        (await student.Post($"{section}/take-back", new { item }, Guid.NewGuid())).Code.ShouldBe("nothing-to-take-back");
        await Moved(days: 2);
        (await student.Post($"{section}/take-back", new { item }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Every_instance_follows()
    {
        using var elsewhere = await school.As(DemoPeople.CoTeacher, 1);
        (await Now(elsewhere)).ShouldStartWith("2026-10-08");
        await Moved(days: 1);
        await UntilItIs("2026-10-09", elsewhere);
    }

    [Theory]
    [InlineData("""{"days":367,"at":null}""", "days")]
    [InlineData("""{"days":-2147483648,"at":null}""", "days")]
    [InlineData("""{"days":1,"at":"2026-10-22T10:00"}""", "days")]
    [InlineData("""{"days":null,"at":"22 October"}""", "at")]
    [InlineData("""{"days":null,"at":"9999-12-31T23:59"}""", "at")]
    [InlineData("""{"days":null,"at":"-9998-01-01T00:00"}""", "at")]
    [InlineData("""{"days":null,"at":"2028-01-01T00:00"}""", "at")]
    public async Task Where_it_cannot_go_the_field_is_named_and_it_stays(string body, string field)
    {
        var refused = await lead.Post("/api/demo/clock", JsonNode.Parse(body)!);
        (refused.Status, refused.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, field));
        (await Now(lead)).ShouldStartWith("2026-10-08T1");
    }

    [Fact]
    public async Task A_school_without_such_a_clock_has_nothing_to_move()
    {
        await using (var connection = new NpgsqlConnection(school.Database.Owner))
            await connection.ExecuteAsync("DELETE FROM setting");
        (await lead.Post("/api/demo/clock", new { days = 1, at = (string?)null })).Status.ShouldBe(HttpStatusCode.NotFound);
        (
            await new DemoProfile().Command(
                "demo-clock",
                ["2026-10-22T10:00"],
                school.Database.Owner,
                TestContext.Current.CancellationToken
            )!
        ).ShouldBe(1);
    }

    [Fact]
    public async Task The_command_moves_it_for_those_who_are_signed_in()
    {
        var profile = (IProfile)new DemoProfile();
        (await profile.Command("demo-clock", ["2026-10-22T10:00"], school.Database.Owner, TestContext.Current.CancellationToken)!).ShouldBe(
            0
        );
        await UntilItIs("2026-10-22T10:00", lead);
        (await profile.Command("demo-clock", ["tomorrow"], school.Database.Owner, TestContext.Current.CancellationToken)!).ShouldBe(1);
        (await profile.Command("demo-clock", ["back"], school.Database.Owner, TestContext.Current.CancellationToken)!).ShouldBe(0);
    }

    private async Task<string> Moved(int? days = null, string? at = null)
    {
        var reply = await lead.Post("/api/demo/clock", new { days, at });
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return reply.Json["now"]!["local"]!.GetValue<string>();
    }

    private async Task<IReadOnlyList<string>> Open(Caller student) =>
        [
            .. (await student.Get($"/api/sections/{school.Ids["section:9 Alder"]}/now")).Json["now"]!
                .AsArray()
                .Select(row => row!["title"]!.GetValue<string>())
                .Order(),
        ];

    private static Task UntilItIs(string moment, Caller caller) =>
        School.Until(async () => (await Now(caller)).StartsWith(moment, StringComparison.Ordinal), $"the clock never said {moment}");

    private static async Task<string> Now(Caller caller) => (await caller.Get("/api/demo/clock")).Json["now"]!["local"]!.GetValue<string>();
}
