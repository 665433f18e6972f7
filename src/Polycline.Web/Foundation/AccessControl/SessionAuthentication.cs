using System.Globalization;
using System.Security.Claims;
using System.Text.Encodings.Web;
using Microsoft.AspNetCore.Authentication;
using Microsoft.Extensions.Options;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.People;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation.AccessControl;

/// <summary>
/// Reads who asks, by the session's cookie, and in the same statement what they are to what the address names; the
/// <see cref="Access"/> stands among the request's features from then on.
/// </summary>
public sealed class SessionAuthentication(
    IOptionsMonitor<AuthenticationSchemeOptions> options,
    ILoggerFactory log,
    UrlEncoder encoder,
    Database database,
    IClock clock
) : AuthenticationHandler<AuthenticationSchemeOptions>(options, log, encoder)
{
    public const string SchemeName = "session";

    /// <summary>Who asks; null where nobody is signed in.</summary>
    public static async Task<Access?> Find(
        HttpContext http,
        Database database,
        Id<Edition>? edition,
        Id<Section>? section,
        Id<Term>? term,
        Instant now
    )
    {
        if (SessionCookie.Read(http) is not { } token)
            return null;
        var row = await database.Read(connection => AccessStore.Find(connection, token, edition, section, term, now), http.RequestAborted);
        return row is null ? null : Access.Of(row, token);
    }

    protected override async Task<AuthenticateResult> HandleAuthenticateAsync()
    {
        if (Context.GetEndpoint()?.Metadata.GetMetadata<AccessRule>() is not { } rule || rule.May.HasFlag(May.Anyone))
            return AuthenticateResult.NoResult();
        var access = await Find(
            Context,
            database,
            RouteId<Edition>("edition"),
            RouteId<Section>("section"),
            RouteId<Term>("term"),
            clock.GetCurrentInstant()
        );
        if (access is null)
            return AuthenticateResult.NoResult();
        Context.Features.Set(access);
        var person = new Claim(ClaimTypes.NameIdentifier, access.Person.Id.Value.ToString(CultureInfo.InvariantCulture));
        return AuthenticateResult.Success(new(new(new ClaimsIdentity([person], Scheme.Name)), Scheme.Name));
    }

    /// <exception cref="ProblemException">Nobody is signed in.</exception>
    protected override Task HandleChallengeAsync(AuthenticationProperties properties) => throw Problem.SignedOut();

    /// <summary>To someone who may not know of a thing, it does not exist.</summary>
    /// <exception cref="ProblemException">Always.</exception>
    protected override Task HandleForbiddenAsync(AuthenticationProperties properties) =>
        throw (
            Context.GetEndpoint()?.Metadata.GetMetadata<AccessRule>()?.May.HasFlag(May.Lead) == true
            && Context.Features.Get<Access>() is { IsMember: true }
                ? Problem.Forbidden("Only the lead of a course can do this.", "Nothing was changed. Ask whoever leads it.")
                : Problem.Unknown()
        );

    private Id<T>? RouteId<T>(string name) =>
        Request.RouteValues[name] is string text
            ? Id<T>.TryParse(text, null, out var id)
                ? id
                : throw Problem.Unknown()
            : null;
}
