using System.Text.Json;
using NodaTime;
using NodaTime.Text;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.People;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation.AccessControl;

/// <summary>Through whose eyes a screen is looked at.</summary>
public abstract record Eyes
{
    private Eyes() { }

    /// <summary>Everything, as the team sees it.</summary>
    public sealed record OfTeam : Eyes;

    /// <summary>What one student sees.</summary>
    public sealed record OfStudent(Id<Person> Student) : Eyes;

    /// <summary>
    /// What a student of a section would see of whom only this is known; with nothing known, any who has done nothing yet.
    /// </summary>
    public sealed record OfPretend(Id<Section> Section, IReadOnlyList<Pretended> Facts) : Eyes;
}

/// <summary>
/// Who is looking, through whose eyes, at what moment. Every read takes one; no handler asks a clock. Only a member of the
/// team may look through other eyes or at another moment; a student's moment is always the clock's.
/// </summary>
/// <param name="At">The moment at which things are looked at.</param>
/// <param name="Now">The clock's moment, to say how far <paramref name="At"/> is from it.</param>
public sealed record Viewpoint(Person Who, Eyes Eyes, Instant At, Instant Now)
{
    /// <summary>False: the ribbon was moved.</summary>
    public bool IsNow { get; private init; } = true;

    /// <summary>They are a reader of the course, who changes nothing.</summary>
    public bool ReadsOnly { get; private init; }

    private static readonly LocalDateTimePattern Local = LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm");

    /// <summary>Whether commands count from here: as the team, at now.</summary>
    public bool TakesCommands => IsNow && Eyes is Eyes.OfTeam && !ReadsOnly;

    /// <exception cref="ProblemException">It is not the student who asks, now: through a lens nothing is recorded.</exception>
    public void NeedsOneself()
    {
        if (!IsNow || Eyes != new Eyes.OfStudent(Who.Id))
            throw Problem.NotNow();
    }

    /// <exception cref="ProblemException">It is looked at through a student's eyes, who never sees this.</exception>
    public void NeedsTeam(string what)
    {
        if (Eyes is not Eyes.OfTeam)
            throw Problem.Forbidden($"{what}: only for the team.", "Students never see this. Go back to the team’s view.");
    }

    /// <summary>Binds a handler's parameter to what <see cref="ViewpointMiddleware"/> found.</summary>
    public static ValueTask<Viewpoint?> BindAsync(HttpContext http) => ValueTask.FromResult(http.Features.Get<Viewpoint>());

    /// <summary>Reads <c>?at=</c> and <c>?as=</c>, and holds them against what <paramref name="access"/> allows.</summary>
    public static async Task<Viewpoint> Bind(HttpContext http, Access access, Instant now, Database database)
    {
        string? at = http.Request.Query["at"],
            eyes = http.Request.Query["as"];
        var own =
            access.IsMember
            || access.TeachesSection
            || (access.IsOffice && access.Section is null)
            || (access.IsTeacher && access.Edition is null)
                ? (Eyes)new Eyes.OfTeam()
                : new Eyes.OfStudent(access.Person.Id);
        if (string.IsNullOrEmpty(at) && string.IsNullOrEmpty(eyes))
            return new(access.Person, own, now, now) { ReadsOnly = access.IsReader };
        if (!access.IsMember || access.Master is not { } master)
            throw Problem.Forbidden(
                "Only the team can look at another moment, or through a student’s eyes.",
                "You see your own course as it is now."
            );
        var moment = string.IsNullOrEmpty(at) ? now : Moment(at, access.Zone);
        var seen = await Through(eyes, own, access, master, now, database, http.RequestAborted);
        return new(access.Person, seen, moment, now) { IsNow = string.IsNullOrEmpty(at), ReadsOnly = access.IsReader };
    }

    // As the clock on the wall shows it there, or in UTC. The browser never converts.
    private static Instant Moment(string at, DateTimeZone zone) =>
        InstantPattern.General.Parse(at) is { Success: true, Value: var instant } && Bounds.Holds(instant) ? instant
        : Local.Parse(at) is { Success: true, Value: var local } && local.Year is >= 1901 and < 2999
            ? zone.ResolveLocal(local, NodaTime.TimeZones.Resolvers.LenientResolver).ToInstant()
        : throw Problem.Malformed(
            "at",
            "'at' is a moment: local to the school, such as 2026-10-08T10:15, or in UTC, such as 2026-10-08T09:15:00Z."
        );

    private static async Task<Eyes> Through(
        string? eyes,
        Eyes own,
        Access access,
        Id<Core.Courses.Master> master,
        Instant now,
        Database database,
        CancellationToken stop
    )
    {
        if (string.IsNullOrEmpty(eyes) || eyes == "team")
            return own;
        if (eyes.StartsWith("section:", StringComparison.Ordinal) || eyes.StartsWith("pretend:", StringComparison.Ordinal))
            return await Pretend(eyes["section:".Length..], access, master, database, stop);
        if (
            !eyes.StartsWith("student:", StringComparison.Ordinal) || !Id<Person>.TryParse(eyes["student:".Length..], null, out var student)
        )
            throw Problem.Malformed(
                "as",
                "'as' is 'team', 'student:' and the student's id, or 'pretend:' and the section's id with what happened."
            );
        return await database.Read<Eyes>(
            async connection =>
            {
                var places = await AccessStore.LensStudent(connection, master, student, access.Person.Id);
                if (!places.Any(place => access.IsLead || place.TaughtByViewer))
                    throw Problem.Unknown("as");
                await AccessStore.Audit(
                    connection,
                    now,
                    access.Person.Id,
                    "lens-used",
                    JsonSerializer.Serialize(new { student = student.Value })
                );
                return new Eyes.OfStudent(student);
            },
            stop
        );
    }

    private static async Task<Eyes> Pretend(
        string text,
        Access access,
        Id<Core.Courses.Master> master,
        Database database,
        CancellationToken stop
    )
    {
        var facts = text.IndexOf('~', StringComparison.Ordinal) is >= 0 and var at ? text[at..] : "";
        if (!Id<Section>.TryParse(text[..^facts.Length], null, out var section) || Pretended.Read(facts) is not { } pretended)
            throw Problem.Malformed("as", "'as' is 'pretend:', the section's id, and what happened, such as ~12.score.65.");
        return await database.Read(connection => AccessStore.MayPretend(connection, master, section, access.Person.Id), stop)
            ? new Eyes.OfPretend(section, pretended)
            : throw Problem.Unknown("as");
    }
}
