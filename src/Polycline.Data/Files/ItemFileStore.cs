using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.LinkChecks;
using Polycline.Data.Sheets;
using Polycline.Data.Texts;

namespace Polycline.Data.Files;

/// <summary>A file of an item.</summary>
public sealed record ItemFileRow
{
    public required Id<ItemFileRow> Id { get; init; }

    public required Id<Item> Item { get; init; }

    public required string Rank { get; init; }

    public required string Name { get; init; }

    /// <summary>What it is kept under, in hexadecimal digits.</summary>
    public required string Hash { get; init; }

    /// <summary>In bytes.</summary>
    public required long Size { get; init; }

    /// <summary>The media type of its bytes.</summary>
    public required string Type { get; init; }

    /// <summary>The file it replaced; null: none.</summary>
    public required Id<ItemFileRow>? Replaces { get; init; }

    public required string BroughtBy { get; init; }

    public required Instant BroughtAt { get; init; }

    /// <summary>It was replaced or removed.</summary>
    public required bool Removed { get; init; }

    /// <summary>How it is given (<see cref="FileWay"/>).</summary>
    public required string Given { get; init; }

    /// <summary>How each student's copy is named; null: in the usual way.</summary>
    public required string? CopyName { get; init; }

    public FileWay Way => EnumNames.Parse<FileWay>(Given);

    public bool IsWrittenTogether => Way == FileWay.Together;

    public bool IsCopiedForEach => Way == FileWay.Copy;

    public required long Version { get; init; }

    public StoredFile Stored => new(Hash, Size, Type);
}

/// <summary>What is in an item, for its team.</summary>
/// <param name="Files">The present ones in order, then those that were replaced or removed.</param>
/// <param name="Link">What is known of its address; null: nothing.</param>
/// <param name="Copies">Those that students have of its files.</param>
/// <param name="Sheets">Those that sections write in together.</param>
/// <param name="Writing">Its text as the team is writing it; null: nobody is.</param>
public sealed record ItemContent(
    string Html,
    IReadOnlyList<ItemFileRow> Files,
    LinkCheckRow? Link,
    IReadOnlyList<CopyRow> Copies,
    IReadOnlyList<SheetCount> Sheets,
    TextDraftRow? Writing
);

/// <summary>Reads the files of items.</summary>
public static class ItemFileStore
{
    /// <summary>The items of an edition that files are given with.</summary>
    public static async Task<IReadOnlySet<Id<Item>>> ItemsWithFiles(NpgsqlConnection connection, Id<Edition> edition) =>
        (
            await connection.QueryAsync<Id<Item>>(
                "SELECT DISTINCT item FROM item_file WHERE edition = @Value AND removed_at IS NULL",
                edition
            )
        ).ToHashSet();

    internal static string Statement => Sql.Of("Files", "ReadItemFiles");

    /// <summary>The present files of an item in order, then those that were replaced or removed.</summary>
    public static async Task<IReadOnlyList<ItemFileRow>> Of(NpgsqlConnection connection, Id<Item> item) =>
        (await connection.QueryAsync<ItemFileRow>(Statement, new { item = item.Value })).AsList();

    /// <summary>The same with the item's text and what its team is told of it, in one round trip.</summary>
    /// <param name="body">What its text is kept under; null: it has none.</param>
    public static async Task<ItemContent> WithText(NpgsqlConnection connection, Id<Item> item, string? body)
    {
        await using var results = await connection.QueryMultipleAsync(
            Sql.Together(
                Courses.BodyStore.Statement,
                Statement,
                LinkCheckStore.Statement,
                CopyStore.Statement,
                SheetStore.Statement,
                TextDraftStore.Statement
            ),
            new { item = item.Value, hash = body is null ? null : Convert.FromHexString(body) }
        );
        return new(
            await results.ReadSingleOrDefaultAsync<string?>() ?? "",
            await From(results),
            await results.ReadSingleOrDefaultAsync<LinkCheckRow?>(),
            (await results.ReadAsync<CopyRow>()).AsList(),
            (await results.ReadAsync<SheetCount>()).AsList(),
            await results.ReadSingleOrDefaultAsync<TextDraftRow?>()
        );
    }

    internal static async Task<IReadOnlyList<ItemFileRow>> From(SqlMapper.GridReader results) =>
        (await results.ReadAsync<ItemFileRow>()).AsList();

    /// <summary>How many bytes the files of an edition have together; the same file is counted once.</summary>
    public static Task<long> RoomTaken(NpgsqlConnection connection, Id<Edition> edition) =>
        connection.ExecuteScalarAsync<long>(
            """
            SELECT coalesce(sum(s.size), 0)::bigint FROM stored_file s
            WHERE s.hash IN (SELECT f.file FROM item_file f WHERE f.edition = @Value AND f.removed_at IS NULL)
            """,
            edition
        );
}
