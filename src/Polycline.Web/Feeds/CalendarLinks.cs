using System.Data;
using System.Security.Cryptography;
using System.Text;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Feeds;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Feeds;

/// <param name="MadeAt">Since when one has a link to it; null: one has none. The link itself is kept nowhere.</param>
public sealed record CalendarChoice(string Kind, Id<Section>? Section, string? SectionName, Moment? MadeAt);

/// <summary>The calendars somebody may subscribe to, by private links that they make, renew and withdraw.</summary>
public static class CalendarLinks
{
    public static void MapFeeds(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/calendar-links", Read).WithName("calendar-links").For(May.SignedIn);
        routes.MapWork<MakeCalendarLink, CalendarLinkRequest, CalendarLinkAnswer>();
        routes.MapWork<WithdrawCalendarLink, CalendarLinkRequest, DoneAnswer>();
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
}
