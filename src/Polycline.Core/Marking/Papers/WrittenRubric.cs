using System.Collections.Immutable;
using Polycline.Core.Courses;

namespace Polycline.Core.Marking.Papers;

/// <summary>A rubric as people read it: criteria and levels with their words. Source: the computation, chapter 13.3.</summary>
/// <param name="Criteria">At least one.</param>
public sealed record WrittenRubric(string Name, ImmutableArray<WrittenCriterion> Criteria)
{
    public const int MostCriteria = 20;
    public const int MostLevels = 10;
    public const int LongestName = 100;
    public const int LongestWords = 1_000;

    /// <summary>The highest sum that can be reached without what is optional.</summary>
    public decimal Most => Criteria.Where(criterion => !criterion.IsOptional).Sum(criterion => criterion.Weight * criterion.Most);

    /// <summary>As the computation has it. A rubric that was changed is another one: it is named by what it says.</summary>
    public PointRubric AsRubric(string hash) =>
        new(
            new(hash),
            1,
            [
                .. Criteria.Select(criterion => new PointCriterion(
                    criterion.Id,
                    criterion.Weight,
                    criterion.IsOptional,
                    [.. criterion.Levels.Select(level => new CriterionLevel(level.Id, level.From, level.To, level.IsRange))]
                )),
            ]
        );

    /// <summary>
    /// This rubric with the ids that an earlier one has for the same: criteria and levels that bear its ids keep them, and else those of
    /// one title or name, or of the same points. So a mark made with the earlier one finds its place in this one.
    /// </summary>
    public WrittenRubric KeepingIds(WrittenRubric? earlier)
    {
        var criteria = Matching.Of(Criteria, earlier?.Criteria ?? [], known => known.Id, (one, known) => one.Title == known.Title);
        var ids = Matching.Ids(criteria, known => known.Id, "c", earlier?.Criteria ?? []);
        return this with { Criteria = [.. Criteria.Select((criterion, place) => Named(criterion, ids[place], criteria[place]))] };
    }

    private static WrittenCriterion Named(WrittenCriterion criterion, string id, WrittenCriterion? earlier)
    {
        var levels = Matching.Of(
            criterion.Levels,
            earlier?.Levels ?? [],
            known => known.Id,
            (one, known) => one.Name.Length > 0 ? one.Name == known.Name : (one.From, one.To) == (known.From, known.To)
        );
        var ids = Matching.Ids(levels, known => known.Id, "l", earlier?.Levels ?? []);
        return criterion with { Id = id, Levels = [.. criterion.Levels.Select((level, place) => level with { Id = ids[place] })] };
    }

    public bool Equals(WrittenRubric? other) => other is not null && Name == other.Name && Criteria.SequenceEqual(other.Criteria);

    public override int GetHashCode() => HashCode.Combine(Name, Criteria.Length);

    private static class Matching
    {
        /// <summary>To each one the earlier one that it is, if any: each at most once.</summary>
        public static T?[] Of<T>(ImmutableArray<T> now, ImmutableArray<T> earlier, Func<T, string> id, Func<T, T, bool> alike)
            where T : class
        {
            var free = earlier.ToList();
            var found = new T?[now.Length];
            foreach (var same in new Func<T, T, bool>[] { (one, known) => id(one) == id(known), alike })
                for (var place = 0; place < now.Length; place++)
                    if (found[place] is null && free.FirstOrDefault(known => same(now[place], known)) is { } known)
                    {
                        found[place] = known;
                        free.Remove(known);
                    }
            return found;
        }

        public static string[] Ids<T>(T?[] found, Func<T, string> id, string letter, ImmutableArray<T> earlier)
            where T : class
        {
            // An id that was used is never used for another: marks name it.
            var taken = earlier.Select(id).ToHashSet(StringComparer.Ordinal);
            var next = 0;
            return [.. found.Select(known => known is null ? Next() : id(known))];

            string Next()
            {
                while (!taken.Add($"{letter}{++next}")) { }
                return $"{letter}{next}";
            }
        }
    }
}

/// <param name="Levels">At least one, in the order in which they are read.</param>
public sealed record WrittenCriterion(string Id, string Title, ImmutableArray<WrittenLevel> Levels)
{
    public decimal Weight { get; init; } = 1;

    /// <summary>Whether it may be left out; then it counts only where it is marked.</summary>
    public bool IsOptional { get; init; }

    public decimal Most => Levels.Max(level => level.To);

    public bool Equals(WrittenCriterion? other) =>
        other is not null
        && (Id, Title, Weight, IsOptional) == (other.Id, other.Title, other.Weight, other.IsOptional)
        && Levels.SequenceEqual(other.Levels);

    public override int GetHashCode() => HashCode.Combine(Id, Title, Levels.Length);
}

/// <param name="Name">May be empty: then its points name it.</param>
/// <param name="To">The same as <paramref name="From"/> where the level is a single number of points.</param>
/// <param name="IsRange">Whether the points are chosen between the two when it is given.</param>
public sealed record WrittenLevel(string Id, string Name, decimal From, decimal To, bool IsRange)
{
    /// <summary>What is seen in a piece of this level; may be empty.</summary>
    public string Words { get; init; } = "";
}

/// <summary>What was marked by a rubric, added up.</summary>
public static class RubricMarking
{
    /// <param name="hash">What the rubric is kept under.</param>
    /// <param name="isComplete">Whether every criterion is marked that is not optional.</param>
    /// <returns>Null: a level or its points have no place in the rubric, or a criterion is marked twice.</returns>
    public static GivenByRubric? Of(this WrittenRubric written, string hash, ImmutableArray<GivenLevel> given, out bool isComplete)
    {
        isComplete = false;
        var rubric = written.AsRubric(hash);
        var marks = Marks(given);
        if (given.Select(level => level.Criterion).Distinct().Count() < given.Length || !rubric.Takes(marks))
            return null;
        var (reached, most) = rubric.Sums(marks, out isComplete);
        return new(hash, given, Exactly(reached), Exactly(most));
    }

    /// <summary>What a mark made with another rubric comes to by this one; null: it has no place here, or not all is marked.</summary>
    public static Fraction? Would(this WrittenRubric written, string hash, GivenByRubric given)
    {
        var (rubric, marks) = (written.AsRubric(hash), Marks(given.Levels));
        return rubric.Takes(marks) ? rubric.Share(marks, out _) : null;
    }

    private static ImmutableArray<CriterionMark> Marks(ImmutableArray<GivenLevel> given) =>
        [.. given.Select(level => new CriterionMark(level.Criterion, level.Level, level.Points is { } points ? (Fraction)points : null))];

    // Weights and points have at most two decimals each, so a sum of products has a decimal form.
    private static decimal Exactly(Fraction sum) => (decimal)sum.Above / (decimal)sum.Below;
}
