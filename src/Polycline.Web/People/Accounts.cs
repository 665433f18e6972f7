using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.People;

public sealed record PersonRequest(Id<Person> Person);

/// <summary>What the commands on one account have in common.</summary>
internal static class Account
{
    /// <exception cref="ProblemException">There is no such account.</exception>
    public static async Task<KnownPerson> Needed(WorkContext work, PersonRequest request) =>
        await PersonStore.Locked(work.Connection, request.Person) ?? throw Problem.Unknown("person");

    /// <exception cref="ProblemException">It is the caller's own: somebody else of the office does that.</exception>
    public static async Task<KnownPerson> OfSomebodyElse(WorkContext work, Id<Person> person, string title)
    {
        var account = await Needed(work, new(person));
        return account.Person == work.Access.Person.Id
            ? throw Problem.Forbidden(title, "Ask somebody else of the office to do it. Nothing was changed.")
            : account;
    }
}

/// <summary>Deactivates an account: its sessions end at once, and it cannot sign in. Everything its owner wrote stays.</summary>
public sealed class DeactivatePerson : IWorkCommand<PersonRequest, DoneAnswer>
{
    public static string Name => "deactivate-person";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static async Task<DoneAnswer> Do(WorkContext work, PersonRequest request)
    {
        var account = await Account.OfSomebodyElse(work, request.Person, "You cannot deactivate your own account.");
        if (account.Removed)
            return new();
        await PersonStore.SetRemoved(work.Connection, account.Person, work.Viewpoint.At);
        await OneTimeLinkStore.Withdraw(work.Connection, account.Person, work.Viewpoint.At);
        await SessionStore.EndAll(work.Connection, account.Person);
        await work.Audit("person-deactivated", new { person = account.Person.Value });
        return new();
    }
}

/// <summary>Puts a deactivated account back into use.</summary>
public sealed class ReactivatePerson : IWorkCommand<PersonRequest, DoneAnswer>
{
    public static string Name => "reactivate-person";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static async Task<DoneAnswer> Do(WorkContext work, PersonRequest request)
    {
        var account = await Account.Needed(work, request);
        if (!account.Removed)
            return new();
        if (await PersonStore.IsJoined(work.Connection, account.Person))
            throw Problem.Field("person", $"{account.Name} goes on with another account. Separate the two instead.");
        await PersonStore.SetRemoved(work.Connection, account.Person, null);
        await work.Audit("person-reactivated", new { person = account.Person.Value });
        return new();
    }
}

/// <summary>Signs somebody out everywhere.</summary>
public sealed class EndSessions : IWorkCommand<PersonRequest, DoneAnswer>
{
    public static string Name => "end-sessions";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static async Task<DoneAnswer> Do(WorkContext work, PersonRequest request)
    {
        var account = await Account.Needed(work, request);
        await SessionStore.EndAll(work.Connection, account.Person);
        await work.Audit("sessions-ended", new { person = account.Person.Value });
        return new();
    }
}

/// <summary>A role in the school; whatever else somebody is follows from their courses and sections.</summary>
public enum SchoolRole
{
    Office,

    /// <summary>Teachers make courses.</summary>
    Teacher,
}

/// <param name="Has">Whether they are to have the role.</param>
public sealed record SetRoleRequest(Id<Person> Person, SchoolRole Role, bool Has);

/// <summary>Gives somebody a role in the school, or takes it away. What they teach already stays theirs.</summary>
public sealed class SetRole : IWorkCommand<SetRoleRequest, DoneAnswer>
{
    public static string Name => "set-role";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static async Task<DoneAnswer> Do(WorkContext work, SetRoleRequest request)
    {
        if (request.Role == SchoolRole.Office)
        {
            var other = await Account.OfSomebodyElse(work, request.Person, "You cannot remove yourself from the office.");
            await PersonStore.SetOffice(work.Connection, other.Person, request.Has);
        }
        else
        {
            var account = await Account.Needed(work, new(request.Person));
            await PersonStore.SetTeacher(work.Connection, account.Person, request.Has);
        }
        await work.Audit(
            "role-set",
            new
            {
                person = request.Person.Value,
                role = EnumNames.Of(request.Role),
                request.Has,
            }
        );
        return new();
    }
}
