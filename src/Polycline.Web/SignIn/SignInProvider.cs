using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.IdentityModel.JsonWebTokens;
using Microsoft.IdentityModel.Protocols;
using Microsoft.IdentityModel.Protocols.OpenIdConnect;
using Microsoft.IdentityModel.Tokens;
using NodaTime;

namespace Polycline.Web.SignIn;

/// <summary>The school's sign-in provider, by OpenID Connect.</summary>
/// <param name="Name">What people call it: it stands on the button.</param>
/// <param name="Authority">Its address: the discovery document stands below it.</param>
/// <param name="Client">What it calls Polycline.</param>
/// <param name="Secret">What Polycline proves that with; empty: nothing but the code's verifier.</param>
public sealed record ProviderSettings(string Name, Uri Authority, string Client, string Secret)
{
    /// <exception cref="InvalidOperationException">Something is missing, or cannot be read.</exception>
    public static ProviderSettings? Of(string? name, string? authority, string? client, string? secret)
    {
        if (string.IsNullOrEmpty(authority) && string.IsNullOrEmpty(client))
            return null;
        if (!Uri.TryCreate(authority, UriKind.Absolute, out var address) || !IsTrusted(address))
            throw new InvalidOperationException(
                $"POLYCLINE_PROVIDER is the https address of the school's sign-in provider; '{authority}' is not."
            );
        return string.IsNullOrEmpty(client)
            ? throw new InvalidOperationException(
                "POLYCLINE_PROVIDER_CLIENT is not set. Set it to the client id that the sign-in provider gave Polycline."
            )
            : new(string.IsNullOrEmpty(name) ? address.Host : name, address, client, secret ?? "");
    }

    // Plain http only on this machine, where nobody listens in.
    internal static bool IsTrusted(Uri address) => address.Scheme == "https" || (address.Scheme == "http" && address.IsLoopback);
}

/// <summary>Says whether the school has such a provider.</summary>
public interface ISignInProvider
{
    /// <summary>Null: there is none, and everybody signs in with a password.</summary>
    ProviderSettings? Settings { get; }
}

/// <summary>As the school has set it.</summary>
public sealed record SchoolProvider(ProviderSettings? Settings) : ISignInProvider;

/// <summary>Who somebody is to the provider.</summary>
/// <param name="Subject">The provider’s own id for them, which never changes.</param>
/// <param name="Email">Null: it gives none, or has not verified it.</param>
public sealed record ProviderPerson(string Issuer, string Subject, string? Email);

/// <summary>What Polycline asks of the provider: where to send people, and who came back.</summary>
public sealed class ProviderClient(IClock clock)
{
    private static readonly Duration Skew = Duration.FromMinutes(2);
    private static readonly HttpClient Client = new(new SocketsHttpHandler { AllowAutoRedirect = false })
    {
        Timeout = TimeSpan.FromSeconds(15),
        MaxResponseContentBufferSize = 1024 * 1024,
    };

    private ConfigurationManager<OpenIdConnectConfiguration>? manager;

    /// <summary>Where somebody signs in.</summary>
    /// <exception cref="HttpRequestException">The provider cannot be reached.</exception>
    public async Task<string> AddressToSignIn(
        ProviderSettings settings,
        string back,
        string state,
        string nonce,
        string challenge,
        CancellationToken stop
    )
    {
        var found = await Configuration(settings, stop);
        return QueryHelpers.AddQueryString(
            found.AuthorizationEndpoint,
            new Dictionary<string, string?>
            {
                ["response_type"] = "code",
                ["client_id"] = settings.Client,
                ["redirect_uri"] = back,
                ["scope"] = "openid email profile",
                ["state"] = state,
                ["nonce"] = nonce,
                ["code_challenge"] = challenge,
                ["code_challenge_method"] = "S256",
            }
        );
    }

    /// <summary>Who came back with a code.</summary>
    /// <returns>Null: the provider does not confirm the sign-in, or its answer cannot be trusted.</returns>
    /// <exception cref="HttpRequestException">The provider cannot be reached.</exception>
    public async Task<ProviderPerson?> WhoCame(
        ProviderSettings settings,
        string back,
        string code,
        string verifier,
        string nonce,
        CancellationToken stop
    )
    {
        var found = await Configuration(settings, stop);
        using var asked = new HttpRequestMessage(HttpMethod.Post, found.TokenEndpoint);
        var form = new Dictionary<string, string>
        {
            ["grant_type"] = "authorization_code",
            ["code"] = code,
            ["redirect_uri"] = back,
            ["client_id"] = settings.Client,
            ["code_verifier"] = verifier,
        };
        if (settings.Secret.Length > 0)
            asked.Headers.Authorization = new AuthenticationHeaderValue(
                "Basic",
                Convert.ToBase64String(
                    Encoding.UTF8.GetBytes($"{Uri.EscapeDataString(settings.Client)}:{Uri.EscapeDataString(settings.Secret)}")
                )
            );
        asked.Content = new FormUrlEncodedContent(form);
        using var answer = await Client.SendAsync(asked, stop);
        if (!answer.IsSuccessStatusCode)
            return null;
        var token = Text(await answer.Content.ReadAsStringAsync(stop));
        if (token is null)
            return null;
        var read = await Validated(settings, found, token);
        if (!read.IsValid && read.Exception is SecurityTokenSignatureKeyNotFoundException)
        {
            // The provider has changed its keys since they were read.
            manager!.RequestRefresh();
            read = await Validated(settings, await Configuration(settings, stop), token);
        }
        if (!read.IsValid || !Is(read, "nonce", nonce) || Claim(read, "sub") is not { Length: > 0 and <= 255 } subject)
            return null;
        var vouched = read.Claims.TryGetValue("email_verified", out var said) && said is true or "true";
        return new(found.Issuer, subject, vouched ? Claim(read, "email") : null);
    }

    private Task<TokenValidationResult> Validated(ProviderSettings settings, OpenIdConnectConfiguration found, string token) =>
        new JsonWebTokenHandler { MapInboundClaims = false }.ValidateTokenAsync(
            token,
            new()
            {
                ValidIssuer = found.Issuer,
                ValidAudience = settings.Client,
                IssuerSigningKeys = found.SigningKeys,
                ValidAlgorithms = [SecurityAlgorithms.RsaSha256, SecurityAlgorithms.RsaSsaPssSha256, SecurityAlgorithms.EcdsaSha256],
                RequireSignedTokens = true,
                // By the school's clock, which in the demo is not the machine's.
                LifetimeValidator = (from, until, _, _) =>
                {
                    var now = clock.GetCurrentInstant();
                    return until is { } end
                        && Instant.FromDateTimeUtc(DateTime.SpecifyKind(end, DateTimeKind.Utc)) > now - Skew
                        && (from is not { } begin || Instant.FromDateTimeUtc(DateTime.SpecifyKind(begin, DateTimeKind.Utc)) < now + Skew);
                },
            }
        );

    private async Task<OpenIdConnectConfiguration> Configuration(ProviderSettings settings, CancellationToken stop)
    {
        manager ??= new(
            $"{settings.Authority.ToString().TrimEnd('/')}/.well-known/openid-configuration",
            new OpenIdConnectConfigurationRetriever(),
            new HttpDocumentRetriever(Client) { RequireHttps = settings.Authority.Scheme == "https" }
        );
        try
        {
            return await manager.GetConfigurationAsync(stop);
        }
        catch (InvalidOperationException fault)
        {
            throw new HttpRequestException("The sign-in provider cannot be reached.", fault);
        }
    }

    private static string? Text(string answer)
    {
        try
        {
            return (JsonNode.Parse(answer) as JsonObject)?["id_token"]?.GetValue<string>();
        }
        catch (Exception fault) when (fault is System.Text.Json.JsonException or InvalidOperationException)
        {
            return null;
        }
    }

    private static string? Claim(TokenValidationResult read, string name) =>
        read.Claims.TryGetValue(name, out var value) ? value as string : null;

    private static bool Is(TokenValidationResult read, string name, string value) => Claim(read, name) == value;
}
