using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Items;

/// <param name="Marked">Null: in words only.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record MarkItemAsRequest(Id<Item> Item, MarkedForm? Marked, long Version);

/// <summary>Says how an item is marked: in points, per cent, the levels of a short scale, or in words only.</summary>
public sealed class MarkItemAs : IPlanningCommand<EditionPlan, MarkItemAsRequest>
{
    public static string Name => "mark-item-as";

    public static IValidator<MarkItemAsRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, MarkItemAsRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        var marked = request.Marked?.Meant();
        if (marked is not null && !MarkedAs.Suits(item.Kind, item.Asks))
            throw Problem.Field("marked", "Only what students hand in can be marked. First say what is to be handed in.");
        if (item.Rubric is not null && marked is null or { Form: MarkForm.Scale })
            throw Problem.Field("marked", "The rubric gives points. Mark it in points or per cent, or take the rubric off first.");
        return item.Marked == marked
            ? new($"left how “{item.Title}” is marked as it is", [])
            : new(
                $"set how “{item.Title}” is marked: {MarkWords.Of(marked)}",
                [Change.Set(Tables.Items.Table, request.Item, request.Version, Tables.Items.Marked.Turns(item.Marked, marked))]
            )
            {
                Act = "Set how it is marked",
            };
    }

    private sealed class Rules : AbstractValidator<MarkItemAsRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Marked!.As)
                .Must(word => Enum.GetValues<MarkForm>().Select(EnumNames.Of).Contains(word))
                .WithMessage($"Choose one of: {string.Join(", ", Enum.GetValues<MarkForm>().Select(EnumNames.Of))}.")
                .When(Given);
            RuleFor(request => request.Marked!.OutOf)
                .Must(outOf => outOf is >= 0.01m and <= MarkedAs.MostOutOf && decimal.Round(outOf, 2) == outOf)
                .WithMessage($"Give a number from 0.01 to {MarkedAs.MostOutOf:N0}, with at most two decimals.")
                .When(Given);
            RuleFor(request => request.Marked!.Levels)
                .Must(levels => levels.Count is >= 2 and <= MarkedAs.MostLevels)
                .WithMessage($"A scale has 2 to {MarkedAs.MostLevels} levels.")
                .Must(levels => levels.All(level => Bounds.IsVisible(level.Name) && level.Name.Trim().Length <= MarkedAs.LongestLevel))
                .WithMessage($"Name each level in up to {MarkedAs.LongestLevel} characters.")
                .Must(levels => levels.Select(level => level.Name.Trim().ToUpperInvariant()).Distinct().Count() == levels.Count)
                .WithMessage("Two levels have the same name. Give each a name of its own.")
                .Must(levels => levels.Select(level => level.Percent is null).Distinct().Count() == 1)
                .WithMessage("Give every level a percentage, or leave them all out.")
                .Must(levels =>
                    levels.All(level =>
                        level.Percent is null or (>= 0 and <= 100) && decimal.Round(level.Percent ?? 0, 2) == (level.Percent ?? 0)
                    )
                )
                .WithMessage("A level’s percentage is a number from 0 to 100, with at most two decimals.")
                .Must(levels =>
                    levels.Zip(levels.Skip(1)).All(pair => pair.First.Percent is null || pair.First.Percent <= pair.Second.Percent)
                )
                .WithMessage("Put the lowest level first, so that the percentages go up.")
                .When(request => request.Marked is { As: "scale" });
            RuleFor(request => request.Marked!.Levels)
                .Must(levels => levels.Count == 0)
                .WithMessage("Only a scale has levels.")
                .When(request => request.Marked is { As: not "scale" });
        }

        private static bool Given(MarkItemAsRequest request) => request.Marked is not null;
    }
}
