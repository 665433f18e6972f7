using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Mail;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.People;

/// <param name="HasMail">Links can go out by mail.</param>
public sealed record PeopleAnswer(bool HasMail, IReadOnlyList<PersonAnswer> People);

public sealed record PersonAnswer
{
    public required Id<Person> Person { get; init; }

    public required string Name { get; init; }

    public required string Email { get; init; }

    /// <summary>They are of the school's office.</summary>
    public required bool Office { get; init; }

    /// <summary>They may make courses.</summary>
    public required bool Teacher { get; init; }

    /// <summary><c>active</c>, <c>invited</c> (no password set yet) or <c>deactivated</c>.</summary>
    public required string State { get; init; }

    /// <summary>The name and address of the account that this one was joined into; null: none.</summary>
    public required string? JoinedInto { get; init; }

    /// <summary>When they were signed in last, in words; null: never.</summary>
    public required string? LastIn { get; init; }

    /// <summary>How many sessions they have open.</summary>
    public required int Sessions { get; init; }

    /// <summary>How many courses they are on the team of.</summary>
    public required int Courses { get; init; }

    /// <summary>How many sections they teach.</summary>
    public required int Teaches { get; init; }

    /// <summary>The sections that list them today.</summary>
    public required IReadOnlyList<string> StudentIn { get; init; }

    /// <summary>It is who asks: their own account is not theirs to deactivate.</summary>
    public required bool Oneself { get; init; }
}

/// <summary>Reads everybody with an account, in order of name.</summary>
public static class ReadPeople
{
    public static async Task<PeopleAnswer> Handle(
        Access access,
        Viewpoint viewpoint,
        IMailRoute mail,
        Database database,
        CancellationToken stop
    )
    {
        var rows = await database.Read(connection => PersonStore.All(connection, viewpoint.Now), stop);
        return new(mail.Server is not null, [.. rows.Select(row => Of(row, access))]);
    }

    private static PersonAnswer Of(PersonRow row, Access access) =>
        new()
        {
            Person = row.Person,
            Name = row.Name,
            Email = row.Email,
            Office = row.Office,
            Teacher = row.Teacher,
            State =
                row.Removed ? "deactivated"
                : row.Invited ? "invited"
                : "active",
            JoinedInto = row.JoinedInto,
            LastIn = row.LastIn is { } at ? Moment.InWords(at.InZone(access.Zone).Date) : null,
            Sessions = row.Sessions,
            Courses = row.Courses,
            Teaches = row.Teaches,
            StudentIn = row.Sections,
            Oneself = row.Person == access.Person.Id,
        };
}
