using Polycline.Core.Courses;
using Polycline.Core.Marking.Papers;
using Polycline.Data.Work;

namespace Polycline.Web.Foundation.Reading;

/// <summary>A rubric, as it is sent.</summary>
public sealed record RubricForm(string Name, IReadOnlyList<CriterionForm> Criteria)
{
    public static RubricForm? Of(WrittenRubric? rubric) =>
        rubric is null
            ? null
            : new(
                rubric.Name,
                [
                    .. rubric.Criteria.Select(criterion => new CriterionForm(
                        criterion.Id,
                        criterion.Title,
                        criterion.Weight,
                        criterion.IsOptional,
                        [
                            .. criterion.Levels.Select(level => new RubricLevelForm(
                                level.Id,
                                level.Name,
                                level.From,
                                level.To,
                                level.IsRange,
                                level.Words
                            )),
                        ]
                    )),
                ]
            );

    /// <summary>What a checked request stands for.</summary>
    public WrittenRubric Meant() =>
        new(
            Name.Trim(),
            [
                .. Criteria.Select(criterion => new WrittenCriterion(
                    criterion.Id,
                    criterion.Title.Trim(),
                    [
                        .. criterion.Levels.Select(level => new WrittenLevel(
                            level.Id,
                            level.Name.Trim(),
                            level.From,
                            level.IsRange ? level.To : level.From,
                            level.IsRange
                        )
                        {
                            Words = level.Words.Trim(),
                        }),
                    ]
                )
                {
                    Weight = criterion.Weight,
                    IsOptional = criterion.IsOptional,
                }),
            ]
        );
}

/// <param name="Id">Empty: a new one.</param>
/// <param name="Levels">In the order in which they are read.</param>
public sealed record CriterionForm(string Id, string Title, decimal Weight, bool IsOptional, IReadOnlyList<RubricLevelForm> Levels);

/// <param name="Id">Empty: a new one.</param>
/// <param name="Name">May be empty: then its points name it.</param>
/// <param name="To">The same as <paramref name="From"/> unless it is a range.</param>
public sealed record RubricLevelForm(string Id, string Name, decimal From, decimal To, bool IsRange, string Words);

/// <summary>What is given by a rubric.</summary>
/// <param name="Points">Where the level is a range.</param>
public sealed record LevelGiven(string Criterion, string Level, decimal? Points = null)
{
    public static IReadOnlyList<LevelGiven> Of(GivenByRubric given) => Of(given.Levels);

    public static IReadOnlyList<LevelGiven> Of(IEnumerable<GivenLevel> levels) =>
        [.. levels.Select(level => new LevelGiven(level.Criterion, level.Level, level.Points))];

    public GivenLevel Meant() => new(Criterion, Level, Points);
}

/// <summary>What a student said of their own piece by its rubric.</summary>
/// <param name="Rubric">What the rubric is called here.</param>
public sealed record OwnJudgementAnswer(string Rubric, IReadOnlyList<LevelGiven> Levels)
{
    /// <param name="json">As it is kept; null: they said nothing.</param>
    public static OwnJudgementAnswer? Of(string? json) =>
        OwnJudgement.Read(json) is { } judged ? new(judged.Rubric, LevelGiven.Of(judged.Levels)) : null;
}
