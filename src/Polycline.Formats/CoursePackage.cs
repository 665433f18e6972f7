using System.IO.Compression;
using System.Text;
using Polycline.Core.PlanFiles;

namespace Polycline.Formats;

/// <summary>A file that is no package, or more than one may be.</summary>
public sealed class PackageException(string message) : Exception(message);

/// <summary>
/// A course with its texts in one file: a zip of <c>course.json</c> and <c>texts/…</c>. The same course gives the same bytes.
/// </summary>
/// <param name="Texts">HTML by the name that items give.</param>
public sealed record CoursePackage(CourseFile Course, IReadOnlyDictionary<string, string> Texts)
{
    private const int MostFiles = 5_000;
    private const int MostBytes = 50_000_000;
    private const string Main = "course.json";
    private const string Folder = "texts/";

    // A package says nothing of when it was made.
    private static readonly DateTimeOffset Timeless = new(1980, 1, 1, 0, 0, 0, TimeSpan.Zero);

    public byte[] Write()
    {
        using var stream = new MemoryStream();
        using (var zip = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true))
        {
            Add(zip, Main, Course.Write());
            foreach (var (name, html) in Texts.OrderBy(text => text.Key, StringComparer.Ordinal))
                Add(zip, Folder + name, Encoding.UTF8.GetBytes(html));
        }
        return stream.ToArray();
    }

    /// <exception cref="PackageException">It is no package, lacks a text, or unpacks to more than 50 MB.</exception>
    /// <exception cref="PlanRefusedException">Its course is not as it should be.</exception>
    public static CoursePackage Read(byte[] bytes)
    {
        using var zip = Open(bytes);
        if (zip.Entries.Count > MostFiles)
            throw new PackageException("This package holds more than 5,000 files.");
        var left = MostBytes;
        var main = zip.GetEntry(Main) ?? throw new PackageException("This file has no course in it: a package contains a course.json.");
        var course = CourseFile.Read(Unpacked(main, ref left));
        var texts = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var name in course.Edition.InReadingOrder().Select(item => item.Body).OfType<string>().Distinct())
        {
            var entry = zip.GetEntry(Folder + name)
                ?? throw new PackageException($"The text {Folder}{name}, which an item uses, is missing from this package.");
            texts[name] = Encoding.UTF8.GetString(Unpacked(entry, ref left));
        }
        return new(course, texts);
    }

    private static ZipArchive Open(byte[] bytes)
    {
        try
        {
            return new(new MemoryStream(bytes), ZipArchiveMode.Read);
        }
        catch (InvalidDataException)
        {
            throw new PackageException("This is not a package: it is not a zip file.");
        }
    }

    // The length that an entry gives for itself is not trusted.
    private static byte[] Unpacked(ZipArchiveEntry entry, ref int left)
    {
        try
        {
            using var from = entry.Open();
            using var to = new MemoryStream();
            var piece = new byte[81_920];
            for (int read; (read = from.Read(piece)) > 0; to.Write(piece, 0, read))
                if ((left -= read) < 0)
                    throw new PackageException("This package unpacks to more than 50 MB.");
            return to.ToArray();
        }
        catch (InvalidDataException)
        {
            throw new PackageException($"{entry.FullName} in this package cannot be unpacked.");
        }
    }

    private static void Add(ZipArchive zip, string name, byte[] bytes)
    {
        var entry = zip.CreateEntry(name, CompressionLevel.Optimal);
        entry.LastWriteTime = Timeless;
        using var to = entry.Open();
        to.Write(bytes);
    }
}
