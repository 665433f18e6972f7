using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.Sections;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline;

namespace Polycline.Web.Joining;

/// <param name="Version">The version of the section that was read.</param>
public sealed record JoinSectionRequest(Id<Section> Section, long Version);

/// <summary>What a joining decides from.</summary>
/// <param name="Section">Null: there is none of that id.</param>
public sealed record JoinSectionPlan(EditionPlan Course, JoiningSection? Section);

/// <summary>
/// A section starts to follow an edition. Nothing is copied into it: one row says so, however much the course holds. Undo
/// is stopping to follow.
/// </summary>
public sealed class JoinSection : IEditionCommand<JoinSectionRequest, JoinSectionPlan>
{
    public static string Name => "join-section";

    public static May May => May.Team;

    public static IValidator<JoinSectionRequest> Validator { get; } = new InlineValidator<JoinSectionRequest>();

    public static async Task<JoinSectionPlan> Load(NpgsqlConnection connection, Id<Edition> edition, JoinSectionRequest request) =>
        new(await OutlineRules.Load(connection, edition), await SectionStore.Joining(connection, request.Section));

    // Before the term's first day it follows from the beginning; later nothing of what was due by then is asked of its students.
    private static string? From(EditionPlan course, Viewpoint viewpoint) =>
        course.Term.Local(viewpoint.At).Date is var today && today > course.Term.First
            ? NodaTime.Text.LocalDatePattern.Iso.Format(today)
            : null;

    public static CommandDecision Decide(JoinSectionPlan plan, JoinSectionRequest request, Viewpoint viewpoint)
    {
        // Whose section it is not, does not know of it.
        if (plan.Section is not { } section || !section.Teachers.Contains(viewpoint.Who.Id.Value))
            throw Problem.Unknown("section");
        if (section.Edition == plan.Course.Id.Value)
            return new($"left {section.Name} as it is", []);
        if (section.Edition is not null)
            throw Problem.InUse($"{section.Name} follows another course.", "Nothing was changed. Let it stop following that first.");
        if (section.Term != plan.Course.TermId.Value)
            throw Problem.InUse(
                $"{section.Name} is of another term than this edition.",
                "Nothing was changed. Roll the edition over into that term, or choose a section of this one."
            );
        return new(
            $"added {section.Name}",
            [
                Change.Of(
                    "section",
                    request.Section,
                    request.Version,
                    new() { ["edition"] = null, ["follows_from"] = null },
                    new() { ["edition"] = plan.Course.Id.Value, ["follows_from"] = From(plan.Course, viewpoint) }
                ),
            ]
        )
        {
            Act = $"Add {section.Name}",
        };
    }
}
