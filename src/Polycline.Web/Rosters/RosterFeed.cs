using NodaTime;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Rosters;
using Polycline.Data.Terms;
using Polycline.Web.Foundation;
using Polycline.Web.Foundation.Http;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Web.Rosters;

/// <summary>Where the school's roster can be fetched.</summary>
public interface IRosterFeed
{
    /// <summary>Null: nowhere, and rosters come as files.</summary>
    Uri? Address { get; }
}

/// <summary>As the school has set it.</summary>
public sealed record SchoolRosterFeed(Uri? Address) : IRosterFeed;

/// <summary>
/// Fetches the school's roster from its feed, every night and when somebody asks. It only ever looks: what a roster would change waits for
/// a person's yes. It asks the one address that is set, and follows nobody elsewhere.
/// </summary>
public sealed class RosterFeed(Database database, IRosterFeed feed, IClock clock, ILogger<RosterFeed> log)
    : Recurring("The roster feed", TimeSpan.FromMinutes(5), log)
{
    /// <summary>Rosters are fetched once this hour has struck at the school.</summary>
    private const int Hour = 2;

    private static readonly HttpClient Client = new(
        new SocketsHttpHandler { AllowAutoRedirect = false, PooledConnectionLifetime = TimeSpan.FromMinutes(5) }
    )
    {
        Timeout = TimeSpan.FromSeconds(60),
        MaxResponseContentBufferSize = RosterFile.Largest,
    };

    /// <summary>Fetches tonight's, if it is time and nobody has.</summary>
    /// <returns>Whether it fetched one.</returns>
    public async Task<bool> Sweep(CancellationToken stop)
    {
        if (feed.Address is null)
            return false;
        var now = clock.GetCurrentInstant();
        if (await database.Read(connection => TermStore.Running(connection, now.InUtc().Date), stop) is not { } plan)
            return false;
        var here = plan.Term.Local(now);
        if (here.Hour < Hour || await database.Read(connection => RosterFetchStore.Has(connection, here.Date), stop))
            return false;
        return await Fetch(plan, here.Date, null, stop);
    }

    /// <returns>Whether one was fetched: another instance may have been first.</returns>
    public async Task<bool> Fetch(TermPlan plan, LocalDate? night, Id<Person>? by, CancellationToken stop)
    {
        var now = clock.GetCurrentInstant();
        if (
            feed.Address is not { } address
            || await database.Read(connection => RosterFetchStore.Begin(connection, plan.Id, night, by, now), stop) is not { } fetch
        )
            return false;
        var (state, sentence, content) = await Look(address, plan, now, stop);
        await database.Read(
            async connection =>
            {
                await RosterFetchStore.Came(connection, fetch, state, sentence, content);
                return true;
            },
            stop
        );
        return true;
    }

    protected override Task Once(CancellationToken stop) => Sweep(stop);

    private async Task<(string State, string Sentence, byte[]? Content)> Look(
        Uri address,
        TermPlan plan,
        Instant now,
        CancellationToken stop
    )
    {
        try
        {
            using var answer = await Client.GetAsync(address, stop);
            if (!answer.IsSuccessStatusCode)
                return ("failed", $"The feed answered with {(int)answer.StatusCode}", null);
            var content = await answer.Content.ReadAsByteArrayAsync(stop);
            var roster = RosterFile.Read(content, null);
            var today = plan.Term.Local(now).Date;
            var compared = await database.Read(
                connection => RosterComparison.With(connection, plan, roster, LocalDate.Max(today, plan.Term.First), false),
                stop
            );
            var sentence = compared.Sentence();
            var open = compared.Lines.Count(line => line.Outcome is RosterOutcome.Fault or RosterOutcome.Conflict);
            var rows = open == 0 ? "" : $"; {Counted(open, "row does not agree or cannot be read", "rows do not agree or cannot be read")}";
            // What changes nothing waits for nobody, night after night.
            return sentence == RosterComparison.Nothing ? ("nothing", sentence + rows, null) : ("waiting", sentence + rows, content);
        }
        catch (ProblemException fault)
        {
            return ("failed", fault.Message, null);
        }
        catch (Exception fault)
            when (fault is HttpRequestException or IOException || fault is TaskCanceledException && !stop.IsCancellationRequested)
        {
            log.LogWarning("The roster feed could not be fetched: {Fault}", fault.Message);
            return ("failed", "The feed could not be reached, or sent more than 15 MB", null);
        }
    }
}
