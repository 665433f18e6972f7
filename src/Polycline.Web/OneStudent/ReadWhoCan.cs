using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.OneStudent;

/// <summary>Who of a section can open an item, and of the others how many cannot for which reason.</summary>
/// <param name="At">The moment it is asked for.</param>
/// <param name="Sections">Those whose students the viewer may see.</param>
public sealed record WhoCanAnswer(Moment At, IReadOnlyList<WhoInSection> Sections);

/// <param name="Groups">Those who can open it first, then the largest group first.</param>
public sealed record WhoInSection(Id<Section> Section, string Name, string Letter, IReadOnlyList<WhoGroup> Groups);

/// <param name="Reason">In a sentence that is true of each of them.</param>
public sealed record WhoGroup(string Reason, bool CanOpen, IReadOnlyList<WhoStudent> Students);

/// <param name="Student">Whose reasons can be asked for one by one.</param>
public sealed record WhoStudent(Id<Person> Student, string Name);

/// <summary>How an item stands for every student whom the viewer teaches, grouped by the reason.</summary>
public static class ReadWhoCan
{
    public static async Task<WhoCanAnswer> Handle(
        long edition,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("Who can open something");
        var plan = await compiled.Edition(access);
        var found = plan.Item(new Id<Item>(item)) ?? throw Problem.Unknown();
        var taught = await TaughtSection.Read(database, plan, access, viewpoint.At, stop);
        var words = new DecisionWords(plan.Schedule, new(plan.Schedule));
        return new(
            Moment.Of(viewpoint.At, plan.Term.Zone),
            [
                .. taught.Select(one => new WhoInSection(
                    one.Section.Id,
                    one.Section.Name,
                    one.Section.Letter,
                    [
                        .. one
                            .Students.Select(student =>
                                (Student: student, Decision: new Explain(plan.Schedule, student.Record).Decide(found.Ref, viewpoint.At))
                            )
                            .GroupBy(pair => (Reason: Reason(words, pair.Decision, found, viewpoint), CanOpen: CanOpen(pair.Decision)))
                            .OrderByDescending(group => group.Key.CanOpen)
                            .ThenByDescending(group => group.Count())
                            .ThenBy(group => group.Key.Reason, StringComparer.Ordinal)
                            .Select(group => new WhoGroup(
                                group.Key.Reason,
                                group.Key.CanOpen,
                                [.. group.Select(pair => new WhoStudent(pair.Student.Id, pair.Student.Name))]
                            )),
                    ]
                )),
            ]
        );
    }

    private static bool CanOpen(Decision decision) => decision.State is ReleaseState.Open or ReleaseState.Overdue;

    private static string Reason(DecisionWords words, Decision decision, Item item, Viewpoint viewpoint) =>
        decision.State switch
        {
            ReleaseState.Open => "Open to them.",
            ReleaseState.Overdue => "Open to them, and overdue.",
            _ => words.ForTeam(decision, item.Ref, viewpoint.At, "the student").Sentence.Capital(),
        };
}
