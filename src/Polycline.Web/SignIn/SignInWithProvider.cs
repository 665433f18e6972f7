using System.Data;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.WebUtilities;
using NodaTime;
using Npgsql;
using Polycline.Data;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Host;

namespace Polycline.Web.SignIn;

/// <param name="Name">What the button says; null: there is no provider.</param>
public sealed record ProviderAnswer(string? Name);

/// <summary>
/// Signing in through the school's provider: authorization code with PKCE. An account is found by the provider's stable name for somebody.
/// The first time it is found by a mail address that the provider vouches for, and never so again.
/// </summary>
public static class SignInWithProvider
{
    private const string Cookie = "__Host-polycline-trip";
    private const int LongestNext = 2000;
    private static readonly Duration Life = Duration.FromMinutes(10);

    /// <summary>What went wrong: a word in the address of the sign-in page.</summary>
    private const string Cancelled = "cancelled",
        Late = "late",
        Failed = "failed",
        Away = "away",
        Unknown = "unknown",
        Taken = "taken";

    public static ProviderAnswer Read(ISignInProvider provider) => new(provider.Settings?.Name);

    /// <summary>Sends somebody to the provider.</summary>
    /// <param name="next">Where they want to be afterwards, in Polycline.</param>
    public static async Task<IResult> Go(
        string? next,
        HttpContext http,
        ISignInProvider provider,
        ProviderClient client,
        HostSettings host,
        Database database,
        IClock clock,
        CancellationToken stop
    )
    {
        if (provider.Settings is not { } settings)
            return Back(Unknown);
        var (state, browser, nonce, verifier) = (Secret(), Secret(), Secret(), Secret());
        string address;
        try
        {
            address = await client.AddressToSignIn(settings, Returning(host, http), state, nonce, Challenge(verifier), stop);
        }
        catch (HttpRequestException)
        {
            return Back(Away);
        }
        var now = clock.GetCurrentInstant();
        var trip = new ProviderTrip(nonce, verifier, Ours(next));
        await database.Read(
            async connection =>
            {
                await ProviderStore.Begin(connection, Hash(state), Hash(browser), trip, now, now + Life);
                return true;
            },
            stop
        );
        http.Response.Cookies.Append(Cookie, browser, SessionCookie.Options(Life.ToTimeSpan()));
        return Results.Redirect(address);
    }

    /// <summary>Takes in whoever comes back.</summary>
    public static async Task<IResult> Come(
        string? code,
        string? state,
        string? error,
        HttpContext http,
        ISignInProvider provider,
        ProviderClient client,
        HostSettings host,
        Database database,
        IClock clock,
        CancellationToken stop
    )
    {
        var browser = http.Request.Cookies[Cookie];
        http.Response.Cookies.Append(Cookie, "", SessionCookie.Options(TimeSpan.Zero));
        if (provider.Settings is not { } settings)
            return Back(Unknown);
        if (state is not { Length: 43 } || browser is not { Length: 43 })
            return Back(Late);
        var now = clock.GetCurrentInstant();
        if (await database.Read(connection => ProviderStore.End(connection, Hash(state), Hash(browser), now), stop) is not { } trip)
            return Back(Late);
        if (error is not null || code is not { Length: > 0 and <= 4000 })
            return Back(Cancelled);
        ProviderPerson? came;
        try
        {
            came = await client.WhoCame(settings, Returning(host, http), code, trip.Verifier, trip.Nonce, stop);
        }
        catch (Exception fault) when (fault is HttpRequestException || fault is TaskCanceledException && !stop.IsCancellationRequested)
        {
            return Back(Away);
        }
        if (came is null)
            return Back(Failed);
        var trouble = await database.Within(IsolationLevel.ReadCommitted, connection => Start(connection, http, came, now), stop);
        return trouble is null ? Results.LocalRedirect(trip.Next) : Back(trouble);
    }

    /// <returns>What went wrong; null: they are signed in.</returns>
    private static async Task<string?> Start(NpgsqlConnection connection, HttpContext http, ProviderPerson came, Instant now)
    {
        var account = await ProviderStore.Known(connection, came.Issuer, came.Subject);
        if (account is null)
        {
            if (came.Email is not { } email || await ProviderStore.ByAddress(connection, came.Issuer, email) is not { } found)
                return Unknown;
            // The address belongs to somebody whom the provider knows by another name: it has changed hands.
            if (found.HasIdentity)
                return Taken;
            if (found.Removed)
                return Unknown;
            await ProviderStore.Link(connection, came.Issuer, came.Subject, found.Person, now);
            await AccessStore.Audit(
                connection,
                now,
                found.Person,
                "provider-linked",
                JsonSerializer.Serialize(new { issuer = came.Issuer })
            );
            account = found;
        }
        if (account.Removed)
            return Unknown;
        await StartSession.Start(http, connection, account.Person, account.Email, now);
        return null;
    }

    private static string Returning(HostSettings host, HttpContext http) => $"{host.AddressFor(http.Request)}/api/sign-in/return";

    private static IResult Back(string trouble) => Results.LocalRedirect($"/sign-in?trouble={trouble}");

    // A path of Polycline's own, and nobody else's.
    private static string Ours(string? next) =>
        next is { Length: > 0 and <= LongestNext }
        && next[0] == '/'
        && (next.Length == 1 || next[1] is not ('/' or '\\'))
        && !next.Any(char.IsControl)
            ? next
            : "/";

    private static string Secret() => WebEncoders.Base64UrlEncode(RandomNumberGenerator.GetBytes(32));

    private static string Challenge(string verifier) => WebEncoders.Base64UrlEncode(Hash(verifier));

    private static byte[] Hash(string text) => SHA256.HashData(Encoding.ASCII.GetBytes(text));
}
