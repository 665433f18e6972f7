using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Sections;

namespace Polycline.Core.Release;

/// <summary>What is known of one student of a course.</summary>
/// <param name="Home">The section that decides where several list them; null: the first.</param>
/// <param name="Enrolments">By section, in the order of the plan.</param>
/// <param name="Exceptions">By item, of a field given twice the later.</param>
public sealed record StudentRecord(
    Ref<Student> Student,
    IReadOnlySet<string> Groups,
    Ref<Section>? Home,
    ImmutableArray<(Ref<Section> Section, Enrolment Enrolment)> Enrolments,
    IReadOnlyDictionary<Ref<Item>, ForOneStudent> Exceptions,
    FactBook Facts
)
{
    /// <summary>More time that was agreed for everything; null: none.</summary>
    public Arrangement? Always { get; init; }

    /// <summary>
    /// The student's section at a moment: of those that list them for its local date the home section, else the first. Source: chapter 5.
    /// </summary>
    public Ref<Section>? SectionAt(Term term, Instant at) => SectionOn(term.Local(at).Date);

    /// <summary>
    /// The days around one on which the student's section stays the same: the first and the last of them; null: without end.
    /// </summary>
    public (LocalDate? From, LocalDate? To) Stay(LocalDate date)
    {
        var section = SectionOn(date);
        // It changes where an entry begins, or on the day after one ends.
        var days = Enrolments
            .SelectMany(pair => new[] { pair.Enrolment.From, pair.Enrolment.To?.PlusDays(1) })
            .OfType<LocalDate>()
            .Distinct()
            .Order()
            .ToList();
        var from = days.Where(day => day <= date)
            .Reverse()
            .Select(day => (LocalDate?)day)
            .FirstOrDefault(day => SectionOn(day!.Value.PlusDays(-1)) != section);
        var next = days.Where(day => day > date).Select(day => (LocalDate?)day).FirstOrDefault(day => SectionOn(day!.Value) != section);
        return (from, next?.PlusDays(-1));
    }

    private Ref<Section>? SectionOn(LocalDate date)
    {
        Ref<Section>? first = null;
        foreach (var (section, enrolment) in Enrolments)
        {
            if (!enrolment.Holds(date))
                continue;
            if (section == Home)
                return section;
            first ??= section;
        }
        return first;
    }

    /// <summary>
    /// What was due on this date or before it is never overdue: nobody can be ready on the day they join; null: there is none.
    /// </summary>
    public LocalDate? JoinedOn =>
        Enrolments.Any(pair => pair.Enrolment.From is null) || Enrolments.IsEmpty ? null : Enrolments.Min(pair => pair.Enrolment.From);

    /// <summary>
    /// Whether an item of a section is for the student at all. What is not is so at every moment. Source: chapter 5, <i>Not for this
    /// student</i>.
    /// </summary>
    public bool IsFor(CourseItem here) =>
        !here.Skipped
        && Exceptions.GetValueOrDefault(here.Ref) is var exception
        && exception is not { Exclude: true } and not { Excused: true }
        && (exception is { Include: true } || here.For?.Includes(Student, Groups) != false);

    /// <summary>The same of an item by its name; one that another section added is not.</summary>
    public bool IsFor(SectionSchedule schedule, Ref<Item> item) => schedule.Item(item) is { Item: var here } && IsFor(here);

    /// <summary>An item's dates at the student's layer; null: it has none, being skipped.</summary>
    public ItemDates? DatesOf(SectionSchedule schedule, ScheduledItem item)
    {
        var here = item.Item;
        return here.Skipped || (!Exceptions.ContainsKey(here.Ref) && Always is not { DueDays: > 0 }) ? item.Dates : Dates(schedule, here);
    }

    /// <summary>The dates that an item's rules come to at the student's layer.</summary>
    /// <param name="steps">Where given, it is filled with how each came about.</param>
    public ItemDates Dates(SectionSchedule schedule, CourseItem here, DateSteps? steps = null)
    {
        var exception = Exceptions.GetValueOrDefault(here.Ref);
        var own = here with
        {
            Opens = here.Opens.Under(exception?.Opens ?? default, Layer.Student),
            Due = here.Due.Under(exception?.Due ?? default, Layer.Student),
            Closes = here.Closes.Under(exception?.Closes ?? default, Layer.Student),
        };
        return ItemDates.Of(own, schedule.Anchors, schedule.Term, Always?.DueDays ?? 0, steps);
    }

    /// <summary>The record of a student in a plan.</summary>
    public static StudentRecord Of(Plan plan, Ref<Student> student) =>
        new(
            student,
            plan.Groups.Where(group => group.Value.Contains(student)).Select(group => group.Key).ToHashSet(StringComparer.Ordinal),
            plan.Home.TryGetValue(student, out var home) ? home : null,
            [
                .. plan.Sections.SelectMany(section =>
                    section.Students.Where(enrolment => enrolment.Student == student).Select(enrolment => (section.Ref, enrolment))
                ),
            ],
            Merged(plan.Exceptions.Where(exception => exception.Student == student)),
            new(plan.Facts.Where(fact => fact.Student == student))
        )
        {
            Always = plan
                .Arrangements.Where(arrangement => arrangement.Student == student)
                .Aggregate((Arrangement?)null, (earlier, later) => later.Over(earlier)),
        };

    /// <summary>The record as it was at a moment: whatever happened later is left out.</summary>
    public StudentRecord Until(Instant at) => this with { Facts = new(Facts.All.Where(fact => fact.At <= at)) };

    /// <summary>Exceptions by item; of a field given twice the later stands.</summary>
    public static IReadOnlyDictionary<Ref<Item>, ForOneStudent> Merged(IEnumerable<ForOneStudent> exceptions)
    {
        var merged = new Dictionary<Ref<Item>, ForOneStudent>();
        foreach (var exception in exceptions)
            merged[exception.Item] = exception.Over(merged.GetValueOrDefault(exception.Item));
        return merged;
    }
}
