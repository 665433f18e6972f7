using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Core.Marking;

/// <summary>Who passes which threshold in an item. Source: the computation, chapter 13.7.</summary>
/// <param name="Students">Those for whom a share stands.</param>
/// <param name="Passes">For 0, 1 … 100 %: how many pass.</param>
/// <param name="In">Who passes the new one and not the old.</param>
/// <param name="Out">Who passes the old one and not the new.</param>
public sealed record ScoreThreshold(
    int Students,
    IReadOnlyList<int> Passes,
    IReadOnlyList<Ref<Student>> In,
    IReadOnlyList<Ref<Student>> Out
)
{
    /// <summary>A share passes if 100 times the share is at least the threshold.</summary>
    /// <param name="percent">The threshold.</param>
    public static bool IsPassed(Fraction share, Fraction percent) => share * 100 >= percent;

    /// <param name="section">Null: all.</param>
    /// <param name="from">The threshold as it is, in per cent.</param>
    /// <param name="to">The one it would be.</param>
    public static ScoreThreshold Of(MarkedCourse course, MarkedItem item, Ref<Section>? section, Fraction from, Fraction to)
    {
        var shares = course
            .Book.Sections.Where(one => (section is null || one.Section == section) && !one.Skips.Contains(item.Item))
            .SelectMany(one => ItemStatistics.Scored(course, one, item))
            .ToDictionary(one => one.Student, one => one.Share);
        var inOrder = course.Book.Students.Select(student => student.Student).Where(shares.ContainsKey).ToList();
        return new(
            inOrder.Count,
            [.. Enumerable.Range(0, 101).Select(percent => shares.Values.Count(share => IsPassed(share, percent)))],
            [.. inOrder.Where(student => IsPassed(shares[student], to) && !IsPassed(shares[student], from))],
            [.. inOrder.Where(student => IsPassed(shares[student], from) && !IsPassed(shares[student], to))]
        );
    }
}
