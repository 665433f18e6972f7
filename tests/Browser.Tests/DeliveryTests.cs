using System.Net;
using System.Net.Http.Headers;
using System.Text.RegularExpressions;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>How what is published reaches a browser: what never changes is kept there, and long answers travel short.</summary>
public sealed partial class DeliveryTests(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    [Fact]
    public async Task Hashed_files_are_kept_for_good_pages_and_answers_never_and_a_file_that_is_not_there_is_not_kept_either()
    {
        using var client = new HttpClient { BaseAddress = school.Addresses[0] };
        using var page = await client.GetAsync(new Uri("/", UriKind.Relative));
        page.Headers.CacheControl!.NoStore.ShouldBeTrue();
        var file = Script().Match(await page.Content.ReadAsStringAsync()).Groups[1].Value;
        using var script = await client.GetAsync(new Uri(file, UriKind.Relative));
        script.StatusCode.ShouldBe(HttpStatusCode.OK);
        script.Headers.CacheControl!.ToString().ShouldContain("immutable");
        script.Headers.CacheControl.MaxAge.ShouldBe(TimeSpan.FromDays(365));
        using var gone = await client.GetAsync(new Uri("/assets/no-such-file.js", UriKind.Relative));
        gone.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (gone.Headers.CacheControl?.ToString() ?? "").ShouldNotContain("immutable");
        using var answer = await client.GetAsync(new Uri("/api/demo/people", UriKind.Relative));
        answer.Headers.CacheControl!.NoStore.ShouldBeTrue();
    }

    [Fact]
    public async Task Answers_are_compressed_for_whoever_can_read_them_so_and_those_with_a_secret_are_not()
    {
        using var client = new HttpClient { BaseAddress = school.Addresses[0] };
        client.DefaultRequestHeaders.AcceptEncoding.Add(new StringWithQualityHeaderValue("gzip"));
        using var answer = await client.GetAsync(new Uri("/api/demo/people", UriKind.Relative));
        answer.Content.Headers.ContentEncoding.ShouldBe(["gzip"]);
        using var refused = await client.GetAsync(new Uri("/api/places", UriKind.Relative));
        (refused.StatusCode, refused.Content.Headers.ContentType!.MediaType).ShouldBe(
            (HttpStatusCode.Unauthorized, "application/problem+json")
        );
        using var secret = await client.GetAsync(new Uri("/api/calendar-links", UriKind.Relative));
        secret.Content.Headers.ContentEncoding.ShouldBeEmpty();
    }

    [GeneratedRegex("src=\"(/assets/[^\"]+\\.js)\"")]
    private static partial Regex Script();
}
