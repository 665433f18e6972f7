using System.Collections.Immutable;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Groups;

/// <param name="Groups">Only for students in one of these groups; null: for everyone.</param>
/// <param name="Except">But not for those in one of these.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record ItemForWhomRequest(Id<Item> Item, IReadOnlyList<string>? Groups, IReadOnlyList<string> Except, long Version);

/// <summary>Says for whom an item is. For all others it is not there.</summary>
public sealed class ItemForWhom : IPlanningCommand<EditionPlan, ItemForWhomRequest>
{
    public static string Name => "for-whom";

    public static CommandDecision Decide(EditionPlan plan, ItemForWhomRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        foreach (var (field, names) in new[] { ("groups", request.Groups ?? []), ("except", request.Except) })
            if (names.FirstOrDefault(name => plan.Groups.All(group => group.Name != name)) is { } unknown)
                throw Problem.Field(field, $"There is no group called {unknown}. Add it first.");
        var whom =
            request.Groups is null && request.Except.Count == 0
                ? null
                : new ForWhom(
                    null,
                    request.Groups is { } groups ? [.. groups.Distinct()] : (ImmutableArray<string>?)null,
                    [.. request.Except.Distinct()]
                );
        var turn = Tables.Items.ForWhom.Turns(item.For, whom);
        return !turn.Changes
            ? new($"left “{item.Title}” as it is", [])
            : new(
                $"had “{item.Title}” {WhomWords.Of(whom) ?? "for everyone"}",
                [Change.Set(Tables.Items.Table, request.Item, request.Version, turn)]
            );
    }
}
