using FluentValidation;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.OneStudent;

/// <param name="Students">1 to 100, each once.</param>
/// <param name="Last">Their last day in the section, within the term.</param>
public sealed record LeaveSectionRequest(Id<Section> Section, IReadOnlyList<Id<Person>> Students, string Last);

/// <summary>Students leave a section after a day. Their work stays, and their teachers can read it.</summary>
public sealed class LeaveSection : IPlanningCommand<EditionPlan, LeaveSectionRequest>
{
    public static string Name => "leave-section";

    public static IValidator<LeaveSectionRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, LeaveSectionRequest request, Viewpoint viewpoint)
    {
        var section = StudentsHere.Section(plan, request.Section, "section");
        var last = StudentsHere.Day(plan, request.Last, "last");
        var changes = new List<Change>();
        var leaving = 0;
        for (var n = 0; n < request.Students.Count; n++)
        {
            var places = section.Listed.Where(place => place.Person == request.Students[n]).ToList();
            if (places.Count == 0)
                throw Problem.Unknown($"students[{n}]");
            var ended = places
                .Where(place => place.To is null || place.To > last)
                .Select(place => Places.End(section.Id, place, last))
                .ToList();
            changes.AddRange(ended);
            leaving += ended.Count > 0 ? 1 : 0;
        }
        var who = Counting.Counted(leaving, "student", "students");
        return changes.Count == 0
            ? new($"left {section.Name} as it is", [])
            : new($"had {who} leave {section.Name}", changes) { Act = $"Have {who} leave {section.Name}" };
    }

    private sealed class Rules : AbstractValidator<LeaveSectionRequest>
    {
        public Rules() =>
            RuleFor(request => request.Students)
                .Must(students => students.Count is > 0 and <= 100 && students.Distinct().Count() == students.Count)
                .WithMessage("Choose from 1 to 100 students, each once.");
    }
}

/// <summary>Places in a section, as they are cut short or go.</summary>
internal static class Places
{
    /// <summary>The place ends with a day, or goes where it would only begin later.</summary>
    public static Change End(Id<Section> section, ListedStudent place, LocalDate last) =>
        place.From > last
            ? Remove(section, place)
            : Change.Set(
                Tables.Places.Table,
                place.Place,
                place.Version,
                Tables.Places.Period.Turns((place.From, place.To), (place.From, last))
            );

    public static Change Remove(Id<Section> section, ListedStudent place) =>
        Change.Delete(
            Tables.Places.Table,
            place.Place,
            place.Version,
            Tables.Places.Section.Is(section),
            Tables.Places.Person.Is(place.Person),
            Tables.Places.Period.Is((place.From, place.To))
        );
}
