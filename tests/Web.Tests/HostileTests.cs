using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Host;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>
/// Whatever is sent, nothing answers with 500: every member of every body, and of every query, is replaced by what is bad in
/// its own way, one after the other. And what is refused says so in a body.
/// </summary>
public sealed class HostileTests(SchoolOfClass shared) : IClassFixture<SchoolOfClass>, IAsyncLifetime
{
    private const string TermOf = "SELECT term FROM edition WHERE id = @WeatherWatch";

    private static readonly JsonNode?[] Bad =
    [
        null,
        "",
        "\0",
        Half,
        "\u200b\u2060",
        new string('x', 70_000),
        "9999-99-99",
        "-9998-01-01T00:00:00Z",
        "+123456789-01-01T00:00:00Z",
        -1,
        9_223_372_036_854_775_807,
        1e300,
        0.5,
        true,
        new JsonArray(),
        new JsonArray((JsonNode?)null),
        new JsonObject(),
        new JsonObject { ["at"] = "\u0000" },
        Nested(50),
        Nested(200),
    ];

    // Written as half of a pair of surrogates, as no JSON of ours would.
    private const string Half = "<half a character>";

    private static readonly string[] Queries =
    [
        "at=%00",
        "at=-9998-01-01T00:00:00Z",
        "at=9999-12-31T23:59",
        "at=99999-01-01T00:00:00Z",
        "as=%00",
        "as=student:-1",
        "as=pretend:99999999999999999999",
        "as=pretend:1~%00.score.1",
        "as=x%C0%80",
    ];

    private School school = null!;

    public static TheoryData<string> WithBodies => [.. EndpointTests.Rows.Where(row => row.Value.Body is not null).Select(row => row.Key)];

    public async ValueTask InitializeAsync() => school = await shared.Open();

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Theory]
    [MemberData(nameof(WithBodies))]
    public async Task No_member_of_a_body_makes_a_fault(string endpoint)
    {
        var row = EndpointTests.Rows[endpoint];
        var body = JsonSerializer.SerializeToNode(await row.Body!(school))!;
        using var lead = await school.As(Allowed(endpoint));
        var bad = from path in Members(body, []) from value in Bad select (path, value);
        var replies = await Task.WhenAll(
            bad.Chunk(Math.Max(1, bad.Count() / 3))
                .Select(async part =>
                {
                    var faults = new List<string>();
                    foreach (var (path, value) in part)
                    {
                        var reply = await lead.Send(HttpMethod.Post, await Address(row.Address), null, request =>
                        {
                            request.Headers.Add("Idempotency-Key", $"{Guid.NewGuid()}");
                            request.Content = new StringContent(
                                Replaced(body, path, value)
                                    .ToJsonString()
                                    .Replace($"\"{JsonEncodedText.Encode(Half)}\"", "\"\\ud83d\"", StringComparison.Ordinal),
                                Encoding.UTF8,
                                "application/json"
                            );
                        });
                        if ((int)reply.Status >= 500 || ((int)reply.Status >= 400 && reply.Code is null))
                            faults.Add($"{string.Join('.', path)} = {Short(value)}: {(int)reply.Status} {reply.Text}");
                    }
                    return faults;
                })
        );
        replies.SelectMany(faults => faults).ShouldBeEmpty();
    }

    [Fact]
    public async Task No_query_makes_a_fault()
    {
        using var lead = await school.As(DemoPeople.Lead);
        foreach (
            var (endpoint, row) in EndpointTests.Rows.Where(row =>
                row.Key.StartsWith("GET /api/editions", StringComparison.Ordinal)
                || row.Key.StartsWith("GET /api/sections", StringComparison.Ordinal)
            )
        )
        foreach (var query in Queries)
        {
            var reply = await lead.Get($"{await Address(row.Address)}?{query}");
            ((int)reply.Status).ShouldBeInRange(200, 499, $"{endpoint}?{query}: {reply.Text}");
        }
    }

    [Fact]
    public async Task What_cannot_be_kept_is_refused_by_its_field_and_nobody_elses_request_suffers()
    {
        using var lead = await school.As(DemoPeople.Lead);
        using var nobody = await school.As(null);
        var (item, version) = await CommandExamples.FirstItem(school, school.WeatherWatch);
        foreach (var title in new[] { "a\0b", "a\u0007b", "\u200b\u200d", "a\nb" })
            (
                await lead.Post(
                    $"/api/editions/{school.WeatherWatch}/rename-item",
                    new
                    {
                        item,
                        title,
                        version,
                    },
                    Guid.NewGuid()
                )
            ).Json["field"]!.GetValue<string>().ShouldBe("title");
        (await nobody.Post("/api/sign-in", new { email = "a\0b", password = "x" })).Json["field"]!.GetValue<string>().ShouldBe("email");
        for (var n = 0; n < 20; n++)
            (await lead.Get("/api/places")).Status.ShouldBe(HttpStatusCode.OK);
        // A moment before all calendars is not kept, and takes no screen down.
        using var student = await school.As(DemoPeople.OnTrack);
        var handing = $"/api/sections/{school.Ids["section:9 Alder"]}/hand-in";
        var diary = await school.Item("Cloud diary");
        (
            await student.Post(
                handing,
                new
                {
                    item = diary,
                    text = "All of it",
                    pressedAt = "-9998-01-01T00:00:00Z",
                },
                Guid.NewGuid()
            )
        ).Json["field"]!.GetValue<string>().ShouldBe("pressedAt");
        (await lead.Get($"/api/editions/{school.WeatherWatch}/work")).Status.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Texts_and_conditions_that_are_more_than_anybody_reads_are_refused_before_anything_is_made_of_them()
    {
        using var lead = await school.As(DemoPeople.Lead);
        var (item, version) = await CommandExamples.FirstItem(school, school.WeatherWatch);
        foreach (
            var html in new[]
            {
                string.Concat(Enumerable.Repeat("<em>", 40_000)),
                string.Concat(Enumerable.Repeat("<ul><li>", 20_000)),
                string.Concat(Enumerable.Repeat("<p>a</p>", 20_000)),
            }
        )
        {
            var watch = System.Diagnostics.Stopwatch.StartNew();
            (
                await lead.Post(
                    $"/api/editions/{school.WeatherWatch}/write-item",
                    new
                    {
                        item,
                        html,
                        version,
                    },
                    Guid.NewGuid()
                )
            ).Json["field"]!.GetValue<string>().ShouldBe("html");
            watch.Elapsed.ShouldBeLessThan(TimeSpan.FromSeconds(10));
        }
        var leaf = new { item = await CommandExamples.Lineage(school, "Label the ramp"), @is = "opened" };
        var gate = new { any = Enumerable.Repeat(leaf, 400) };
        (
            await lead.Post(
                $"/api/editions/{school.WeatherWatch}/condition-item",
                new
                {
                    item,
                    gate,
                    version,
                },
                Guid.NewGuid()
            )
        ).Json["title"]!.GetValue<string>().ShouldContain("at most 200 parts");
    }

    [Fact]
    public async Task What_is_refused_before_any_handler_has_a_body_too_and_heads_and_hosts_are_as_they_should_be()
    {
        using var lead = await school.As(DemoPeople.Lead);
        var route = $"/api/editions/{school.WeatherWatch}/rename-item";
        var plain = await lead.Send(HttpMethod.Post, route, null, request =>
            request.Content = new StringContent("{}", Encoding.UTF8, "text/plain")
        );
        (plain.Status, plain.Code).ShouldBe((HttpStatusCode.UnsupportedMediaType, "media-type"));
        var large = await lead.Send(HttpMethod.Post, route, null, request =>
        {
            request.Content = new StringContent($"\"{new string('x', 1_200_000)}\"", Encoding.UTF8, "application/json");
            // Whoever is refused before they have sent it all would otherwise sometimes see the connection end instead.
            request.Headers.ExpectContinue = true;
        });
        (large.Status, large.Code).ShouldBe((HttpStatusCode.RequestEntityTooLarge, "too-large"));
        var keyed = await lead.Send(HttpMethod.Post, route, await CommandExamples.Rename(school), request =>
            request.Headers.Add("Idempotency-Key", "mine")
        );
        (keyed.Status, keyed.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.BadRequest, "Idempotency-Key"));
        (await lead.Send(HttpMethod.Head, "/health/ready", null)).Status.ShouldBe(HttpStatusCode.OK);
        (await lead.Send(HttpMethod.Head, $"/api/editions/{school.WeatherWatch}/outline", null)).ShouldSatisfyAllConditions(
            reply => reply.Status.ShouldBe(HttpStatusCode.OK),
            reply => reply.Text.ShouldBeEmpty()
        );
        foreach (var encoding in new[] { "gzip", "br", "identity" })
            (
                await lead.Send(HttpMethod.Get, "/index.html", null, request => request.Headers.Add("Accept-Encoding", encoding))
            ).Status.ShouldBe(HttpStatusCode.Found);
        // Another site's name that leads here gets nothing, least of all a link made with it.
        var elsewhere = await lead.Send(
            HttpMethod.Post,
            "/api/me/make-calendar-link",
            new { kind = "section-calendar", section = school.Ids["section:9 Alder"] },
            request => request.Headers.Host = "elsewhere.example"
        );
        (elsewhere.Status, elsewhere.Code).ShouldBe((HttpStatusCode.MisdirectedRequest, "unknown-host"));
        new KnownHosts(new("https://polycline.fenwater.example"), "http://127.0.0.1:5210", false).ShouldSatisfyAllConditions(
            hosts => hosts.Knows(Asked("polycline.fenwater.example")).ShouldBeTrue(),
            hosts => hosts.Knows(Asked("elsewhere.example")).ShouldBeFalse()
        );
    }

    private static Microsoft.AspNetCore.Http.HttpContext Asked(string host)
    {
        var http = new Microsoft.AspNetCore.Http.DefaultHttpContext();
        http.Request.Host = new(host);
        return http;
    }

    private static string Allowed(string endpoint) =>
        endpoint.Contains("/terms/", StringComparison.Ordinal) ? DemoPeople.Office
        : endpoint.Contains("/sections/", StringComparison.Ordinal)
        && !endpoint.Contains("give-back", StringComparison.Ordinal)
        && !endpoint.Contains("ready-mark", StringComparison.Ordinal)
        && !endpoint.Contains("take-to-read", StringComparison.Ordinal)
        && !endpoint.Contains("mark-answers", StringComparison.Ordinal)
        && !endpoint.Contains("remind-students", StringComparison.Ordinal)
        && !endpoint.Contains("pick-for-student", StringComparison.Ordinal)
        && !endpoint.Contains("-scores", StringComparison.Ordinal)
            ? DemoPeople.OnTrack
        : DemoPeople.Lead;

    private async Task<string> Address(string address) =>
        address
            .Replace("{edition}", $"{school.WeatherWatch}", StringComparison.Ordinal)
            .Replace("{section}", $"{school.Ids["section:9 Alder"]}", StringComparison.Ordinal)
            .Replace(
                "{term}",
                $"{await school.Sql(connection => connection.ExecuteScalarAsync<long>(TermOf, new { school.WeatherWatch }))}",
                StringComparison.Ordinal
            )
            .Replace("{task}", $"{await school.Item("Cloud diary")}", StringComparison.Ordinal)
            .Replace("{film}", $"{await school.Item("Film: a day over the harbour")}", StringComparison.Ordinal)
            .Replace("{quiz}", $"{await school.Item("Reading scales")}", StringComparison.Ordinal)
            .Replace("{choice}", $"{await school.Item(ChoiceTests.Title)}", StringComparison.Ordinal);

    // Every place in a body, from the outside in.
    private static IEnumerable<object[]> Members(JsonNode? node, object[] path)
    {
        if (path.Length > 0)
            yield return path;
        var inner = node switch
        {
            JsonObject named => named.SelectMany(member => Members(member.Value, [.. path, member.Key])),
            JsonArray list => list.SelectMany((one, n) => Members(one, [.. path, n])),
            _ => [],
        };
        foreach (var below in inner)
            yield return below;
    }

    private static JsonNode Replaced(JsonNode body, object[] path, JsonNode? value)
    {
        var copy = body.DeepClone();
        var owner = path[..^1].Aggregate(copy, (node, step) => step is int n ? node[n]! : node[(string)step]!);
        if (path[^1] is int at)
            owner[at] = value?.DeepClone();
        else
            owner[(string)path[^1]] = value?.DeepClone();
        return copy;
    }

    private static JsonArray Nested(int depth) => depth == 0 ? [] : [Nested(depth - 1)];

    private static string Short(JsonNode? value) =>
        (value?.ToJsonString() ?? "null") is { Length: > 40 } longer ? longer[..40] : value?.ToJsonString() ?? "null";
}
