using NodaTime;
using Polycline.Data;
using Polycline.Data.Settings;

namespace Polycline.Web.Foundation.Reading;

/// <summary>
/// The one place that reads the machine's clock. In the demo it is off by an offset kept in the database, so that
/// every instance, and every start, has the same time.
/// </summary>
public sealed class SchoolClock(Database database) : IClock
{
    private long offsetSeconds;

    public Instant GetCurrentInstant() =>
#pragma warning disable RS0030 // this is the one place
        SystemClock.Instance.GetCurrentInstant() + Duration.FromSeconds(Interlocked.Read(ref offsetSeconds));
#pragma warning restore RS0030

    /// <summary>Reads the offset; once before serving, and again whenever the connection to the database was lost.</summary>
    public async Task Set(CancellationToken stop)
    {
        var offset = await database.Read(SettingStore.ClockOffset, stop);
        Interlocked.Exchange(ref offsetSeconds, (long)offset.TotalSeconds);
    }
}
