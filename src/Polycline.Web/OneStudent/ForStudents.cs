using FluentValidation;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Students;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.OneStudent;

/// <summary>What can be different for single students.</summary>
public enum StudentChange
{
    /// <summary>It is not asked of them.</summary>
    Excuse,

    /// <summary>It is due later for them.</summary>
    MoreTime,

    /// <summary>It is open to them at once, whatever its date and its condition say.</summary>
    Open,

    /// <summary>It is not for them.</summary>
    LeaveOut,

    /// <summary>It is for them, whatever group it is for.</summary>
    Add,

    /// <summary>It is for them as it is for everybody.</summary>
    PutBack,
}

/// <param name="Students">1 to 100, each once.</param>
/// <param name="Items">1 to 100, each once.</param>
/// <param name="Days">Of more time: how many days later, 1 to 365; or else <paramref name="Until"/>.</param>
/// <param name="Until">Of more time: the day on which it is due, at its own time of day.</param>
public sealed record ForStudentsRequest(
    IReadOnlyList<Id<Person>> Students,
    IReadOnlyList<Id<Item>> Items,
    StudentChange Change,
    int? Days,
    string? Until
);

/// <summary>Makes something different for some students, or puts it back: excused, more time, opened, left out, added.</summary>
public sealed class ForStudents : IPlanningCommand<EditionPlan, ForStudentsRequest>
{
    private static readonly LocalTime EndOfDay = new(23, 59);

    public static string Name => "for-students";

    public static IValidator<ForStudentsRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, ForStudentsRequest request, Viewpoint viewpoint)
    {
        StudentsHere.Check(plan, request.Students, "students");
        var items = request.Items.Select((id, n) => plan.Item(id) ?? throw Problem.Unknown($"items[{n}]")).ToList();
        var writing = new ExceptionChanges(plan);
        foreach (var student in request.Students)
        {
            var record = StudentStore.WithoutFacts(plan, student);
            foreach (var item in items)
                if (request.Change == StudentChange.PutBack)
                    foreach (var row in plan.People.RowsOf(student).Where(row => row.Item == item.Ref.Name))
                        writing.PutBack(row);
                else
                    writing.Give(Given(plan, record, item, request, viewpoint.At));
        }
        if (writing.Changes.Count == 0)
            return new("left things as they are", []);
        // The history is read by the whole team, who do not all teach these students: it names nobody.
        var who = Counting.Counted(request.Students.Count, "student", "students");
        var what = items.Count == 1 ? $"“{items[0].Title}”" : plan.Edition.Levels.Item.Counted(items.Count);
        var (done, act) = request.Change switch
        {
            StudentChange.Excuse => ($"excused {who} from {what}", "Excuse"),
            StudentChange.MoreTime => ($"gave {who} more time for {what}", "Give more time"),
            StudentChange.Open => ($"opened {what} for {who}", "Open"),
            StudentChange.LeaveOut => ($"left {who} out of {what}", "Leave out"),
            StudentChange.Add => ($"added {what} for {who}", "Add"),
            _ => ($"put {what} back as it was for {who}", "Put back"),
        };
        return new(done, writing.Changes) { Act = act };
    }

    private static ForOneStudent Given(EditionPlan plan, StudentRecord student, Item item, ForStudentsRequest request, Instant now)
    {
        var blank = new ForOneStudent { Student = student.Student, Item = item.Ref };
        return request.Change switch
        {
            StudentChange.Excuse => blank with { Excused = true },
            StudentChange.LeaveOut => blank with { Exclude = true, Include = false },
            StudentChange.Add => blank with { Include = true, Exclude = false },
            StudentChange.MoreTime => Later(blank, plan, DatesOf(plan, student, item, now), item, request),
            _ => Opened(blank, student, item, DatesOf(plan, student, item, now), now),
        };
    }

    // The dates in the section that is theirs now, or that will be.
    private static ItemDates? DatesOf(EditionPlan plan, StudentRecord student, Item item, Instant now)
    {
        var section = student.SectionAt(plan.Term, now) ?? student.Enrolments.Select(place => (Ref<Section>?)place.Section).LastOrDefault();
        return section is { } name && plan.Schedule.Section(name) is var schedule && schedule.Item(item.Ref) is { } here
            ? student.DatesOf(schedule, here)
            : null;
    }

    private static ForOneStudent Later(ForOneStudent blank, EditionPlan plan, ItemDates? dates, Item item, ForStudentsRequest request)
    {
        var zone = plan.Term.Zone;
        if (dates?.Due.At is not { } due && request.Until is null)
            throw Problem.Field("days", $"“{item.Title}” has no due date to move. Say until when they have.");
        var was = dates?.Due.At is { } at ? plan.Term.Local(at) : (LocalDateTime?)null;
        var until = request.Days is { } days
            ? was!.Value.PlusDays(days)
            : StudentsHere.Day(plan, request.Until!, "until").At(was?.TimeOfDay ?? EndOfDay);
        if (until <= was)
            throw Problem.Field("until", $"“{item.Title}” is due {MomentWords.InWords(dates!.Due.At, zone)}: choose a later day.");
        if (until.Date < plan.Term.First || until.Date > plan.Term.Last)
            throw Problem.Field(request.Days is null ? "until" : "days", "That is beyond the term. Choose a day within it.");
        var anchor = Anchor.OnDate(until.Date, until.TimeOfDay);
        // More time that is shut away before it is over would be none.
        var shuts = dates?.Closes.At is { } closes && plan.Term.Local(closes) < until;
        return blank with { Due = new(true, anchor), Closes = shuts ? new(true, anchor) : default };
    }

    private static ForOneStudent Opened(ForOneStudent blank, StudentRecord student, Item item, ItemDates? dates, Instant now)
    {
        var known = student.Exceptions.GetValueOrDefault(item.Ref);
        return blank with
        {
            Unlocked = true,
            Opens = dates is null || dates.Opens.IsUnresolved || dates.Opens.At > now ? new(true, null) : default,
            Closes = dates?.Closes.At <= now ? new(true, null) : default,
            Include = item.For is { } whom && !whom.Includes(student.Student, student.Groups) ? true : null,
            Excused = known?.Excused == true ? false : null,
            Exclude = known?.Exclude == true ? false : null,
        };
    }

    private sealed class Rules : AbstractValidator<ForStudentsRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Students)
                .Must(students => students.Count is > 0 and <= 100 && students.Distinct().Count() == students.Count)
                .WithMessage("Choose from 1 to 100 students, each once.");
            RuleFor(request => request.Items)
                .Must(items => items.Count is > 0 and <= 100 && items.Distinct().Count() == items.Count)
                .WithMessage("Choose from 1 to 100 items, each once.");
            RuleFor(request => request.Days)
                .InclusiveBetween(1, 365)
                .When(request => request is { Change: StudentChange.MoreTime, Days: not null })
                .WithMessage("Extra time can be 1 to 365 days.");
            RuleFor(request => request.Until)
                .Must((request, until) => until is null != request.Days is null)
                .When(request => request.Change == StudentChange.MoreTime)
                .WithMessage("Say how many days more, or until when: one of the two.");
        }
    }
}
