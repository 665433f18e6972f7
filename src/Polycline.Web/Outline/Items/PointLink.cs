using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Items;

/// <param name="Address">Of a page, with https:// or http://.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record PointLinkRequest(Id<Item> Item, string Address, long Version);

/// <summary>Says where a link leads.</summary>
public sealed class PointLink : IPlanningCommand<EditionPlan, PointLinkRequest>
{
    public static string Name => "point-link";

    public static IValidator<PointLinkRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, PointLinkRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        if (item.Kind != ItemKind.Link)
            throw Problem.Field("item", "Only a link leads to a page elsewhere. Put the address into the text of this one.");
        var address = request.Address.Trim();
        return item.Address == address
            ? new($"left where “{item.Title}” leads as it is", [])
            : new(
                $"set where “{item.Title}” leads: {LinkAddress.HostOf(address)}",
                [Change.Set(Tables.Items.Table, request.Item, request.Version, Tables.Items.Address.Turns(item.Address, address))]
            )
            {
                Act = "Set the address",
            };
    }

    private sealed class Rules : AbstractValidator<PointLinkRequest>
    {
        public Rules() =>
            RuleFor(request => request.Address)
                .Custom(
                    (address, context) =>
                    {
                        if (LinkAddress.Fault(address.Trim()) is { } fault)
                            context.AddFailure(fault);
                    }
                );
    }
}
