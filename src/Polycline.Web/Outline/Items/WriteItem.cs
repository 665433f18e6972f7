using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Outline.Texts;

namespace Polycline.Web.Outline.Items;

/// <param name="Html">The text; what is not of the kept elements is dropped.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record WriteItemRequest(Id<Item> Item, string Html, long Version);

/// <summary>Writes an item's text: of a page what is to be read, of a task its instructions.</summary>
public sealed class WriteItem : IPlanningCommand<EditionPlan, TextPictures, WriteItemRequest>
{
    public static string Name => "write-item";

    public static IValidator<WriteItemRequest> Validator { get; } = new Rules();

    public static Task<TextPictures> Read(NpgsqlConnection connection, EditionPlan plan, WriteItemRequest request) =>
        TextPictures.Read(connection, plan.Id, request.Html);

    public static CommandDecision Decide(EditionPlan plan, TextPictures pictures, WriteItemRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        var html = TextBlocks.Named(
            FormattedText.Canonical(request.Html, (element, source) => pictures.Stored(element, source, viewpoint))
        );
        var body = html.Length == 0 ? null : new Body(html);
        return item.Body == body?.Hash
            ? new($"left the text of “{item.Title}” as it is", [])
            : new(
                $"wrote the text of “{item.Title}”",
                [Change.Set(Tables.Items.Table, request.Item, request.Version, Tables.Items.Body.Turns(item.Body, body?.Hash))],
                null,
                body is null ? [] : [body]
            );
    }

    private sealed class Rules : AbstractValidator<WriteItemRequest>
    {
        public Rules() => RuleFor(request => request.Html).IsText();
    }
}
