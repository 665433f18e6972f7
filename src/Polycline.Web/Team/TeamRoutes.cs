using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Team;

/// <summary>What somebody is to a course.</summary>
public enum TeamRole
{
    /// <summary>Changes everything: the course, every section, the team.</summary>
    Lead,

    /// <summary>Changes the course, and the sections that they teach.</summary>
    Co,

    /// <summary>Changes only the sections that they teach.</summary>
    Sections,

    /// <summary>Reads the course, changes nothing, and learns no student's name.</summary>
    Reader,
}

/// <param name="CanChange">Whether the viewer may change the team. Anybody on it may leave.</param>
public sealed record TeamAnswer(
    string Course,
    string Edition,
    Id<Person> You,
    bool CanChange,
    IReadOnlyList<TeamMember> Members,
    IReadOnlyList<TeamSection> Sections
);

/// <param name="Teaches">The sections of this edition that they teach.</param>
/// <param name="Note">What keeps them from signing in; empty: nothing does.</param>
public sealed record TeamMember(
    Id<Person> Person,
    string Name,
    string Email,
    TeamRole Role,
    IReadOnlyList<Id<Section>> Teaches,
    string Note
);

public sealed record TeamSection(Id<Section> Id, string Name, string Letter);

/// <summary>The team of a course: who is on it, and what they may do.</summary>
public static class TeamRoutes
{
    public static void MapTeam(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/editions/{edition:long}/team", Handle).WithName("team").For(May.Team | May.School);
        routes.MapWork<SetTeamMember, SetTeamMemberRequest, TeamChangedAnswer>();
        routes.MapWork<EndTeamMember, EndTeamMemberRequest, TeamChangedAnswer>();
    }

    public static async Task<TeamAnswer> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("The team");
        var plan = await compiled.Edition(access);
        var (members, sections) = await database.Read(connection => TeamStore.Read(connection, plan.Id), stop);
        return new(
            plan.CourseTitle,
            plan.Edition.Title,
            access.Person.Id,
            viewpoint.TakesCommands && (access.IsLead || access.IsOffice),
            [
                .. members.Select(member => new TeamMember(
                    member.Person,
                    member.Name,
                    member.Email,
                    EnumNames.Parse<TeamRole>(member.Role),
                    [.. sections.Where(section => section.Teachers.Contains(member.Person)).Select(section => section.Id)],
                    member.Removed ? "deactivated"
                        : member.Invited ? "has not set a password yet"
                        : ""
                )),
            ],
            [.. sections.Select(section => new TeamSection(section.Id, section.Name, section.Letter))]
        );
    }
}
