using System.Security.Cryptography;
using System.Text;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Files;
using Polycline.Formats;
using Polycline.Formats.Files;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Editions;

/// <summary>Stores the files of a package, each checked as if it had been sent by itself.</summary>
internal static class PackageFiles
{
    // So many chunks are written at once.
    private const int Together = 16;

    /// <summary>The files of a package as they were sent, by the names it has for them.</summary>
    /// <param name="field">Of the request, which names the package.</param>
    /// <exception cref="ProblemException">There is no room for them, or one is not accepted.</exception>
    public static async Task<IReadOnlyDictionary<string, SentFile>> Store(WorkContext work, PackageReader reader, string field)
    {
        var stored = new Dictionary<string, SentFile>(StringComparer.Ordinal);
        var names = reader.Package.FileNames.Order(StringComparer.Ordinal).ToList();
        await NeedRoom(work, names.Sum(reader.LengthOf), field);
        var given = reader
            .Package.Course.Edition.InReadingOrder()
            .SelectMany(item => item.Files)
            .DistinctBy(file => file.Hash)
            .ToDictionary(file => file.Hash, file => file.Name, StringComparer.Ordinal);
        foreach (var name in names)
            stored.Add(name, await Store(work, reader, name, given.GetValueOrDefault(name), field));
        return stored;
    }

    private static async Task<SentFile> Store(WorkContext work, PackageReader reader, string file, string? given, string field)
    {
        var (person, size, id) = (work.Access.Person.Id, reader.LengthOf(file), Guid.NewGuid());
        var called = given ?? "picture";
        if (size == 0)
            throw Problem.Field(field, $"“{called}” in this package is empty.");
        if (size > work.Files.Limits.LargestOfTeachers)
            throw Problem.Field(
                field,
                $"“{called}” in this package is too large. A file can have up to {FileLimits.InWords(work.Files.Limits.LargestOfTeachers)}."
            );
        await UploadStore.Begin(work.Connection, id, person, called, size, work.Viewpoint.At);
        var (received, chunks) = (0L, new List<byte[]>());
        await foreach (var chunk in reader.Pieces(file, Chunks.Size))
        {
            chunks.Add(chunk);
            if (chunks.Count == Together)
                await Keep();
        }
        if (chunks.Count > 0)
            await Keep();
        var stored = await ArrivedFile.Store(work, id, called, size, field);
        if (given is null && !CanStandInText(stored.Type))
            throw Problem.Field(field, $"files/{file}, which a text of this package shows, is not a picture, a sound or a film.");
        return new(id, person, called, stored.Hash, stored.Size, stored.Type);

        async Task Keep()
        {
            await UploadStore.Add(work.Connection, id, received, chunks);
            received += chunks.Sum(chunk => (long)chunk.Length);
            chunks.Clear();
        }
    }

    /// <summary>Pictures, sounds and films that a text of a package shows, as if its reader had sent them.</summary>
    /// <param name="package">The upload that the package is: read again, it has the same files.</param>
    public static async Task<IReadOnlyList<SentFile>> Store(
        WorkContext work,
        Guid package,
        IReadOnlyList<(string Name, byte[] Bytes)> files,
        string field
    )
    {
        await NeedRoom(work, files.Sum(file => (long)file.Bytes.Length), field);
        var stored = new List<SentFile>();
        foreach (var (name, bytes) in files)
        {
            var id = new Guid(SHA256.HashData(Encoding.UTF8.GetBytes($"{package} {stored.Count}")).AsSpan(0, 16));
            if ((await UploadStore.Sent(work.Connection, [id])).SingleOrDefault() is { } known)
            {
                stored.Add(known);
                continue;
            }
            if (bytes.Length == 0)
                throw Problem.Field(field, $"“{name}” in this package is empty.");
            await UploadStore.Begin(work.Connection, id, work.Access.Person.Id, name, bytes.Length, work.Viewpoint.At);
            await UploadStore.Add(work.Connection, id, 0, [.. bytes.Chunk(Chunks.Size)]);
            var kept = await ArrivedFile.Store(work, id, name, bytes.Length, field);
            if (!CanStandInText(kept.Type))
                throw Problem.Field(field, $"“{name}” in this package is not a picture, a sound or a film that a text can show.");
            stored.Add(new(id, work.Access.Person.Id, name, kept.Hash, kept.Size, kept.Type));
        }
        return stored;
    }

    private static bool CanStandInText(string type) =>
        FileTypes.KindOf(type == FileTypes.Text ? "picture.svg" : "picture", type)
            is FileKind.Picture
                or FileKind.Drawing
                or FileKind.Audio
                or FileKind.Video;

    private static async Task NeedRoom(WorkContext work, long wanted, string field)
    {
        var left = work.Files.Limits.RoomOfTeachers - await UploadStore.RoomTaken(work.Connection, work.Access.Person.Id);
        if (wanted > Math.Min(left, FileLimits.RoomOfCourse))
            throw Problem.Field(
                field,
                $"There isn’t enough room for the files of this package: they are {FileLimits.InWords(wanted)}, and you have "
                    + $"{FileLimits.InWords(Math.Max(0, Math.Min(left, FileLimits.RoomOfCourse)))} left."
            );
    }

    /// <summary>What a package says of its files, for the sentence that says what is in it; null: it has none.</summary>
    public static string? InWords(Edition edition) =>
        edition.InReadingOrder().Sum(item => item.Files.Length) is > 0 and var count ? Counting.Counted(count, "file", "files") : null;

    /// <summary>The same bytes in a file that goes when it is closed: a zip file is read here and there.</summary>
    public static async Task<FileStream> ForAWhile(Stream bytes)
    {
        const int Held = 81_920;
        var file = new FileStream(
            Path.Combine(Path.GetTempPath(), $"polycline-package-{Guid.NewGuid():N}"),
            FileMode.CreateNew,
            FileAccess.ReadWrite,
            FileShare.None,
            Held,
            FileOptions.DeleteOnClose | FileOptions.Asynchronous
        );
        await using (bytes)
            await bytes.CopyToAsync(file);
        file.Position = 0;
        return file;
    }
}
