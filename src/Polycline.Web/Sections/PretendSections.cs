using System.Text.Json;
using System.Text.Json.Nodes;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Calendar;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline;

namespace Polycline.Web.Sections;

/// <param name="Name">1 to 200 characters; no other section of the course has it.</param>
/// <param name="Slots">When it would meet, in the plan file's form: 1 to 60.</param>
public sealed record MakePretendSectionRequest(string Name, JsonElement Slots);

/// <summary>Makes a section in which there is nobody, to try a course on its timetable. It counts nowhere.</summary>
public sealed class MakePretendSection : IPlanningCommand<EditionPlan, MakePretendSectionRequest>
{
    private const int Most = 3;

    public static string Name => "make-pretend-section";

    public static IValidator<MakePretendSectionRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, MakePretendSectionRequest request, Viewpoint viewpoint)
    {
        var name = request.Name.Trim();
        if (plan.Sections.Any(section => string.Equals(section.Name, name, StringComparison.OrdinalIgnoreCase)))
            throw Problem.Field("name", $"This course has a section {name} already. Choose another name.");
        if (plan.Sections.Count(section => section.Pretend is not null) >= Most)
            throw Problem.Field("name", $"A course has at most {Most} pretend sections. Remove one first.");
        SlotForm.Read(request.Slots, plan.Term, "slots");
        return new(
            $"made {name}, a pretend section",
            [
                Change.Add(
                    Tables.Sections.Name.Is(name),
                    Tables.Sections.Letter.Is(SectionLetters.Free([.. plan.Sections.Select(section => section.Letter)])),
                    Tables.Sections.Term.Is(plan.TermId),
                    Tables.Sections.Edition.Is(plan.Id),
                    Tables.Sections.Slots.Is(JsonNode.Parse(request.Slots.GetRawText())),
                    Tables.Sections.Pretend.Is(new JsonArray())
                ),
            ]
        )
        {
            Told = PretendReach.Of(name, null, "tried in"),
        };
    }

    private sealed class Rules : AbstractValidator<MakePretendSectionRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Name).IsTitle();
            RuleFor(request => request.Slots).IsTimetable();
            RuleFor(request => request.Slots)
                .Must(slots => slots.ValueKind != JsonValueKind.Array || slots.GetArrayLength() > 0)
                .WithMessage("Say when it would meet: nothing can be tried without classes.");
        }
    }
}

/// <param name="Students">All who are made up in the section from now on, at most 12.</param>
/// <param name="Version">The version of the section that was read.</param>
public sealed record MakeUpStudentsRequest(Id<Section> Section, IReadOnlyList<MadeUpStudent> Students, long Version);

/// <param name="Name">1 to 60 characters, unlike any other's in the section.</param>
/// <param name="Facts">What is made out to have happened, as it stands in an address: <c>12.score.65~14.given-back</c>.</param>
public sealed record MadeUpStudent(string Name, string Facts);

/// <summary>Says who is made up in a pretend section, and what each of them has done.</summary>
public sealed class MakeUpStudents : IPlanningCommand<EditionPlan, MakeUpStudentsRequest>
{
    private const int Most = 12;

    public static string Name => "make-up-students";

    public static IValidator<MakeUpStudentsRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, MakeUpStudentsRequest request, Viewpoint viewpoint)
    {
        if (plan.Following(request.Section) is not { Pretend: { } known } section)
            throw Problem.Unknown("section");
        for (var n = 0; n < request.Students.Count; n++)
            foreach (var fact in Pretended.Read(request.Students[n].Facts) ?? throw Problem.Unknown($"students[{n}].facts"))
                if (plan.Item(fact.Item) is null)
                    throw Problem.Unknown($"students[{n}].facts");
        var students = request.Students.Select(student => new PretendStudent(student.Name.Trim(), student.Facts)).ToList();
        var turn = Tables.Sections.Pretend.Turns(PretendStudent.Json(known), PretendStudent.Json(students));
        if (!turn.Changes)
            return new($"left {section.Name} as it is", []);
        var (added, gone) = (
            students.Where(one => known.All(other => other.Name != one.Name)).Select(one => one.Name).ToList(),
            known.Where(one => students.All(other => other.Name != one.Name)).Select(one => one.Name).ToList()
        );
        var said =
            added.Count > 0 ? $"made up {Counting.Joined(added, "and")} in {section.Name}"
            : gone.Count > 0 ? $"took {Counting.Joined(gone, "and")} out of {section.Name}"
            : $"changed who is made up in {section.Name}";
        return new(said, [Change.Set(Tables.Sections.Table, section.Id, request.Version, turn)])
        {
            Told = PretendReach.Of(section.Name, Named(known), Named(students)),
        };
    }

    private static string Named(IReadOnlyList<PretendStudent> students) =>
        students.Count == 0 ? "nobody" : Counting.Joined([.. students.Select(one => one.Name)], "and");

    private sealed class Rules : AbstractValidator<MakeUpStudentsRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Students)
                .Must(students => students.Count <= Most)
                .WithMessage($"At most {Most} students can be made up in a section. Remove one first.");
            RuleFor(request => request.Students)
                .Must(students => students.DistinctBy(one => one.Name.Trim(), StringComparer.OrdinalIgnoreCase).Count() == students.Count)
                .WithMessage("Somebody is made up by that name already. Choose another name.");
            RuleForEach(request => request.Students)
                .ChildRules(student =>
                {
                    student
                        .RuleFor(one => one.Name)
                        .Must(name => name.Trim().Length is > 0 and <= 60 && !name.Any(char.IsControl))
                        .WithMessage("A name has from 1 to 60 characters.");
                    student
                        .RuleFor(one => one.Facts)
                        .MaximumLength(2_000)
                        .WithMessage("That is too much for one student. Remove something first.");
                });
        }
    }
}

/// <param name="Version">The version of the section that was read.</param>
public sealed record RemovePretendSectionRequest(Id<Section> Section, long Version);

/// <summary>Removes a pretend section from the course, with what was tried in it.</summary>
public sealed class RemovePretendSection : IPlanningCommand<EditionPlan, RemovePretendSectionRequest>
{
    public static string Name => "remove-pretend-section";

    public static CommandDecision Decide(EditionPlan plan, RemovePretendSectionRequest request, Viewpoint viewpoint) =>
        plan.Following(request.Section) is { Pretend: not null } section
            ? new(
                $"removed {section.Name}, a pretend section",
                [Change.Set(Tables.Sections.Table, section.Id, request.Version, Tables.Sections.Edition.Turns(plan.Id, null))]
            )
            {
                Told = PretendReach.Of(section.Name, "tried in", null),
            }
            : throw Problem.Unknown("section");
}

/// <summary>What a change of a pretend section does: nothing to anyone.</summary>
internal static class PretendReach
{
    public static Reach Of(string section, string? before, string? after) =>
        Reach.Nothing with
        {
            Rows = [new ReachRow("pretend section", section, section, "pretend", before, after)],
        };
}
