using Dapper;

namespace Polycline.Data.Files;

/// <summary>The bytes of a file or an upload, read a chunk at a time: no more than one is ever in memory.</summary>
public sealed class StoredStream : Stream
{
    private readonly Func<int, CancellationToken, Task<byte[]?>> read;
    private byte[] chunk = [];
    private int held = -1;

    private StoredStream(long length, Func<int, CancellationToken, Task<byte[]?>> read) => (Length, this.read) = (length, read);

    private const string OfFile = "SELECT c.bytes FROM file_part p JOIN file_chunk c ON c.hash = p.chunk WHERE p.file = @hash AND p.n = @n";

    /// <summary>The bytes of a stored file; each chunk is read on its own connection, so that a slow reader does not hold one.</summary>
    public static StoredStream Of(Database database, StoredFile file)
    {
        var hash = Convert.FromHexString(file.Hash);
        return new(file.Size, (n, stop) =>
            database.Read(connection => connection.ExecuteScalarAsync<byte[]?>(new(OfFile, new { hash, n }, cancellationToken: stop)), stop)
        );
    }

    /// <summary>The same on the caller's connection.</summary>
    public static StoredStream Of(Npgsql.NpgsqlConnection connection, StoredFile file)
    {
        var hash = Convert.FromHexString(file.Hash);
        return new(file.Size, (n, stop) => connection.ExecuteScalarAsync<byte[]?>(new(OfFile, new { hash, n }, cancellationToken: stop)));
    }

    /// <summary>The bytes of a complete upload that is not stored yet, on the caller's connection.</summary>
    public static StoredStream Of(Npgsql.NpgsqlConnection connection, Guid upload, long size) =>
        new(size, (n, stop) =>
            connection.ExecuteScalarAsync<byte[]?>(
                new(
                    "SELECT c.bytes FROM upload_part p JOIN file_chunk c ON c.hash = p.chunk WHERE p.upload = @upload AND p.n = @n",
                    new { upload, n },
                    cancellationToken: stop
                )
            )
        );

    public override bool CanRead => true;

    public override bool CanSeek => true;

    public override bool CanWrite => false;

    public override long Length { get; }

    public override long Position { get; set; }

    /// <exception cref="InvalidDataException">A chunk is missing or too short.</exception>
    public override async ValueTask<int> ReadAsync(Memory<byte> buffer, CancellationToken cancellationToken = default)
    {
        if (buffer.IsEmpty || Position >= Length)
            return 0;
        var (n, at) = ((int)(Position / Chunks.Size), (int)(Position % Chunks.Size));
        if (n != held)
        {
            chunk = await read(n, cancellationToken) ?? throw new InvalidDataException($"Chunk {n} is missing.");
            held = n;
        }
        if (at >= chunk.Length)
            throw new InvalidDataException($"Chunk {n} is too short.");
        var count = (int)Math.Min(Math.Min(buffer.Length, chunk.Length - at), Length - Position);
        chunk.AsMemory(at, count).CopyTo(buffer);
        Position += count;
        return count;
    }

    public override Task<int> ReadAsync(byte[] buffer, int offset, int count, CancellationToken cancellationToken) =>
        ReadAsync(buffer.AsMemory(offset, count), cancellationToken).AsTask();

    /// <exception cref="NotSupportedException">Always: bytes can only be read asynchronously.</exception>
    public override int Read(byte[] buffer, int offset, int count) => throw new NotSupportedException("Read it with ReadAsync.");

    public override long Seek(long offset, SeekOrigin origin) =>
        Position = origin switch
        {
            SeekOrigin.Begin => offset,
            SeekOrigin.Current => Position + offset,
            _ => Length + offset,
        };

    public override void Flush() { }

    public override void SetLength(long value) => throw new NotSupportedException("It is only read.");

    public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException("It is only read.");
}
