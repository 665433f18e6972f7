using NodaTime;
using Polycline.Data;
using Polycline.Data.LinkChecks;
using Polycline.Data.Terms;

namespace Polycline.Web.Foundation.Links;

/// <summary>Tries the addresses that links lead to, every night and when somebody asks.</summary>
public sealed class LinkChecks(Database database, ILinkChecker checker, IClock clock, ILogger<LinkChecks> log)
    : Recurring("Checking the links", TimeSpan.FromMinutes(5), log)
{
    // At the school, from this hour until that one.
    private const int From = 2,
        Until = 5;

    private static readonly Duration Night = Duration.FromHours(12);

    /// <summary>Tries one address now, and keeps what was found.</summary>
    public async Task Check(string address, CancellationToken stop)
    {
        var outcome = await checker.Try(new(address), stop);
        await database.Read(
            async connection =>
            {
                await LinkCheckStore.Keep(connection, address, outcome.Word(), outcome.IsReached(), clock.GetCurrentInstant());
                return true;
            },
            stop
        );
    }

    /// <summary>Tries what is in use and has not been tried this night, if it is night.</summary>
    /// <returns>How many were tried.</returns>
    public async Task<int> Sweep(CancellationToken stop)
    {
        var now = clock.GetCurrentInstant();
        if (await database.Read(connection => TermStore.Running(connection, now.InUtc().Date), stop) is not { } plan)
            return 0;
        if (plan.Term.Local(now).Hour is < From or >= Until)
            return 0;
        var due = await database.Read(connection => LinkCheckStore.Due(connection, now - Night), stop);
        foreach (var address in due)
            await Check(address, stop);
        return due.Count;
    }

    protected override Task Once(CancellationToken stop) => Sweep(stop);
}
