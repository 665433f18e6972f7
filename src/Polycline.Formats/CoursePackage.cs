using System.IO.Compression;
using System.Text;
using System.Text.RegularExpressions;
using Polycline.Core.Json;
using Polycline.Core.PlanFiles;

namespace Polycline.Formats;

/// <summary>A file that is no package, or more than one may be.</summary>
public sealed class PackageException(string message) : Exception(message);

/// <summary>A file on its way into a package.</summary>
/// <param name="Name">What the course and its texts call it: letters, digits, dots, dashes and underlines.</param>
/// <param name="Shrinks">Whether it is worth packing: text is, a photograph is not.</param>
public sealed record PackedFile(string Name, bool Shrinks, Func<Stream> Open);

/// <summary>
/// A course with its texts and files in one file: a zip of <c>course.json</c>, <c>texts/…</c> and <c>files/…</c>. The same course gives the
/// same bytes.
/// </summary>
/// <param name="Texts">HTML by the name that items give. A picture in it is called <c>file:</c> and the name of its file.</param>
public sealed partial record CoursePackage(CourseFile Course, IReadOnlyDictionary<string, string> Texts)
{
    internal const string Main = "course.json",
        FolderOfTexts = "texts/",
        FolderOfFiles = "files/";

    // A package says nothing of when it was made.
    private static readonly DateTimeOffset Timeless = new(1980, 1, 1, 0, 0, 0, TimeSpan.Zero);

    /// <summary>The names of the files that the course gives with its items, and of those that may be pictures in its texts.</summary>
    public IReadOnlySet<string> FileNames { get; } =
        Course
            .Edition.InReadingOrder()
            .SelectMany(item =>
                item.Files.Select(file => file.Hash)
                    .Concat((item.Offered?.Options ?? []).Select(option => option.Picture?.File).OfType<string>())
            )
            .Concat(
                Texts
                    .Values.Concat(Course.Edition.InReadingOrder().Select(item => item.Quiz).OfType<string>())
                    .SelectMany(text => Pictures().Matches(text).Select(match => match.Groups[1].Value))
            )
            .ToHashSet(StringComparer.Ordinal);

    /// <summary>Writes the package, one file after the other: none is ever in memory as a whole.</summary>
    /// <param name="files">Each of <see cref="FileNames"/> once.</param>
    public async Task Write(Stream to, IEnumerable<PackedFile> files, CancellationToken stop = default)
    {
        await using var writes = new DeferredWrites(to);
        await using (var zip = await ZipArchive.CreateAsync(writes, ZipArchiveMode.Create, leaveOpen: true, entryNameEncoding: null, stop))
            await Fill(zip, files, stop);
        await writes.FlushAsync(stop);
    }

    private async Task Fill(ZipArchive zip, IEnumerable<PackedFile> files, CancellationToken stop)
    {
        await Add(Main, true, new MemoryStream(Course.Write()));
        foreach (var (name, html) in Texts.OrderBy(text => text.Key, StringComparer.Ordinal))
            await Add(FolderOfTexts + name, true, new MemoryStream(Encoding.UTF8.GetBytes(html)));
        foreach (var file in files.OrderBy(file => file.Name, StringComparer.Ordinal))
            await Add(FolderOfFiles + file.Name, file.Shrinks, file.Open());

        async Task Add(string name, bool shrinks, Stream bytes)
        {
            await using var from = bytes;
            var entry = zip.CreateEntry(name, shrinks ? CompressionLevel.Optimal : CompressionLevel.NoCompression);
            entry.LastWriteTime = Timeless;
            await using var into = await entry.OpenAsync(stop);
            await from.CopyToAsync(into, stop);
        }
    }

    // In the questions of a quiz, which are JSON, a quotation mark is written by its number.
    [GeneratedRegex("src=(?:\"|\\\\u0022)file:([A-Za-z0-9._-]{1,100})(?:\"|\\\\u0022)")]
    private static partial Regex Pictures();
}

/// <summary>A package that is being read; its files are read one by one.</summary>
public sealed class PackageReader : IAsyncDisposable
{
    private const int MostEntries = 20_000;
    private const int MostBytes = 50_000_000;

    private readonly ZipArchive zip;

    private PackageReader(ZipArchive zip, CoursePackage package) => (this.zip, Package) = (zip, package);

    public CoursePackage Package { get; }

    /// <param name="bytes">On this machine, as its list of files is read at once; can be sought in, and is left open.</param>
    /// <exception cref="PackageException">It is no package, lacks a text, or its texts unpack to more than 50 MB.</exception>
    /// <exception cref="FileRefusedException">Its course is not as it should be.</exception>
    public static async Task<PackageReader> Open(Stream bytes, CancellationToken stop = default)
    {
        var zip = Unzip(bytes);
        if (zip.Entries.Count > MostEntries)
            throw new PackageException($"This package holds more than {MostEntries:N0} files.");
        var left = new Room(MostBytes);
        var main = zip.GetEntry(CoursePackage.Main)
            ?? throw new PackageException("This file has no course in it: a package contains a course.json.");
        var course = CourseFile.Read(await Unpacked(main, left, stop));
        var texts = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var name in course.Edition.InReadingOrder().Select(item => item.Body).OfType<string>().Distinct())
        {
            var entry = zip.GetEntry(CoursePackage.FolderOfTexts + name)
                ?? throw new PackageException(
                    $"The text {CoursePackage.FolderOfTexts}{name}, which an item uses, is missing from this package."
                );
            texts[name] = Encoding.UTF8.GetString(await Unpacked(entry, left, stop));
        }
        return new(zip, new(course, texts));
    }

    /// <summary>How many bytes a file says it unpacks to.</summary>
    /// <exception cref="PackageException">It is not in the package.</exception>
    public long LengthOf(string file) => Entry(file).Length;

    /// <summary>The bytes of a file, once, in pieces of <paramref name="size"/>; the last may be shorter.</summary>
    /// <exception cref="PackageException">It is not in the package, cannot be unpacked, or does not have the length it says.</exception>
    public async IAsyncEnumerable<byte[]> Pieces(
        string file,
        int size,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken stop = default
    )
    {
        var entry = Entry(file);
        var wanted = entry.Length;
        await using var from = await Begin(entry, stop);
        for (var had = 0L; ; )
        {
            var piece = new byte[size];
            var read = await Filled(entry, from, piece, stop);
            had += read;
            if (had > wanted || (read < size && had < wanted))
                throw new PackageException($"{entry.FullName} in this package does not have the length it says.");
            if (read > 0)
                yield return read == size ? piece : piece[..read];
            if (read < size)
                yield break;
        }
    }

    public ValueTask DisposeAsync() => zip.DisposeAsync();

    private ZipArchiveEntry Entry(string file) =>
        zip.GetEntry(CoursePackage.FolderOfFiles + file)
        ?? throw new PackageException(
            $"The file {CoursePackage.FolderOfFiles}{file}, which the course uses, is missing from this package."
        );

    private static ZipArchive Unzip(Stream bytes)
    {
        try
        {
            return new(bytes, ZipArchiveMode.Read, leaveOpen: true);
        }
        catch (InvalidDataException)
        {
            throw new PackageException("This is not a package: it is not a zip file.");
        }
    }

    private sealed class Room(long bytes)
    {
        private long left = bytes;

        // The length that an entry gives for itself is not trusted.
        public void Take(int read)
        {
            if ((left -= read) < 0)
                throw new PackageException("The course and its texts in this package unpack to more than 50 MB.");
        }
    }

    private static async Task<byte[]> Unpacked(ZipArchiveEntry entry, Room left, CancellationToken stop)
    {
        await using var from = await Begin(entry, stop);
        using var to = new MemoryStream();
        var piece = new byte[81_920];
        for (int read; (read = await Filled(entry, from, piece, stop)) > 0; to.Write(piece, 0, read))
            left.Take(read);
        return to.ToArray();
    }

    private static Task<Stream> Begin(ZipArchiveEntry entry, CancellationToken stop) => Try(entry, () => entry.OpenAsync(stop));

    private static Task<int> Filled(ZipArchiveEntry entry, Stream from, byte[] piece, CancellationToken stop) =>
        Try(entry, () => from.ReadAtLeastAsync(piece, piece.Length, throwOnEndOfStream: false, stop).AsTask());

    private static async Task<T> Try<T>(ZipArchiveEntry entry, Func<Task<T>> read)
    {
        try
        {
            return await read();
        }
        catch (InvalidDataException)
        {
            throw new PackageException($"{entry.FullName} in this package cannot be unpacked.");
        }
    }
}
