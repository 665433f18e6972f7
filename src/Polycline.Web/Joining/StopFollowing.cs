using Npgsql;
using Polycline.Core;
using Polycline.Core.Changes;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.Sections;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Joining;

/// <param name="Version">The version of the section that was read.</param>
public sealed record StopFollowingRequest(Id<Section> Section, long Version);

/// <summary>A section that stops, and the course that it keeps.</summary>
/// <param name="Own">The edition that was made for it; null: it does not follow this one, or nobody teaches it.</param>
public sealed record StoppingSection(LoneSection? Section, Id<Edition>? Own, IReadOnlyList<(Id<Item> From, Id<Item> To)> Pairs, int Work);

/// <summary>
/// A section stops following a course, and keeps it as it stands, as its own: content, dates, differences and all its
/// students' work. Undo has it follow again.
/// </summary>
public sealed class StopFollowing : IPlanningCommand<EditionPlan, StoppingSection, StopFollowingRequest>
{
    public static string Name => "stop-following";

    // Its own course is made here, in the same transaction: what is refused afterwards leaves nothing of it.
    public static async Task<StoppingSection> Read(NpgsqlConnection connection, EditionPlan plan, StopFollowingRequest request)
    {
        var section = await FollowingStore.Read(connection, request.Section);
        if (section?.Edition != plan.Id || section.Teachers.Count == 0)
            return new(section, null, [], 0);
        var work = await FollowingStore.Work(connection, plan.Id, section.Id);
        var (own, pairs) = await FollowingStore.OwnCourse(connection, plan.Id, section.Id);
        return new(section, own, pairs, work.Values.Sum(count => count.HandedIn));
    }

    public static CommandDecision Decide(EditionPlan plan, StoppingSection stopping, StopFollowingRequest request, Viewpoint viewpoint)
    {
        var section = plan.Counted.Following(request.Section) ?? throw Problem.Unknown("section");
        if (stopping.Own is not { } own)
            throw Problem.InUse(
                $"Nobody teaches {section.Name}.",
                "Nothing was changed. Give it a teacher first: its own course is theirs."
            );
        var students = section.StudentsOn(plan.Term.Local(viewpoint.At).Date);
        return new(
            $"had {section.Name} stop following, and keep the course as its own",
            [Change.Set(Tables.Sections.Table, section.Id, request.Version, Tables.Sections.Edition.Turns(plan.Id, own))]
        )
        {
            Act = $"Have {section.Name} stop following",
            Moves = new(section.Id, plan.Id, own, [], stopping.Pairs, []) { MadeOwn = true },
            Told = new(
                [new ReachRow(section.Section.Ref.Name, section.Name, section.Name, "follows", "until now", null)],
                [
                    new SectionSize(
                        section.Section.Ref,
                        section.Name,
                        [.. section.PeopleOn(plan.Term.Local(viewpoint.At).Date).Select(person => Data.PlanIds.InPlan(person))]
                    ),
                ],
                $"{section.Name} keeps the course as it stands, as its own, with its {Counting.Counted(students, "student", "students")} "
                    + $"and all {Counting.Counted(stopping.Work, "piece of work", "pieces of work")}. They see no difference. "
                    + "What the team changes here from now on no longer reaches it.",
                Effect.Some,
                []
            ),
        };
    }
}
