using System.Collections.Immutable;
using Polycline.Core.Courses;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Core.Planning;

/// <summary>What a change of a term's calendar does to every section that meets in it.</summary>
public static class TermReach
{
    /// <summary>Compares two states of a term, course by course.</summary>
    /// <param name="courses">Every course taught in it, before and after, with the sections that follow it.</param>
    /// <param name="classesBefore">Sections that follow no course, with how many classes they have.</param>
    public static Reach Between(
        IReadOnlyList<(PlanSchedule Before, PlanSchedule After, ImmutableArray<SectionSize> Sizes)> courses,
        IReadOnlyList<(string Name, int Classes)> classesBefore, IReadOnlyList<(string Name, int Classes)> classesAfter)
    {
        var reaches = courses.Select(course => (Reach: Reach.Between(course.Before, course.After, course.Sizes), course.After.Edition.Basis)).ToList();
        var alone = classesBefore.Zip(classesAfter).Where(pair => pair.First.Classes != pair.Second.Classes)
            .Select(pair => new ReachRow(pair.First.Name, pair.First.Name, pair.First.Name, Reach.Classes, $"{pair.First.Classes}", $"{pair.Second.Classes}"));
        ImmutableArray<ReachRow> rows = [.. reaches.SelectMany(course => course.Reach.Rows), .. alone];
        ImmutableArray<SectionSize> sections = [.. reaches.SelectMany(course => course.Reach.Sections)];
        return new(rows, sections, InWords(rows, sections, reaches));
    }

    private static string InWords(ImmutableArray<ReachRow> rows, ImmutableArray<SectionSize> sections, List<(Reach Reach, Basis Basis)> reaches)
    {
        if (rows.IsEmpty)
            return "Nothing changes for any section.";
        var dates = rows.Where(row => row.Field is "opens" or "due" or "closes").ToList();
        var counts = new[] { ("due", "due", "dues"), ("opens", "opening", "openings"), ("closes", "closing", "closings") }
            .Select(of => (N: dates.Count(row => row.Field == of.Item1), One: of.Item2, Many: of.Item3)).Where(of => of.N > 0)
            .Select(of => Counted(of.N, of.One, of.Many)).ToList();
        var students = Counted(sections.Sum(section => section.Students), "student", "students");
        var where = Counted(dates.Select(row => row.Section).Distinct().Count(), "section", "sections");
        var moved = dates.Count == 0 ? "No date moves." : $"{Joined(counts, "and")} {(dates.Count == 1 ? "moves" : "move")} in {where}, for {students}.";
        var classes = rows.Where(row => row.Field == Reach.Classes).Select(row => $"{row.Section} meets {row.After} times instead of {row.Before}").ToList();
        var fits = reaches.SelectMany(course => course.Reach.Rows.Where(row => row.Field is Reach.Lacking or Reach.Sleeping).Select(row => Reach.FitInWords(row, course.Basis))).OfType<string>();
        return string.Join(' ', (classes.Count == 0 ? [] : new[] { $"{Joined(classes, "and")}." }).Prepend(moved).Concat(fits));
    }
}
