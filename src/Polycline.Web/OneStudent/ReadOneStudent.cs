using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Enrolling;
using Polycline.Core.PlanFiles;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.People;
using Polycline.Data.Students;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.OneStudent;

/// <summary>One student of a course, for those who teach them.</summary>
public sealed record OneStudentAnswer
{
    public required Id<Person> Student { get; init; }

    public required string Name { get; init; }

    public required bool CanChange { get; init; }

    /// <summary>The term's days; today may lie outside them.</summary>
    public required TermSpan Term { get; init; }

    /// <summary>In which sections they are or were.</summary>
    public required IReadOnlyList<StudentPlace> Places { get; init; }

    /// <summary>Two of them list the student after today, and nobody has said which decides.</summary>
    public required bool NeedsHome { get; init; }

    /// <summary>Those that they can move to.</summary>
    public required IReadOnlyList<SectionChoice> Sections { get; init; }

    /// <summary>Null: nothing was agreed.</summary>
    public required AgreedTime? Agreed { get; init; }

    /// <summary>How many items a catch-up would ask for.</summary>
    public required int CatchUp { get; init; }

    /// <summary>In reading order, those that are for them or that they have begun or that were made different for them.</summary>
    public required IReadOnlyList<StudentItem> Items { get; init; }
}

public sealed record TermSpan(string First, string Last, string Today);

public sealed record SectionChoice(Id<Section> Id, string Name, string Letter);

/// <param name="From">Null: from the beginning.</param>
/// <param name="To">Null: for good.</param>
/// <param name="IsNow">The section that decides for them now.</param>
public sealed record StudentPlace(Id<Section> Section, string Name, string Letter, string? From, string? To, bool IsHome, bool IsNow);

/// <param name="Reason">For the team only.</param>
public sealed record AgreedTime(int? DueDays, int? QuizTime, string Reason, long Version);

public sealed record StudentItem
{
    public required Id<Item> Id { get; init; }

    public required string Code { get; init; }

    public required string Title { get; init; }

    public required string Unit { get; init; }

    /// <summary>How it stands for them: one of the states, and then whether it is done.</summary>
    public required string State { get; init; }

    public required bool Done { get; init; }

    /// <summary>Why, in a sentence.</summary>
    public required string Why { get; init; }

    public required Moment? Due { get; init; }

    /// <summary>What is different for them, a piece each: <c>excused</c>, <c>due Thu 12 Nov, 10:40</c>; none: nothing is.</summary>
    public required IReadOnlyList<string> Differs { get; init; }
}

/// <summary>Reads what is known of one student in a course.</summary>
public static class ReadOneStudent
{
    public static async Task<OneStudentAnswer> Handle(
        long edition,
        long student,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("One student");
        var plan = await compiled.Edition(access);
        var (name, record) = await Known(database, plan, access, new(student), viewpoint.At, stop);
        return Of(plan, name, record, plan.State != EditionState.Resting && viewpoint.TakesCommands, viewpoint.At);
    }

    /// <summary>A student whom the viewer teaches, or leads the course of, and what is known of them at a moment.</summary>
    /// <exception cref="ProblemException">There is none.</exception>
    internal static async Task<(string Name, StudentRecord Record)> Known(
        Database database,
        EditionPlan plan,
        Access access,
        Id<Person> student,
        Instant at,
        CancellationToken stop
    ) =>
        await database.Read(
            async connection =>
            {
                var rows = await AccessStore.StudentsOf(connection, plan.Id, access.Person.Id, access.IsLead);
                var name = rows.FirstOrDefault(row => row.Student == student)?.Name ?? throw Problem.Unknown();
                return (name, (await StudentStore.Read(connection, plan, [student], at)).Records[student]);
            },
            stop
        );

    private static OneStudentAnswer Of(EditionPlan plan, string name, StudentRecord student, bool canChange, Instant at)
    {
        var person = PlanIds.IdOf(student.Student);
        var now = student.SectionAt(plan.Term, at);
        var today = plan.Term.Local(at).Date;
        var home = plan.People.HomeOf(person)?.Section;
        return new()
        {
            Student = person,
            Name = name,
            CanChange = canChange,
            Term = new(StudentsHere.Iso(plan.Term.First)!, StudentsHere.Iso(plan.Term.Last)!, StudentsHere.Iso(today)!),
            Places =
            [
                .. plan.Sections.SelectMany(section =>
                    section
                        .Listed.Where(place => place.Person == person)
                        .Select(place => new StudentPlace(
                            section.Id,
                            section.Name,
                            section.Letter,
                            StudentsHere.Iso(place.From),
                            StudentsHere.Iso(place.To),
                            section.Id == home,
                            section.Id.InPlan() == now && place.Holds(today)
                        ))
                ),
            ],
            NeedsHome =
                home is null
                && student.Enrolments.Any(one =>
                    student.Enrolments.Any(other =>
                        one.Section != other.Section
                        && one.Enrolment.Meets(other.Enrolment)
                        && !(one.Enrolment.To <= today)
                        && !(other.Enrolment.To <= today)
                    )
                ),
            Sections = [.. plan.Counted.Sections.Select(section => new SectionChoice(section.Id, section.Name, section.Letter))],
            Agreed = plan.People.ArrangementOf(person) is { } row ? new(row.DueDays, row.QuizTime, row.Reason, row.Version) : null,
            CatchUp = CatchUp.Of(plan.Schedule, student, at, 1, []) is var catchUp
                ? catchUp.Lines.Length + catchUp.Stuck.Length + catchUp.Unplaced.Length
                : 0,
            Items = [.. ItemsOf(plan, name, student, at)],
        };
    }

    private static IEnumerable<StudentItem> ItemsOf(EditionPlan plan, string name, StudentRecord student, Instant at)
    {
        var explained = new Explain(plan.Schedule, student);
        var words = new DecisionWords(plan.Schedule, new(plan.Schedule));
        var person = PlanIds.IdOf(student.Student);
        var differs = plan.People.RowsOf(person).ToLookup(row => row.Item);
        foreach (var (unit, items) in plan.ItemsByUnit())
        foreach (var row in items)
        {
            Ref<Item> item = new(row.Lineage);
            var decision = explained.Decide(item, at);
            if (decision.State is ReleaseState.NotAssigned or ReleaseState.NotEnrolled && !differs.Contains(row.Lineage))
                continue;
            yield return new()
            {
                Id = new(row.Id),
                Code = plan.Schedule.CodeOf[item],
                Title = plan.Schedule.Item(item).Title,
                Unit = plan.UnitOf(unit).Title,
                State = EnumNames.Of(decision.State),
                Done = student.Facts.IsDone(plan.Schedule.Item(item), at),
                Why = words.ForTeam(decision, item, at, name).Sentence,
                Due = Moment.Of(decision.Dates?.Due.At, plan.Term.Zone),
                // Of a field that was agreed on and then given by a move, what the move gave stands.
                Differs = [.. differs[row.Lineage].GroupBy(field => field.Field).Select(field => InWords(plan, field.Last()))],
            };
        }
    }

    private static string InWords(EditionPlan plan, ExceptionRow row) =>
        (row.Field, row.Value) switch
        {
            ("excused", "true") => "excused",
            ("include", "true") => "added",
            ("exclude", "true") => "left out",
            ("unlocked", "true") => "opened for them",
            ("opens", null) => "opens at once",
            ("due", null) => "no due date",
            ("closes", null) => "does not close",
            ("opens", { } value) => $"opens {On(plan, value)}",
            ("due", { } value) => $"due {On(plan, value)}",
            ("closes", { } value) => $"closes {On(plan, value)}",
            ("excused", _) => "not excused",
            ("unlocked", _) => "not opened",
            _ => "as everybody has it",
        };

    private static string On(EditionPlan plan, string anchor) =>
        PlanParts.Anchor(anchor) is { Date: { } date, Time: { } time }
            ? MomentWords.InWords(plan.Schedule.Term.ToInstant(date + time), plan.Term.Zone)!
            : "at a moment of its own";
}
