using System.Net;
using Dapper;
using Polycline.Demo;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Host;
using Polycline.Web.SignIn;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Signing in and out, and keeping everybody else out.</summary>
public sealed class SignInTests : IAsyncLifetime
{
    private static readonly IPAddress Stranger = IPAddress.Parse("127.0.0.66");
    private static readonly IPAddress Elsewhere = IPAddress.Parse("127.0.0.7");
    private School school = null!;

    public async ValueTask InitializeAsync() => school = await School.Open();

    public ValueTask DisposeAsync() => school.DisposeAsync();

    [Fact]
    public async Task The_right_password_gives_a_session_that_scripts_cannot_read_and_other_sites_cannot_use()
    {
        using var caller = new Caller(school.Address());
        var reply = await SignIn(caller, DemoPeople.Lead, DemoPeople.Password);
        reply.Status.ShouldBe(HttpStatusCode.OK);
        var cookie = reply
            .Message.Headers.GetValues("Set-Cookie")
            .Single(cookie => cookie.StartsWith($"{SessionCookie.Name}=", StringComparison.Ordinal));
        foreach (var part in new[] { $"{SessionCookie.Name}=", "secure", "httponly", "samesite=lax", "path=/" })
            cookie.ShouldContain(part);
        caller.Session = cookie.Split('=', ';')[1];
        (await caller.Get("/api/places")).Json["name"]!.GetValue<string>().ShouldBe(DemoPeople.Lead);
        var stored = await school.Sql(connection =>
            connection.QueryAsync<string>("SELECT encode(token_hash, 'escape') || person FROM session")
        );
        stored.ShouldEachBe(row => !row.Contains(caller.Session, StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_wrong_password_and_an_unknown_account_are_answered_alike_to_the_end()
    {
        using var caller = new Caller(school.Address(), Stranger);
        using var other = new Caller(school.Address(), Elsewhere);
        for (var n = 0; n <= StartSession.MostAtAccount; n++)
        {
            var known = await SignIn(caller, DemoPeople.Lead, "wrong");
            var unknown = await other.Post("/api/sign-in", new { email = "nobody@fenwater.example", password = "wrong" });
            known.Status.ShouldBe(n < StartSession.MostAtAccount ? HttpStatusCode.Unauthorized : HttpStatusCode.TooManyRequests);
            (unknown.Status, unknown.Text).ShouldBe((known.Status, known.Text));
        }
    }

    [Fact]
    public async Task Ten_tries_at_an_account_are_the_last_from_wherever_even_all_at_once_and_with_the_right_password()
    {
        using var home = new Caller(school.Address(), Elsewhere);
        (await SignIn(home, DemoPeople.Lead, DemoPeople.Password)).Status.ShouldBe(HttpStatusCode.OK);

        var strangers = Enumerable
            .Range(0, 25)
            .Select(n => new Caller(school.Address(), new IPAddress([127, 0, 9, (byte)(n % 5)])))
            .ToList();
        var replies = await Task.WhenAll(strangers.Select(stranger => SignIn(stranger, DemoPeople.Lead, "wrong")));
        replies.Count(reply => reply.Status == HttpStatusCode.Unauthorized).ShouldBe(StartSession.MostAtAccount);
        using var another = new Caller(school.Address(), Stranger);
        var refused = await SignIn(another, DemoPeople.Lead, DemoPeople.Password);
        refused.Status.ShouldBe(HttpStatusCode.TooManyRequests);
        refused.Message.Headers.RetryAfter.ShouldNotBeNull();
        strangers.ForEach(stranger => stranger.Dispose());

        // The owner, where they signed in before, and a colleague from the strangers' own address.
        (await SignIn(home, DemoPeople.Lead, DemoPeople.Password)).Status.ShouldBe(HttpStatusCode.OK);
        (await SignIn(another, DemoPeople.CoTeacher, DemoPeople.Password)).Status.ShouldBe(HttpStatusCode.OK);

        await school.Sql(connection => connection.ExecuteAsync("UPDATE sign_in_try SET at = at - interval '16 minutes'"));
        (await SignIn(another, DemoPeople.Lead, DemoPeople.Password)).Status.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Fifty_wrong_tries_from_one_address_make_strangers_wait_and_keep_nobody_out()
    {
        var now = school.Clock.GetCurrentInstant();
        await school.Sql(connection =>
            connection.ExecuteAsync(
                "INSERT INTO sign_in_try (account, address, at) SELECT 'guess' || n, @address::inet, @now FROM generate_series(1, @most) n",
                new
                {
                    address = $"::ffff:{Stranger}",
                    now,
                    most = StartSession.MostFromAddress,
                }
            )
        );
        using var caller = new Caller(school.Address(), Stranger);
        (await caller.Post("/api/sign-in", new { email = "one-more@fenwater.example", password = "wrong" })).Status.ShouldBe(
            HttpStatusCode.Unauthorized
        );
        // A whole school may sign in from behind one address: whoever is right comes in, a moment later.
        (await SignIn(caller, DemoPeople.Office, DemoPeople.Password)).Status.ShouldBe(HttpStatusCode.OK);
        // The more were wrong, the longer it is, and never without end.
        StartSession.WaitAfter(StartSession.MostFromAddress - 1).ShouldBe(TimeSpan.Zero);
        StartSession.WaitAfter(StartSession.MostFromAddress + 20).ShouldBeGreaterThan(StartSession.WaitAfter(StartSession.MostFromAddress));
        StartSession.WaitAfter(1_000_000).ShouldBeLessThan(TimeSpan.FromSeconds(5));
    }

    [Fact]
    public async Task A_hundred_and_twenty_right_sign_ins_at_once_from_one_address_are_all_right()
    {
        await school.Sql(connection =>
            connection.ExecuteAsync(
                "INSERT INTO person (name, email, password_hash) SELECT 'Pupil ' || n, 'pupil' || n || "
                    + "'@fenwater.example', (SELECT password_hash FROM person WHERE name = @Lead) FROM generate_series(1, 120) n",
                new { DemoPeople.Lead }
            )
        );
        using var caller = new Caller(school.Address());
        var replies = await Task.WhenAll(
            Enumerable
                .Range(1, 120)
                .Select(n => caller.Post("/api/sign-in", new { email = $"pupil{n}@fenwater.example", password = DemoPeople.Password }))
        );
        replies.Select(reply => reply.Status).Distinct().ShouldBe([HttpStatusCode.OK]);
    }

    [Fact]
    public async Task From_a_browser_that_is_known_the_right_password_comes_in_whatever_strangers_tried()
    {
        using var known = new Caller(school.Address());
        var first = await SignIn(known, DemoPeople.Lead, DemoPeople.Password);
        var browser = first
            .Message.Headers.GetValues("Set-Cookie")
            .Single(cookie => cookie.Contains("polycline-known", StringComparison.Ordinal))
            .Split(';')[0];
        // On the way it has another address, and strangers have used up the account's tries from there.
        using var elsewhere = new Caller(school.Address(), Elsewhere);
        var email = await school.Sql(connection =>
            connection.ExecuteScalarAsync<string>("SELECT email FROM person WHERE name = @Lead", new { DemoPeople.Lead })
        );
        for (var n = 0; n < StartSession.MostAtAccount; n++)
            await elsewhere.Post("/api/sign-in", new { email, password = "wrong" });
        (await SignIn(elsewhere, DemoPeople.Lead, DemoPeople.Password)).Status.ShouldBe(HttpStatusCode.TooManyRequests);
        (
            await elsewhere.Post("/api/sign-in", new { email, password = DemoPeople.Password }, alter: request =>
                request.Headers.Add("Cookie", browser)
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Signing_out_everywhere_ends_every_session_and_signing_out_only_ones_own()
    {
        using var first = await school.As(DemoPeople.Lead);
        using var second = await school.As(DemoPeople.Lead);
        using var third = await school.As(DemoPeople.Lead);
        using var other = await school.As(DemoPeople.CoTeacher);
        await first.Post("/api/sign-out");
        (await first.Get("/api/places")).Status.ShouldBe(HttpStatusCode.Unauthorized);
        (await second.Get("/api/places")).Status.ShouldBe(HttpStatusCode.OK);
        await second.Post("/api/sign-out-everywhere");
        (await third.Get("/api/places")).Status.ShouldBe(HttpStatusCode.Unauthorized);
        (await other.Get("/api/places")).Status.ShouldBe(HttpStatusCode.OK);
    }

    [Theory]
    [InlineData("UPDATE person SET removed_at = now() WHERE name = 'Orla Tierney-Vance'", HttpStatusCode.Unauthorized)]
    [InlineData("UPDATE session SET expires_at = now() - interval '1 year'", HttpStatusCode.Unauthorized)]
    [InlineData("DELETE FROM master_member", HttpStatusCode.NotFound)]
    public async Task Whoever_is_taken_out_is_out_at_the_next_request(string taking, HttpStatusCode expected)
    {
        using var lead = await school.As(DemoPeople.Lead);
        (await lead.Get($"/api/editions/{school.WeatherWatch}/outline")).Status.ShouldBe(HttpStatusCode.OK);
        await school.Sql(connection => connection.ExecuteAsync(taking));
        (await lead.Get($"/api/editions/{school.WeatherWatch}/outline")).Status.ShouldBe(expected);
    }

    [Theory]
    [InlineData(true, HttpStatusCode.Unauthorized, "::ffff:203.0.113.9")]
    [InlineData(false, HttpStatusCode.Forbidden, null)]
    public async Task Who_sent_a_request_is_believed_of_a_known_proxy_only(bool known, HttpStatusCode expected, string? counted)
    {
        await school.Start(new DemoProfile(), null, known ? [IPAddress.Loopback] : []);
        using var proxy = new Caller(school.Address(1));
        var reply = await proxy.Post("/api/sign-in", new { email = "nobody@fenwater.example", password = "wrong" }, alter: request =>
        {
            request.Headers.Add("X-Forwarded-For", "203.0.113.9");
            request.Headers.Add("X-Forwarded-Proto", "https");
            request.Headers.Add("X-Forwarded-Host", "polycline.fenwater.example");
            request.Headers.Add("Origin", "https://polycline.fenwater.example");
        });
        reply.Status.ShouldBe(expected);
        (await school.Sql(connection => connection.ExecuteScalarAsync<string?>("SELECT max(host(address)) FROM sign_in_try"))).ShouldBe(
            counted
        );
        reply.Message.Headers.Contains("Strict-Transport-Security").ShouldBe(known);
    }

    [Fact]
    public async Task Every_answer_carries_the_headers_that_keep_the_page_to_itself()
    {
        using var lead = await school.As(DemoPeople.Lead);
        foreach (var path in new[] { "/api/places", "/api/no-such", "/health/live", "/no/such/page" })
        {
            var headers = (await lead.Get(path)).Message.Headers;
            var policy = headers.GetValues("Content-Security-Policy").Single();
            policy.ShouldStartWith("default-src 'none'; script-src 'self' 'nonce-");
            policy.ShouldContain("frame-ancestors 'none'");
            policy.ShouldNotContain("unsafe");
            headers.GetValues("X-Content-Type-Options").ShouldBe(["nosniff"]);
            headers.GetValues("Referrer-Policy").ShouldBe(["no-referrer"]);
            headers.Contains("Server").ShouldBeFalse();
        }
        var places = await lead.Get("/api/places");
        (places.Message.Headers.CacheControl!.NoStore, places.Message.Headers.CacheControl.Private).ShouldBe((true, true));
        var (first, second) = (await lead.Get("/api/places"), await lead.Get("/api/places"));
        first.Message.Headers.GetValues("Content-Security-Policy").ShouldNotBe(second.Message.Headers.GetValues("Content-Security-Policy"));
    }

    [Fact]
    public async Task Outside_the_demo_there_is_no_stand_in_and_no_demo_password()
    {
        await using var ordinary = await School.Open(profile: new SchoolProfile());
        using var caller = new Caller(ordinary.Address());
        (await caller.Get("/api/demo/people")).Status.ShouldBe(HttpStatusCode.NotFound);
        foreach (
            var assembly in new[]
            {
                typeof(PolyclineHost).Assembly,
                typeof(Polycline.Data.Database).Assembly,
                typeof(Polycline.Core.Id<>).Assembly,
            }
        )
        {
            assembly.GetReferencedAssemblies().ShouldEachBe(reference => reference.Name != "Polycline.Demo");
            var bytes = await File.ReadAllBytesAsync(assembly.Location);
            foreach (var encoding in new[] { System.Text.Encoding.Unicode, System.Text.Encoding.UTF8 })
                bytes.AsSpan().IndexOf(encoding.GetBytes(DemoPeople.Password)).ShouldBe(-1);
        }
    }

    private static Task<Reply> SignIn(Caller caller, string name, string password) =>
        caller.Post("/api/sign-in", new { email = DemoPeople.Email(name), password });
}
