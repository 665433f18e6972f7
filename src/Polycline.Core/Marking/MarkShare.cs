using Polycline.Core.Courses;

namespace Polycline.Core.Marking;

/// <summary>What a mark is worth.</summary>
public static class MarkShare
{
    /// <summary>Of full points; null: a level that stands for no percentage, or a rubric without points.</summary>
    public static Fraction? Of(GivenMark mark) =>
        mark.Rubric is { } given
            ? given.Most == 0
                ? null
                : (Fraction)given.Reached / given.Most
            : mark.As.Form switch
            {
                MarkForm.Points => (Fraction)mark.Value!.Value / mark.As.OutOf,
                MarkForm.Percent => (Fraction)mark.Value!.Value / 100,
                _ => mark.As.Levels.First(level => level.Name == mark.Level).Percent is { } percent ? (Fraction)percent / 100 : null,
            };

    /// <summary>The percent that a fact carries: cut down to four decimals; null: there is no score.</summary>
    public static decimal? FactOf(GivenMark mark) => Of(mark) is { } share ? ScoreFact.PercentOf(share) : null;

    /// <summary>Whether what is given fits how the item is marked.</summary>
    public static bool Fits(GivenMark mark) =>
        mark.Rubric is not null ? mark is { Value: null, Level: null, As.Form: not MarkForm.Scale }
        : mark.As.Form == MarkForm.Scale ? mark.Value is null && mark.As.Levels.Any(level => level.Name == mark.Level)
        : mark.Level is null && mark.Value is >= 0 and <= MarkedAs.MostOutOf and { } value && decimal.Round(value, 2) == value;
}
