using Dapper;
using NodaTime;
using Npgsql;

namespace Polycline.Data.Settings;

/// <summary>The few settings that live in the database because every instance must have the same.</summary>
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
}
