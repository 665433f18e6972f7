using System.Data;
using FluentValidation;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Data;
using Polycline.Data.People;
using Polycline.Data.Settings;
using Polycline.Data.Terms;
using Polycline.Web.Calendar;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.People;
using Polycline.Web.SignIn;

namespace Polycline.Web.Beginning;

/// <param name="Zones">The time zones a school can be in, by their IANA names.</param>
public sealed record BeginAnswer(IReadOnlyList<string> Zones);

/// <param name="Name">Whoever begins: the first of the school's office.</param>
/// <param name="Email">What they sign in with.</param>
/// <param name="Password">10 to 200 characters.</param>
/// <param name="School">What the school is called.</param>
/// <param name="Zone">The time zone it is in, by its IANA name.</param>
/// <param name="Term">What its first term is called.</param>
/// <param name="First">The first date of that term.</param>
/// <param name="Last">Its last date, at most 400 days later.</param>
public sealed record BeginRequest(
    string Name,
    string Email,
    string Password,
    string School,
    string Zone,
    string Term,
    string First,
    string Last
);

/// <param name="Term">The first term: its weekdays, periods and closures come next.</param>
public sealed record BegunAnswer(Id<Term> Term);

/// <summary>How a school without anything in it begins: by an address that is printed at the console, good once and for an hour.</summary>
public static class BeginSchool
{
    public static readonly Duration Life = Duration.FromHours(1);

    public static void MapBeginning(this IEndpointRouteBuilder routes)
    {
        var address = $"/api/begin/{{token:length({OneTimeToken.Length})}}";
        routes.MapGet(address, Read).WithName("begin").For(May.Anyone).ProducesProblems(404);
        routes.MapPost(address, Begin).WithName("begin-school").For(May.Anyone).ProducesProblems(404, 422);
    }

    /// <summary>The address by which a school begins; null: it has begun already.</summary>
    public static async Task<string?> NewAddress(Database database, string pages, IClock clock, CancellationToken stop)
    {
        var (token, now) = (OneTimeToken.New(), clock.GetCurrentInstant());
        return await database.Within(
            IsolationLevel.ReadCommitted,
            async connection =>
            {
                if (await PersonStore.HasAny(connection))
                    return null;
                await OneTimeLinkStore.Add(connection, OneTimeToken.Hash(token), null, now, now + Life);
                return $"{pages.TrimEnd('/')}/begin/{token}";
            },
            stop
        );
    }

    private static async Task<BeginAnswer> Read(string token, Database database, IClock clock, CancellationToken stop)
    {
        await Needed(token, database, clock, stop);
        return new([.. DateTimeZoneProviders.Tzdb.Ids.Where(IsPlace).Order(StringComparer.Ordinal)]);
    }

    // Without the names that only old computers use.
    private static bool IsPlace(string zone) =>
        zone == "UTC"
        || new[] { "Africa/", "America/", "Antarctica/", "Asia/", "Atlantic/", "Australia/", "Europe/", "Indian/", "Pacific/" }.Any(part =>
            zone.StartsWith(part, StringComparison.Ordinal)
        );

    private static async Task<BegunAnswer> Begin(
        string token,
        BeginRequest request,
        HttpContext http,
        Database database,
        IClock clock,
        CancellationToken stop
    )
    {
        new Rules().Hold(request);
        await Needed(token, database, clock, stop);
        var (name, email) = (request.Name.Trim(), request.Email.Trim());
        PeopleRules.CheckPassword(request.Password, name, email);
        var term = TermForm.Read(request.Term.Trim(), request.Zone, request.First, request.Last, TermForm.PlainWeek);
        var password = await StartSession.HashLater(request.Password, stop);
        var now = clock.GetCurrentInstant();
        var made = await database.Within(
            IsolationLevel.ReadCommitted,
            async connection =>
            {
                if (!await OneTimeLinkStore.Use(connection, OneTimeToken.Hash(token), now) || await PersonStore.HasAny(connection))
                    throw Gone();
                var person = await PersonStore.Add(connection, name, email, password, office: true);
                await SettingStore.NameSchool(connection, request.School.Trim());
                var first = await TermStore.Add(connection, term, TermForm.PlainWeek.ToJsonString());
                await AccessStore.Audit(connection, now, person, "school-begun", "{}");
                await StartSession.Start(http, connection, person, email, now);
                return first;
            },
            stop
        );
        return new(made);
    }

    private static async Task Needed(string token, Database database, IClock clock, CancellationToken stop)
    {
        var link = await database.Read(
            connection => OneTimeLinkStore.Read(connection, OneTimeToken.Hash(token), clock.GetCurrentInstant()),
            stop
        );
        if (link is not { Person: null })
            throw Gone();
    }

    private static ProblemException Gone() =>
        Problem.Gone(
            "This address has been used or has expired.",
            "It works once, for an hour. Start Polycline again, and it prints a new one if the school has not begun."
        );

    private sealed class Rules : AbstractValidator<BeginRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Name).IsName();
            RuleFor(request => request.Email).IsMailAddress();
            RuleFor(request => request.School).IsName();
            RuleFor(request => request.Term).IsName();
        }
    }
}
