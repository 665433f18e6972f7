using Polycline.Core.Calendars;

namespace Polycline.Core.Enrolling;

/// <summary>The classes at which something can be asked to be handed in.</summary>
internal static class ClassChoice
{
    /// <summary>Leaves out classes on closed days, added ones too. An extra day is not closed.</summary>
    public static IEnumerable<Meeting> ForHandingIn(this IEnumerable<Meeting> meetings, Term term) =>
        meetings.Where(meeting =>
            term.Calendar.ExtraDays.Any(extra => extra.Date == meeting.Date)
            || !term.Calendar.Closures.Any(closure => closure.From <= meeting.Date && meeting.Date <= closure.To)
        );
}
