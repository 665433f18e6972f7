using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Data.Live;

namespace Polycline.Data.Settings;

/// <summary>The few settings that are kept in the database, so that every instance has the same.</summary>
public static class SettingStore
{
    /// <summary>How far the demo's clock stands from the machine's; zero where none is set.</summary>
    public static async Task<Duration> ClockOffset(NpgsqlConnection connection)
    {
        var seconds = await connection.ExecuteScalarAsync<string?>("SELECT value FROM setting WHERE key = 'clock-offset-seconds'");
        return seconds is null
            ? Duration.Zero
            : Duration.FromSeconds(long.Parse(seconds, System.Globalization.CultureInfo.InvariantCulture));
    }

    /// <summary>Names the school, once.</summary>
    public static Task NameSchool(NpgsqlConnection connection, string name) =>
        connection.ExecuteAsync("INSERT INTO setting (key, value) VALUES ('school-name', @name)", new { name });

    /// <summary>Names it anew.</summary>
    public static Task RenameSchool(NpgsqlConnection connection, string name) =>
        connection.ExecuteAsync(
            "INSERT INTO setting (key, value) VALUES ('school-name', @name) ON CONFLICT (key) DO UPDATE SET value = @name",
            new { name }
        );

    public static async Task<string> SchoolName(NpgsqlConnection connection) =>
        await connection.ExecuteScalarAsync<string?>("SELECT value FROM setting WHERE key = 'school-name'") ?? "your school";

    /// <summary>Moves the demo's clock, for every instance: those that listen are told once the transaction is through.</summary>
    /// <returns>False: there is no such clock, since the school runs on real time.</returns>
    public static async Task<bool> MoveClock(NpgsqlConnection connection, Duration by)
    {
        if (
            !await connection.ExecuteScalarAsync<bool>(
                "SELECT move_demo_clock(@seconds)",
                new { seconds = (long)Math.Ceiling(by.TotalSeconds) }
            )
        )
            return false;
        await new ScopeChanged(ScopeChanged.Clock, 0).Tell(connection);
        return true;
    }
}
