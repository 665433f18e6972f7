using System.Data;
using Polycline.Data;
using Polycline.Data.Files;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Files;

/// <summary>
/// Receives the next piece of a file. A piece that arrives twice or too early changes nothing; the answer says where to continue.
/// </summary>
public static class SendPiece
{
    /// <param name="from">Where the piece begins in the file, in bytes.</param>
    public static async Task<UploadAnswer> Handle(
        Guid upload,
        long from,
        HttpContext http,
        Viewpoint viewpoint,
        Database database,
        CancellationToken stop
    )
    {
        var chunks = await Read(http.Request.Body, stop);
        var sent = chunks.Sum(chunk => (long)chunk.Length);
        return await database.Within(
            IsolationLevel.ReadCommitted,
            async connection =>
            {
                var row = await UploadStore.Of(connection, viewpoint.Who.Id, upload, locked: true) ?? throw ReadUpload.Gone();
                if (row.File is not null || from != row.Received || sent == 0)
                    return ReadUpload.Answer(row);
                if (from + sent > row.Size)
                    throw Problem.Field(
                        "size",
                        $"“{row.Name}” has changed since you chose it. Close it in other programs, then choose it again."
                    );
                if (from + sent < row.Size && sent % Chunks.Size != 0)
                    throw Problem.Malformed("from", $"Every piece but the last is a multiple of {Chunks.Size:N0} bytes.");
                await UploadStore.Add(connection, upload, row.Received, chunks);
                return ReadUpload.Answer(row with { Received = from + sent });
            },
            stop
        );
    }

    private static async Task<List<byte[]>> Read(Stream body, CancellationToken stop)
    {
        var chunks = new List<byte[]>();
        var chunk = new byte[Chunks.Size];
        while (await body.ReadAtLeastAsync(chunk, Chunks.Size, false, stop) is > 0 and var count)
        {
            chunks.Add(count == Chunks.Size ? chunk : chunk[..count]);
            if (chunks.Count > FileLimits.Piece / Chunks.Size)
                throw Problem.Malformed("from", $"A piece has at most {FileLimits.Piece:N0} bytes.");
            chunk = new byte[Chunks.Size];
        }
        return chunks;
    }
}

/// <summary>Tells how much of a file has arrived, for a page that lost its connection.</summary>
public static class ReadUpload
{
    public static async Task<UploadAnswer> Handle(Guid upload, Viewpoint viewpoint, Database database, CancellationToken stop) =>
        Answer(await database.Read(connection => UploadStore.Of(connection, viewpoint.Who.Id, upload), stop) ?? throw Gone());

    internal static UploadAnswer Answer(UploadRow row) => new(row.Id, row.Name, row.Size, row.Received);

    internal static ProblemException Gone() =>
        Problem.Gone("This upload no longer exists.", "It was cancelled, or left for too long. Choose the file again.");
}
