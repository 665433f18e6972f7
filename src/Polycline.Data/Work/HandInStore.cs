using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Data.Work;

/// <summary>What came of taking a hand-in back.</summary>
/// <param name="Done">False: there was nothing to take back, or some of it was given back already.</param>
/// <param name="By">Who handed it in for all of them, and alone can take it back; null: whoever asked.</param>
public sealed record TakenBack(bool Done, string? By);

/// <summary>Handing in and taking back, for one student or a group.</summary>
public static class HandInStore
{
    /// <summary>Hands in: a version, the fact, and no draft any more, in the caller's transaction.</summary>
    /// <param name="others">Those for whom it is handed in too: each has it as a piece of their own.</param>
    /// <returns>Which version it is, from 1.</returns>
    public static async Task<int> HandIn(
        NpgsqlConnection connection,
        Id<Person> person,
        Id<Item> item,
        Id<Section> section,
        Written written,
        Instant at,
        Instant? claimed,
        Guid request,
        IReadOnlyList<Id<Person>>? others = null
    )
    {
        var all = (others ?? []).Append(person).OrderBy(one => one.Value).ToList();
        // Locking the pieces first makes a second hand-in wait and take the next number.
        var pieces = new Dictionary<Id<Person>, long>();
        foreach (var one in all)
            pieces[one] = await connection.ExecuteScalarAsync<long>(
                Sql.Of("Work", "TakePiece"),
                new
                {
                    person = one.Value,
                    item = item.Value,
                    section = section.Value,
                }
            );
        var n = 0;
        foreach (var one in all)
        {
            var files = written.Files.Select(file => file.Value).ToArray();
            var handed = await connection.ExecuteScalarAsync<int>(
                Sql.Of("Work", "HandIn"),
                new
                {
                    work = pieces[one],
                    person = one.Value,
                    by = person.Value,
                    together = all.Count > 1 ? request : (Guid?)null,
                    item = item.Value,
                    section = section.Value,
                    text = written.Text,
                    files = one == person || files.Length == 0
                        ? files
                        : [.. await connection.QueryAsync<long>(Sql.Of("Work", "ShareFiles"), new { files })],
                    links = written.Links.ToArray(),
                    entries = LogEntry.Write(written.Entries),
                    judged = OwnJudgement.Write(written.Judged),
                    at,
                    claimed,
                    request,
                }
            );
            if (one == person)
                n = handed;
        }
        return n;
    }

    /// <summary>
    /// Takes back what a student handed in of an item and nobody has given back, from those too for whom it was handed in with it:
    /// the fact, and what it held as a draft again, in the caller's transaction.
    /// </summary>
    public static async Task<TakenBack> TakeBack(
        NpgsqlConnection connection,
        Id<Person> person,
        Id<Item> item,
        Id<Section> section,
        Instant at,
        Guid request
    )
    {
        // Waits for anyone who is giving it back at this moment.
        await connection.ExecuteAsync("SELECT id FROM work WHERE person = @person AND item = @item FOR UPDATE", Values(person));
        var (by, together) = await connection.QuerySingleOrDefaultAsync<(string? By, Guid? Together)>(
            """
            SELECT p.name AS by, v.together FROM work w JOIN work_version v ON v.work = w.id AND v.taken_back_at IS NULL
            LEFT JOIN person p ON p.id = v.by
            WHERE w.person = @person AND w.item = @item ORDER BY v.n DESC LIMIT 1
            """,
            Values(person)
        );
        if (by is not null)
            return new(false, by);
        var all = together is null
            ? [person]
            : (
                await connection.QueryAsync<Id<Person>>(
                    """
                    SELECT w.person FROM work_version v JOIN work w ON w.id = v.work
                    WHERE v.together = @together ORDER BY w.id FOR UPDATE OF w
                    """,
                    new { together }
                )
            ).AsList();
        var taken = true;
        foreach (var one in all)
            taken &= await connection.ExecuteScalarAsync<int>(Sql.Of("Work", "TakeBack"), Values(one, together)) > 0;
        return new(taken, null);

        object Values(Id<Person> whose, Guid? handedIn = null) =>
            new
            {
                person = whose.Value,
                by = person.Value,
                together = handedIn,
                item = item.Value,
                section = section.Value,
                at,
                request,
            };
    }
}
