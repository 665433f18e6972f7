using Dapper;
using Npgsql;

namespace Polycline.Data.Verify;

/// <summary>Something that is not as it should be.</summary>
/// <param name="Check">Which check found it.</param>
/// <param name="Words">Where it is and what is wrong.</param>
public sealed record Fault(string Check, string Words);

/// <summary>Checks what no constraint can. Each check is a statement that gives a line of words for each fault.</summary>
public static class Verifier
{
    /// <summary>The checks, each a file of that name beside this one.</summary>
    public static readonly IReadOnlyList<string> Checks =
    [
        "LogFolds",
        "LogIsUnbroken",
        "CountersFollowLog",
        "SectionsShareTheTerm",
        "MomentsAreInBounds",
        "FilesAreWhole",
        "WorkFilesAreThere",
    ];

    /// <summary>The checks of the ledger alone.</summary>
    public static readonly IReadOnlyList<string> OfLedger = ["LogFolds", "LogIsUnbroken", "CountersFollowLog"];

    /// <summary>Runs every check on one state of the database.</summary>
    public static Task<IReadOnlyList<Fault>> Run(string connectionString, CancellationToken stop) => Run(connectionString, Checks, stop);

    /// <summary>Runs some checks on one state of the database.</summary>
    public static async Task<IReadOnlyList<Fault>> Run(string connectionString, IReadOnlyList<string> checks, CancellationToken stop)
    {
        await using var connection = new NpgsqlConnection(connectionString);
        await connection.OpenAsync(stop);
        await using var transaction = await connection.BeginTransactionAsync(System.Data.IsolationLevel.RepeatableRead, stop);
        var faults = new List<Fault>();
        foreach (var check in checks)
            faults.AddRange((await connection.QueryAsync<string>(Sql.Of("Verify", check))).Select(words => new Fault(check, words)));
        return faults;
    }
}
