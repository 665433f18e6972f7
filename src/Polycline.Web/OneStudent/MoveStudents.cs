using FluentValidation;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Enrolling;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.Students;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.OneStudent;

/// <param name="Students">1 to 40, each once.</param>
/// <param name="On">The first day in the new section, within the term.</param>
/// <param name="Choices">For what is already due there; what is left out gets a new due date.</param>
public sealed record MoveStudentsRequest(
    IReadOnlyList<Id<Person>> Students,
    Id<Section> From,
    Id<Section> To,
    string On,
    IReadOnlyList<MovedChoice> Choices
);

/// <param name="Student">One of those who move.</param>
public sealed record MovedChoice(Id<Person> Student, Id<Item> Item, MoveChoice Choice);

/// <summary>
/// Students move to another section on a day. What they did stays theirs, what was open to them stays open, and what is
/// already due there is settled. Back again on the same day, it is undone. Source: the computation, chapter 11.
/// </summary>
public sealed class MoveStudents : IPlanningCommand<EditionPlan, IReadOnlyDictionary<Id<Person>, StudentRecord>, MoveStudentsRequest>
{
    public static string Name => "move-students";

    public static IValidator<MoveStudentsRequest> Validator { get; } = new Rules();

    public static Task<IReadOnlyDictionary<Id<Person>, StudentRecord>> Read(
        NpgsqlConnection connection,
        EditionPlan plan,
        MoveStudentsRequest request
    ) => Records(connection, plan, request.Students);

    /// <summary>All that is known of some students, however late it was recorded.</summary>
    internal static async Task<IReadOnlyDictionary<Id<Person>, StudentRecord>> Records(
        NpgsqlConnection connection,
        EditionPlan plan,
        IReadOnlyList<Id<Person>> students
    ) => (await StudentStore.Read(connection, plan, students, Bounds.Latest)).Records;

    public static CommandDecision Decide(
        EditionPlan plan,
        IReadOnlyDictionary<Id<Person>, StudentRecord> records,
        MoveStudentsRequest request,
        Viewpoint viewpoint
    )
    {
        StudentsHere.Check(plan, request.Students, "students");
        var on = StudentsHere.Day(plan, request.On, "on");
        foreach (var (n, choice) in request.Choices.Index())
            if (!request.Students.Contains(choice.Student))
                throw Problem.Unknown($"choices[{n}].student");
            else if (plan.Item(choice.Item) is null)
                throw Problem.Unknown($"choices[{n}].item");
        var writing = new ExceptionChanges(plan);
        var places = new List<Change>();
        foreach (var (n, student) in request.Students.Index())
        {
            var choices = request
                .Choices.Where(choice => choice.Student == student)
                .ToDictionary(choice => plan.Item(choice.Item)!.Ref, choice => choice.Choice);
            var move = Of(plan, records[student], request.From, request.To, on, choices, viewpoint.At, $"students[{n}]");
            places.AddRange(PlacesOf(plan, student, request, on, move.IsBack));
            foreach (var exception in move.Exceptions)
                writing.Give(exception);
            if (move.IsBack)
                foreach (var row in plan.People.RowsOf(student).Where(row => IsOf(row, request, on)))
                    writing.PutBack(row);
        }
        var to = plan.Following(request.To)!.Name;
        var who = Counting.Counted(request.Students.Count, "student", "students");
        return new($"moved {who} from {plan.Following(request.From)!.Name} to {to}", [.. places, .. writing.Changes])
        {
            Act = $"Move {who} to {to}",
        };
    }

    // What the move gave that is now undone: from where they go to, to where they are.
    private static bool IsOf(ExceptionRow row, MoveStudentsRequest request, LocalDate on) =>
        row.Move.Length > 0 && MoveText.Read(row.Move) == new MoveMark(request.To.InPlan(), request.From.InPlan(), on);

    /// <summary>What a move would come to for one student.</summary>
    /// <param name="field">Where the student is named.</param>
    /// <exception cref="ProblemException">They are not in the one section then, or in the other already.</exception>
    internal static SectionMove Of(
        EditionPlan plan,
        StudentRecord student,
        Id<Section> fromSection,
        Id<Section> toSection,
        LocalDate on,
        IReadOnlyDictionary<Ref<Item>, MoveChoice> choices,
        Instant now,
        string field
    )
    {
        var from = StudentsHere.Section(plan, fromSection, "from");
        var to = StudentsHere.Section(plan, toSection, "to");
        StudentsHere.IsTaught(to, on, "to");
        var person = PlanIds.IdOf(student.Student);
        if (from.Id == to.Id)
            throw Problem.Field("to", $"They are in {from.Name} already. Choose another section.");
        var people = StudentStore.PlanOf(plan, student);
        var mark = new MoveMark(from.Id.InPlan(), to.Id.InPlan(), on);
        if (!SectionMove.IsGoingBack(people, student.Student, mark))
        {
            if (!from.Listed.Any(place => place.Person == person && (place.Holds(on) || place.Holds(on.PlusDays(-1)))))
                throw Problem.Field(field, $"{from.Name} does not list this student then. Choose another day or another section.");
            if (to.Listed.Any(place => place.Person == person && (place.To is null || place.To >= on)))
                throw Problem.Field(
                    "to",
                    $"{to.Name} lists this student already. End one of the two places, or choose the home section instead."
                );
        }
        // On the day itself, what was done until now counts.
        var at = plan.Term.Local(now).Date == on ? now : (Instant?)null;
        return SectionMove.Of(plan.Schedule, people, student.Student, mark, at, choices);
    }

    private static IEnumerable<Change> PlacesOf(
        EditionPlan plan,
        Id<Person> student,
        MoveStudentsRequest request,
        LocalDate on,
        bool isBack
    )
    {
        var (from, to) = (plan.Following(request.From)!, plan.Following(request.To)!);
        var before = on.PlusDays(-1);
        if (isBack)
        {
            var moved = from.Listed.First(place => place.Person == student && place.From == on);
            var cut = to.Listed.First(place => place.Person == student && place.To == before);
            yield return Places.Remove(from.Id, moved);
            yield return Change.Set(
                Tables.Places.Table,
                cut.Place,
                cut.Version,
                Tables.Places.Period.Turns((cut.From, cut.To), (cut.From, moved.To))
            );
            yield break;
        }
        var reaching = from.Listed.Where(place => place.Person == student && (place.To is null || place.To >= before)).ToList();
        foreach (var place in reaching.Where(place => place.To is null || place.To > before))
            yield return Places.End(from.Id, place, before);
        // Whoever was to stay beyond the last day of a section that ended stays in the other.
        var last = reaching.Any(place => place.To is null || place.To == from.EndedOn) ? null : reaching.Max(place => place.To);
        yield return Change.Add(
            Tables.Places.Section.Is(to.Id),
            Tables.Places.Person.Is(student),
            Tables.Places.Period.Is((on, last < on ? null : last))
        );
        if (plan.People.HomeOf(student) is { } home && home.Section == from.Id)
            yield return Change.Delete(
                home.Version,
                Tables.Homes.Edition.Is(plan.Id),
                Tables.Homes.Person.Is(student),
                Tables.Homes.Section.Is(from.Id)
            );
    }

    private sealed class Rules : AbstractValidator<MoveStudentsRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Students)
                .Must(students => students.Count is > 0 and <= 40 && students.Distinct().Count() == students.Count)
                .WithMessage("Choose from 1 to 40 students, each once.");
            RuleFor(request => request.Choices)
                .Must(choices => choices.Count <= 2000 && choices.DistinctBy(one => (one.Student, one.Item)).Count() == choices.Count)
                .WithMessage("Make one choice for each item.");
        }
    }
}
