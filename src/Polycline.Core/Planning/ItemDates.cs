using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;

namespace Polycline.Core.Planning;

/// <summary>A date of an item, worked out.</summary>
/// <param name="At">Null: none, or unresolved.</param>
/// <param name="IsGiven">Whether an anchor stands there at all: without one there is no date, with one it may be unresolved.</param>
public readonly record struct ItemDate(Instant? At, Layer Layer, bool IsGiven)
{
    public bool IsUnresolved => IsGiven && At is null;
}

/// <summary>An item's dates in one section, at its layer or at a student's. Source: the computation, chapter 4.</summary>
/// <param name="BeyondTerm">One of them ran out of the term, or lies outside it.</param>
/// <param name="DueEarlier">The due would now come earlier than the one announced, and stays as announced.</param>
public sealed record ItemDates(ItemDate Opens, ItemDate Due, ItemDate Closes, bool BeyondTerm, bool DueEarlier)
{
    /// <summary>The dates of <paramref name="item"/> as its rules have it.</summary>
    /// <param name="moreDays">How many days more a student's arrangement gives; 0 or more. Source: the computation, chapter 11.</param>
    /// <param name="steps">Where given, it is filled with how each came about.</param>
    public static ItemDates Of(CourseItem item, AnchorResolver anchors, TermDays term, int moreDays = 0, DateSteps? steps = null) =>
        new Resolution(item, anchors, term, moreDays, steps).Dates();

    private struct Resolution(CourseItem item, AnchorResolver anchors, TermDays term, int moreDays, DateSteps? steps)
    {
        private ItemDate? opens;
        private ItemDate? due;
        private bool resolvingOpens;
        private bool resolvingDue;
        private bool beyond;
        private bool earlier;

        public ItemDates Dates()
        {
            var (opening, falling) = (Opens(), Due());
            if (moreDays == 0 || falling.At is not { } was || falling.Layer == Layer.Student)
                return new(opening, falling, Deadline(item.Closes, steps?.Closes), beyond, earlier);
            // An opening anchored on the due was worked out before; a closing anchored on it follows.
            falling = (due = new(Later(was), Layer.Always, true)).Value;
            var closing = Deadline(item.Closes, steps?.Closes);
            // Time that is given and then shut away is no time.
            if (
                closing is { At: { } closes, Layer: not Layer.Student }
                && item.Closes.Anchor is not { At: AnchorBase.OwnDue }
                && was <= closes
                && closes < falling.At
            )
            {
                closing = falling;
                steps?.Closes.Add(new(DateStepKind.Always, falling.At) { Days = moreDays });
            }
            return new(opening, falling, closing, beyond, earlier);
        }

        // So many days on at the same time of day; more time never becomes less, so that off days only ever move it on.
        private readonly Instant Later(Instant was)
        {
            var local = term.Local(was).PlusDays(moreDays);
            var date = local.Date;
            if (term.Term.Calendar.OffDays != OffDays.Stay && term.Term.First <= date && date <= term.Term.Last && !term.IsClassDay(date))
                date = term.Step(date, 1) ?? date;
            var later = term.ToInstant(date + local.TimeOfDay);
            steps?.Due.Add(new(DateStepKind.Always, later) { Days = moreDays });
            if (date <= term.Term.Last)
                return later;
            steps?.Due.Add(new(DateStepKind.TermEnd, term.End));
            return term.End;
        }

        private ItemDate Opens()
        {
            if (opens is { } known)
                return known;
            if (item.Opened is { } record && item.Opens.Layer != Layer.Student)
            {
                steps?.Opens.Add(new(DateStepKind.Opened, record.At));
                return (opens = new(record.At, Layer.Opened, true)).Value;
            }
            resolvingOpens = true;
            var moment = Moment(item.Opens, steps?.Opens);
            resolvingOpens = false;
            if (item.Opens.Anchor is not null && moment.At is null)
                steps?.Opens.Add(new(DateStepKind.Unresolved, null));
            beyond |= moment.Out != 0 || OutsideTerm(moment.At);
            return (opens = new(moment.At, item.Opens.Layer, item.Opens.Anchor is not null)).Value;
        }

        private ItemDate Due()
        {
            if (due is { } known)
                return known;
            resolvingDue = true;
            var date = Deadline(item.Due, steps?.Due);
            resolvingDue = false;
            if (date is { At: { } at, Layer: Layer.Master })
            {
                date = date with { At = OnClassDay(at) };
                if (date.At != at)
                    steps?.Due.Add(new(DateStepKind.OffDay, date.At) { Rule = term.Term.Calendar.OffDays });
                if (item.Opened?.Due is { } announced && date.At < announced)
                {
                    earlier = true;
                    date = date with { At = announced, Layer = Layer.Opened };
                    steps?.Due.Add(new(DateStepKind.Announced, announced));
                }
            }
            return (due = date).Value;
        }

        // A deadline never silently disappears: beyond the term's end it becomes that.
        private ItemDate Deadline(DateRule rule, List<DateStep>? trail)
        {
            var moment = Moment(rule, trail);
            beyond |= moment.Out != 0 || OutsideTerm(moment.At);
            var late = moment.Out > 0 || (moment.At is { } at && !term.Holds(at) && term.Local(at).Date > term.Term.Last);
            if (late)
                trail?.Add(new(DateStepKind.TermEnd, term.End));
            else if (rule.Anchor is not null && moment.At is null)
                trail?.Add(new(DateStepKind.Unresolved, null));
            return new(late ? term.End : moment.At, rule.Layer, rule.Anchor is not null);
        }

        private AnchorMoment Moment(DateRule rule, List<DateStep>? trail) =>
            rule.Anchor is { } anchor
                ? anchors.Resolve(anchor, item.Lesson?.Ref, item.Unit.Ref, Own(anchor.At), trail)
                : AnchorMoment.Unresolved;

        // A date that leads back to itself is unresolved, and so is every other on that circle.
        private Instant? Own(AnchorBase own) =>
            own switch
            {
                AnchorBase.OwnOpens => resolvingOpens ? null : Opens().At,
                AnchorBase.OwnDue => resolvingDue ? null : Due().At,
                _ => null,
            };

        private readonly bool OutsideTerm(Instant? moment) => moment is { } at && !term.Holds(at);

        private readonly Instant OnClassDay(Instant moment)
        {
            if (term.Term.Calendar.OffDays == OffDays.Stay || term.IsClassDay(moment))
                return moment;
            var local = term.Local(moment);
            return term.Step(local.Date, term.Term.Calendar.OffDays == OffDays.Back ? -1 : 1) is { } date
                ? term.ToInstant(date + local.TimeOfDay)
                : moment;
        }
    }
}
