using System.Security.Cryptography;
using Microsoft.AspNetCore.WebUtilities;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data.Feeds;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Feeds;

/// <param name="Kind"><c>section-calendar</c>, <c>teacher-calendar</c> or <c>student-calendar</c>.</param>
/// <param name="Section">Of a section's calendar.</param>
public sealed record CalendarLinkRequest(string Kind, Id<Section>? Section);

/// <param name="Address">Shown this once.</param>
public sealed record CalendarLinkAnswer(bool Applied, string Address) : IAnswer<CalendarLinkAnswer>
{
    public CalendarLinkAnswer AsPreview() => new(false, "");
}

/// <summary>Makes a link to a calendar, or another in the place of the one there was.</summary>
public sealed class MakeCalendarLink : IWorkCommand<CalendarLinkRequest, CalendarLinkAnswer>
{
    private const int Bytes = 16;

    public static string Name => "make-calendar-link";

    public static May May => May.SignedIn;

    public static WorkPlace Place => WorkPlace.Oneself;

    public static bool HasSecret => true;

    public static async Task<CalendarLinkAnswer> Do(WorkContext work, CalendarLinkRequest request)
    {
        var (connection, who, at) = (work.Connection, work.Viewpoint.Who.Id, work.Viewpoint.At);
        await NeedsChoice(work, request);
        var token = WebEncoders.Base64UrlEncode(RandomNumberGenerator.GetBytes(Bytes));
        await LinkStore.Withdraw(connection, who, request.Kind, request.Section, at);
        await LinkStore.Add(connection, CalendarLinks.Hash(token), who, request.Kind, request.Section, at);
        return new(true, $"{work.Address}/calendars/{token}.ics");
    }

    /// <exception cref="ProblemException">It is no calendar that they may subscribe to.</exception>
    internal static async Task NeedsChoice(WorkContext work, CalendarLinkRequest request)
    {
        var choices = await LinkStore.Of(work.Connection, work.Viewpoint.Who.Id);
        if (!choices.Any(choice => choice.Kind == request.Kind && choice.Section == request.Section))
            throw Problem.Unknown();
    }
}
