using Polycline.Data.Files;
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
        return Answer((await ArrivedFile.Store(work, id, upload.Name, upload.Size, "upload")).Size);

        SentFileAnswer Answer(long size) => new(id, upload.Name, size, FileLimits.InWords(size));
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
