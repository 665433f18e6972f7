using System.Collections.Immutable;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Scores;

/// <summary>How scores are added up, as it is sent.</summary>
/// <param name="By"><c>nothing</c>, <c>unit</c> or <c>purpose</c>.</param>
/// <param name="Units">Units with a weight or with scores left out; each once.</param>
/// <param name="Purposes">Those with a weight, each once: <c>for-marks</c>, <c>practice</c> or <c>to-read</c>.</param>
/// <param name="MissingAsZero">Whether what is due and not handed in counts as 0; else it is left out.</param>
public sealed record AddingUpForm(string By, IReadOnlyList<UnitWeight> Units, IReadOnlyList<PurposeWeight> Purposes, bool MissingAsZero);

/// <param name="Weight">0 to 10,000; 0: it does not count where units are weighted.</param>
/// <param name="Drop">How many of its lowest scores are left out, 0 to 20.</param>
public sealed record UnitWeight(Id<Core.Courses.Unit> Unit, decimal Weight, int Drop);

/// <param name="Weight">0 to 10,000; 0: it does not count.</param>
public sealed record PurposeWeight(string Purpose, decimal Weight);

/// <param name="Version">The version of the edition's own settings that was read.</param>
public sealed record AddUpScoresRequest(AddingUpForm AddingUp, long Version);

/// <summary>Says how a course adds scores up: what it weights, what it leaves out, and what becomes of what is missing.</summary>
public sealed class AddUpScores : IPlanningCommand<EditionPlan, AddUpScoresRequest>
{
    public static string Name => "add-up-scores";

    public static IValidator<AddUpScoresRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, AddUpScoresRequest request, Viewpoint viewpoint)
    {
        var form = request.AddingUp;
        var units = form
            .Units.Select(
                (unit, n) =>
                    plan.Row(unit.Unit) is { Level: Level.Unit } row && plan.IsHere(row)
                        ? (row.Lineage, unit.Weight, unit.Drop)
                        : throw Problem.Unknown($"addingUp.units[{n}].unit")
            )
            .ToList();
        var by = EnumNames.Parse<WeighedBy>(form.By);
        var adding = new AddingUp
        {
            By = by,
            WeightOf = (
                by switch
                {
                    WeighedBy.Unit => units.Select(unit => (Of: unit.Lineage, unit.Weight)),
                    WeighedBy.Purpose => form.Purposes.Select(one => (Of: Total.NameOf(EnumNames.Parse<Purpose>(one.Purpose)), one.Weight)),
                    _ => [],
                }
            )
                .Where(one => one.Weight > 0)
                .ToImmutableSortedDictionary(one => one.Of, one => one.Weight, StringComparer.Ordinal),
            MissingAsZero = form.MissingAsZero,
            Drop = units
                .Where(unit => unit.Drop > 0)
                .ToImmutableSortedDictionary(unit => unit.Lineage, unit => unit.Drop, StringComparer.Ordinal),
        };
        return adding == plan.Edition.AddingUp
            ? new("left how scores are added up as it is", [])
            : new(
                $"set how scores are added up: {Words(plan, adding)}",
                [
                    Change.Set(
                        Tables.Editions.Table,
                        plan.Id,
                        request.Version,
                        [Tables.Editions.AddingUp.Turns(plan.Edition.AddingUp, adding)]
                    ),
                ]
            )
            {
                Act = "Set how scores are added up",
            };
    }

    /// <summary>How it stands, as it is sent.</summary>
    public static AddingUpForm FormOf(EditionPlan plan)
    {
        var adding = plan.Edition.AddingUp;
        return new(
            EnumNames.Of(adding.By),
            [
                .. plan.ItemsByUnit()
                    .Select(unit => new UnitWeight(
                        new(unit.Unit.Id),
                        adding.By == WeighedBy.Unit ? adding.WeightOf.GetValueOrDefault(unit.Unit.Lineage) : 1,
                        adding.Drop.GetValueOrDefault(unit.Unit.Lineage)
                    )),
            ],
            [
                .. Enum.GetValues<Purpose>()
                    .Select(purpose => new PurposeWeight(
                        EnumNames.Of(purpose),
                        adding.By == WeighedBy.Purpose ? adding.WeightOf.GetValueOrDefault(Total.NameOf(purpose)) : 1
                    )),
            ],
            adding.MissingAsZero
        );
    }

    private static string Words(EditionPlan plan, AddingUp adding)
    {
        List<string> parts =
        [
            adding.By switch
            {
                WeighedBy.Unit => $"weighted by {plan.Edition.Levels.Unit.One}",
                WeighedBy.Purpose => "weighted by purpose",
                _ => "all points together",
            },
            adding.MissingAsZero ? "what is missing counts as 0" : "what is missing is left out",
        ];
        if (adding.Drop.Count > 0)
            parts.Add($"the lowest left out in {plan.Edition.Levels.Unit.Counted(adding.Drop.Count)}");
        return Counting.Joined(parts, "and");
    }

    private sealed class Rules : AbstractValidator<AddUpScoresRequest>
    {
        private const int MostUnits = 500;

        public Rules()
        {
            RuleFor(request => request.AddingUp.By)
                .Must(by => Enum.GetValues<WeighedBy>().Select(EnumNames.Of).Contains(by))
                .WithMessage("Weight by unit, by purpose, or not at all.");
            RuleFor(request => request.AddingUp.Units)
                .Must(units => units.Count <= MostUnits && units.Select(unit => unit.Unit).Distinct().Count() == units.Count)
                .WithMessage($"List up to {MostUnits} units, each only once.")
                .Must(units => units.All(unit => IsWeight(unit.Weight)))
                .WithMessage($"A weight is a number from 0 to {AddingUp.MostWeight:N0}, with at most two decimals.")
                .Must(units => units.All(unit => unit.Drop is >= 0 and <= AddingUp.MostDropped))
                .WithMessage($"Leave out 0 to {AddingUp.MostDropped} scores per unit.");
            RuleFor(request => request.AddingUp.Purposes)
                .Must(purposes => purposes.All(one => Enum.GetValues<Purpose>().Select(EnumNames.Of).Contains(one.Purpose)))
                .WithMessage("A purpose is for-marks, practice or to-read.")
                .Must(purposes => purposes.Select(one => one.Purpose).Distinct().Count() == purposes.Count)
                .WithMessage("List each purpose only once.")
                .Must(purposes => purposes.All(one => IsWeight(one.Weight)))
                .WithMessage($"A weight is a number from 0 to {AddingUp.MostWeight:N0}, with at most two decimals.");
            RuleFor(request => request.AddingUp)
                .Must(adding =>
                    adding.By switch
                    {
                        "unit" => adding.Units.Any(unit => unit.Weight > 0),
                        "purpose" => adding.Purposes.Any(one => one.Weight > 0),
                        _ => true,
                    }
                )
                .WithMessage("Give at least one weight above 0: without any, nothing would count.");
        }

        private static bool IsWeight(decimal weight) => weight is >= 0 and <= AddingUp.MostWeight && decimal.Round(weight, 2) == weight;
    }
}
