using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.Sections;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Joining;

/// <param name="Version">The version of the section that was read.</param>
public sealed record JoinSectionRequest(Id<Section> Section, long Version);

/// <summary>
/// A section starts to follow an edition. Nothing is copied into it: one row says so, however much the course holds. Undo
/// is stopping to follow.
/// </summary>
public sealed class JoinSection : IPlanningCommand<EditionPlan, JoiningSection?, JoinSectionRequest>
{
    public static string Name => "join-section";

    public static Task<JoiningSection?> Read(NpgsqlConnection connection, EditionPlan plan, JoinSectionRequest request) =>
        SectionStore.Joining(connection, request.Section);

    // Before the term's first day it follows from the beginning; later nothing of what was due by then is asked of its students.
    private static LocalDate? From(EditionPlan plan, Viewpoint viewpoint) =>
        plan.Term.Local(viewpoint.At).Date is var today && today > plan.Term.First ? today : null;

    public static CommandDecision Decide(EditionPlan plan, JoiningSection? joining, JoinSectionRequest request, Viewpoint viewpoint)
    {
        // To someone who does not teach the section, it does not exist.
        if (joining is not { } section || !section.Teachers.Contains(viewpoint.Who.Id))
            throw Problem.Unknown("section");
        if (section.Edition == plan.Id)
            return new($"left {section.Name} as it is", []);
        if (section.Edition is not null)
            throw Problem.InUse($"{section.Name} follows another course.", "Nothing was changed. Remove it from that course first.");
        if (section.Term != plan.TermId)
            throw Problem.InUse(
                $"{section.Name} is in a different term from this edition.",
                "Nothing was changed. Roll the edition over into that term, or choose a section of this one."
            );
        return new(
            $"added {section.Name}",
            [
                Change.Set(
                    Tables.Sections.Table,
                    request.Section,
                    request.Version,
                    Tables.Sections.Edition.Turns(null, plan.Id),
                    Tables.Sections.FollowsFrom.Turns(null, From(plan, viewpoint))
                ),
            ]
        )
        {
            Act = $"Add {section.Name}",
        };
    }
}
