using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.Extensions.DependencyInjection;
using Polycline.Demo;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Host;
using Polycline.Web.SignIn;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Signing in through the school's provider: there and back once, in one browser, by a stable name and not an address.</summary>
public sealed class ProviderTests : IAsyncLifetime
{
    private const string Lead = "orla.tierney-vance@fenwater.example";
    private const string Colleague = "hanneke.doyle-okafor@fenwater.example";

    private School school = null!;

    public async ValueTask InitializeAsync() => school = await School.Open();

    public ValueTask DisposeAsync() => school.DisposeAsync();

    /// <summary>A browser that follows nobody by itself.</summary>
    private sealed class Browser(Uri home) : IDisposable
    {
        private readonly HttpClient client = new(new HttpClientHandler { AllowAutoRedirect = false, UseCookies = false })
        {
            BaseAddress = home,
        };
        private readonly Dictionary<string, string> cookies = [];

        public async Task<HttpResponseMessage> Get(string address)
        {
            using var request = new HttpRequestMessage(HttpMethod.Get, address);
            if (new Uri(client.BaseAddress!, address).Authority == client.BaseAddress!.Authority && cookies.Count > 0)
                request.Headers.Add("Cookie", string.Join("; ", cookies.Select(cookie => $"{cookie.Key}={cookie.Value}")));
            var answer = await client.SendAsync(request, TestContext.Current.CancellationToken);
            foreach (var set in answer.Headers.TryGetValues("Set-Cookie", out var all) ? all : [])
                if (set.Split(';')[0].Split('=', 2) is [var name, var value])
                    cookies[name] = value;
            return answer;
        }

        public async Task<string> Away(string address)
        {
            var answer = await Get(address);
            answer.StatusCode.ShouldBe(HttpStatusCode.Redirect, address);
            return answer.Headers.Location!.OriginalString;
        }

        public async Task<string> Name() =>
            JsonNode
                .Parse(await (await Get("/api/places")).Content.ReadAsStringAsync(TestContext.Current.CancellationToken))!["name"]
                ?.GetValue<string>()
            ?? "";

        public void Dispose() => client.Dispose();
    }

    private Browser Fresh() => new(school.Address());

    // At the provider somebody's name is pressed.
    private static async Task<string> Chosen(Browser browser, string there, string email) =>
        await browser.Away(QueryHelpers.AddQueryString(there.Replace("/sign-in?", "/choose?"), "as", email));

    private static async Task<string> Trip(Browser browser, string email, string next = "/")
    {
        var there = await browser.Away($"/api/sign-in/with-provider?next={WebUtility.UrlEncode(next)}");
        return await browser.Away(await Chosen(browser, there, email));
    }

    [Fact]
    public async Task Somebody_goes_there_and_comes_back_signed_in_where_they_wanted_to_be()
    {
        using var browser = Fresh();
        (await Trip(browser, Lead, "/editions/2/today")).ShouldBe("/editions/2/today");
        (await browser.Name()).ShouldBe(DemoPeople.Lead);
        foreach (var elsewhere in new[] { "//evil.example", "https://evil.example", "/\\evil.example" })
        {
            using var other = Fresh();
            (await Trip(other, Lead, elsewhere)).ShouldBe("/");
        }
    }

    [Fact]
    public async Task A_way_back_is_good_once_and_only_in_the_browser_it_began_in_and_an_account_is_not_found_by_a_stolen_code()
    {
        using var browser = Fresh();
        var back = await Chosen(browser, await browser.Away("/api/sign-in/with-provider"), Lead);
        using var thief = Fresh();
        (await thief.Away(back)).ShouldBe("/sign-in?trouble=late");
        // The thief's own trip with somebody else's code: its verifier is not theirs.
        using var another = Fresh();
        var own = QueryHelpers.ParseQuery(new Uri(await another.Away("/api/sign-in/with-provider")).Query)["state"].ToString();
        var code = QueryHelpers.ParseQuery(new Uri(back).Query)["code"].ToString();
        (await another.Away($"/api/sign-in/return?code={code}&state={own}")).ShouldBe("/sign-in?trouble=failed");
        (await another.Name()).ShouldBe("");
        using var honest = Fresh();
        var good = await Chosen(honest, await honest.Away("/api/sign-in/with-provider"), Lead);
        (await honest.Away(good)).ShouldBe("/");
        (await honest.Away(good)).ShouldBe("/sign-in?trouble=late");
        using var nobody = Fresh();
        var declined = await Chosen(nobody, await nobody.Away("/api/sign-in/with-provider"), "");
        (await nobody.Away(declined)).ShouldBe("/sign-in?trouble=cancelled");
    }

    [Fact]
    public async Task An_account_stays_with_its_stable_name_when_addresses_change_hands()
    {
        using (var first = Fresh())
            (await Trip(first, Lead)).ShouldBe("/");
        // The lead marries; a colleague gets the address the lead had.
        await school.Sql(connection =>
            connection.ExecuteAsync("UPDATE person SET email = 'orla.vance@fenwater.example' WHERE email = @Lead", new { Lead })
        );
        using (var second = Fresh())
        {
            await Trip(second, Lead);
            (await second.Name()).ShouldBe(DemoPeople.Lead);
        }
        // Whom the provider does not know yet, at an address whose owner it knows by another name, is nobody here.
        await school.Sql(connection =>
            connection.ExecuteAsync(
                "UPDATE person SET email = @Colleague WHERE email = 'orla.vance@fenwater.example'",
                new { Colleague = "x@y.example" }
            )
        );
        await school.Sql(connection =>
            connection.ExecuteAsync("UPDATE person SET email = 'away@fenwater.example' WHERE email = @Colleague", new { Colleague })
        );
        await school.Sql(connection =>
            connection.ExecuteAsync("UPDATE person SET email = @Colleague WHERE email = 'x@y.example'", new { Colleague })
        );
        using var third = Fresh();
        (await Trip(third, Colleague)).ShouldBe("/sign-in?trouble=taken");
        (await third.Name()).ShouldBe("");
        // And a deactivated account is no account.
        await school.Sql(connection =>
            connection.ExecuteAsync("UPDATE person SET removed_at = now() WHERE name = @Lead", new { DemoPeople.Lead })
        );
        using var fourth = Fresh();
        (await Trip(fourth, Lead)).ShouldBe("/sign-in?trouble=unknown");
    }

    [Fact]
    public async Task A_token_for_somebody_else_or_signed_by_another_key_is_not_believed()
    {
        var settings = school.Instance.Services.GetRequiredService<ISignInProvider>().Settings!;
        var client = school.Instance.Services.GetRequiredService<ProviderClient>();
        async Task<ProviderPerson?> Came(ProviderSettings asked, string nonce, string verifier = "a verifier")
        {
            using var browser = Fresh();
            var challenge = WebEncoders.Base64UrlEncode(
                System.Security.Cryptography.SHA256.HashData(System.Text.Encoding.ASCII.GetBytes("a verifier"))
            );
            var there = await client.AddressToSignIn(settings, "http://127.0.0.1/back", "state", "a nonce", challenge, default);
            var code = QueryHelpers.ParseQuery(new Uri(await Chosen(browser, there, Lead)).Query)["code"].ToString();
            return await client.WhoCame(asked, "http://127.0.0.1/back", code, verifier, nonce, default);
        }
        (await Came(settings, "a nonce"))!.Subject.ShouldBe(ProviderStandIn.SubjectOf(Lead));
        (await Came(settings, "another nonce")).ShouldBeNull();
        (await Came(settings with { Client = "another client" }, "a nonce")).ShouldBeNull();
        (await Came(settings, "a nonce", "another verifier")).ShouldBeNull();
    }

    [Fact]
    public async Task A_school_without_a_provider_offers_none_and_what_is_set_wrongly_is_said_at_start()
    {
        await using var plain = await School.Open(1, new SchoolProfile());
        using var anyone = await plain.As(null);
        (await anyone.Get("/api/sign-in/provider")).Json["name"].ShouldBeNull();
        Should.Throw<InvalidOperationException>(() => ProviderSettings.Of(null, "http://provider.example", "polycline", null));
        Should.Throw<InvalidOperationException>(() => ProviderSettings.Of(null, "https://provider.example", "", null));
        ProviderSettings.Of("", "https://provider.example", "polycline", null)!.Name.ShouldBe("provider.example");
    }
}
