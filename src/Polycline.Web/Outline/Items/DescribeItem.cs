using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Items;

/// <param name="Purpose"><c>to-read</c>, <c>practice</c> or <c>for-marks</c>.</param>
/// <param name="Before">What students see of it before it opens: <c>listed</c> or <c>unseen</c>; null: as its unit says.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record DescribeItemRequest(Id<Item> Item, string Purpose, string? Before, long Version);

/// <summary>Says what an item is for, and what students see of it before it opens.</summary>
public sealed class DescribeItem : IPlanningCommand<EditionPlan, DescribeItemRequest>
{
    private static readonly string[] Purposes = [.. Enum.GetValues<Purpose>().Select(EnumNames.Of)];

    public static string Name => "describe-item";

    public static IValidator<DescribeItemRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, DescribeItemRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        return new Settings()
            .Set(
                Tables.Items.Purpose,
                EnumNames.Of(item.Purpose),
                request.Purpose,
                $"set “{item.Title}” as {request.Purpose.Replace('-', ' ')}"
            )
            .Set(
                Tables.Items.Before,
                BeforeWords.Of(item.Before),
                request.Before,
                $"had “{item.Title}” {BeforeWords.InWords(request.Before)}"
            )
            .Of(Tables.Items.Table, request.Item, request.Version, item.Title);
    }

    private sealed class Rules : AbstractValidator<DescribeItemRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Purpose)
                .Must(purpose => Purposes.Contains(purpose))
                .WithMessage($"Choose one of: {string.Join(", ", Purposes)}.");
            RuleFor(request => request.Before).Must(before => BeforeWords.All.Contains(before)).WithMessage(BeforeWords.Choice);
        }
    }
}
