using Polycline.Core;
using Polycline.Core.Marking;
using Polycline.Core.Wording;
using Polycline.Data.Courses;

namespace Polycline.Web.Foundation.Reading;

/// <summary>A student's total so far, exactly explained. Source: the computation, chapter 13.5.</summary>
/// <param name="SoFar">Such as <c>81.5 %</c>; null: nothing counts yet.</param>
/// <param name="How">How it is added up, in a sentence.</param>
/// <param name="Parts">In the order of the course: each with its own total and weight where parts are weighted, else one.</param>
/// <param name="Left">What does not enter it, and why.</param>
public sealed record TotalForm(
    string? SoFar,
    string How,
    IReadOnlyList<TotalPart> Parts,
    IReadOnlyList<TotalLine> Left,
    IReadOnlyList<ScaleForm> Scales
)
{
    /// <param name="own">Whether it is said to the student.</param>
    /// <param name="concerns">Null: every item.</param>
    public static TotalForm Of(
        EditionPlan plan,
        MarkedCourse course,
        Ref<Core.Courses.Student> student,
        bool own = false,
        Func<MarkedItem, bool>? concerns = null
    )
    {
        var total = Total.Of(course, student, concerns);
        var weights = course.Book.Weights;
        return new(
            total.Share is { } share ? ScoreWords.Percent(share) : null,
            ScoreWords.How(weights.By, course.Book.Missing, plan.Edition.Levels),
            [
                .. total
                    .Counted.GroupBy(one => Total.GroupOf(weights, one.Unit, one.Item))
                    .Select(part => PartOf(plan, [.. part], weights, part.Key)),
            ],
            [
                .. total.Left.Select(one =>
                    Line(plan, one.Item, ScoreWords.Of(one.Why, own)) with
                    {
                        Score = course.Score(student, one.Item.Item) is { } score ? ScoreWords.Of(score) : null,
                    }
                ),
            ],
            [.. total.Scales.Select(scale => new ScaleForm([.. scale.Levels.Select(one => Line(plan, one.Item, one.Level))], scale.Middle))]
        );
    }

    private static TotalPart PartOf(EditionPlan plan, IReadOnlyList<CountedItem> counted, Weights weights, string group)
    {
        var (points, outOf) = (Fraction.Sum(counted.Select(one => one.Points)), Fraction.Sum(counted.Select(one => one.OutOf)));
        return new(
            weights.By switch
            {
                WeightsBy.Unit => plan.UnitOf(plan.Row(counted[0].Unit.Unit)).Title,
                WeightsBy.Purpose => ScoreWords.Of(counted[0].Item.Purpose),
                _ => null,
            },
            weights.By == WeightsBy.Nothing ? null : weights.Of[group].PointsShown(),
            ScoreWords.PointsOf(points, outOf),
            ScoreWords.Percent(points / outOf),
            [
                .. counted.Select(one =>
                    Line(plan, one.Item, ScoreWords.PointsOf(one.Points, one.OutOf) + (one.IsMissing ? ", not handed in" : ""))
                ),
            ]
        );
    }

    private static TotalLine Line(EditionPlan plan, MarkedItem item, string words) =>
        new(plan.Row(item.Item).Id, plan.Schedule.CodeOf[item.Item], plan.Schedule.Item(item.Item).Title, words);
}

/// <param name="Name">Null: there is only one.</param>
/// <param name="Weight">Null: nothing is weighted.</param>
public sealed record TotalPart(string? Name, string? Weight, string Points, string Percent, IReadOnlyList<TotalLine> Lines);

/// <param name="Words">What it counts as, or why it is left out.</param>
/// <param name="Score">What stands in an item that is left out; null: nothing.</param>
public sealed record TotalLine(long Item, string Code, string Title, string Words, string? Score = null);

/// <param name="Middle">The level in the middle.</param>
public sealed record ScaleForm(IReadOnlyList<TotalLine> Lines, string Middle);
