using NodaTime;
using NodaTime.Text;
using NodaTime.TimeZones;
using Polycline.Data;
using Polycline.Data.Settings;
using Polycline.Demo.School;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Host;

namespace Polycline.Demo;

/// <summary>Where the demo's clock stands.</summary>
/// <param name="Start">Where it stood when the demo was loaded.</param>
public sealed record DemoClockAnswer(Moment Now, Moment Start);

/// <summary>Where the demo's clock is to stand; neither: back at its start.</summary>
/// <param name="Days">So many days later, or earlier where negative.</param>
/// <param name="At">Local to the school, <c>2026-10-22T10:00</c>.</param>
public sealed record DemoClockRequest(int? Days, string? At);

/// <summary>The demo's clock can be moved, for everybody in it, to see a term go by.</summary>
public static class DemoClock
{
    /// <summary>The furthest the clock can be moved from its start, either way.</summary>
    private static readonly Duration Farthest = Duration.FromDays(366);

    private static readonly DateTimeZone Zone = DateTimeZoneProviders.Tzdb[DemoSchool.Zone];
    private static readonly LocalDateTimePattern Local = LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm");

    public static DemoClockAnswer Read(IClock clock) => Answer(clock.GetCurrentInstant());

    public static async Task<DemoClockAnswer> Move(
        DemoClockRequest request,
        Database database,
        IClock clock,
        SchoolClock school,
        OpeningSweep sweep,
        CancellationToken stop
    )
    {
        var answer = await Move(request, database, clock, school, stop);
        // Whatever this opens is there at once, without waiting for the next sweep.
        await sweep.Sweep(stop);
        return answer;
    }

    private static async Task<DemoClockAnswer> Move(
        DemoClockRequest request,
        Database database,
        IClock clock,
        SchoolClock school,
        CancellationToken stop
    )
    {
        var now = clock.GetCurrentInstant();
        var to = To(request, now);
        if (
            !await database.Within(
                System.Data.IsolationLevel.ReadCommitted,
                connection => SettingStore.MoveClock(connection, to - now),
                stop
            )
        )
            throw Problem.Unknown();
        await school.Set(stop);
        return Answer(clock.GetCurrentInstant());
    }

    /// <summary><c>demo-clock</c>, <c>demo-clock 2026-10-22T10:00</c> or <c>demo-clock back</c>.</summary>
    /// <returns>0, or 1 if the clock cannot be moved there.</returns>
    public static async Task<int> FromCommandLine(IReadOnlyList<string> given, string ownerConnection, CancellationToken stop)
    {
        await using var database = Database.Open(ownerConnection);
        var clock = new SchoolClock(database);
        await clock.Set(stop);
        try
        {
            var now =
                given.Count == 0 ? Read(clock) : await Move(new(null, given[0] == "back" ? null : given[0]), database, clock, clock, stop);
            Console.WriteLine($"The demo's clock says {now.Now.Words}.");
            return 0;
        }
        catch (ProblemException problem)
        {
            await Console.Error.WriteLineAsync(
                problem.Field is null ? "There is no demo here: this school runs on real time." : problem.Message
            );
            return 1;
        }
    }

    private static Instant To(DemoClockRequest request, Instant now)
    {
        if (request is { Days: not null, At: not null })
            throw Problem.Field("days", "Give a number of days or a date, not both.");
        if (request.Days is < -366 or > 366)
            throw Problem.Field("days", "The clock can be moved by up to 366 days.");
        var to =
            request.Days is { } days
                ? (now.InZone(Zone).LocalDateTime + Period.FromDays(days)).InZone(Zone, Resolvers.LenientResolver).ToInstant()
            : request.At is not { } at ? DemoSchool.Start
            : Local.Parse(at) is { Success: true, Value: var local } ? local.InZone(Zone, Resolvers.LenientResolver).ToInstant()
            : throw Problem.Field("at", "Write the date and the time like this: 2026-10-22T10:00.");
        return to >= DemoSchool.Start - Farthest && to <= DemoSchool.Start + Farthest
            ? to
            : throw Problem.Field(request.Days is null ? "at" : "days", $"The demo’s clock goes from {Day(-Farthest)} to {Day(Farthest)}.");
    }

    private static string Day(Duration after) =>
        LocalDatePattern.CreateWithInvariantCulture("d MMM uuuu").Format((DemoSchool.Start + after).InZone(Zone).Date);

    private static DemoClockAnswer Answer(Instant now) => new(Moment.Of(now, Zone), Moment.Of(DemoSchool.Start, Zone));
}
