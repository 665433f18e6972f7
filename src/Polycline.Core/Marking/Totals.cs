using Polycline.Core.Courses;

namespace Polycline.Core.Marking;

/// <summary>Why an item does not enter a total, in the order in which it is asked. Source: the computation, chapter 13.5.</summary>
public enum LeftOut
{
    Excused,
    NotNeeded,
    NotAssigned,
    BeforeJoining,
    NoScore,
    NotCounted,
    Scale,
    NoWeight,
    Waiting,
    Missing,
    NotDue,
    Dropped,
}

/// <param name="IsMissing">Counted as nothing reached, since it was not handed in.</param>
public sealed record CountedItem(MarkedItem Item, MarkedUnit Unit, bool IsMissing, Fraction Points, Fraction OutOf);

public sealed record LeftOutItem(MarkedItem Item, LeftOut Why);

/// <param name="Levels">Those that stand, in the order of the course.</param>
/// <param name="Middle">Of an even number the lower of the two in the middle.</param>
public sealed record ScaleTotal(ShortScale Scale, IReadOnlyList<(MarkedItem Item, string Level)> Levels, string Middle);

/// <summary>A student's total so far. Source: the computation, chapter 13.5.</summary>
/// <param name="Share">Null: nothing counts yet.</param>
public sealed record Total(
    Fraction? Share,
    IReadOnlyList<CountedItem> Counted,
    IReadOnlyList<LeftOutItem> Left,
    IReadOnlyList<ScaleTotal> Scales
)
{
    /// <param name="concerns">Null: every item. Else the others are as if they were not there.</param>
    public static Total Of(MarkedCourse course, Ref<Student> student, Func<MarkedItem, bool>? concerns = null)
    {
        var counted = new List<CountedItem>();
        var left = new List<LeftOutItem>();
        var levels = new List<(ShortScale Scale, MarkedItem Item, string Level)>();
        foreach (var (unit, item) in course.Items)
        {
            if (concerns?.Invoke(item) == false)
                continue;
            var score = course.Score(student, item.Item);
            var why = NotAsked(course, student, item);
            if (why is null && item is MarkedItem.MarkedTask { Scale: { } scale } && score?.Level is { } level && scale.Has(level))
                levels.Add((scale, item, level));
            why ??= NotAddedUp(course, unit, item);
            if (why is null && score?.Share is not null)
                counted.Add(new(item, unit, false, score.Points!.Value, score.OutOf));
            else if ((why ??= NoScoreYet(course, student, item)) == LeftOut.Missing && course.Book.Missing == MissingCounts.AsZero)
                counted.Add(new(item, unit, true, 0, OutOf(course, item)));
            else
                left.Add(new(item, why.Value));
        }
        Drop(course, counted, left);
        return new(ShareOf(course.Book.Weights, counted), counted, left, [.. ByScale(course, levels)]);
    }

    // 1 to 6 of the chapter.
    private static LeftOut? NotAsked(MarkedCourse course, Ref<Student> student, MarkedItem item)
    {
        var notTheirs = course.NotTheirs(student, item);
        if (notTheirs == LeftOut.Excused)
            return notTheirs;
        if (course.SectionOf(student)?.Skips.Contains(item.Item) == true)
            return LeftOut.NotNeeded;
        if (notTheirs is not null)
            return notTheirs;
        if (item is MarkedItem.MarkedTask { Score: TaskScore.None } || OutOf(course, item).Sign == 0)
            return LeftOut.NoScore;
        return item.CountsInTotals ? null : LeftOut.NotCounted;
    }

    // 7 and 8.
    private static LeftOut? NotAddedUp(MarkedCourse course, MarkedUnit unit, MarkedItem item)
    {
        if (item is MarkedItem.MarkedTask { Scale.HasPercents: false })
            return LeftOut.Scale;
        return course.Book.Weights.By != WeightsBy.Nothing && WeightOf(course.Book.Weights, unit, item).Sign == 0 ? LeftOut.NoWeight : null;
    }

    // 10 to 12.
    private static LeftOut NoScoreYet(MarkedCourse course, Ref<Student> student, MarkedItem item)
    {
        if (course.PieceOf(student, item.Item)?.IsBegun(course.Now) == true)
            return LeftOut.Waiting;
        return course.Due(student, item.Item) < course.Now ? LeftOut.Missing : LeftOut.NotDue;
    }

    // The lowest of a unit, of equal ones the later; one always stays.
    private static void Drop(MarkedCourse course, List<CountedItem> counted, List<LeftOutItem> left)
    {
        var dropped = counted
            .GroupBy(one => one.Unit)
            .SelectMany(unit => unit.Reverse().OrderBy(one => one.Points / one.OutOf).Take(Math.Min(unit.Key.Drop, unit.Count() - 1)))
            .ToHashSet(ReferenceEqualityComparer.Instance);
        if (dropped.Count == 0)
            return;
        left.AddRange(dropped.Cast<CountedItem>().Select(one => new LeftOutItem(one.Item, LeftOut.Dropped)));
        counted.RemoveAll(dropped.Contains);
        var places = course.Items.Select((place, n) => (place.Item.Item, n)).ToDictionary(pair => pair.Item, pair => pair.n);
        left.Sort((one, other) => places[one.Item.Item].CompareTo(places[other.Item.Item]));
    }

    private static Fraction? ShareOf(Weights weights, List<CountedItem> counted)
    {
        var (reached, most) = (Fraction.Zero, Fraction.Zero);
        foreach (var part in counted.GroupBy(one => GroupOf(weights, one.Unit, one.Item)))
        {
            var share = Fraction.Sum(part.Select(one => one.Points)) / Fraction.Sum(part.Select(one => one.OutOf));
            var weight = weights.By == WeightsBy.Nothing ? 1 : weights.Of[part.Key];
            reached += weight * share;
            most += weight;
        }
        return most.Sign == 0 ? null : reached / most;
    }

    private static IEnumerable<ScaleTotal> ByScale(MarkedCourse course, List<(ShortScale Scale, MarkedItem Item, string Level)> levels) =>
        from scale in course.Book.Scales
        let own = levels.Where(one => one.Scale.Id == scale.Id).ToList()
        where own.Count > 0
        let places = own.Select(one => scale.PlaceOf(one.Level)).Order().ToList()
        select new ScaleTotal(scale, [.. own.Select(one => (one.Item, one.Level))], scale.Levels[places[(places.Count - 1) / 2]].Id);

    private static Fraction OutOf(MarkedCourse course, MarkedItem item) =>
        item switch
        {
            MarkedItem.MarkedTask task => task.OutOf,
            _ => course.Keys[item.Item] is var keys ? keys.OutOf(keys.At(course.Now)) : 0,
        };

    private static Fraction WeightOf(Weights weights, MarkedUnit unit, MarkedItem item) =>
        weights.Of.GetValueOrDefault(GroupOf(weights, unit, item));

    /// <summary>The part of a total that an item belongs to, as <see cref="Weights.Of"/> names it.</summary>
    public static string GroupOf(Weights weights, MarkedUnit unit, MarkedItem item) =>
        weights.By switch
        {
            WeightsBy.Unit => unit.Unit.Name,
            WeightsBy.Purpose => NameOf(item.Purpose),
            _ => "",
        };

    /// <summary>What a purpose is called in <see cref="Weights.Of"/>.</summary>
    public static string NameOf(Purpose purpose) =>
        purpose switch
        {
            Purpose.ForMarks => "marks",
            Purpose.Practice => "practice",
            _ => "read",
        };
}
