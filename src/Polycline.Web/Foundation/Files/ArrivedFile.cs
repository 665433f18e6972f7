using Polycline.Data.Files;
using Polycline.Formats.Files;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation.Files;

/// <summary>What is done with a file that has arrived completely, however it came.</summary>
public static class ArrivedFile
{
    // It is cleaned in memory; photographs are far smaller.
    private const long LargestPicture = 60 * 1024 * 1024;

    /// <summary>Checks it and stores it. Photographs no longer tell where they were taken.</summary>
    /// <param name="field">Of the request, which names the file.</param>
    /// <exception cref="ProblemException">It is not accepted, and why.</exception>
    public static async Task<StoredFile> Store(WorkContext work, Guid id, string name, long size, string field)
    {
        var bytes = StoredStream.Of(work.Connection, id, size);
        var start = new byte[Math.Min(Chunks.Size, size)];
        await bytes.ReadExactlyAsync(start);
        var type = FileTypes.Of(start);
        if (FileTypes.Fault(name, type) is { } fault)
            throw Problem.Field(field, fault);
        bytes.Position = 0;
        if (await work.Files.Checker.Check(name, bytes, CancellationToken.None) is { } found)
            throw Problem.Field(field, found);
        bytes.Position = 0;
        if (
            type == FileTypes.Text
            && TableFormulas.AreSoughtIn(name)
            && await TableFormulas.In(bytes, CancellationToken.None) is { } formula
        )
            throw Problem.Field(
                field,
                $"“{name}” contains a formula, “{formula}”, which a spreadsheet would carry out. Save the table with values only."
            );
        if (FileTypes.TellsPlaces(type))
            await RemovePlace(work, id, name, bytes, type, field);
        return await UploadStore.Finish(work.Connection, id, type, work.Viewpoint.At);
    }

    private static async Task RemovePlace(WorkContext work, Guid id, string name, StoredStream bytes, string type, string field)
    {
        if (bytes.Length > LargestPicture)
            throw Problem.Field(
                field,
                $"A picture can have up to {FileLimits.InWords(LargestPicture)}. Make it smaller, then choose it again."
            );
        var picture = new byte[bytes.Length];
        bytes.Position = 0;
        await bytes.ReadExactlyAsync(picture);
        if (PictureCleaning.Of(picture, type) is not { } clean)
            throw Problem.Field(field, $"“{name}” is damaged. Open it, save it again, then choose the new file.");
        if (!clean.AsSpan().SequenceEqual(picture))
            await UploadStore.Replace(work.Connection, id, clean);
    }
}
