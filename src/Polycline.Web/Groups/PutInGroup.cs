using System.Text.Json.Nodes;
using FluentValidation;
using NodaTime.Text;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline;

namespace Polycline.Web.Groups;

/// <summary>What stands for a group in an <see cref="Id{T}"/>.</summary>
public sealed record Grouping;

/// <param name="Members">1 to 500, each once.</param>
public sealed record PutInGroupRequest(Id<Grouping> Group, IReadOnlyList<GroupMember> Members);

/// <param name="In">Whether they are to be in it.</param>
public sealed record GroupMember(Id<Person> Student, bool In);

/// <param name="Students">Those whom the course's sections list.</param>
public sealed record GroupPlan(EditionPlan Plan, IReadOnlySet<long> Students);

/// <summary>Puts students into a group, or takes them out: what is for it is for them from then on.</summary>
public sealed class PutInGroup : IEditionCommand<PutInGroupRequest, GroupPlan>
{
    public static string Name => "put-in-group";

    public static May May => May.Team;

    public static IValidator<PutInGroupRequest> Validator { get; } = new Rules();

    public static async Task<GroupPlan> Load(NpgsqlConnection connection, Id<Edition> edition, PutInGroupRequest request)
    {
        var plan = await OutlineRules.Load(connection, edition);
        return new(plan, plan.Sections.SelectMany(section => section.Listed).Select(listed => listed.Person).ToHashSet());
    }

    public static CommandDecision Decide(GroupPlan read, PutInGroupRequest request, Viewpoint viewpoint)
    {
        var group = read.Plan.Groups.FirstOrDefault(group => group.Id == request.Group.Value) ?? throw Problem.Unknown("group");
        var changes = new List<Change>();
        for (var n = 0; n < request.Members.Count; n++)
        {
            var (student, isIn) = request.Members[n];
            if (!read.Students.Contains(student.Value))
                throw Problem.Unknown($"members[{n}].student");
            if (group.Members.Contains(student.Value) == isIn)
                continue;
            JsonObject key = new() { ["student_group"] = group.Id, ["person"] = student.Value };
            JsonObject row = new() { ["at"] = InstantPattern.ExtendedIso.Format(viewpoint.At) };
            changes.Add(isIn ? new("in_group", key, null, row, null) : new("in_group", key, row, null, 1));
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
                .WithMessage("Name from 1 to 500 students at once, each once.");
    }
}
