using Polycline.Core.Changes;
using Polycline.Core.Wording;
using Polycline.Data.Courses;

namespace Polycline.Web.Foundation.Commands;

/// <summary>What a change for single students does, beside what a plan shows of itself. It counts them, and names nobody.</summary>
public static class StudentReach
{
    /// <summary>A reach with what became of places in sections, and of what is different for single students.</summary>
    public static Reach With(Reach reach, EditionPlan before, EditionPlan after)
    {
        var rows = new List<ReachRow>();
        var sentences = new List<string>();
        foreach (var section in after.Sections)
            if (before.Following(section.Id) is { } old && !old.Listed.SequenceEqual(section.Listed))
                rows.Add(Row(section.Name, "places", old.Listed.Count, section.Listed.Count));
        var (was, will) = (before.People, after.People);
        if (!was.Exceptions.SequenceEqual(will.Exceptions))
            rows.Add(Row(null, "differences for one student", was.Exceptions.Count, will.Exceptions.Count));
        if (!was.Arrangements.SequenceEqual(will.Arrangements))
            rows.Add(Row(null, "more time agreed", was.Arrangements.Count, will.Arrangements.Count));
        if (!was.Homes.SequenceEqual(will.Homes))
            rows.Add(Row(null, "home sections", was.Homes.Count, will.Homes.Count));
        if (rows.Count == 0)
            return reach;
        var moving = reach.Students.Where(change => change.DateMoves && change.After > Core.Release.Sees.Nothing).ToList();
        if (moving.Count > 0)
        {
            var dates = moving.Select(change => (change.Student, change.Item)).Distinct().Count();
            var students = moving.Select(change => change.Student).Distinct().Count();
            sentences.Add(
                $"{Counting.Counted(dates, "date moves", "dates move")} for {Counting.Counted(students, "student", "students")}."
            );
        }
        return reach with
        {
            Rows = [.. reach.Rows, .. rows],
            Sentence =
                reach.Effect == Effect.None && sentences.Count == 0 ? "Nothing changes for any student yet."
                : reach.Sentence == Reach.Nothing.Sentence || reach.Sentence.StartsWith("Students see nothing", StringComparison.Ordinal)
                    ? string.Join(' ', sentences.DefaultIfEmpty("Nothing changes for any student yet."))
                : string.Join(' ', [reach.Sentence, .. sentences]),
        };
    }

    private static ReachRow Row(string? section, string field, int before, int after) =>
        new("students", "single students", section, field, $"{before}", $"{after}");
}
