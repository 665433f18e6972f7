using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Changes;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Core.Wording;

/// <summary>A course taught in a term, before a change of its calendar and after it.</summary>
/// <param name="Sizes">The sections that follow it.</param>
/// <param name="Students">What it does for each student.</param>
public sealed record TaughtEdition(PlanSchedule Before, PlanSchedule After, ImmutableArray<SectionSize> Sizes, SightReach Students);

/// <summary>What a change of a term's calendar does to every section that meets in it.</summary>
public static class TermReach
{
    /// <summary>Compares two states of a term, course by course.</summary>
    /// <param name="courses">Every course taught in it, before and after, with the sections that follow it.</param>
    /// <param name="at">The moment of the change.</param>
    /// <param name="classesBefore">Sections that follow no course, with how many classes they have.</param>
    public static Reach Between(
        IReadOnlyList<TaughtEdition> courses,
        Instant at,
        IReadOnlyList<(string Name, int Classes)> classesBefore,
        IReadOnlyList<(string Name, int Classes)> classesAfter
    )
    {
        var reaches = courses
            .Select(course => (Reach: Reach.Between(course.Before, course.After, course.Sizes, course.Students, at), course.After.Edition))
            .ToList();
        var alone = classesBefore
            .Zip(classesAfter)
            .Where(pair => pair.First.Classes != pair.Second.Classes)
            .Select(pair => new ReachRow(
                pair.First.Name,
                pair.First.Name,
                pair.First.Name,
                Reach.Classes,
                $"{pair.First.Classes}",
                $"{pair.Second.Classes}"
            ));
        ImmutableArray<ReachRow> rows = [.. reaches.SelectMany(course => course.Reach.Rows), .. alone];
        ImmutableArray<SectionSize> sections = [.. reaches.SelectMany(course => course.Reach.Sections)];
        return new(
            rows,
            sections,
            InWords(rows, sections, courses, reaches),
            reaches.Count == 0 ? Effect.None : reaches.Max(course => course.Reach.Effect),
            [.. reaches.SelectMany(course => course.Reach.Students)]
        );
    }

    private static string InWords(
        ImmutableArray<ReachRow> rows,
        ImmutableArray<SectionSize> sections,
        IReadOnlyList<TaughtEdition> courses,
        List<(Reach Reach, Edition Edition)> reaches
    )
    {
        var sights = courses
            .Zip(reaches)
            .SelectMany(pair => new ReachWords(pair.First.Before, pair.First.After, pair.First.Sizes, pair.Second.Reach.Students).Sights())
            .ToList();
        if (rows.IsEmpty)
            return sights.Count == 0 ? "Nothing changes for any section." : string.Join(' ', sights);
        var dates = rows.Where(row => row.Field is "opens" or "due" or "closes").ToList();
        var counts = new[] { ("due", "due", "dues"), ("opens", "opening", "openings"), ("closes", "closing", "closings") }
            .Select(of => (N: dates.Count(row => row.Field == of.Item1), One: of.Item2, Many: of.Item3))
            .Where(of => of.N > 0)
            .Select(of => Counted(of.N, of.One, of.Many))
            .ToList();
        var moving = dates.Select(row => row.Section).ToHashSet();
        var students = Counted(SectionSize.Together(sections.Where(section => moving.Contains(section.Name))), "student", "students");
        var where = Counted(moving.Count, "section", "sections");
        var moved =
            dates.Count == 0
                ? "No date moves."
                : $"{Joined(counts, "and")} {(dates.Count == 1 ? "moves" : "move")} in {where}, for {students}.";
        var classes = rows.Where(row => row.Field == Reach.Classes)
            .Select(row => $"{row.Section} meets {row.After} times instead of {row.Before}")
            .ToList();
        var fits = reaches
            .SelectMany(course =>
                course
                    .Reach.Rows.Where(row => row.Field is Reach.Lacking or Reach.Outside or Reach.Sleeping)
                    .Select(row => ReachWords.Fit(row, course.Edition))
            )
            .OfType<string>();
        var off = rows.Where(row => row.Field == Reach.OffDay).ToList();
        return string.Join(
            ' ',
            [
                moved,
                .. classes.Count == 0 ? [] : new[] { $"{Joined(classes, "and")}." },
                .. fits,
                .. off.Count == 0 ? [] : new[] { ReachWords.OffDays(off) },
                .. sights,
            ]
        );
    }
}
