using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Items;

/// <param name="Title">1 to 200 characters; spaces around it are dropped.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record RenameItemRequest(Id<Item> Item, string Title, long Version);

/// <summary>Gives an item another title, in every section at once.</summary>
public sealed class RenameItem : IEditionCommand<RenameItemRequest, EditionPlan>
{
    public static string Name => "rename-item";

    public static May May => May.Team;

    public static IValidator<RenameItemRequest> Validator { get; } = new Rules();

    public static Task<EditionPlan> Load(NpgsqlConnection connection, Id<Edition> edition, RenameItemRequest request) =>
        OutlineRules.Load(connection, edition);

    public static CommandDecision Decide(EditionPlan plan, RenameItemRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        var title = request.Title.Trim();
        return item.Title == title
            ? new($"left {item.Title} as it is", [])
            : new(
                $"renamed “{item.Title}” to “{title}”",
                [Change.Of("item", request.Item, request.Version, new() { ["title"] = item.Title }, new() { ["title"] = title })]
            );
    }

    private sealed class Rules : AbstractValidator<RenameItemRequest>
    {
        public Rules() => RuleFor(request => request.Title).IsTitle();
    }
}
