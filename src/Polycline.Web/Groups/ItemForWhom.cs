using System.Collections.Immutable;
using System.Text.Json.Nodes;
using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline;

namespace Polycline.Web.Groups;

/// <param name="Groups">For those in one of these; null: for everyone.</param>
/// <param name="Except">But not for those in one of these.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record ItemForWhomRequest(Id<Item> Item, IReadOnlyList<string>? Groups, IReadOnlyList<string> Except, long Version);

/// <summary>Says for whom an item is. For all others it is not there.</summary>
public sealed class ItemForWhom : IEditionCommand<ItemForWhomRequest, EditionPlan>
{
    public static string Name => "for-whom";

    public static May May => May.Team;

    public static IValidator<ItemForWhomRequest> Validator { get; } = new InlineValidator<ItemForWhomRequest>();

    public static Task<EditionPlan> Load(NpgsqlConnection connection, Id<Edition> edition, ItemForWhomRequest request) =>
        OutlineRules.Load(connection, edition);

    public static CommandDecision Decide(EditionPlan plan, ItemForWhomRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        foreach (var (field, names) in new[] { ("groups", request.Groups ?? []), ("except", request.Except) })
            if (names.FirstOrDefault(name => plan.Groups.All(group => group.Name != name)) is { } unknown)
                throw Problem.Field(field, $"There is no group called {unknown}. Name it first.");
        var whom =
            request.Groups is null && request.Except.Count == 0
                ? null
                : new ForWhom(
                    null,
                    request.Groups is { } groups ? [.. groups.Distinct()] : (ImmutableArray<string>?)null,
                    [.. request.Except.Distinct()]
                );
        var (before, after) = (Node(item.For), Node(whom));
        return JsonNode.DeepEquals(before, after)
            ? new($"left “{item.Title}” as it is", [])
            : new(
                $"had “{item.Title}” {WhomWords.Of(whom) ?? "for everyone"}",
                [Change.Of("item", request.Item, request.Version, new() { ["for_whom"] = before }, new() { ["for_whom"] = after })]
            );
    }

    private static JsonNode? Node(ForWhom? whom) => whom is null ? null : JsonNode.Parse(PlanParts.Json(whom));
}
