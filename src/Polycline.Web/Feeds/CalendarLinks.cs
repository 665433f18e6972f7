using System.Data;
using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.WebUtilities;
using NodaTime;
using Polycline.Data;
using Polycline.Data.Feeds;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Host;

namespace Polycline.Web.Feeds;

/// <param name="MadeAt">Since when one has a link to it; null: one has none. The link itself is kept nowhere.</param>
public sealed record CalendarChoice(string Kind, long? Section, string? SectionName, Moment? MadeAt);

/// <param name="Kind"><c>section-calendar</c>, <c>teacher-calendar</c> or <c>student-calendar</c>.</param>
/// <param name="Section">Of a section's calendar.</param>
public sealed record CalendarLinkRequest(string Kind, long? Section);

/// <param name="Address">Shown this once.</param>
public sealed record CalendarLinkAnswer(string Address);

/// <summary>The calendars somebody may subscribe to, by private links that they make, renew and withdraw.</summary>
public static class CalendarLinks
{
    private const int Bytes = 16;

    public static void MapFeeds(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/calendar-links", Read).WithName("calendar-links").For(May.SignedIn);
        routes.MapPost("/api/calendar-links", Make).WithName("make-calendar-link").For(May.SignedIn).ProducesProblems(404, 409);
        routes
            .MapPost("/api/calendar-links/withdraw", Withdraw)
            .WithName("withdraw-calendar-link")
            .For(May.SignedIn)
            .ProducesProblems(404, 409);
        routes.MapGet("/calendars/{token:length(22)}.ics", Feed.Handle).WithName("calendar").For(May.Anyone).ExcludeFromDescription();
    }

    /// <summary>What is kept of a link.</summary>
    public static byte[] Hash(string token) => SHA256.HashData(Encoding.ASCII.GetBytes(token));

    public static async Task<IReadOnlyList<CalendarChoice>> Read(Viewpoint viewpoint, Database database, CancellationToken stop) =>
        [
            .. (await database.Read(connection => LinkStore.Of(connection, viewpoint.Who.Id), stop)).Select(choice => new CalendarChoice(
                choice.Kind,
                choice.Section,
                choice.SectionName,
                Moment.Of(choice.MadeAt, DateTimeZoneProviders.Tzdb[choice.Zone])
            )),
        ];

    /// <summary>Makes a link, or another in the place of the one there was.</summary>
    public static Task<CalendarLinkAnswer> Make(
        [FromBody] CalendarLinkRequest request,
        HttpContext http,
        Viewpoint viewpoint,
        HostSettings settings,
        Database database,
        CancellationToken stop
    ) =>
        database.Within(
            IsolationLevel.ReadCommitted,
            async connection =>
            {
                await Needed(connection, viewpoint, request);
                var token = WebEncoders.Base64UrlEncode(RandomNumberGenerator.GetBytes(Bytes));
                await LinkStore.Withdraw(connection, viewpoint.Who.Id, request.Kind, request.Section, viewpoint.At);
                await LinkStore.Add(connection, Hash(token), viewpoint.Who.Id, request.Kind, request.Section, viewpoint.At);
                var school = settings.PublicAddress?.GetLeftPart(UriPartial.Authority) ?? $"{http.Request.Scheme}://{http.Request.Host}";
                return new CalendarLinkAnswer($"{school}/calendars/{token}.ics");
            },
            stop
        );

    /// <summary>From now on the link leads nowhere.</summary>
    public static Task<IResult> Withdraw(
        [FromBody] CalendarLinkRequest request,
        Viewpoint viewpoint,
        Database database,
        CancellationToken stop
    ) =>
        database.Within(
            IsolationLevel.ReadCommitted,
            async connection =>
            {
                await Needed(connection, viewpoint, request);
                await LinkStore.Withdraw(connection, viewpoint.Who.Id, request.Kind, request.Section, viewpoint.At);
                return Results.NoContent();
            },
            stop
        );

    private static async Task Needed(Npgsql.NpgsqlConnection connection, Viewpoint viewpoint, CalendarLinkRequest request)
    {
        if (
            !(await LinkStore.Of(connection, viewpoint.Who.Id)).Any(choice =>
                choice.Kind == request.Kind && choice.Section == request.Section
            )
        )
            throw Problem.Unknown();
    }
}
