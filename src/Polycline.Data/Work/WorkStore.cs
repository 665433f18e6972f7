using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;
using Polycline.Data.Files;
using Polycline.Data.Students;

namespace Polycline.Data.Work;

/// <summary>Students' work: append-only, but for drafts.</summary>
public static class WorkStore
{
    /// <summary>What a student has handed in for an item up to a moment, the latest first, and their draft.</summary>
    public static async Task<OwnWork> Of(NpgsqlConnection connection, Id<Person> person, Id<Item> item, Instant at)
    {
        await using var results = await connection.QueryMultipleAsync(
            OwnStatements,
            new
            {
                person = person.Value,
                item = item.Value,
                at,
            }
        );
        return await OwnFrom(results);
    }

    /// <summary>The same, with the section whose work it is and what came back; null: nothing has been handed in.</summary>
    public static async Task<(Id<Section>? Section, OwnWork Work, IReadOnlyList<FeedbackRow> Feedback)> WithFeedback(
        NpgsqlConnection connection,
        Id<Person> person,
        Id<Item> item,
        Instant at
    )
    {
        await using var results = await connection.QueryMultipleAsync(
            Sql.Together(
                "SELECT section FROM work WHERE person = @person AND item = @item",
                OwnStatements,
                """
                SELECT w.item, coalesce(f.n, 0) AS n, p.name AS by, f.text, f.again, f.mark::text, f.returned_at, f.remarks::text
                FROM work w JOIN feedback f ON f.work = w.id JOIN person p ON p.id = f.by
                WHERE w.person = @person AND w.item = @item AND f.returned_at <= @at AND (f.taken_back_at IS NULL OR f.taken_back_at > @at)
                ORDER BY f.id DESC
                """
            ),
            new
            {
                person = person.Value,
                item = item.Value,
                at,
            }
        );
        return (
            await results.ReadSingleOrDefaultAsync<Id<Section>?>(),
            await OwnFrom(results),
            (await results.ReadAsync<FeedbackRow>()).AsList()
        );
    }

    /// <summary>How many students of each section have handed in each item of an edition, up to a moment.</summary>
    public static async Task<IReadOnlyList<HandedInCount>> CountHandedIn(NpgsqlConnection connection, Id<Edition> edition, Instant at) =>
        (await connection.QueryAsync<HandedInCount>(Sql.Of("Work", "CountHandedIn"), new { edition = edition.Value, at })).AsList();

    internal static string OwnStatements => Sql.Of("Work", "ReadOwn");

    internal static async Task<OwnWork> OwnFrom(SqlMapper.GridReader results) =>
        new([.. await results.ReadAsync<VersionRow>()], await results.ReadSingleOrDefaultAsync<DraftRow>())
        {
            Files = (await results.ReadAsync<WorkFileRow>()).ToDictionary(file => file.Id),
        };

    /// <summary>Keeps a draft. If two pages write at once, the one that read the later version wins and the other is told.</summary>
    /// <returns>The new version; null: it was changed in the meantime.</returns>
    public static async Task<long?> SaveDraft(
        NpgsqlConnection connection,
        Id<Person> person,
        Id<Item> item,
        Written written,
        long version,
        Instant at
    )
    {
        var saved = await connection.ExecuteScalarAsync<long?>(
            Sql.Of("Work", "SaveDraft"),
            new
            {
                person = person.Value,
                item = item.Value,
                text = written.Text,
                files = written.Files.ToArray(),
                links = written.Links.ToArray(),
                entries = LogEntry.Write(written.Entries),
                judged = OwnJudgement.Write(written.Judged),
                version,
                at,
            }
        );
        if (saved is not null)
            await CopyStore.KeepTexts(connection, written.Copies, at);
        return saved;
    }

    /// <summary>Keeps what was sent too late as a draft.</summary>
    public static Task KeepMissed(
        NpgsqlConnection connection,
        Id<Person> person,
        Id<Item> item,
        Written written,
        Instant at,
        Instant? claimed
    ) =>
        connection.ExecuteAsync(
            Sql.Of("Work", "KeepMissed"),
            new
            {
                person = person.Value,
                item = item.Value,
                text = written.Text,
                files = written.Files.ToArray(),
                links = written.Links.ToArray(),
                entries = LogEntry.Write(written.Entries),
                judged = OwnJudgement.Write(written.Judged),
                at,
                claimed,
            }
        );

    /// <summary>Records something that a student did.</summary>
    public static Task Record(
        NpgsqlConnection connection,
        Id<Person> person,
        Id<Item> item,
        Id<Section> section,
        string what,
        Instant at,
        Guid request
    ) =>
        connection.ExecuteAsync(
            "INSERT INTO fact (person, item, section, event, at, recorded_at, by, request) VALUES "
                + "(@person, @item, @section, @what, @at, @at, @person, @request) ON CONFLICT DO NOTHING",
            new
            {
                person = person.Value,
                item = item.Value,
                section = section.Value,
                what,
                at,
                request,
            }
        );

    internal static string EditionStatements => Sql.Of("Work", "ReadWork");

    internal static async Task<SectionsWork> EditionFrom(SqlMapper.GridReader results) =>
        new(
            (await results.ReadAsync<Id<Section>>()).ToHashSet(),
            [.. await results.ReadAsync<PieceRow>()],
            (await results.ReadAsync<WorkFileRow>()).ToDictionary(file => file.Id)
        )
        {
            Readers = (await results.ReadAsync<ReaderRow>()).ToDictionary(reader => (reader.Item, reader.Person)),
        };

    /// <summary>The latest version of a piece, locked; null where the section has none of that id.</summary>
    public static async Task<(Id<Person> Person, Id<Item> Item, int N, bool Returned)?> Latest(
        NpgsqlConnection connection,
        Id<Section> section,
        Id<PieceRow> work
    )
    {
        var values = new { section = section.Value, work };
        // A statement of its own: what it waited for may have changed the versions, and only a later statement sees that.
        await connection.ExecuteAsync("SELECT 1 FROM work WHERE id = @work AND section = @section FOR UPDATE", values);
        return await connection.QuerySingleOrDefaultAsync<(Id<Person>, Id<Item>, int, bool)?>(Sql.Of("Work", "ReadLatest"), values);
    }

    /// <summary>What was handed in at once, as remarks are made on it.</summary>
    public static Task<Remarkable> Remarkable(NpgsqlConnection connection, Id<PieceRow> work, int n) =>
        connection.QuerySingleAsync<Remarkable>(
            "SELECT text, files, entries::text FROM work_version WHERE work = @work AND n = @n",
            new { work, n }
        );

    /// <summary>What somebody has remarked up to a moment: first of the same item, then the most often said; 300 at most.</summary>
    public static async Task<IReadOnlyList<RemarkMade>> RemarksMade(
        NpgsqlConnection connection,
        Id<Person> viewer,
        Id<Item> item,
        Instant at
    ) =>
        (
            await connection.QueryAsync<RemarkMade>(
                Sql.Of("Work", "ReadRemarks"),
                new
                {
                    viewer = viewer.Value,
                    item = item.Value,
                    at,
                }
            )
        ).AsList();

    /// <summary>The pieces that were handed in together with one and stand as they were then; they are locked.</summary>
    public static async Task<IReadOnlyList<(Id<PieceRow> Work, Id<Person> Person, int N)>> HandedInWith(
        NpgsqlConnection connection,
        Id<Section> section,
        Id<PieceRow> work,
        int n
    ) =>
        (
            await connection.QueryAsync<(Id<PieceRow>, Id<Person>, int)>(
                Sql.Of("Work", "ReadTogether"),
                new
                {
                    section = section.Value,
                    work,
                    n,
                }
            )
        ).AsList();

    /// <summary>Gives a version back: the feedback and the facts, in the caller's transaction.</summary>
    /// <param name="mark">Null: in words only.</param>
    public static Task GiveBack(
        NpgsqlConnection connection,
        Id<PieceRow> work,
        int n,
        Id<Person> person,
        Id<Item> item,
        Id<Section> section,
        Id<Person> by,
        string text,
        bool again,
        GivenMark? mark,
        IReadOnlyList<Remark> remarks,
        Instant at,
        Guid request
    ) =>
        connection.ExecuteAsync(
            Sql.Of("Work", "GiveBack"),
            new
            {
                work,
                n,
                person,
                item,
                section = section.Value,
                by = by.Value,
                text,
                again,
                mark = mark is null ? null : PlanParts.Json(mark),
                // To try again gives no score.
                remarks = Remark.Write(remarks),
                score = mark is null || again ? null : MarkShare.FactOf(mark),
                at,
                request,
            }
        );

    /// <summary>Whether a student has worked in an edition: then it is there to stay.</summary>
    public static Task<bool> AnyIn(NpgsqlConnection connection, Id<Edition> edition) =>
        connection.ExecuteScalarAsync<bool>(
            "SELECT EXISTS (SELECT 1 FROM fact f JOIN item i ON i.id = f.item WHERE i.edition = @Value) "
                + "OR EXISTS (SELECT 1 FROM draft d JOIN item i ON i.id = d.item WHERE i.edition = @Value) "
                + "OR EXISTS (SELECT 1 FROM sheet s JOIN item i ON i.id = s.item WHERE i.edition = @Value)",
            edition
        );
}
