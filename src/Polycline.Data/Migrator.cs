using DbUp;
using DbUp.Engine;
using Npgsql;

namespace Polycline.Data;

/// <summary>Brings a database to the present schema: numbered files, forward only, each in a transaction of its own.</summary>
public static class Migrator
{
    // Any number will do, as long as every instance uses the same one.
    private const long Lock = 5_031_907_701;

    /// <summary>Applies what is missing. Of several that start at once one does it and the others wait.</summary>
    /// <param name="ownerConnection">A connection string of the role that owns the schema.</param>
    /// <returns>The names of the migrations it applied.</returns>
    /// <exception cref="InvalidOperationException">A migration failed; nothing of it is left, and its name stands in the
    /// message.</exception>
    public static async Task<IReadOnlyList<string>> Migrate(string ownerConnection, CancellationToken stop)
    {
        await using var guard = new NpgsqlConnection(ownerConnection);
        await guard.OpenAsync(stop);
        await using (var command = new NpgsqlCommand("SELECT pg_advisory_lock(@lock)", guard) { CommandTimeout = 120 })
        {
            command.Parameters.AddWithValue("lock", Lock);
            await command.ExecuteNonQueryAsync(stop);
        }
        // The lock is the session's: it goes with the connection, however this ends.
        var result = Upgrader(ownerConnection).PerformUpgrade();
        return result.Successful
            ? [.. result.Scripts.Select(script => script.Name)]
            : throw new InvalidOperationException($"The migration {result.ErrorScript?.Name} failed: {result.Error.Message}", result.Error);
    }

    /// <summary>Whether the database lacks a migration that this build has.</summary>
    public static bool IsBehind(string ownerConnection) => Upgrader(ownerConnection).IsUpgradeRequired();

    private static UpgradeEngine Upgrader(string connection) =>
        DeployChanges
            .To.PostgresqlDatabase(connection)
            .WithScriptsEmbeddedInAssembly(typeof(Migrator).Assembly, name => name.StartsWith("Migrations/", StringComparison.Ordinal))
            .WithTransactionPerScript()
            .JournalToPostgresqlTable("public", "migration")
            .LogToNowhere()
            .Build();
}
