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
    public static ItemDates Of(CourseItem item, AnchorResolver anchors, TermDays term) => new Resolution(item, anchors, term).Dates();

    private struct Resolution(CourseItem item, AnchorResolver anchors, TermDays term)
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
            return new(opening, falling, Deadline(item.Closes), beyond, earlier);
        }

        private ItemDate Opens()
        {
            if (opens is { } known)
                return known;
            if (item.Opened is { } record && item.Opens.Layer != Layer.Student)
                return (opens = new(record.At, Layer.Opened, true)).Value;
            resolvingOpens = true;
            var moment = Moment(item.Opens);
            resolvingOpens = false;
            beyond |= moment.Out != 0 || OutsideTerm(moment.At);
            return (opens = new(moment.At, item.Opens.Layer, item.Opens.Anchor is not null)).Value;
        }

        private ItemDate Due()
        {
            if (due is { } known)
                return known;
            resolvingDue = true;
            var date = Deadline(item.Due);
            resolvingDue = false;
            if (date is { At: { } at, Layer: Layer.Master })
            {
                date = date with { At = OnClassDay(at) };
                if (item.Opened?.Due is { } announced && date.At < announced)
                {
                    earlier = true;
                    date = date with { At = announced, Layer = Layer.Opened };
                }
            }
            return (due = date).Value;
        }

        // A deadline never silently disappears: beyond the term's end it becomes that.
        private ItemDate Deadline(DateRule rule)
        {
            var moment = Moment(rule);
            beyond |= moment.Out != 0 || OutsideTerm(moment.At);
            var late = moment.Out > 0 || (moment.At is { } at && !term.Holds(at) && term.Local(at).Date > term.Term.Last);
            return new(late ? term.End : moment.At, rule.Layer, rule.Anchor is not null);
        }

        private AnchorMoment Moment(DateRule rule) =>
            rule.Anchor is { } anchor ? anchors.Resolve(anchor, item.Lesson?.Ref, item.Unit.Ref, Own(anchor.At)) : AnchorMoment.Unresolved;

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
