using Microsoft.AspNetCore.SignalR;
using Microsoft.AspNetCore.SignalR.Client;
using Polycline.Data.Live;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Live;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Two instances on one database: what is changed through one is told through the other.</summary>
public sealed class LiveTests : IAsyncLifetime
{
    private School school = null!;

    public async ValueTask InitializeAsync() => school = await School.Open(instances: 2);

    public ValueTask DisposeAsync() => school.DisposeAsync();

    [Fact]
    public async Task A_change_through_one_instance_is_told_through_the_other_as_a_counter_only()
    {
        await using var watching = await Connect(DemoPeople.CoTeacher, instance: 1);
        var counters = await watching.Connection.InvokeAsync<string>(nameof(LiveHub.WatchEdition), school.WeatherWatch);
        using var lead = await school.As(DemoPeople.Lead, instance: 0);
        await lead.Post($"/api/editions/{school.WeatherWatch}/rename-item", await CommandExamples.Rename(school), Guid.NewGuid());
        (await watching.Next()).ShouldBe(
            new ScopeChanged(
                $"edition:{school.WeatherWatch}",
                long.Parse(counters.Split('.')[0], System.Globalization.CultureInfo.InvariantCulture) + 1
            )
        );
        using var co = await school.As(DemoPeople.CoTeacher, instance: 1);
        (await watching.Connection.InvokeAsync<string>(nameof(LiveHub.WatchEdition), school.WeatherWatch)).ShouldNotBe(counters);
        (await co.Get($"/api/editions/{school.WeatherWatch}/outline")).Text.ShouldContain("A title of the tests");
    }

    [Fact]
    public async Task Who_is_in_a_text_is_known_on_every_instance_and_whoever_may_not_write_it_is_told_nothing()
    {
        var item = await school.Item("Cloud diary");
        await using var lead = await Connect(DemoPeople.Lead, instance: 0);
        await using var co = await Connect(DemoPeople.CoTeacher, instance: 1);
        await using var student = await Connect(DemoPeople.OnTrack, instance: 1);
        Task<string[]?> BeIn(Watcher who) => who.Connection.InvokeAsync<string[]?>(nameof(LiveHub.BeInText), school.WeatherWatch, item);
        (await BeIn(lead)).ShouldBe([]);
        (await BeIn(co)).ShouldBe([DemoPeople.Lead]);
        (await BeIn(lead)).ShouldBe([DemoPeople.CoTeacher]);
        (await BeIn(student)).ShouldBeNull();
        using var writing = await school.As(DemoPeople.Lead, instance: 0);
        await writing.Post(
            $"/api/editions/{school.WeatherWatch}/write-text",
            new
            {
                item,
                @base = "",
                html = "<p>Look up.</p>",
            },
            Guid.NewGuid()
        );
        (await co.Next()).ShouldBe(new ScopeChanged($"text:{item}", 0));
        await Should.ThrowAsync<TimeoutException>(() => student.Next(TimeSpan.FromMilliseconds(300)));
        await lead.Connection.InvokeAsync(nameof(LiveHub.LeaveText), school.WeatherWatch, item);
        (await BeIn(co)).ShouldBe([]);
    }

    [Fact]
    public async Task A_preview_or_a_refused_command_tells_nobody()
    {
        await using var watching = await Connect(DemoPeople.CoTeacher, instance: 1);
        await watching.Connection.InvokeAsync<string>(nameof(LiveHub.WatchEdition), school.WeatherWatch);
        using var lead = await school.As(DemoPeople.Lead);
        var body = await CommandExamples.Rename(school);
        await lead.Post($"/api/editions/{school.WeatherWatch}/rename-item?preview=true", body);
        await lead.Post($"/api/editions/{school.WeatherWatch}/undo", new { batch = 999999 }, Guid.NewGuid());
        var applied = await lead.Post($"/api/editions/{school.WeatherWatch}/rename-item", body, Guid.NewGuid());
        (await watching.Next()).Version.ShouldBe(applied.Json["version"]!.GetValue<long>());
    }

    [Fact]
    public async Task Nobody_watches_what_is_not_for_them_to_see()
    {
        await using var student = await Connect(DemoPeople.OnTrack, instance: 0);
        await using var other = await Connect(DemoPeople.Colleague, instance: 0);
        foreach (var one in new[] { student, other })
            (await one.Connection.InvokeAsync<string?>(nameof(LiveHub.WatchEdition), school.WeatherWatch)).ShouldBeNull();
        var refused = await Should.ThrowAsync<Exception>(() => Connect(null, instance: 0));
        refused.Message.ShouldContain("401");
    }

    [Fact]
    public async Task Signing_out_everywhere_ends_open_connections_on_every_instance()
    {
        await using var connected = await Connect(DemoPeople.Lead, instance: 1);
        using var lead = await school.As(DemoPeople.Lead, instance: 0);
        await lead.Post("/api/sign-out-everywhere");
        await connected.Closed.WaitAsync(Watcher.Soon);
    }

    [Fact]
    public async Task Signing_out_ends_what_that_session_holds_open_and_no_other()
    {
        using var lead = await school.As(DemoPeople.Lead, instance: 0);
        await using var own = await Watcher.Connect(school, DemoPeople.Lead, 1, lead.Session);
        await using var other = await Connect(DemoPeople.Lead, instance: 1);
        await lead.Post("/api/sign-out");
        await own.Closed.WaitAsync(Watcher.Soon);
        other.Closed.IsCompleted.ShouldBeFalse();
    }

    private Task<Watcher> Connect(string? person, int instance) => Watcher.Connect(school, person, instance);
}
