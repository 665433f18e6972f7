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
/// Stands between routing and every endpoint: reads who asks in one statement, holds it against the endpoint's
/// <see cref="AccessRule"/>, and binds the <see cref="Viewpoint"/>. What one may not know of is not there (404).
/// </summary>
public sealed class AccessMiddleware(RequestDelegate next, Database database, IClock clock)
{
    /// <summary>Says as of which counters an answer is, so that who then watches them knows whether something came in between.</summary>
    public const string CountersHeader = "Polycline-Counters";

    public async Task InvokeAsync(HttpContext http)
    {
        if (http.GetEndpoint()?.Metadata.GetMetadata<AccessRule>() is not { } rule)
        {
            await next(http);
            return;
        }
        if (!rule.May.HasFlag(May.Anyone))
        {
            var now = clock.GetCurrentInstant();
            var access = await Find(
                http,
                database,
                RouteId<Edition>(http, "edition"),
                RouteId<Section>(http, "section"),
                RouteId<Term>(http, "term"),
                now
            ) ?? throw Problem.SignedOut();
            if (!access.Allows(rule.May, now))
                throw rule.May.HasFlag(May.Lead) && access.IsMember
                    ? Problem.Forbidden("Only the lead of a course can do this.", "Nothing was changed. Ask whoever leads it.")
                    : Problem.Unknown();
            http.Features.Set(access);
            if (access.Counters is { } counters)
                http.Response.Headers[CountersHeader] = counters;
            http.Features.Set(await Viewpoint.Bind(http, access, now, database));
        }
        await next(http);
    }

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

    private static Id<T>? RouteId<T>(HttpContext http, string name) =>
        http.Request.RouteValues[name] is string text
            ? Id<T>.TryParse(text, null, out var id)
                ? id
                : throw Problem.Unknown()
            : null;
}
