using System.Security.Cryptography;

namespace Polycline.Data.Files;

/// <summary>The bytes of a file, whatever it is called.</summary>
/// <param name="Hash">In hexadecimal digits. Knowing it gives nobody the right to read the file.</param>
/// <param name="Size">In bytes.</param>
/// <param name="Type">The media type that the bytes have.</param>
public sealed record StoredFile(string Hash, long Size, string Type);

/// <summary>How files are stored in the database: in chunks of one size, each once.</summary>
public static class Chunks
{
    /// <summary>The size of a chunk in bytes; a file's last may be smaller.</summary>
    public const int Size = 256 * 1024;

    /// <summary>The number of chunks in a file of this size.</summary>
    public static int CountOf(long size) => (int)((size + Size - 1) / Size);

    /// <summary>The hash of a chunk.</summary>
    public static byte[] HashOf(ReadOnlySpan<byte> bytes) => SHA256.HashData(bytes);

    /// <summary>The hash of a file: of its size and its chunks' hashes, in order.</summary>
    public static byte[] HashOf(long size, IEnumerable<byte[]> chunks)
    {
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        hash.AppendData(BitConverter.GetBytes(size));
        foreach (var chunk in chunks)
            hash.AppendData(chunk);
        return hash.GetHashAndReset();
    }
}
