using System.Net;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>One's own account: the password is changed, and sessions elsewhere are ended.</summary>
public sealed class AccountTests : IAsyncLifetime
{
    private const string Next = "a heron on one leg";
    private School school = null!;
    private Caller lead = null!;

    public async ValueTask InitializeAsync()
    {
        school = await School.Open(2);
        lead = await school.As(DemoPeople.Lead);
    }

    public ValueTask DisposeAsync()
    {
        lead.Dispose();
        return school.DisposeAsync();
    }

    private Task<Reply> Change(string current, string password) => lead.Post("/api/account/password", new { current, password });

    private async Task<string> Email() => (await lead.Get("/api/account")).Json["email"]!.GetValue<string>();

    [Fact]
    public async Task A_new_password_is_the_only_one_and_ends_the_sessions_elsewhere_on_both_instances()
    {
        using var elsewhere = await school.As(DemoPeople.Lead, 1);
        var email = await Email();
        (await elsewhere.Get("/api/places")).Status.ShouldBe(HttpStatusCode.OK);
        (await Change(DemoPeople.Password, Next)).Json["ended"]!.GetValue<int>().ShouldBe(1);
        (await elsewhere.Get("/api/places")).Status.ShouldBe(HttpStatusCode.Unauthorized);
        (await lead.Get("/api/places")).Status.ShouldBe(HttpStatusCode.OK);
        using var stranger = await school.As(null);
        async Task<HttpStatusCode> SignIn(string password) => (await stranger.Post("/api/sign-in", new { email, password })).Status;
        (await SignIn(DemoPeople.Password)).ShouldBe(HttpStatusCode.Unauthorized);
        (await SignIn(Next)).ShouldBe(HttpStatusCode.OK);
    }

    [Theory]
    [InlineData("something else", Next, "current")]
    [InlineData("", Next, "current")]
    [InlineData(DemoPeople.Password, "short", "password")]
    [InlineData(DemoPeople.Password, DemoPeople.Lead, "password")]
    [InlineData(DemoPeople.Password, DemoPeople.Password, "password")]
    public async Task What_is_wrong_is_said_at_its_field(string current, string password, string field) =>
        (await Change(current, password)).Json["field"]!.GetValue<string>().ShouldBe(field);

    [Fact]
    public async Task Whoever_has_a_session_only_cannot_guess_the_password_for_ever()
    {
        for (var tries = 0; tries < 10; tries++)
            (await Change($"guess {tries}", Next)).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Change(DemoPeople.Password, Next)).Status.ShouldBe(HttpStatusCode.TooManyRequests);
    }

    [Fact]
    public async Task Sessions_are_listed_and_ended_one_by_one_or_all_and_nobody_elses()
    {
        using var second = await school.As(DemoPeople.Lead, 1);
        using var third = await school.As(DemoPeople.Lead);
        using var colleague = await school.As(DemoPeople.Colleague);
        var sessions = (await lead.Get("/api/account")).Json["sessions"]!.AsArray();
        sessions.Count(session => session!["isThis"]!.GetValue<bool>()).ShouldBe(1);
        var theirs = (await colleague.Get("/api/account")).Json["sessions"]![0]!["session"]!.GetValue<string>();
        var own = sessions.First(session => session!["isThis"]!.GetValue<bool>())!["session"]!.GetValue<string>();
        Task<Reply> End(string? session) => lead.Post("/api/me/sign-out-elsewhere", new { session }, Guid.NewGuid());
        foreach (var notTheirs in new[] { theirs, own, "ab", "not hex" })
            (await End(notTheirs)).Json["field"]!.GetValue<string>().ShouldBe("session");
        (await colleague.Get("/api/places")).Status.ShouldBe(HttpStatusCode.OK);

        var other = sessions.First(session => !session!["isThis"]!.GetValue<bool>())!["session"]!.GetValue<string>();
        (await End(other)).Json["ended"]!.GetValue<int>().ShouldBe(1);
        (await End(null)).Json["ended"]!.GetValue<int>().ShouldBe(sessions.Count - 2);
        (await second.Get("/api/places")).Status.ShouldBe(HttpStatusCode.Unauthorized);
        (await third.Get("/api/places")).Status.ShouldBe(HttpStatusCode.Unauthorized);
        (await lead.Get("/api/places")).Status.ShouldBe(HttpStatusCode.OK);
    }
}
