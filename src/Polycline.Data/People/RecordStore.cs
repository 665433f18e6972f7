using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;

namespace Polycline.Data.People;

/// <summary>Something that somebody did.</summary>
public sealed record RecordRow
{
    public required Instant At { get; init; }

    /// <summary>Null: nobody who was signed in.</summary>
    public required Id<Person>? Who { get; init; }

    public required string? Name { get; init; }

    /// <summary>What it is called in the audit; empty: it is a change of planning.</summary>
    public required string What { get; init; }

    /// <summary>Of a change of planning: goes on a sentence that starts with the author's name.</summary>
    public required string Words { get; init; }

    /// <summary>The course or term that was changed; empty: neither.</summary>
    public required string Place { get; init; }

    /// <summary>JSON.</summary>
    public required string About { get; init; }

    /// <summary>Whose account it was about; null: nobody's.</summary>
    public required string? Subject { get; init; }
}

/// <summary>Which part of the record is asked for.</summary>
/// <param name="Audit">What is no change of planning.</param>
/// <param name="Plans">Changes of planning.</param>
/// <param name="Kinds">Of the audit only these, or all but these; null: all.</param>
/// <param name="Among">Whether only these.</param>
public sealed record RecordPart(bool Audit, bool Plans, IReadOnlyList<string>? Kinds = null, bool Among = true);

/// <summary>Who did what.</summary>
public static class RecordStore
{
    /// <param name="person">Only what they did, or was done with their account; null: everybody.</param>
    public static async Task<IReadOnlyList<RecordRow>> Read(
        NpgsqlConnection connection,
        RecordPart part,
        Id<Person>? person,
        Instant now,
        int skip,
        int most
    ) =>
        [
            .. await connection.QueryAsync<RecordRow>(
                Sql.Of("People", "ReadRecord"),
                new
                {
                    part.Audit,
                    part.Plans,
                    kinds = part.Kinds?.ToArray(),
                    part.Among,
                    person = person?.Value,
                    now,
                    skip,
                    most,
                }
            ),
        ];
}
