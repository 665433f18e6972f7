using FluentValidation;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Team;

/// <param name="Address">The mail address of whoever joins the team; null: <paramref name="Person"/> is on it.</param>
/// <param name="Teaches">The sections of this edition that they teach: for a reader none.</param>
public sealed record SetTeamMemberRequest(string? Address, Id<Person>? Person, TeamRole Role, IReadOnlyList<Id<Section>> Teaches);

/// <param name="Sentence">What they are to the course then.</param>
public sealed record TeamChangedAnswer(bool Applied, string Sentence) : IAnswer<TeamChangedAnswer>
{
    public TeamChangedAnswer AsPreview() => this with { Applied = false };
}

/// <summary>Puts somebody on the team of a course, or makes them something else there. It counts from their next request.</summary>
public sealed class SetTeamMember : IWorkCommand<SetTeamMemberRequest, TeamChangedAnswer>
{
    public static string Name => "set-team-member";

    public static May May => May.Lead | May.School;

    public static WorkPlace Place => WorkPlace.Edition;

    public static IValidator<SetTeamMemberRequest> Validator { get; } = new Rules();

    public static async Task<TeamChangedAnswer> Do(WorkContext work, SetTeamMemberRequest request)
    {
        var master = work.Access.Master ?? throw Problem.Unknown();
        await TeamStore.Lock(work.Connection, master);
        var (members, sections) = await TeamStore.Read(work.Connection, work.Edition);
        var (person, name) = await Whom(work, request, members);
        if (request.Role != TeamRole.Lead)
            LastLead.Refuse(members, person, "would be none then");
        for (var n = 0; n < request.Teaches.Count; n++)
            if (sections.All(section => section.Id != request.Teaches[n]))
                throw Problem.Unknown($"teaches[{n}]");
        await TeamStore.Set(work.Connection, master, person, EnumNames.Of(request.Role));
        await TeamStore.Teaches(work.Connection, work.Edition, person, request.Teaches);
        await TeamStore.Tell(work.Connection, work.Edition);
        await work.Audit("team-changed", new { person = person.Value, role = EnumNames.Of(request.Role) });
        var taught = sections.Where(section => request.Teaches.Contains(section.Id)).ToList();
        return new(true, Sentence(name, request.Role, taught, sections));
    }

    private static async Task<(Id<Person> Person, string Name)> Whom(
        WorkContext work,
        SetTeamMemberRequest request,
        IReadOnlyList<TeamMemberRow> members
    )
    {
        if (request.Person is { } known)
            return members.FirstOrDefault(member => member.Person == known) is { } member
                ? (known, member.Name)
                : throw Problem.Unknown("person");
        var address = request.Address!.Trim();
        return await PersonStore.WithAddresses(work.Connection, [address]) is [{ Staff: true, Removed: false } found]
            ? (found.Person, found.Name)
            : throw Problem.Field("address", $"No teacher here has the address {address}. Check it, or ask the office to add them.");
    }

    private static string Sentence(string name, TeamRole role, IReadOnlyList<TeamSectionRow> taught, IReadOnlyList<TeamSectionRow> sections)
    {
        var teaches = taught.Count == 0 ? "no section" : Counting.Joined([.. taught.Select(section => section.Name)], "and");
        var students = Counting.Counted(
            (role == TeamRole.Lead ? sections : taught).Sum(section => section.Students),
            "student",
            "students"
        );
        return role switch
        {
            TeamRole.Lead => $"{name} leads the course, teaches {teaches}, and sees the work of {students}.",
            TeamRole.Co => $"{name} changes the course, teaches {teaches}, and sees the work of {students}.",
            TeamRole.Sections => $"{name} reads the course, teaches {teaches}, and sees the work of {students}.",
            _ => $"{name} reads the course, changes nothing, and learns no student’s name.",
        };
    }

    private sealed class Rules : AbstractValidator<SetTeamMemberRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Address)
                .Must((request, address) => address is null != request.Person is null)
                .WithMessage("Give a mail address, or name somebody on the team: one of the two.");
            RuleFor(request => request.Address)
                .Must(address => address is null || address.Trim().Length is > 2 and <= 254)
                .WithMessage("That is not a mail address.");
            RuleFor(request => request.Teaches)
                .Must(teaches => teaches.Count <= 200 && teaches.Distinct().Count() == teaches.Count)
                .WithMessage("Name each section once.");
            RuleFor(request => request.Teaches)
                .Must((request, teaches) => request.Role != TeamRole.Reader || teaches.Count == 0)
                .WithMessage("A reader teaches no section. Choose another role, or no section.");
        }
    }
}
