using Polycline.Core;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Groups;

/// <param name="Version">The version of the group that was read.</param>
public sealed record RemoveGroupRequest(Id<GroupRow> Group, long Version);

/// <summary>Takes a group away that nothing is for.</summary>
public sealed class RemoveGroup : IPlanningCommand<EditionPlan, RemoveGroupRequest>
{
    public static string Name => "remove-group";

    public static CommandDecision Decide(EditionPlan plan, RemoveGroupRequest request, Viewpoint viewpoint)
    {
        var group = plan.Groups.FirstOrDefault(group => group.Id == request.Group) ?? throw Problem.Unknown("group");
        if (plan.UsesOf(group.Name) is > 0 and var uses)
            throw Problem.InUse(
                $"{Counting.Counted(uses, $"{plan.Edition.Levels.Item.One} says", $"{plan.Edition.Levels.Item.Many} say")} "
                    + $"something of the group {group.Name}.",
                "Nothing was removed. Give those to everyone first."
            );
        return new($"removed the group “{group.Name}”", [Change.Remove(Tables.Groups.Table, request.Group, request.Version, viewpoint.At)])
        {
            Act = $"Remove {group.Name}",
        };
    }
}
