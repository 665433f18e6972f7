using Polycline.Data.Files;
using Polycline.Formats.Files;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Files;

public sealed record UploadRequest(Guid Upload);

/// <param name="Upload">What to name in order to use it.</param>
public sealed record SentFileAnswer(Guid Upload, string Name, long Size, string SizeInWords) : IAnswer<SentFileAnswer>
{
    public SentFileAnswer AsPreview() => this;
}

/// <summary>Checks a file that has arrived, and accepts it or says why not. Photographs no longer tell where they were taken.</summary>
public sealed class FinishUpload : IWorkCommand<UploadRequest, SentFileAnswer>
{
    // It is cleaned in memory; photographs are far smaller.
    private const long LargestPicture = 60 * 1024 * 1024;

    public static string Name => "finish-upload";

    public static May May => May.SignedIn;

    public static WorkPlace Place => WorkPlace.Oneself;

    public static async Task<SentFileAnswer> Do(WorkContext work, UploadRequest request)
    {
        var (connection, id) = (work.Connection, request.Upload);
        var upload = await UploadStore.Of(connection, work.Access.Person.Id, id, locked: true) ?? throw ReadUpload.Gone();
        if (upload.File is not null)
            return Answer(upload.Size);
        if (upload.Received < upload.Size)
            throw Problem.Field("upload", $"“{upload.Name}” has not arrived completely. Send the rest first.");
        var bytes = StoredStream.Of(connection, id, upload.Size);
        var start = new byte[Math.Min(Chunks.Size, upload.Size)];
        await bytes.ReadExactlyAsync(start);
        var type = FileTypes.Of(start);
        if (FileTypes.Fault(upload.Name, type) is { } fault)
            throw Problem.Field("upload", fault);
        bytes.Position = 0;
        if (await work.Files.Checker.Check(upload.Name, bytes, CancellationToken.None) is { } found)
            throw Problem.Field("upload", found);
        var size = await WithoutPlace(work, upload, bytes, type);
        await UploadStore.Finish(connection, id, type, work.Viewpoint.At);
        return Answer(size);

        SentFileAnswer Answer(long size) => new(id, upload.Name, size, FileLimits.InWords(size));
    }

    /// <returns>How many bytes it has then.</returns>
    private static async Task<long> WithoutPlace(WorkContext work, UploadRow upload, StoredStream bytes, string type)
    {
        if (!FileTypes.TellsPlaces(type))
            return upload.Size;
        if (upload.Size > LargestPicture)
            throw Problem.Field(
                "upload",
                $"A picture can have up to {FileLimits.InWords(LargestPicture)}. Make it smaller, then choose it again."
            );
        var picture = new byte[upload.Size];
        bytes.Position = 0;
        await bytes.ReadExactlyAsync(picture);
        if (PictureCleaning.Of(picture, type) is not { } clean)
            throw Problem.Field("upload", $"“{upload.Name}” is damaged. Open it, save it again, then choose the new file.");
        if (!clean.AsSpan().SequenceEqual(picture))
            await UploadStore.Replace(work.Connection, upload.Id, clean);
        return clean.LongLength;
    }
}

/// <summary>Cancels an upload, or discards a file that was sent and not used.</summary>
public sealed class CancelUpload : IWorkCommand<UploadRequest, DoneAnswer>
{
    public static string Name => "cancel-upload";

    public static May May => May.SignedIn;

    public static WorkPlace Place => WorkPlace.Oneself;

    public static async Task<DoneAnswer> Do(WorkContext work, UploadRequest request)
    {
        await UploadStore.Cancel(work.Connection, work.Access.Person.Id, request.Upload);
        return new();
    }
}
