using System.Net;
using Polycline.Core.Wording;

namespace Polycline.Web.Foundation.Links;

/// <summary>What came of trying an address.</summary>
public enum LinkOutcome
{
    /// <summary>Anyone can open it.</summary>
    Open,

    /// <summary>It asks who one is.</summary>
    SignIn,

    /// <summary>There is no such page.</summary>
    Gone,

    /// <summary>Nobody answered, or not with a page.</summary>
    Silent,

    /// <summary>It is not one of the hosts that may be asked.</summary>
    NotTried,
}

/// <summary>Tries whether a page can be reached, and by whom.</summary>
public interface ILinkChecker
{
    Task<LinkOutcome> Try(Uri address, CancellationToken stop);
}

/// <summary>
/// Asks the hosts that the school has named and nobody else, follows nobody elsewhere, and reads nothing but how the answer begins.
/// </summary>
public sealed class LinkChecker(IReadOnlySet<string> hosts) : ILinkChecker
{
    private static readonly HttpClient Client = new(
        new SocketsHttpHandler
        {
            AllowAutoRedirect = false,
            UseCookies = false,
            PooledConnectionLifetime = TimeSpan.FromMinutes(5),
        }
    )
    {
        Timeout = TimeSpan.FromSeconds(10),
    };

    /// <param name="listed">Names of hosts, separated by commas; null: none.</param>
    public static LinkChecker Of(string? listed) =>
        new(
            (listed ?? "")
                .Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                .ToHashSet(StringComparer.OrdinalIgnoreCase)
        );

    public async Task<LinkOutcome> Try(Uri address, CancellationToken stop)
    {
        const int MostTurns = 5;
        try
        {
            for (var turn = 0; turn < MostTurns; turn++)
            {
                if (!hosts.Contains(address.Host) || address.Scheme is not ("https" or "http"))
                    return turn == 0 ? LinkOutcome.NotTried : LinkOutcome.SignIn;
                using var answer = await Client.GetAsync(address, HttpCompletionOption.ResponseHeadersRead, stop);
                if ((int)answer.StatusCode is >= 300 and < 400 && answer.Headers.Location is { } elsewhere)
                {
                    address = elsewhere.IsAbsoluteUri ? elsewhere : new(address, elsewhere);
                    continue;
                }
                return Meaning(answer.StatusCode);
            }
            return LinkOutcome.Silent;
        }
        catch (Exception fault)
            when (fault is HttpRequestException or IOException || fault is TaskCanceledException && !stop.IsCancellationRequested)
        {
            return LinkOutcome.Silent;
        }
    }

    private static LinkOutcome Meaning(HttpStatusCode status) =>
        (int)status switch
        {
            < 300 => LinkOutcome.Open,
            401 or 403 or 407 => LinkOutcome.SignIn,
            404 or 410 => LinkOutcome.Gone,
            _ => LinkOutcome.Silent,
        };
}

internal static class LinkOutcomes
{
    public static string Word(this LinkOutcome outcome) => EnumNames.Of(outcome);

    /// <summary>Whether somebody answered.</summary>
    public static bool IsReached(this LinkOutcome outcome) => outcome is LinkOutcome.Open or LinkOutcome.SignIn;
}
