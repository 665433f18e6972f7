using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.People;

/// <param name="Lines">The latest first: at most 100.</param>
/// <param name="HasMore">There are earlier ones.</param>
public sealed record RecordAnswer(IReadOnlyList<RecordLine> Lines, bool HasMore);

/// <param name="Who">Empty: nobody who was signed in.</param>
/// <param name="Words">Goes on a sentence that starts with their name.</param>
/// <param name="Place">The course or term it was in; empty: neither.</param>
public sealed record RecordLine(Moment At, string Who, string Words, string Place);

/// <summary>Who did what in the school, for its office. It names people with accounts, and nobody's work.</summary>
public static class ReadRecord
{
    private const int Most = 100;
    private const int Furthest = 100_000;

    private static readonly string[] SignIns =
    [
        "signed-in",
        "signed-out-elsewhere",
        "signed-out-everywhere",
        "password-set",
        "password-changed",
    ];

    /// <param name="of">
    /// Empty (everything), <c>sign-ins</c>, <c>school</c> (accounts, sections, rosters, courses made) or <c>plans</c>.
    /// </param>
    /// <param name="person">Only what they did, or was done with their account.</param>
    /// <param name="skip">How many lines to leave out: 0 to 100,000.</param>
    public static async Task<RecordAnswer> Handle(
        string? of,
        long? person,
        int? skip,
        Access access,
        Viewpoint viewpoint,
        Database database,
        CancellationToken stop
    )
    {
        if (skip is < 0 or > Furthest)
            throw Problem.Malformed("skip", "'skip' is a number from 0 to 100,000.");
        var part = of switch
        {
            null or "" => new RecordPart(true, true),
            "sign-ins" => new(true, false, SignIns),
            "school" => new(true, false, SignIns, false),
            "plans" => new(false, true),
            _ => throw Problem.Malformed("of", "'of' is sign-ins, school or plans, or is left out."),
        };
        var rows = await database.Read(
            connection =>
                RecordStore.Read(connection, part, person is { } id ? new Id<Person>(id) : null, viewpoint.Now, skip ?? 0, Most + 1),
            stop
        );
        return new(
            [
                .. rows.Take(Most)
                    .Select(row => new RecordLine(
                        Moment.Of(row.At, access.Zone),
                        row.Name ?? "",
                        row.What == "" ? row.Words : RecordWords.Of(row.What, row.Subject, row.About),
                        row.Place
                    )),
            ],
            rows.Count > Most
        );
    }
}
