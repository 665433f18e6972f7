using Polycline.Data.Feeds;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Web.Feeds;

/// <summary>From now on the link leads nowhere.</summary>
public sealed class WithdrawCalendarLink : IWorkCommand<CalendarLinkRequest, DoneAnswer>
{
    public static string Name => "withdraw-calendar-link";

    public static May May => May.SignedIn;

    public static WorkPlace Place => WorkPlace.Oneself;

    public static async Task<DoneAnswer> Do(WorkContext work, CalendarLinkRequest request)
    {
        await MakeCalendarLink.NeedsChoice(work, request);
        await LinkStore.Withdraw(work.Connection, work.Viewpoint.Who.Id, request.Kind, request.Section, work.Viewpoint.At);
        return new();
    }
}
