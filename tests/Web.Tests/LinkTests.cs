using System.Net;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Foundation.Links;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Where links lead, and whether they still do.</summary>
public sealed class LinkTests : LeadOfASchool
{
    private const string Film = "Film: a day over the harbour";

    private string InCourse(string rest) => $"/api/editions/{School.WeatherWatch}/{rest}";

    private async Task<JsonNode> Read(long item) => (await Lead.Get(InCourse($"items/{item}"))).Json;

    private async Task<Reply> Point(long item, string address) =>
        await Lead.Post(
            InCourse("point-link"),
            new
            {
                item,
                address,
                version = (await Read(item))["version"]!.GetValue<long>(),
            },
            Guid.NewGuid()
        );

    [Theory]
    [InlineData("https://films.fenwater.example/sky", "open", "Anyone can open it.")]
    [InlineData("https://library.fenwater.example/fog", "sign-in", "Only people with an account at library.fenwater.example can open it.")]
    [InlineData("https://films.fenwater.example/gone", "gone", "The page is no longer there.")]
    [InlineData("https://silent.fenwater.example/", "silent", "silent.fenwater.example did not answer.")]
    [InlineData("http://127.0.0.1:5210/", "not-tried", "It was not tried: the school has not allowed Polycline to look at 127.0.0.1.")]
    public async Task A_link_that_is_tried_says_who_can_open_it_to_its_team_and_its_students(string address, string outcome, string words)
    {
        var item = await School.Item(Film);
        (await Point(item, address)).Status.ShouldBe(HttpStatusCode.OK);
        (await Read(item))["link"].ShouldBeNull();
        var tried = await Lead.Post(InCourse($"items/{item}/check-link"), new { });
        tried.Status.ShouldBe(HttpStatusCode.OK, tried.Text);
        (tried.Json["outcome"]!.GetValue<string>(), tried.Json["words"]!.GetValue<string>()).ShouldBe((outcome, words));
        (tried.Json["reachedAt"] is not null).ShouldBe(outcome is "open" or "sign-in");
        using var imke = await School.As(DemoPeople.OnTrack);
        var page = (await imke.Get($"/api/sections/{School.Ids["section:9 Alder"]}/items/{item}")).Json;
        (page["address"]!.GetValue<string>(), page["link"]!["outcome"]!.GetValue<string>()).ShouldBe((address, outcome));
    }

    [Fact]
    public async Task A_page_that_has_gone_keeps_when_it_was_last_reached()
    {
        var item = await School.Item(Film);
        var address = (await Read(item))["address"]!.GetValue<string>();
        var links = School.Instance.Services.GetRequiredService<LinkChecks>();
        await links.Check(address, default);
        await School.Sql(connection =>
            Polycline
                .Data.LinkChecks.LinkCheckStore.Keep(connection, address, "gone", false, School.Clock.GetCurrentInstant())
                .ContinueWith(_ => true, TaskScheduler.Default)
        );
        var link = (await Read(item))["link"]!;
        (link["outcome"]!.GetValue<string>(), link["reachedAt"] is not null).ShouldBe(("gone", true));
    }

    [Theory]
    [InlineData("films.fenwater.example")]
    [InlineData("javascript:alert(1)")]
    [InlineData("")]
    public async Task What_is_no_address_of_a_page_is_refused(string address)
    {
        var reply = await Point(await School.Item(Film), address);
        (reply.Status, reply.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, "address"));
    }

    [Fact]
    public async Task Only_a_link_leads_elsewhere() =>
        (await Point(await School.Item("Cloud diary"), "https://films.fenwater.example/")).Json["field"]!
            .GetValue<string>()
            .ShouldBe("item");

    [Theory]
    [InlineData("2026-10-09T00:30:00Z", 0, false)]
    [InlineData("2026-10-09T01:30:00Z", 8, true)]
    [InlineData("2026-10-09T09:30:00Z", 0, false)]
    public async Task By_night_every_link_in_use_is_tried_once(string moment, int least, bool some)
    {
        await using var school = await School.Open(clock: new StillClock(Instant.FromDateTimeOffset(DateTimeOffset.Parse(moment))));
        var links = school.Instance.Services.GetRequiredService<LinkChecks>();
        var tried = await links.Sweep(default);
        (tried >= least && tried > 0 == some).ShouldBeTrue($"{tried}");
        (await links.Sweep(default)).ShouldBe(0);
    }

    // The school's own checker asks nobody whom the school has not named, and follows nobody elsewhere.
    [Fact]
    public async Task Hosts_that_are_not_named_are_not_asked_and_those_that_are_say_what_they_say()
    {
        var here = School.Address();
        var checker = LinkChecker.Of($"films.example, {here.Host}");
        (await LinkChecker.Of(null).Try(here, default)).ShouldBe(LinkOutcome.NotTried);
        (await checker.Try(new("http://elsewhere.example/"), default)).ShouldBe(LinkOutcome.NotTried);
        (await checker.Try(new(here, "/health/live"), default)).ShouldBe(LinkOutcome.Open);
        (await checker.Try(new(here, "/api/demo/clock"), default)).ShouldBe(LinkOutcome.SignIn);
        (await checker.Try(new(here, "/no/such/page.txt"), default)).ShouldBe(LinkOutcome.Gone);
        (await checker.Try(new($"http://{here.Host}:1/"), default)).ShouldBe(LinkOutcome.Silent);
    }

    private sealed class StillClock(Instant at) : IClock
    {
        public Instant GetCurrentInstant() => at;
    }
}
