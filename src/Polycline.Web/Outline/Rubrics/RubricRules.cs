using FluentValidation;
using Polycline.Core.Marking.Papers;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Rubrics;

/// <summary>What a rubric that is sent must be.</summary>
public sealed class RubricRules : AbstractValidator<RubricForm>
{
    public RubricRules()
    {
        RuleFor(rubric => rubric.Name)
            .Must(name => Bounds.IsVisible(name) && name.Trim().Length <= WrittenRubric.LongestName)
            .WithMessage($"Give the rubric a name of up to {WrittenRubric.LongestName} characters.");
        RuleFor(rubric => rubric.Criteria)
            .Must(criteria => criteria.Count is >= 1 and <= WrittenRubric.MostCriteria)
            .WithMessage($"A rubric has 1 to {WrittenRubric.MostCriteria} criteria.")
            .Must(criteria => criteria.All(one => Bounds.IsVisible(one.Title) && one.Title.Trim().Length <= WrittenRubric.LongestName))
            .WithMessage($"Name each criterion in up to {WrittenRubric.LongestName} characters.")
            .Must(criteria => criteria.Select(one => one.Title.Trim().ToUpperInvariant()).Distinct().Count() == criteria.Count)
            .WithMessage("Two criteria have the same name. Give each a name of its own.")
            .Must(criteria => criteria.All(one => IsAmount(one.Weight)))
            .WithMessage("A weight is a number from 0 to 10,000, with at most two decimals.")
            .Must(criteria => criteria.All(one => one.Levels.Count is >= 1 and <= WrittenRubric.MostLevels))
            .WithMessage($"Each criterion has 1 to {WrittenRubric.MostLevels} levels.");
        RuleForEach(rubric => rubric.Criteria)
            .ChildRules(criterion =>
                criterion
                    .RuleFor(one => one.Levels)
                    .Must(levels => levels.All(level => level.Name.Trim().Length <= WrittenRubric.LongestName))
                    .WithMessage($"Name each level in up to {WrittenRubric.LongestName} characters, or leave its name out.")
                    .Must(levels => levels.All(level => level.Words.Trim().Length <= WrittenRubric.LongestWords))
                    .WithMessage($"Describe each level in up to {WrittenRubric.LongestWords:N0} characters.")
                    .Must(levels => levels.All(level => IsAmount(level.From) && (!level.IsRange || IsAmount(level.To))))
                    .WithMessage("Points are numbers from 0 to 10,000, with at most two decimals.")
                    .Must(levels => levels.All(level => !level.IsRange || level.From <= level.To))
                    .WithMessage("The lower number of points comes first: 1–3.")
                    .Must(levels => levels.Select(Told).Distinct().Count() == levels.Count)
                    .WithMessage("Two levels of a criterion look the same. Give each its own name or points.")
            );
    }

    private static (string, decimal, decimal) Told(RubricLevelForm level) =>
        (level.Name.Trim().ToUpperInvariant(), level.From, level.IsRange ? level.To : level.From);

    private static bool IsAmount(decimal number) => number is >= 0 and <= 10_000 && decimal.Round(number, 2) == number;
}
