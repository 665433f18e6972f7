using System.Collections.Immutable;
using Polycline.Core.Courses;

namespace Polycline.Core.Marking;

/// <summary>Which of several attempts at a quiz gives its score.</summary>
public enum AttemptsUsed
{
    Best,
    Latest,
    Mean,
}

/// <summary>How a task is marked.</summary>
public enum TaskScore
{
    None,
    Points,
    Percent,
    Scale,
}

/// <summary>Something of a course that can be marked. Source: the computation, chapter 13.</summary>
public abstract record MarkedItem
{
    public required Ref<Item> Item { get; init; }

    public Purpose Purpose { get; init; } = Purpose.ForMarks;

    /// <summary>Whether it enters totals; null: as its purpose says.</summary>
    public bool? Counts { get; init; }

    /// <summary>Those it is for; null: everybody.</summary>
    public ImmutableArray<Ref<Student>>? For { get; init; }

    public bool CountsInTotals => Counts ?? Purpose == Purpose.ForMarks;

    /// <summary>Questions, most of which mark themselves.</summary>
    public sealed record MarkedQuiz : MarkedItem
    {
        /// <summary>At least one.</summary>
        public required ImmutableArray<QuizQuestion> Questions { get; init; }

        /// <summary>What the quiz is worth; null: what its questions add up to.</summary>
        public Fraction? OutOf { get; init; }

        public AttemptsUsed Using { get; init; }

        /// <summary>Minutes that an attempt may take; null: as long as one likes.</summary>
        public int? Limit { get; init; }

        /// <summary>Seconds after the bell in which answers still count.</summary>
        public int Grace { get; init; }
    }

    /// <summary>What a person marks as a whole.</summary>
    public sealed record MarkedTask : MarkedItem
    {
        public required TaskScore Score { get; init; }

        /// <summary>How much it weighs.</summary>
        public Fraction OutOf { get; init; } = 100;

        /// <summary>With <see cref="TaskScore.Scale"/> only.</summary>
        public ShortScale? Scale { get; init; }

        /// <summary>The rubric that new marks are made with.</summary>
        public PointRubric? Rubric { get; init; }
    }
}

/// <summary>A unit as far as marks go.</summary>
/// <param name="Drop">How many of the lowest are left out of a total.</param>
public sealed record MarkedUnit(Ref<Unit> Unit, int Drop, ImmutableArray<MarkedItem> Items);

/// <summary>A short scale. Source: the computation, chapter 13.3.</summary>
/// <param name="Levels">Lowest first.</param>
public sealed record ShortScale(Ref<ShortScale> Id, ImmutableArray<ScaleLevel> Levels)
{
    /// <summary>Whether its levels stand for a percentage; else they enter no total.</summary>
    public bool HasPercents => Levels.Any(level => level.Share is not null);

    public bool Has(string level) => Levels.Any(one => one.Id == level);

    public int PlaceOf(string level)
    {
        for (var place = 0; place < Levels.Length; place++)
            if (Levels[place].Id == level)
                return place;
        throw new ArgumentException("The scale has no such level.", nameof(level));
    }
}

/// <param name="Share">Null: it stands for no percentage.</param>
public sealed record ScaleLevel(string Id, Fraction? Share);

/// <summary>A rubric as far as points go: criteria with their levels. Source: the computation, chapter 13.3.</summary>
/// <param name="Version">From 1; a mark keeps the one it was made with.</param>
public sealed record PointRubric(Ref<PointRubric> Id, int Version, ImmutableArray<PointCriterion> Criteria)
{
    /// <summary>What a mark with this rubric is worth.</summary>
    /// <param name="isComplete">Whether every criterion is marked that is not optional.</param>
    /// <returns>Null: it is not complete, or nothing can be reached.</returns>
    public Fraction? Share(ImmutableArray<CriterionMark> marks, out bool isComplete)
    {
        var (reached, most) = Sums(marks, out isComplete);
        return !isComplete || most.Sign == 0 ? null : reached / most;
    }

    /// <summary>The weighted points of what is marked, and the most that these criteria allow.</summary>
    public (Fraction Reached, Fraction Most) Sums(ImmutableArray<CriterionMark> marks, out bool isComplete)
    {
        var marked = marks.ToDictionary(mark => mark.Criterion);
        isComplete = Criteria.All(criterion => criterion.IsOptional || marked.ContainsKey(criterion.Id));
        var (reached, most) = (Fraction.Zero, Fraction.Zero);
        foreach (var criterion in Criteria)
        {
            if (!marked.TryGetValue(criterion.Id, out var mark))
                continue;
            reached += criterion.Weight * criterion.Points(mark);
            most += criterion.Weight * criterion.Most;
        }
        return (reached, most);
    }

    /// <summary>Whether all that was marked has its place in this rubric.</summary>
    public bool Takes(ImmutableArray<CriterionMark> marks) =>
        marks.All(mark => Criteria.FirstOrDefault(criterion => criterion.Id == mark.Criterion)?.Takes(mark) == true);
}

public sealed record PointCriterion(string Id, Fraction Weight, bool IsOptional, ImmutableArray<CriterionLevel> Levels)
{
    /// <summary>The highest points that its levels allow.</summary>
    public Fraction Most => Levels.Max(level => level.To);

    public Fraction Points(CriterionMark mark) => mark.Points ?? Level(mark.Level)!.From;

    /// <summary>Whether it has that level, and the points are of its range (or none are given where there is none).</summary>
    public bool Takes(CriterionMark mark) =>
        Level(mark.Level) is { } level
        && (level.IsRange ? mark.Points is { } points && level.From <= points && points <= level.To : mark.Points is null);

    private CriterionLevel? Level(string id) => Levels.FirstOrDefault(level => level.Id == id);
}

/// <param name="IsRange">Whether the points are chosen between the two; else these are one.</param>
public sealed record CriterionLevel(string Id, Fraction From, Fraction To, bool IsRange);

/// <param name="Points">Where the level is a range.</param>
public sealed record CriterionMark(string Criterion, string Level, Fraction? Points);
