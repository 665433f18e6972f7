using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Wording;

namespace Polycline.Web.Foundation.Reading;

/// <summary>How an item is marked, as it is sent.</summary>
/// <param name="As"><c>points</c>, <c>percent</c> or <c>scale</c>.</param>
/// <param name="OutOf">Full points, or how much it counts in a total.</param>
/// <param name="Levels">Of a scale, lowest first.</param>
public sealed record MarkedForm(string As, decimal OutOf, IReadOnlyList<LevelForm> Levels)
{
    public static MarkedForm? Of(MarkedAs? marked) =>
        marked is null
            ? null
            : new(EnumNames.Of(marked.Form), marked.OutOf, [.. marked.Levels.Select(level => new LevelForm(level.Name, level.Percent))]);

    /// <summary>What a checked request stands for.</summary>
    public MarkedAs Meant() =>
        new(EnumNames.Parse<MarkForm>(As))
        {
            OutOf = OutOf,
            Levels = [.. Levels.Select(level => new MarkLevel(level.Name.Trim(), level.Percent))],
        };
}

/// <param name="Percent">What it stands for in a total; null: it enters none.</param>
public sealed record LevelForm(string Name, decimal? Percent = null);

/// <summary>What is given for a piece.</summary>
/// <param name="Value">Points or percent; null: a level, or by the rubric.</param>
/// <param name="Level">The name of a level; null: points or percent.</param>
/// <param name="Rubric">A level of each criterion; null: not by the rubric.</param>
public sealed record MarkGiven(decimal? Value = null, string? Level = null, IReadOnlyList<LevelGiven>? Rubric = null);

/// <summary>A mark that was given.</summary>
/// <param name="Words">Such as <c>12 of 20</c>.</param>
/// <param name="Value">Points or percent; null: a level.</param>
/// <param name="Level">The name of a level; null: points or percent.</param>
/// <param name="Rubric">What was given by a rubric; null: it was not marked by one.</param>
public sealed record MarkAnswer(string Words, decimal? Value, string? Level, RubricMarkAnswer? Rubric)
{
    /// <param name="json">As it is stored; null: none was given.</param>
    public static MarkAnswer? Of(string? json) => json is null ? null : Of(PlanParts.Mark(json));

    /// <summary>The rubric that a mark was made with; null: none.</summary>
    /// <param name="json">As it is stored; null: none was given.</param>
    public static string? RubricIn(string? json) => json is null ? null : PlanParts.Mark(json).Rubric?.Rubric;

    private static MarkAnswer Of(GivenMark mark) =>
        new(MarkWords.Of(mark), mark.Value, mark.Level, mark.Rubric is { } given ? new(given.Rubric, LevelGiven.Of(given)) : null);
}

/// <param name="Is">Which rubric it was, of those that are sent beside.</param>
/// <param name="Levels">A level of each criterion that was marked.</param>
public sealed record RubricMarkAnswer(string Is, IReadOnlyList<LevelGiven> Levels);
