using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Data;
using Polycline.Data.Rosters;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Rosters;

/// <param name="Host">Where the school's roster is fetched; null: no feed is set.</param>
/// <param name="Latest">What was fetched last for this term; null: nothing yet.</param>
public sealed record RosterFeedAnswer(string? Host, FetchedLine? Latest);

/// <param name="Words">When it was fetched, and who asked.</param>
/// <param name="State"><c>waiting</c>, <c>nothing</c>, <c>failed</c>, <c>imported</c>, <c>set-aside</c> or <c>fetching</c>.</param>
/// <param name="Sentence">What it would change, or what went wrong.</param>
public sealed record FetchedLine(long Fetch, string Words, string State, string Sentence);

/// <summary>The school's feed, for its office: what was fetched last, and what waits for a yes.</summary>
public static class FetchedRoster
{
    public static async Task<RosterFeedAnswer> Read(
        long term,
        Access access,
        Viewpoint viewpoint,
        IRosterFeed feed,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("The roster feed");
        if (feed.Address is not { } address)
            return new(null, null);
        var latest = await database.Read(connection => RosterFetchStore.Latest(connection, new(term)), stop);
        return new(
            address.Authority,
            latest is null
                ? null
                : new(
                    latest.Id,
                    $"{Moment.Of(latest.At, access.Zone).Words}{(latest.By is { } by ? $", asked for by {by}" : ", by night")}",
                    latest.State,
                    latest.Sentence
                )
        );
    }

    /// <summary>Fetches it now.</summary>
    public static async Task<RosterFeedAnswer> Fetch(
        long term,
        Access access,
        Viewpoint viewpoint,
        IRosterFeed feed,
        RosterFeed fetching,
        Database database,
        CancellationToken stop
    )
    {
        if (!viewpoint.TakesCommands)
            throw Problem.Unknown();
        var plan = await database.Read(connection => TermStore.Read(connection, new Id<Term>(term)), stop) ?? throw Problem.Unknown();
        if (!await fetching.Fetch(plan, null, access.Person.Id, stop))
            throw Problem.Unknown();
        return await Read(term, access, viewpoint, feed, database, stop);
    }

    /// <summary>The file that waits, to be looked at like any other.</summary>
    public static async Task<IResult> File(long term, long fetch, Database database, CancellationToken stop) =>
        await database.Read(connection => RosterFetchStore.Content(connection, new(term), fetch), stop) is { } content
            ? Results.File(content, "application/zip", "roster.zip")
            : throw Problem.Unknown("fetch");
}

public sealed record SetAsideRosterRequest(Id<Term> Term, long Fetch);

/// <summary>Leaves a fetched roster aside: nothing of it is imported.</summary>
public sealed class SetAsideRoster : IWorkCommand<SetAsideRosterRequest, DoneAnswer>
{
    public static string Name => "set-aside-roster";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static async Task<DoneAnswer> Do(WorkContext work, SetAsideRosterRequest request)
    {
        if (!await RosterFetchStore.Answer(work.Connection, request.Term, request.Fetch, "set-aside"))
            throw Problem.Unknown("fetch");
        await work.Audit("roster-set-aside", new { fetch = request.Fetch });
        return new();
    }
}
