using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Team;

/// <param name="Person">Somebody on the team; oneself: one leaves it.</param>
public sealed record EndTeamMemberRequest(Id<Person> Person);

/// <summary>Takes somebody off the team of a course: by a lead, by the office, or by themselves. Their next request is refused.</summary>
public sealed class EndTeamMember : IWorkCommand<EndTeamMemberRequest, TeamChangedAnswer>
{
    public static string Name => "end-team-member";

    public static May May => May.Team | May.School;

    public static WorkPlace Place => WorkPlace.Edition;

    public static async Task<TeamChangedAnswer> Do(WorkContext work, EndTeamMemberRequest request)
    {
        var own = request.Person == work.Access.Person.Id;
        if (!own && !work.Access.IsLead && !work.Access.IsOffice)
            throw Problem.Forbidden("Only a lead can take somebody off the team.", "Nothing was changed. Ask a lead of the course.");
        var master = work.Access.Master ?? throw Problem.Unknown();
        await TeamStore.Lock(work.Connection, master);
        var (members, sections) = await TeamStore.Read(work.Connection, work.Edition);
        var member = members.FirstOrDefault(one => one.Person == request.Person) ?? throw Problem.Unknown("person");
        LastLead.Refuse(members, request.Person, "would be none then");
        await TeamStore.Teaches(work.Connection, work.Edition, request.Person, []);
        await TeamStore.Remove(work.Connection, master, request.Person);
        await TeamStore.Tell(work.Connection, work.Edition);
        await work.Audit("team-left", new { person = request.Person.Value });
        var alone = sections.Where(section => section.Teachers is [var only] && only == request.Person).ToList();
        return new(
            true,
            $"{member.Name} is no longer on the team, and sees nothing of the course from their next request on. "
                + "What they wrote stays."
                + (
                    alone.Count == 0
                        ? ""
                        : $" {Counting.Joined([.. alone.Select(section => section.Name)], "and")} "
                            + $"{(alone.Count == 1 ? "has" : "have")} no teacher then."
                )
        );
    }
}

/// <summary>A course has a lead, always.</summary>
internal static class LastLead
{
    /// <exception cref="ProblemException">They are the only lead.</exception>
    public static void Refuse(IReadOnlyList<TeamMemberRow> members, Id<Person> person, string otherwise)
    {
        var leads = members.Where(member => member is { Role: "lead", Removed: false }).ToList();
        if (leads is [var only] && only.Person == person)
            throw Problem.InUse(
                $"{only.Name} is the only lead of this course, and there {otherwise}.",
                "Nothing was changed. Make somebody else a lead first."
            );
    }
}
