using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Choices;

/// <param name="Picks">How many a student can pick at once.</param>
/// <param name="Sections">Those whose students are the viewer's, in order of name.</param>
public sealed record PicksAnswer(int Picks, IReadOnlyList<PicksSection> Sections);

/// <param name="Students">Everybody who is listed now, in order of name.</param>
public sealed record PicksSection(
    Id<Section> Section,
    string Name,
    string Letter,
    IReadOnlyList<PicksOption> Options,
    IReadOnlyList<PicksLine> Students
);

/// <param name="Picked">By how many.</param>
/// <param name="Room">For how many more there is room; null: for any number.</param>
/// <param name="Waiting">The names in its queue, longest wait first.</param>
public sealed record PicksOption(string Option, string Title, int Picked, int? Room, IReadOnlyList<string> Waiting);

/// <param name="Options">What they picked; empty: nothing yet.</param>
/// <param name="At">When they picked last; null: not yet.</param>
/// <param name="By">Whoever picked for them; null: they themselves.</param>
public sealed record PicksLine(Id<Person> Student, string Name, IReadOnlyList<string> Options, Moment? At, string? By);

/// <summary>Who has picked what, of the sections that are the viewer's.</summary>
public static class ReadPicks
{
    public static async Task<PicksAnswer> Handle(
        long edition,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("What students have picked");
        var plan = await compiled.Edition(access);
        var choice = Picks.Of(plan, new(item));
        return await database.Read(
            async connection =>
            {
                var sections = new List<PicksSection>();
                foreach (
                    var section in plan
                        .Sections.Where(one => one.Pretend is null && (access.IsLead || access.Teaches.Contains(one.Id)))
                        .OrderBy(one => one.Name, StringComparer.Ordinal)
                )
                {
                    var picks = await Picks.Read(connection, plan, section.Id, new(item), viewpoint.At);
                    var queue = await OptionQueue.Read(connection, plan, section.Id, new(item), picks);
                    sections.Add(Of(plan, section, choice, picks, queue, await AccessStore.NamesOf(connection, picks.Students)));
                }
                return new PicksAnswer(choice.Picks, sections);
            },
            stop
        );
    }

    private static PicksSection Of(
        EditionPlan plan,
        FollowingSection section,
        Item choice,
        Picks picks,
        OptionQueue queue,
        IReadOnlyDictionary<Id<Person>, string> names
    ) =>
        new(
            section.Id,
            section.Name,
            section.Letter,
            [
                .. choice.Options.Select(option => new PicksOption(
                    option,
                    choice.TitleOf(option),
                    picks.Students.Count(student => picks.By(student).Contains(option)),
                    picks.RoomIn(option),
                    [.. queue.For(option).Select(student => names[student])]
                )),
            ],
            [
                .. picks
                    .Students.OrderBy(student => names[student], StringComparer.Ordinal)
                    .Select(student =>
                    {
                        var own = picks.By(student);
                        var last = own.Count == 0 ? null : picks.LastOf(student);
                        return new PicksLine(student, names[student], own, Moment.Of(last?.At, plan.Term.Zone), last?.By);
                    }),
            ]
        );
}
