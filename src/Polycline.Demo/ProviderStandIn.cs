using System.Collections.Concurrent;
using System.Net;
using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.IdentityModel.JsonWebTokens;
using Microsoft.IdentityModel.Tokens;
using NodaTime;
using Polycline.Demo.School;
using Polycline.Web.SignIn;

namespace Polycline.Demo;

/// <summary>
/// Stands in for the school's sign-in provider, at an address of its own on this machine: whoever comes presses the name of somebody of the
/// demo, and is sent back as them. OpenID Connect: discovery, code with PKCE, tokens signed with a key made at each start.
/// </summary>
public sealed class ProviderStandIn(IClock clock) : IHostedService, ISignInProvider
{
    private const string Client = "polycline-demo";
    private static readonly Duration Life = Duration.FromMinutes(1);

    // Made when it is first asked for: most schools of the tests never are.
    private readonly Lazy<RsaSecurityKey> key = new(() => new(RSA.Create(2048)) { KeyId = Guid.NewGuid().ToString("N") });
    private readonly ConcurrentDictionary<string, Given> codes = new();
    private WebApplication? app;
    private string issuer = "";

    private sealed record Given(string Subject, string Email, string Name, string Nonce, string Challenge, string Back, Instant Until);

    public ProviderSettings? Settings { get; private set; }

    public async Task StartAsync(CancellationToken cancellationToken)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.WebHost.UseUrls("http://127.0.0.1:0");
        app = builder.Build();
        app.MapGet("/.well-known/openid-configuration", Discovery);
        app.MapGet("/keys", Keys);
        app.MapGet("/sign-in", SignInPage);
        app.MapGet("/choose", Choose);
        app.MapPost("/token", Token);
        await app.StartAsync(cancellationToken);
        issuer = app.Urls.First().TrimEnd('/');
        Settings = new("Fenwater sign-in", new(issuer), Client, "");
    }

    public async Task StopAsync(CancellationToken cancellationToken)
    {
        if (app is not null)
            await app.DisposeAsync();
    }

    /// <summary>Its stable name for somebody: not their address, which may change.</summary>
    public static string SubjectOf(string email) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes($"Fenwater {email}")))[..24];

    private IResult Discovery() =>
        Results.Json(
            new
            {
                issuer,
                authorization_endpoint = $"{issuer}/sign-in",
                token_endpoint = $"{issuer}/token",
                jwks_uri = $"{issuer}/keys",
                response_types_supported = new[] { "code" },
                subject_types_supported = new[] { "public" },
                id_token_signing_alg_values_supported = new[] { "RS256" },
                code_challenge_methods_supported = new[] { "S256" },
            }
        );

    private IResult Keys()
    {
        var shown = key.Value.Rsa.ExportParameters(false);
        return Results.Json(
            new
            {
                keys = new[]
                {
                    new
                    {
                        kty = "RSA",
                        use = "sig",
                        alg = "RS256",
                        kid = key.Value.KeyId,
                        n = WebEncoders.Base64UrlEncode(shown.Modulus!),
                        e = WebEncoders.Base64UrlEncode(shown.Exponent!),
                    },
                },
            }
        );
    }

    private static IResult SignInPage(HttpRequest request)
    {
        var asked = request.QueryString.Value is { Length: > 1 } query ? query[1..] : "";
        var people = string.Concat(
            DemoPeople.Offered.Select(person =>
                $"<li><a href=\"/choose?as={WebUtility.UrlEncode(person.Email)}&amp;{WebUtility.HtmlEncode(asked)}\">"
                + $"{WebUtility.HtmlEncode(person.Name)}</a> {WebUtility.HtmlEncode(person.About)}</li>"
            )
        );
        return Results.Content(
            "<!doctype html><html lang=\"en\"><meta charset=\"utf-8\"><title>Fenwater sign-in</title>"
                + "<style>body{font:17px/1.6 system-ui,sans-serif;max-width:38em;margin:4em auto;padding:0 1em}li{padding:.25em 0}</style>"
                + "<h1>Fenwater sign-in</h1><p>This stands in for a school’s sign-in provider. Whom do you want to be?</p>"
                + $"<ul>{people}</ul><p><a href=\"/choose?{WebUtility.HtmlEncode(asked)}\">None of them: go back</a></p></html>",
            "text/html; charset=utf-8"
        );
    }

    private IResult Choose(HttpRequest request)
    {
        string Asked(string name) => request.Query[name].ToString();
        var back = Asked("redirect_uri");
        // Only to where it may send people: pages of this machine.
        if (!Uri.TryCreate(back, UriKind.Absolute, out var address) || !address.IsLoopback || Asked("client_id") != Client)
            return Results.BadRequest();
        if (DemoPeople.Offered.FirstOrDefault(one => one.Email == Asked("as")) is not { } person)
            return Results.Redirect(
                QueryHelpers.AddQueryString(
                    back,
                    new Dictionary<string, string?> { ["error"] = "access_denied", ["state"] = Asked("state") }
                )
            );
        var code = WebEncoders.Base64UrlEncode(RandomNumberGenerator.GetBytes(24));
        codes[code] = new(
            SubjectOf(person.Email),
            person.Email,
            person.Name,
            Asked("nonce"),
            Asked("code_challenge"),
            back,
            clock.GetCurrentInstant() + Life
        );
        return Results.Redirect(
            QueryHelpers.AddQueryString(back, new Dictionary<string, string?> { ["code"] = code, ["state"] = Asked("state") })
        );
    }

    private async Task<IResult> Token(HttpRequest request)
    {
        var form = await request.ReadFormAsync();
        var now = clock.GetCurrentInstant();
        if (
            !codes.TryRemove(form["code"].ToString(), out var given)
            || given.Until < now
            || given.Back != form["redirect_uri"].ToString()
            || given.Challenge != WebEncoders.Base64UrlEncode(SHA256.HashData(Encoding.ASCII.GetBytes(form["code_verifier"].ToString())))
        )
            return Results.BadRequest(new { error = "invalid_grant" });
        var token = new JsonWebTokenHandler { SetDefaultTimesOnTokenCreation = false }.CreateToken(
            new SecurityTokenDescriptor
            {
                Issuer = issuer,
                Audience = Client,
                IssuedAt = now.ToDateTimeUtc(),
                Expires = (now + Life).ToDateTimeUtc(),
                SigningCredentials = new(key.Value, SecurityAlgorithms.RsaSha256),
                Claims = new Dictionary<string, object>
                {
                    ["sub"] = given.Subject,
                    ["nonce"] = given.Nonce,
                    ["email"] = given.Email,
                    ["email_verified"] = true,
                    ["name"] = given.Name,
                },
            }
        );
        return Results.Json(
            new
            {
                access_token = "nothing is opened with it",
                token_type = "Bearer",
                id_token = token,
                expires_in = 60,
            }
        );
    }
}
