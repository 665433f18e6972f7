using FluentValidation;
using NodaTime.Text;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.OneStudent;

/// <param name="Lines">What is to be done by when.</param>
/// <param name="Leave">What is not asked of them. Together 1 to 300 items, each once.</param>
public sealed record AcceptCatchUpRequest(Id<Person> Student, IReadOnlyList<CatchUpDate> Lines, IReadOnlyList<Id<Item>> Leave);

/// <param name="Date">Local, within the term.</param>
/// <param name="Time">Local, <c>09:40</c>.</param>
public sealed record CatchUpDate(Id<Item> Item, string Date, string Time);

/// <summary>Agrees with a student who joined late on what they catch up on, and by when. Source: the computation, chapter 11.</summary>
public sealed class AcceptCatchUp : IPlanningCommand<EditionPlan, AcceptCatchUpRequest>
{
    private static readonly LocalTimePattern Time = LocalTimePattern.CreateWithInvariantCulture("HH:mm");

    public static string Name => "accept-catch-up";

    public static IValidator<AcceptCatchUpRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, AcceptCatchUpRequest request, Viewpoint viewpoint)
    {
        StudentsHere.Check(plan, request.Student, "student");
        var writing = new ExceptionChanges(plan);
        foreach (var (n, line) in request.Lines.Index())
        {
            var item = plan.Item(line.Item) ?? throw Problem.Unknown($"lines[{n}].item");
            var date = StudentsHere.Day(plan, line.Date, $"lines[{n}].date");
            if (Time.Parse(line.Time) is not { Success: true, Value: var time })
                throw Problem.Field($"lines[{n}].time", "That is not a time of day. Write one such as 09:40.");
            writing.Give(
                new()
                {
                    Student = request.Student.InPlan(),
                    Item = item.Ref,
                    Due = new(true, Anchor.OnDate(date, time)),
                }
            );
        }
        foreach (var (n, left) in request.Leave.Index())
            writing.Give(
                new()
                {
                    Student = request.Student.InPlan(),
                    Item = (plan.Item(left) ?? throw Problem.Unknown($"leave[{n}]")).Ref,
                    Excused = true,
                }
            );
        var items = plan.Edition.Levels.Item;
        List<string> parts = [];
        if (request.Lines.Count > 0)
            parts.Add($"new dates for {items.Counted(request.Lines.Count)}");
        if (request.Leave.Count > 0)
            parts.Add($"leaving out {items.Counted(request.Leave.Count)}");
        return writing.Changes.Count == 0
            ? new("left a catch-up as it is", [])
            : new($"agreed on a catch-up with 1 student: {Counting.Joined(parts, "and")}", writing.Changes)
            {
                Act = "Agree on the catch-up",
            };
    }

    private sealed class Rules : AbstractValidator<AcceptCatchUpRequest>
    {
        public Rules() =>
            RuleFor(request => request)
                .Must(request =>
                    request.Lines.Count + request.Leave.Count is > 0 and <= 300
                    && request.Lines.Select(line => line.Item).Concat(request.Leave).Distinct().Count()
                        == request.Lines.Count + request.Leave.Count
                )
                .WithName("lines")
                .WithMessage("Choose from 1 to 300 items, each once.");
    }
}
