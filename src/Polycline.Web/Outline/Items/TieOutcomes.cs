using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.Outcomes;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Items;

/// <param name="Outcomes">By code, at most 20.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record TieOutcomesRequest(Id<Item> Item, IReadOnlyList<string> Outcomes, long Version);

/// <summary>The outcomes that can be tied to, by code and in their order.</summary>
public sealed record KnownOutcomes(IReadOnlyList<OutcomeRow> All);

/// <summary>Ties an item to what students should be able to do by it, as the school's outcomes say.</summary>
public sealed class TieOutcomes : IPlanningCommand<EditionPlan, KnownOutcomes, TieOutcomesRequest>
{
    public static string Name => "tie-outcomes";

    public static IValidator<TieOutcomesRequest> Validator { get; } = new Rules();

    public static async Task<KnownOutcomes> Read(NpgsqlConnection connection, EditionPlan plan, TieOutcomesRequest request) =>
        new(await OutcomeStore.All(connection));

    public static CommandDecision Decide(EditionPlan plan, KnownOutcomes known, TieOutcomesRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        // What an item was tied to before the school's list changed may stay.
        if (
            request.Outcomes.FirstOrDefault(code =>
                !item.Outcomes.Contains(code) && known.All.All(outcome => outcome.Removed || outcome.Code != code)
            ) is
            { } unknown
        )
            throw Problem.Field("outcomes", $"{unknown} is not among the school's outcomes. Choose one that is.");
        var order = known.All.Select((outcome, place) => (outcome.Code, place)).ToDictionary(pair => pair.Code, pair => pair.place);
        string[] outcomes = [.. request.Outcomes.OrderBy(code => order.GetValueOrDefault(code, int.MaxValue))];
        return item.Outcomes.SequenceEqual(outcomes)
            ? new($"left the outcomes of “{item.Title}” as they are", [])
            : new(
                outcomes.Length == 0
                    ? $"removed the outcomes of “{item.Title}”"
                    : $"set the outcomes of “{item.Title}”: {Counting.Joined(outcomes, "and")}",
                [Change.Set(Tables.Items.Table, request.Item, request.Version, Tables.Items.Outcomes.Turns(item.Outcomes, [.. outcomes]))]
            );
    }

    private sealed class Rules : AbstractValidator<TieOutcomesRequest>
    {
        public Rules() =>
            RuleFor(request => request.Outcomes)
                .Must(outcomes => outcomes.Count <= ItemRules.MostOutcomes)
                .WithMessage($"An item can have up to {ItemRules.MostOutcomes} outcomes.")
                .Must(outcomes => outcomes.Distinct().Count() == outcomes.Count)
                .WithMessage("Name each outcome once.");
    }
}
