using Polycline.Core.Calendars;

namespace Polycline.Core.Enrolling;

/// <summary>The classes at which something can be asked to be handed in.</summary>
internal static class ClassChoice
{
    /// <summary>Those on no day of a closure; a class added during one is not for handing in. An extra day beats a closure.</summary>
    public static IEnumerable<Meeting> ForHandingIn(this IEnumerable<Meeting> meetings, Term term) =>
        meetings.Where(meeting =>
            term.Calendar.ExtraDays.Any(extra => extra.Date == meeting.Date)
            || !term.Calendar.Closures.Any(closure => closure.From <= meeting.Date && meeting.Date <= closure.To)
        );
}
