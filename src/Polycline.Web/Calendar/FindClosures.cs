using NodaTime.Text;
using Polycline.Core.Calendars;
using Polycline.Data;
using Polycline.Data.Terms;
using Polycline.Formats;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Calendar;

/// <param name="Text">What stands in the file (iCalendar, RFC 5545): at most a million letters.</param>
public sealed record ClosuresOfFileRequest(string Text);

/// <param name="LeftOut">What was not taken, each with its reason.</param>
public sealed record ClosuresOfFileAnswer(IReadOnlyList<ProposedClosure> Closures, IReadOnlyList<string> LeftOut);

/// <param name="First">A date.</param>
/// <param name="Last">Its last date, inclusive.</param>
/// <param name="Words">The days in words.</param>
/// <param name="Standing">It is marked so already.</param>
/// <param name="ClassDays">How many class days it would close.</param>
public sealed record ProposedClosure(string First, string Last, string Name, string Words, bool Standing, int ClassDays);

/// <summary>Says what a calendar file would close in a term. Nothing is written: what is wanted of it is marked as days are.</summary>
public static class FindClosures
{
    private const int Longest = 1_000_000;

    public static async Task<ClosuresOfFileAnswer> Handle(
        long term,
        ClosuresOfFileRequest request,
        Access access,
        Database database,
        CancellationToken stop
    )
    {
        if (request.Text.Length > Longest)
            throw Problem.Field("text", "This file is longer than a million letters. Use one with closures only.");
        var plan = await TermStore.Read(database, access.Term!.Value, stop) ?? throw Problem.Unknown();
        try
        {
            return Of(plan, ClosuresFile.Read(request.Text, plan.Term.First, plan.Term.Last, stop));
        }
        catch (CalendarFileException fault)
        {
            throw Problem.Field("text", fault.Message);
        }
    }

    private static ClosuresOfFileAnswer Of(TermPlan plan, ClosuresOfFile file)
    {
        var days = ClassDayMaker.Of(plan.Term);
        return new(
            [
                .. file.Days.Select(day => new ProposedClosure(
                    LocalDatePattern.Iso.Format(day.First),
                    LocalDatePattern.Iso.Format(day.Last),
                    day.Name,
                    Moment.InWords(day.First, day.Last),
                    plan.Days.Any(mark => mark.Kind == "closure" && mark.First <= day.First && day.Last <= mark.Last),
                    days.Count(one => day.First <= one.Date && one.Date <= day.Last)
                )),
            ],
            file.LeftOut
        );
    }
}
