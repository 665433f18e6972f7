using System.Collections.Concurrent;
using Microsoft.AspNetCore.SignalR;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Ledger;
using Polycline.Data.Texts;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Live;

/// <summary>The open connections of this instance, by person.</summary>
public sealed class LiveConnections
{
    private readonly ConcurrentDictionary<string, (Id<Person> Person, string Token, HubCallerContext Context)> open = new();

    /// <param name="token">The hash of the session's token, in hexadecimal.</param>
    public void Add(HubCallerContext context, Id<Person> person, string token) => open[context.ConnectionId] = (person, token, context);

    public void Remove(HubCallerContext context) => open.TryRemove(context.ConnectionId, out _);

    /// <summary>Closes the open connections of a session that has ended.</summary>
    public void EndSession(string token)
    {
        foreach (var (_, connection) in open.Where(pair => pair.Value.Token == token))
            connection.Context.Abort();
    }

    /// <summary>Ends every connection of a person whose sessions were ended.</summary>
    public void End(Id<Person> person)
    {
        foreach (var (_, connection) in open.Where(pair => pair.Value.Person == person))
            connection.Context.Abort();
    }
}

/// <summary>Tells browsers which counters were raised. It never sends content: they read again, as anybody would.</summary>
public sealed class LiveHub(Database database, PlanCache compiled, IClock clock, LiveConnections connections) : Hub
{
    public const string Route = "/live";

    public override async Task OnConnectedAsync()
    {
        var access = await SessionAuthentication.Find(Context.GetHttpContext()!, database, null, null, null, clock.GetCurrentInstant());
        if (access is null)
        {
            Context.Abort();
            return;
        }
        connections.Add(Context, access.Person.Id, Convert.ToHexStringLower(access.Token));
        await base.OnConnectedAsync();
    }

    public override Task OnDisconnectedAsync(Exception? exception)
    {
        connections.Remove(Context);
        return base.OnDisconnectedAsync(exception);
    }

    /// <summary>From now on tells this connection when the edition is changed.</summary>
    /// <returns>The counters as answers name them, so that nothing is missed between reading and watching; null: there is no such edition
    /// for whoever asks.</returns>
    public Task<string?> WatchEdition(long edition) =>
        Watch(Scope.Of(new Id<Edition>(edition)), new(edition), null, access => access.IsMember);

    public Task LeaveEdition(long edition) => Leave(Scope.Of(new Id<Edition>(edition)));

    /// <summary>The same for the calendar of a term, for the office.</summary>
    public Task<string?> WatchTerm(long term) =>
        Watch(Scope.Of(new Id<Term>(term)), null, new(term), access => access is { IsOffice: true, Term: not null });

    public Task LeaveTerm(long term) => Leave(Scope.Of(new Id<Term>(term)));

    /// <summary>
    /// Whoever asks has a text open to write in it, and is told when somebody saves it. To be said again every few seconds.
    /// </summary>
    /// <returns>The names of the others who have it open; null: it is not theirs to write.</returns>
    public async Task<IReadOnlyList<string>?> BeInText(long edition, long item)
    {
        if (await Writing(edition, item) is not { } access)
            return null;
        await Groups.AddToGroupAsync(Context.ConnectionId, TextDraftStore.Scope(new(item)));
        return await database.Read(connection => TextDraftStore.BeIn(connection, new(item), access.Person.Id), Context.ConnectionAborted);
    }

    public async Task LeaveText(long edition, long item)
    {
        await Groups.RemoveFromGroupAsync(Context.ConnectionId, TextDraftStore.Scope(new(item)));
        if (await Writing(edition, item) is { } access)
            await database.Read(
                async connection =>
                {
                    await TextDraftStore.Leave(connection, new(item), access.Person.Id);
                    return true;
                },
                Context.ConnectionAborted
            );
    }

    private async Task<Access?> Writing(long edition, long item) =>
        await SessionAuthentication.Find(Context.GetHttpContext()!, database, new(edition), null, null, clock.GetCurrentInstant())
            is { IsMember: true, IsReader: false } access
        && (await compiled.Edition(access)).Item(new Id<Item>(item)) is not null
            ? access
            : null;

    // Someone who may not watch is told nothing, not even during the check.
    private async Task<string?> Watch(Scope scope, Id<Edition>? edition, Id<Term>? term, Func<Access, bool> may)
    {
        if (await Counters() is null)
            return null;
        await Groups.AddToGroupAsync(Context.ConnectionId, $"{scope}");
        // Read again, so that nothing raised before the watch began is missed.
        if (await Counters() is { } counters)
            return counters;
        await Leave(scope);
        return null;

        async Task<string?> Counters() =>
            await SessionAuthentication.Find(Context.GetHttpContext()!, database, edition, null, term, clock.GetCurrentInstant())
                is { } access
            && may(access)
                ? access.Counters
                : null;
    }

    private Task Leave(Scope scope) => Groups.RemoveFromGroupAsync(Context.ConnectionId, $"{scope}");
}
