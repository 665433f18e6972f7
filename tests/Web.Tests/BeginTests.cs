using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Dapper;
using NodaTime;
using Polycline.Data;
using Polycline.Testing;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Host;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>A school that has nothing begins by an address that is good once and for an hour.</summary>
public sealed class BeginTests : IAsyncLifetime
{
    /// <summary>A good request to begin.</summary>
    public static readonly object Good = new
    {
        name = "Rosalind Achterberg",
        email = "office@tern.example",
        password = "salt marsh at low tide",
        school = "Tern Island School",
        zone = "Europe/Amsterdam",
        term = "Autumn term 2026",
        first = "2026-08-31",
        last = "2026-12-18",
    };

    private sealed class SetClock : IClock
    {
        public Instant Now { get; set; } = Instant.FromUtc(2026, 8, 20, 9, 0);

        public Instant GetCurrentInstant() => Now;
    }

    private readonly SetClock clock = new();
    private School school = null!;

    public async ValueTask InitializeAsync()
    {
        var database = await TestServer.Empty();
        await Migrator.Migrate(database.Owner, CancellationToken.None);
        school = await School.Open(profile: new SchoolProfile(), database: database, clock: clock);
    }

    public ValueTask DisposeAsync() => school.DisposeAsync();

    private async Task<string> Address() => new Uri((await PolyclineHost.AddressToBegin(school.Instance))!).AbsolutePath;

    private static JsonObject With(string field, string value)
    {
        var body = JsonSerializer.SerializeToNode(Good)!.AsObject();
        body[field] = value;
        return body;
    }

    [Fact]
    public async Task Whoever_has_the_address_is_the_first_of_the_office_and_the_school_has_a_name_and_a_term()
    {
        using var caller = await school.As(null);
        var address = $"/api{await Address()}";
        (await caller.Get(address)).Json["zones"]!.AsArray().Select(zone => zone!.GetValue<string>()).ShouldContain("Europe/Amsterdam");
        var begun = await caller.Post(address, Good);
        begun.Status.ShouldBe(HttpStatusCode.OK, begun.Text);
        caller.Session = begun
            .Message.Headers.GetValues("Set-Cookie")
            .Single(cookie => cookie.StartsWith(SessionCookie.Name + "=", StringComparison.Ordinal))
            .Split('=', ';')[1];
        var places = (await caller.Get("/api/places")).Json;
        (
            places["isOffice"]!.GetValue<bool>(),
            places["school"]!.GetValue<string>(),
            places["terms"]![0]!["name"]!.GetValue<string>()
        ).ShouldBe((true, "Tern Island School", "Autumn term 2026"));
        var calendar = (await caller.Get($"/api/terms/{begun.Json["term"]}/calendar")).Json;
        calendar["weekdays"]!.AsArray().Count.ShouldBe(5);
        using var again = await school.As(null);
        (await again.Post("/api/sign-in", new { email = "Office@tern.example", password = "salt marsh at low tide" })).Status.ShouldBe(
            HttpStatusCode.OK
        );
        // The school has begun: the address is good no longer, and there is no other.
        (await caller.Post(address, Good)).Code.ShouldBe("gone");
        (await PolyclineHost.AddressToBegin(school.Instance)).ShouldBeNull();
    }

    [Fact]
    public async Task It_is_good_for_an_hour_and_only_the_last_one()
    {
        using var caller = await school.As(null);
        var (first, second) = ($"/api{await Address()}", $"/api{await Address()}");
        (await caller.Get(first)).Code.ShouldBe("gone");
        (await caller.Get(second)).Status.ShouldBe(HttpStatusCode.OK);
        clock.Now += Duration.FromMinutes(60);
        (await caller.Get(second)).Code.ShouldBe("gone");
        (await caller.Post(second, Good)).Code.ShouldBe("gone");
        (await school.Sql(connection => connection.ExecuteScalarAsync<long>("SELECT count(*) FROM person"))).ShouldBe(0);
    }

    [Fact]
    public async Task Of_two_who_begin_at_once_one_does()
    {
        using var caller = await school.As(null);
        var address = $"/api{await Address()}";
        var replies = await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => caller.Post(address, Good)));
        replies.Count(reply => reply.Status == HttpStatusCode.OK).ShouldBe(1);
        (await school.Sql(connection => connection.ExecuteScalarAsync<long>("SELECT count(*) FROM person"))).ShouldBe(1);
        (await school.Sql(connection => connection.ExecuteScalarAsync<long>("SELECT count(*) FROM term"))).ShouldBe(1);
    }

    [Theory]
    [InlineData("name", " ")]
    [InlineData("email", "office at tern")]
    [InlineData("email", "Office <office@tern.example>")]
    [InlineData("password", "too short")]
    [InlineData("password", "Rosalind Achterberg")]
    [InlineData("school", "")]
    [InlineData("zone", "Europe/Atlantis")]
    [InlineData("term", "\t")]
    [InlineData("first", "soon")]
    [InlineData("last", "2026-08-30")]
    [InlineData("last", "2028-08-30")]
    public async Task What_is_wrong_is_said_at_its_field_and_the_address_stays_good(string field, string value)
    {
        using var caller = await school.As(null);
        var address = $"/api{await Address()}";
        var refused = await caller.Post(address, With(field, value));
        (refused.Status, refused.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, field), refused.Text);
        (await caller.Get(address)).Status.ShouldBe(HttpStatusCode.OK);
    }
}
