using System.Data;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Mail;
using Polycline.Data.People;
using Polycline.Data.Rosters;
using Polycline.Data.SectionCodes;
using Polycline.Data.Settings;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Mail;
using Polycline.Web.Host;
using Polycline.Web.People;
using Polycline.Web.SignIn;

namespace Polycline.Web.SectionCodes;

/// <param name="Code">As it is shown; spaces and hyphens do not matter.</param>
public sealed record LookAtCodeRequest(string Code);

/// <summary>Where a code leads.</summary>
/// <param name="Course">Null: the section follows none at present.</param>
/// <param name="Approve">Whoever uses it waits for a teacher.</param>
/// <param name="Oneself">Who is signed in; null: nobody.</param>
public sealed record CodeAnswer(string School, string? Course, string Section, bool Approve, string? Oneself);

/// <param name="Code">As it is shown; spaces and hyphens do not matter.</param>
/// <param name="Name">Of somebody who is not signed in; otherwise null.</param>
/// <param name="Email">The same.</param>
public sealed record JoinRequest(string Code, string? Name, string? Email);

/// <summary>What came of it.</summary>
public enum JoinedAs
{
    /// <summary>They are in the section.</summary>
    In,

    /// <summary>They wait for a teacher.</summary>
    Waiting,

    /// <summary>A letter tells them how to go on.</summary>
    Mailed,
}

/// <param name="Section">Its id, for whoever is in it and signed in.</param>
/// <param name="Address">Where somebody new sets a password; null: it goes by mail, or none is needed.</param>
public sealed record JoinAnswer(JoinedAs State, Id<Section>? Section, string? Address);

/// <summary>
/// Joining a section by its code: by somebody who is signed in, or by somebody new, who gets an account. Wrong codes count against the
/// address they come from: there are a million million, and nobody is to try many.
/// </summary>
public static class JoinByCode
{
    private const int MostWrong = 40;

    public static async Task<CodeAnswer> Look(
        LookAtCodeRequest request,
        HttpContext http,
        Database database,
        IClock clock,
        CancellationToken stop
    )
    {
        var code = await Known(request.Code, http, database, clock, stop);
        var school = await database.Read(SettingStore.SchoolName, stop);
        return new(school, code.Course, code.SectionName, code.Approve, (await Whose(http, database, clock))?.Person.Name);
    }

    public static async Task<JoinAnswer> Join(
        JoinRequest request,
        HttpContext http,
        Database database,
        HostSettings settings,
        IMailRoute mail,
        IClock clock,
        CancellationToken stop
    )
    {
        var asked = await Known(request.Code, http, database, clock, stop);
        var access = await Whose(http, database, clock);
        var (name, email) = (request.Name?.Trim() ?? "", request.Email?.Trim() ?? "");
        if (access is null)
            Check(name, email);
        return await database.Within(
            IsolationLevel.ReadCommitted,
            async connection =>
            {
                await SectionCodeStore.Lock(connection, asked.Code);
                var now = clock.GetCurrentInstant();
                var code = Good(await SectionCodeStore.Read(connection, asked.Code), now);
                var inviting = new Inviting(connection, settings.AddressFor(http.Request), now, DateTimeZoneProviders.Tzdb[code.Zone]);
                if (access is not null)
                    return await Use(connection, code, access.Person.Id, now) is JoinedAs.In
                        ? new(JoinedAs.In, code.Section, null)
                        : new JoinAnswer(JoinedAs.Waiting, null, null);
                var known = (await PersonStore.WithAddresses(connection, [email])).SingleOrDefault();
                if (known is not null)
                    return await TellOfAccount(inviting, mail, known);
                var person = await Added(connection, name, email);
                var state = await Use(connection, code, person, now);
                await AccessStore.Audit(connection, now, person, "joined-by-code", "{}");
                var address = await Invitation.Make(inviting, person, name, email, mail.Server is not null);
                return new(address is null ? JoinedAs.Mailed : state, null, address);
            },
            stop
        );
    }

    /// <summary>Gives people places in a section from a day on, unless it lists them then or later.</summary>
    internal static async Task PlaceThem(NpgsqlConnection connection, Id<Section> section, IReadOnlyList<Id<Person>> people, LocalDate from)
    {
        var places = new List<(Id<Section>, Id<Person>, LocalDate, LocalDate?)>();
        foreach (var person in people)
            if (!await SectionCodeStore.Lists(connection, section, person, from))
                places.Add((section, person, from, null));
        if (places.Count == 0)
            return;
        await RosterStore.AddPlaces(connection, places);
        await RosterStore.Tell(connection, [section]);
    }

    /// <exception cref="ProblemException">Somebody else has just added that address.</exception>
    private static async Task<Id<Person>> Added(NpgsqlConnection connection, string name, string email)
    {
        try
        {
            return await PersonStore.Add(connection, name, email, "", office: false);
        }
        catch (PostgresException fault) when (fault.SqlState == PostgresErrorCodes.UniqueViolation)
        {
            throw Problem.Field("email", "An account with that address has just been made. Try again.");
        }
    }

    private static void Check(string name, string email)
    {
        if (!Bounds.IsVisible(name) || name.Length > 200 || name.Any(char.IsControl))
            throw Problem.Field("name", "Enter your name, in one line of up to 200 characters.");
        if (!PeopleRules.IsMailAddress(email))
            throw Problem.Field("email", "Enter a mail address, such as mara.lind@school.example.");
    }

    // Whoever knows a code learns of no address whether it has an account, where a letter can say it to its owner alone.
    private static async Task<JoinAnswer> TellOfAccount(Inviting inviting, IMailRoute mail, KnownPerson known)
    {
        if (mail.Server is null)
            throw Problem.Field("email", "That address has an account. Sign in with it first, then enter the code.");
        if (!known.Removed)
            await MailStore.Add(
                inviting.Connection,
                known.Person,
                "You have an account already",
                $"""
                Dear {known.Name},

                Somebody entered this address together with a section code. You have an
                account already: sign in, then enter the code.

                  {inviting.Address}/join

                If it was not you, there is nothing you need to do.
                """
            );
        return new(JoinedAs.Mailed, null, null);
    }

    private static async Task<JoinedAs> Use(NpgsqlConnection connection, SectionCodeRow code, Id<Person> person, Instant now)
    {
        var today = now.InZone(DateTimeZoneProviders.Tzdb[code.Zone]).Date;
        var from = today < code.First ? code.First : today;
        if (await SectionCodeStore.Lists(connection, code.Section, person, from))
            return JoinedAs.In;
        switch (await SectionCodeStore.StateOf(connection, code.Id, person))
        {
            case "waiting":
                return JoinedAs.Waiting;
            case not null:
                throw Problem.Field("code", "You have used this code before. Ask the teacher for a new one.");
        }
        if (code.Used >= code.Most)
            throw Problem.Field("code", "This code has been used as often as it can be. Ask your teacher for a new one.");
        await SectionCodeStore.Use(connection, code.Id, person, code.Approve ? "waiting" : "in", now);
        if (code.Approve)
            return JoinedAs.Waiting;
        await PlaceThem(connection, code.Section, [person], from);
        return JoinedAs.In;
    }

    private static async Task<SectionCodeRow> Known(string typed, HttpContext http, Database database, IClock clock, CancellationToken stop)
    {
        var now = clock.GetCurrentInstant();
        if (CodeLetters.Read(typed) is not { } letters)
            throw Problem.Field("code", "A section code has eight letters and digits, such as KTRW-9MPA.");
        var address = http.Connection.RemoteIpAddress!.MapToIPv6();
        var count = await database.Within(
            IsolationLevel.ReadCommitted,
            connection =>
                SessionStore.CountTry(connection, $"a section code from {address}", address, null, now, now - StartSession.Window),
            stop
        );
        if (count.AtAccount >= MostWrong)
            throw Problem.TooManyTries((int)StartSession.Window.TotalSeconds);
        var code = await database.Read(connection => SectionCodeStore.Read(connection, letters), stop);
        if (code is null)
            throw Problem.Field("code", "There is no such code. Check each letter, or ask the teacher again.");
        await database.Read(
            async connection =>
            {
                await SessionStore.WasRight(connection, count.Try);
                return true;
            },
            stop
        );
        return Good(code, now);
    }

    /// <exception cref="ProblemException">Nobody can use it any more.</exception>
    private static SectionCodeRow Good(SectionCodeRow? code, Instant now)
    {
        var today = code is null ? default : now.InZone(DateTimeZoneProviders.Tzdb[code.Zone]).Date;
        return code is { Withdrawn: false } && today <= code.Until && today <= code.Last
            ? code
            : throw Problem.Field("code", "This code no longer works. Ask the teacher for a new one.");
    }

    // Anybody may come here, so nobody has looked yet who it is.
    private static Task<Access?> Whose(HttpContext http, Database database, IClock clock) =>
        SessionAuthentication.Find(http, database, null, null, null, clock.GetCurrentInstant());
}
