using FluentValidation;
using NodaTime.Text;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline;

namespace Polycline.Web.Groups;

/// <param name="Version">The version of the group that was read.</param>
public sealed record RemoveGroupRequest(Id<Grouping> Group, long Version);

/// <summary>Takes a group away that nothing is for.</summary>
public sealed class RemoveGroup : IEditionCommand<RemoveGroupRequest, EditionPlan>
{
    public static string Name => "remove-group";

    public static May May => May.Team;

    public static IValidator<RemoveGroupRequest> Validator { get; } = new InlineValidator<RemoveGroupRequest>();

    public static Task<EditionPlan> Load(NpgsqlConnection connection, Id<Edition> edition, RemoveGroupRequest request) =>
        OutlineRules.Load(connection, edition);

    public static CommandDecision Decide(EditionPlan plan, RemoveGroupRequest request, Viewpoint viewpoint)
    {
        var group = plan.Groups.FirstOrDefault(group => group.Id == request.Group.Value) ?? throw Problem.Unknown("group");
        if (plan.UsesOf(group.Name) is > 0 and var uses)
            throw Problem.InUse(
                $"{Counting.Counted(uses, $"{plan.Edition.Levels.Item.One} says", $"{plan.Edition.Levels.Item.Many} say")} "
                    + $"something of the group {group.Name}.",
                "Nothing was removed. Have those for everyone first."
            );
        return new(
            $"removed the group “{group.Name}”",
            [
                new(
                    "student_group",
                    new() { ["id"] = group.Id },
                    new() { ["removed_at"] = null },
                    new() { ["removed_at"] = InstantPattern.ExtendedIso.Format(viewpoint.At) },
                    request.Version
                ),
            ]
        )
        {
            Act = $"Remove {group.Name}",
        };
    }
}
