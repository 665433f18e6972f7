using Polycline.Core.Changes;
using Polycline.Core.Wording;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Foundation.Commands;

/// <summary>What it means that a section ends before its term, beside what students see of it now.</summary>
public static class EndingReach
{
    /// <summary>A reach with the sections that end, or that go on after all.</summary>
    /// <param name="classes">The dates of a section's classes.</param>
    public static Reach With(Reach reach, TermPlan before, TermPlan after, Func<TermSection, IEnumerable<NodaTime.LocalDate>> classes)
    {
        var turned = before
            .Sections.Join(after.Sections, one => one.Id, one => one.Id, (was, now) => (Was: was, Now: now))
            .Where(pair => pair.Was.EndedOn != pair.Now.EndedOn)
            .ToList();
        if (turned.Count == 0)
            return reach;
        var sentences = turned.Select(pair =>
        {
            if (pair.Now.EndedOn is not { } last)
                return $"{pair.Now.Name} goes on to {Moment.InWords(after.Term.Last, after.Term.Last)}, with everybody in it.";
            var lost = classes(pair.Now).Count(date => date > last);
            var students = Counting.Counted(Math.Max(pair.Was.Students, pair.Now.Students), "student", "students");
            var leave = students == "1 student" ? "leaves" : "leave";
            var classesLost = Counting.Counted(lost, "class after it is", "classes after it are");
            return $"The last day of {pair.Now.Name} is {Moment.InWords(last, last)}: {classesLost} not held, "
                + $"and {students} {leave} with it. Their teachers can still read what they handed in.";
        });
        return reach with
        {
            Sentence = string.Join(' ', [.. reach.Effect == Effect.None ? [] : new[] { reach.Sentence }, .. sentences]),
            Effect = reach.Effect == Effect.None ? Effect.Some : reach.Effect,
            Rows =
            [
                .. reach.Rows,
                .. turned.Select(pair => new ReachRow(
                    pair.Now.Name,
                    pair.Now.Name,
                    pair.Now.Name,
                    "last day",
                    $"{pair.Was.EndedOn ?? before.Term.Last:uuuu-MM-dd}",
                    $"{pair.Now.EndedOn ?? after.Term.Last:uuuu-MM-dd}"
                )),
            ],
        };
    }
}
