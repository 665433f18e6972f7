using FluentValidation;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Groups;

/// <param name="Members">1 to 500, each once.</param>
public sealed record PutInGroupRequest(Id<GroupRow> Group, IReadOnlyList<GroupMember> Members);

/// <param name="In">Whether they are to be in it.</param>
public sealed record GroupMember(Id<Person> Student, bool In);

/// <summary>Puts students into a group, or takes them out: what is for it is for them from then on.</summary>
public sealed class PutInGroup : IPlanningCommand<EditionPlan, PutInGroupRequest>
{
    public static string Name => "put-in-group";

    public static IValidator<PutInGroupRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, PutInGroupRequest request, Viewpoint viewpoint)
    {
        var group = plan.Groups.FirstOrDefault(group => group.Id == request.Group) ?? throw Problem.Unknown("group");
        var students = plan.Sections.SelectMany(section => section.Listed).Select(listed => listed.Person).ToHashSet();
        var changes = new List<Change>();
        for (var n = 0; n < request.Members.Count; n++)
        {
            var (student, isIn) = request.Members[n];
            if (!students.Contains(student))
                throw Problem.Unknown($"members[{n}].student");
            if (group.Members.Contains(student) == isIn)
                continue;
            Cell[] row = [Tables.InGroup.Group.Is(group.Id), Tables.InGroup.Person.Is(student), Tables.InGroup.At.Is(viewpoint.At)];
            changes.Add(isIn ? Change.Add(row) : Change.Delete(1, row));
        }
        if (changes.Count == 0)
            return new($"left the group “{group.Name}” as it is", []);
        // The history is read by the whole team, who do not all teach these students: it counts them and names nobody.
        var who = Counting.Counted(changes.Count, "student", "students");
        var (done, act) =
            request.Members.All(member => member.In) ? ($"put {who} into the group “{group.Name}”", $"Put {who} in")
            : request.Members.All(member => !member.In) ? ($"took {who} out of the group “{group.Name}”", $"Take {who} out")
            : ($"changed who is in the group “{group.Name}”", $"Change {who}");
        return new(done, changes) { Act = act };
    }

    private sealed class Rules : AbstractValidator<PutInGroupRequest>
    {
        public Rules() =>
            RuleFor(request => request.Members)
                .Must(members => members.Count is > 0 and <= 500 && members.DistinctBy(member => member.Student).Count() == members.Count)
                .WithMessage("Choose from 1 to 500 students, each once.");
    }
}
