using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;

namespace Polycline.Data.Files;

/// <summary>A file on its way.</summary>
/// <param name="Received">How much of it has arrived, in bytes.</param>
/// <param name="File">The hash of the stored file it became; null: it is not complete, or not checked yet.</param>
public sealed record UploadRow(Guid Id, string Name, long Size, long Received, byte[]? File);

/// <summary>A file that has arrived and been checked. Only the person who sent it can use it.</summary>
public sealed record SentFile(Guid Id, Id<Person> Person, string Name, string Hash, long Size, string Type)
{
    public StoredFile Stored => new(Hash, Size, Type);
}

/// <summary>Files as they arrive, piece by piece. Only the person who began an upload can see it.</summary>
public static class UploadStore
{
    /// <summary>How many bytes of a person's room are taken: by what is on its way, and by every file of theirs that is in use.</summary>
    public static Task<long> RoomTaken(NpgsqlConnection connection, Id<Person> person) =>
        connection.ExecuteScalarAsync<long>(Sql.Of("Files", "CountRoom"), new { person = person.Value });

    /// <summary>How many uploads somebody has begun and not finished.</summary>
    public static Task<int> Unfinished(NpgsqlConnection connection, Id<Person> person) =>
        connection.ExecuteScalarAsync<int>("SELECT count(*)::int FROM upload WHERE person = @Value AND file IS NULL", person);

    public static Task Begin(NpgsqlConnection connection, Guid id, Id<Person> person, string name, long size, Instant at) =>
        connection.ExecuteAsync(
            "INSERT INTO upload (id, person, name, size, begun_at) VALUES (@id, @person, @name, @size, @at)",
            new
            {
                id,
                person = person.Value,
                name,
                size,
                at,
            }
        );

    /// <summary>One of a person's uploads; null if they have none with this id.</summary>
    /// <param name="locked">Whether to hold the row until the transaction ends.</param>
    public static Task<UploadRow?> Of(NpgsqlConnection connection, Id<Person> person, Guid id, bool locked = false) =>
        connection.QuerySingleOrDefaultAsync<UploadRow?>(
            "SELECT id, name, size, received, file FROM upload WHERE id = @id AND person = @person" + (locked ? " FOR UPDATE" : ""),
            new { id, person = person.Value }
        );

    /// <summary>Adds chunks to an upload that is locked, in the caller's transaction.</summary>
    /// <param name="received">How much of the file has arrived before.</param>
    /// <param name="chunks">Each of <see cref="Chunks.Size"/> bytes, except that the file's last may be shorter.</param>
    public static Task Add(NpgsqlConnection connection, Guid id, long received, IReadOnlyList<byte[]> chunks) =>
        connection.ExecuteAsync(
            Sql.Of("Files", "AddChunks"),
            new
            {
                id,
                first = Chunks.CountOf(received),
                hashes = chunks.Select(chunk => Chunks.HashOf(chunk)).ToArray(),
                chunks = chunks.ToArray(),
                more = chunks.Sum(chunk => (long)chunk.Length),
            }
        );

    /// <summary>Replaces the bytes that were sent, such as with a photograph that no longer tells where it was taken.</summary>
    public static async Task Replace(NpgsqlConnection connection, Guid id, byte[] bytes)
    {
        await connection.ExecuteAsync(
            "DELETE FROM upload_part WHERE upload = @id; UPDATE upload SET received = 0, size = @size WHERE id = @id",
            new { id, size = bytes.LongLength }
        );
        await Add(connection, id, 0, [.. bytes.Chunk(Chunks.Size)]);
    }

    /// <summary>Makes a stored file of a complete upload, unless the same bytes are stored already.</summary>
    public static async Task<StoredFile> Finish(NpgsqlConnection connection, Guid id, string type, Instant at)
    {
        var size = await connection.ExecuteScalarAsync<long>("SELECT size FROM upload WHERE id = @id", new { id });
        var chunks = await connection.QueryAsync<byte[]>("SELECT chunk FROM upload_part WHERE upload = @id ORDER BY n", new { id });
        var hash = Chunks.HashOf(size, chunks);
        await connection.ExecuteAsync(
            Sql.Of("Files", "Finish"),
            new
            {
                id,
                hash,
                size,
                type,
                at,
            }
        );
        return new(Convert.ToHexStringLower(hash), size, type);
    }

    public static Task Cancel(NpgsqlConnection connection, Id<Person> person, Guid id) =>
        connection.ExecuteAsync("DELETE FROM upload WHERE id = @id AND person = @person", new { id, person = person.Value });

    /// <summary>Those of these uploads that are complete, in the order asked for.</summary>
    public static async Task<IReadOnlyList<SentFile>> Sent(NpgsqlConnection connection, IReadOnlyList<Guid> ids) =>
        (
            await connection.QueryAsync<SentFile>(
                """
                SELECT u.id, u.person, u.name, encode(s.hash, 'hex') AS hash, s.size, s.type
                FROM unnest(@ids) WITH ORDINALITY asked (id, place)
                JOIN upload u ON u.id = asked.id
                JOIN stored_file s ON s.hash = u.file
                ORDER BY asked.place
                """,
                new { ids = ids.ToArray() }
            )
        ).AsList();

    /// <summary>Deletes abandoned uploads, and files that nothing has named for a month.</summary>
    /// <returns>How many files were deleted.</returns>
    public static Task<int> Sweep(NpgsqlConnection connection, Instant at) =>
        connection.ExecuteScalarAsync<int>("SELECT sweep_files(@at)", new { at });
}
