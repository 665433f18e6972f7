using FluentValidation;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Web.OneStudent;

/// <param name="DueDays">So many days later everything is due for them, 0 to 365; null: no more days.</param>
/// <param name="QuizTime">So many percent more time for a quiz, 0 to 400; null: no more time.</param>
/// <param name="Reason">For the team only, up to 500 characters.</param>
/// <param name="Version">Of what was agreed when it was read; 0: nothing was.</param>
public sealed record ArrangeRequest(Id<Person> Student, int? DueDays, int? QuizTime, string Reason, long Version);

/// <summary>Agrees on more time for everything with a student, or ends that.</summary>
public sealed class Arrange : IPlanningCommand<EditionPlan, ArrangeRequest>
{
    public static string Name => "arrange";

    public static IValidator<ArrangeRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, ArrangeRequest request, Viewpoint viewpoint)
    {
        StudentsHere.Check(plan, request.Student, "student");
        var present = plan.People.ArrangementOf(request.Student);
        Cell[] key = [Tables.Arrangements.Edition.Is(plan.Id), Tables.Arrangements.Person.Is(request.Student)];
        var wanted = request.DueDays is not null || request.QuizTime is not null;
        Cell[] values =
        [
            Tables.Arrangements.DueDays.Is(request.DueDays),
            Tables.Arrangements.QuizTime.Is(request.QuizTime),
            Tables.Arrangements.Reason.Is(request.Reason.Trim()),
        ];
        var change = (present, wanted) switch
        {
            (null, false) => null,
            (null, true) => Change.Add([.. key, .. values]),
            (var row, false) => Change.Delete(
                request.Version,
                [
                    .. key,
                    Tables.Arrangements.DueDays.Is(row.DueDays),
                    Tables.Arrangements.QuizTime.Is(row.QuizTime),
                    Tables.Arrangements.Reason.Is(row.Reason),
                ]
            ),
            var (row, _) => Change.Set(
                key,
                request.Version,
                Tables.Arrangements.DueDays.Turns(row.DueDays, request.DueDays),
                Tables.Arrangements.QuizTime.Turns(row.QuizTime, request.QuizTime),
                Tables.Arrangements.Reason.Turns(row.Reason, request.Reason.Trim())
            ),
        };
        if (change is null || change is { Before.Count: 0, After.Count: 0 })
            return new("left an arrangement as it is", []);
        return wanted
            ? new("agreed on more time with 1 student", [change]) { Act = "Agree on it" }
            : new("ended what was agreed with 1 student", [change]) { Act = "End it" };
    }

    private sealed class Rules : AbstractValidator<ArrangeRequest>
    {
        public Rules()
        {
            RuleFor(request => request.DueDays).InclusiveBetween(0, 365).WithMessage("Extra days can be 0 to 365.");
            RuleFor(request => request.QuizTime).InclusiveBetween(0, 400).WithMessage("Extra time for quizzes can be 0 to 400 percent.");
            RuleFor(request => request.Reason).MaximumLength(500).WithMessage("A reason has up to 500 characters.");
        }
    }
}
