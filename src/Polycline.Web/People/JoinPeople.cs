using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Web.People;

/// <param name="Kept">The account that is kept.</param>
/// <param name="Other">The other account, which is closed.</param>
public sealed record JoinPeopleRequest(Id<Person> Kept, Id<Person> Other);

/// <param name="Comes">What comes together, in lines.</param>
public sealed record JoinedAnswer(bool Applied, IReadOnlyList<string> Comes) : IAnswer<JoinedAnswer>
{
    public JoinedAnswer AsPreview() => this with { Applied = false };
}

/// <summary>Joins two accounts that are one person's, with all they did under either.</summary>
public sealed class JoinPeople : IWorkCommand<JoinPeopleRequest, JoinedAnswer>
{
    public static string Name => "join-people";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static async Task<JoinedAnswer> Do(WorkContext work, JoinPeopleRequest request)
    {
        if (request.Kept == request.Other)
            throw Problem.Field("other", "Those are one account. Choose two different ones.");
        var kept = await Account.Needed(work, new(request.Kept));
        var other = await Account.OfSomebodyElse(work, request.Other, "You can’t join your own account into another one.");
        if (kept.Removed)
            throw Problem.Field("kept", $"The account of {kept.Name} is not in use. Put it back into use, or keep the other one.");
        if (await PersonStore.IsJoined(work.Connection, other.Person))
            throw Problem.Field("other", $"{other.Name} has been joined with another account already.");
        await SessionStore.EndAll(work.Connection, other.Person);
        await OneTimeLinkStore.Withdraw(work.Connection, other.Person, work.Viewpoint.At);
        var joined = await PersonDataStore.Join(work.Connection, kept.Person, other.Person, work.Viewpoint.At);
        await work.Audit("people-joined", new { person = other.Person.Value, into = kept.Person.Value });
        return new(true, [.. Comes(joined)]);
    }

    private static IEnumerable<string> Comes(Joined joined)
    {
        yield return "from now on they sign in with the address of the account that is kept";
        yield return "their sections and their courses, as a student or a teacher";
        if (joined.Works > 0)
            yield return $"what they handed in for {Counted(joined.Works, "piece of work", "pieces of work")}, with its feedback";
        if (joined.Merged > 0)
            yield return $"{Counted(joined.Merged, "piece of work", "pieces of work")} they handed in under both accounts: "
                + "the versions are put in one list, in the order they came in";
        if (joined.Facts > 0)
            yield return $"{Counted(joined.Facts, "record", "records")} of what they opened, handed in or were given back, and when";
        if (joined.Groups + joined.Differences > 0)
            yield return $"{Counted(joined.Groups, "group", "groups")}, and {Counted(joined.Differences, "thing", "things")} "
                + "agreed for them alone";
        if (joined.Left > 0)
            yield return $"{Counted(joined.Left, "thing", "things")} agreed differently under each account: "
                + "what the kept account has stays";
    }
}

/// <summary>Separates an account again that was joined into another, as long as nothing that came together was changed.</summary>
public sealed class SeparatePeople : IWorkCommand<PersonRequest, DoneAnswer>
{
    public static string Name => "separate-people";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static async Task<DoneAnswer> Do(WorkContext work, PersonRequest request)
    {
        var account = await Account.Needed(work, request);
        try
        {
            if (!await PersonDataStore.Separate(work.Connection, account.Person, work.Viewpoint.At))
                throw Problem.Unknown("person");
        }
        catch (PostgresException fault) when (fault.SqlState is "PC003")
        {
            throw Problem.CannotUndo(
                $"{account.Name} has changed sections since, or has handed in or been given back work that was joined.",
                "Nothing was changed. They can no longer be separated."
            );
        }
        await work.Audit("people-separated", new { person = account.Person.Value });
        return new();
    }
}
