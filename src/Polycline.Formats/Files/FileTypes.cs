using System.Collections.Frozen;
using System.Text;
using Polycline.Core.Courses;

namespace Polycline.Formats.Files;

/// <summary>How a file can be shown on a page.</summary>
public enum FileKind
{
    /// <summary>Shown as a picture.</summary>
    Picture,

    /// <summary>An SVG. Shown as a picture, and never opened as a page.</summary>
    Drawing,
    Pdf,
    Text,

    /// <summary>Comma-separated values, shown as a table.</summary>
    Table,
    Audio,
    Video,

    /// <summary>Can only be saved.</summary>
    Other,
}

/// <summary>Tells what a file is: by its bytes, and by its name only where bytes cannot tell.</summary>
public static class FileTypes
{
    private const string IsProgram = "This is a program, and programs can’t be uploaded here.";

    /// <summary>The media type of any text.</summary>
    public const string Text = "text/plain";

    private const string Zip = "application/zip",
        Program = "application/x-program",
        Anything = "application/octet-stream";

    // What the bytes of a file so called must be.
    private static readonly FrozenDictionary<string, string[]> Expected = new Dictionary<string, string[]>
    {
        ["png"] = ["image/png"],
        ["jpg"] = ["image/jpeg"],
        ["jpeg"] = ["image/jpeg"],
        ["gif"] = ["image/gif"],
        ["webp"] = ["image/webp"],
        ["svg"] = [Text],
        ["pdf"] = ["application/pdf"],
        ["txt"] = [Text],
        ["md"] = [Text],
        ["csv"] = [Text],
        ["mp3"] = ["audio/mpeg"],
        ["m4a"] = ["audio/mp4", "video/mp4"],
        ["wav"] = ["audio/wav"],
        ["ogg"] = ["audio/ogg"],
        ["flac"] = ["audio/flac"],
        ["mp4"] = ["video/mp4", "audio/mp4"],
        ["mov"] = ["video/quicktime", "video/mp4"],
        ["webm"] = ["video/webm"],
        ["docx"] = [Zip],
        ["xlsx"] = [Zip],
        ["pptx"] = [Zip],
        ["odt"] = [Zip],
        ["ods"] = [Zip],
        ["odp"] = [Zip],
        ["zip"] = [Zip],
    }.ToFrozenDictionary(StringComparer.OrdinalIgnoreCase);

    // What a double click would run.
    private static readonly FrozenSet<string> Programs = new[]
    {
        "exe",
        "msi",
        "com",
        "scr",
        "pif",
        "bat",
        "cmd",
        "ps1",
        "vbs",
        "vbe",
        "jse",
        "wsf",
        "wsh",
        "hta",
        "lnk",
        "cpl",
        "dll",
        "reg",
        "app",
        "dmg",
        "apk",
        "jar",
    }.ToFrozenSet(StringComparer.OrdinalIgnoreCase);

    private static readonly (int At, byte[] Bytes, string Type)[] Beginnings =
    [
        (0, [0x89, (byte)'P', (byte)'N', (byte)'G', 0x0D, 0x0A, 0x1A, 0x0A], "image/png"),
        (0, [0xFF, 0xD8, 0xFF], "image/jpeg"),
        (0, "GIF87a"u8.ToArray(), "image/gif"),
        (0, "GIF89a"u8.ToArray(), "image/gif"),
        (8, "WEBP"u8.ToArray(), "image/webp"),
        (8, "WAVE"u8.ToArray(), "audio/wav"),
        (0, "%PDF-"u8.ToArray(), "application/pdf"),
        (0, "PK\u0003\u0004"u8.ToArray(), Zip),
        (0, "ID3"u8.ToArray(), "audio/mpeg"),
        (0, [0xFF, 0xFB], "audio/mpeg"),
        (0, [0xFF, 0xF3], "audio/mpeg"),
        (0, [0xFF, 0xF2], "audio/mpeg"),
        (0, "OggS"u8.ToArray(), "audio/ogg"),
        (0, "fLaC"u8.ToArray(), "audio/flac"),
        (0, [0x1A, 0x45, 0xDF, 0xA3], "video/webm"),
        (0, "MZ"u8.ToArray(), Program),
        (0, [0x7F, (byte)'E', (byte)'L', (byte)'F'], Program),
        (0, [0xCF, 0xFA, 0xED, 0xFE], Program),
        (0, [0xCA, 0xFE, 0xBA, 0xBE], Program),
    ];

    /// <summary>The media type of bytes.</summary>
    /// <param name="start">Their first 256 KiB, or all of them.</param>
    public static string Of(ReadOnlySpan<byte> start)
    {
        // Two letters begin many a text, too: a program has bytes in it that no text has.
        var isText = IsText(start);
        foreach (var (at, bytes, type) in Beginnings)
            if (start.Length >= at + bytes.Length && start.Slice(at, bytes.Length).SequenceEqual(bytes))
                if (!(isText && type is Program))
                    return type;
        if (start.Length >= 12 && start.Slice(4, 4).SequenceEqual("ftyp"u8))
            return Encoding.ASCII.GetString(start.Slice(8, 4)) switch
            {
                "heic" or "heix" or "mif1" or "msf1" or "hevc" => "image/heic",
                "M4A " or "M4B " => "audio/mp4",
                "qt  " => "video/quicktime",
                _ => "video/mp4",
            };
        return isText ? Text : Anything;
    }

    /// <summary>The same, judged by its name alone, before anything is sent.</summary>
    public static string? FaultOfName(string name) => Programs.Contains(EndingOf(name)) ? IsProgram : null;

    /// <summary>Whether cameras record in such a file where they were.</summary>
    public static bool TellsPlaces(string type) => type is "image/jpeg" or "image/png" or "image/webp";

    /// <summary>Why a file is rejected, in words; null if it is accepted.</summary>
    /// <param name="name">What it is called.</param>
    /// <param name="type">What its bytes are (<see cref="Of"/>).</param>
    public static string? Fault(string name, string type)
    {
        var ending = EndingOf(name);
        if (type == Program || Programs.Contains(ending))
            return IsProgram;
        if (type == "image/heic")
            return "Many computers can’t open this kind of picture. Save it as a JPEG and choose that.";
        if (Expected.TryGetValue(ending, out var types) && !types.Contains(type))
            return $"This is called “.{ending.ToLowerInvariant()}” but contains something else. Save it again in the right format.";
        return null;
    }

    /// <summary>How a file can be shown on a page.</summary>
    public static FileKind KindOf(string name, string type) =>
        (type, EndingOf(name).ToLowerInvariant()) switch
        {
            (Text, "svg") => FileKind.Drawing,
            (Text, "csv") => FileKind.Table,
            // A page is read as the text it is written in.
            (Text, _) => FileKind.Text,
            ("application/pdf", _) => FileKind.Pdf,
            ("video/mp4", "m4a") => FileKind.Audio,
            _ when type.StartsWith("image/", StringComparison.Ordinal) => FileKind.Picture,
            _ when type.StartsWith("audio/", StringComparison.Ordinal) => FileKind.Audio,
            _ when type.StartsWith("video/", StringComparison.Ordinal) => FileKind.Video,
            _ => FileKind.Other,
        };

    /// <summary>What sort of file it is for whoever asks for files.</summary>
    public static AskedKind AskedKindOf(string name, string type) =>
        KindOf(name, type) switch
        {
            FileKind.Picture or FileKind.Drawing => AskedKind.Picture,
            FileKind.Table => AskedKind.Table,
            FileKind.Audio => AskedKind.Sound,
            FileKind.Video => AskedKind.Film,
            FileKind.Pdf or FileKind.Text => AskedKind.Document,
            _ => EndingOf(name).ToLowerInvariant() switch
            {
                "docx" or "odt" or "rtf" => AskedKind.Document,
                "xlsx" or "ods" => AskedKind.Table,
                "pptx" or "odp" => AskedKind.Slides,
                _ => AskedKind.Other,
            },
        };

    /// <summary>The media type that a file is sent with: never one that a browser would run.</summary>
    public static string SentAs(string name, string type) =>
        KindOf(name, type) switch
        {
            FileKind.Drawing => "image/svg+xml",
            FileKind.Text or FileKind.Table => "text/plain; charset=utf-8",
            FileKind.Other => Anything,
            _ => type,
        };

    private static string EndingOf(string name) => Path.GetExtension(name).TrimStart('.');

    private static bool IsText(ReadOnlySpan<byte> bytes)
    {
        // What was cut off in the middle of a character is no fault of the text.
        for (var cut = 0; cut < 4 && cut <= bytes.Length; cut++)
            if (System.Text.Unicode.Utf8.IsValid(bytes[..^cut]))
                return bytes.Length > 0 && !HoldsControls(bytes);
        return false;
    }

    private static bool HoldsControls(ReadOnlySpan<byte> bytes)
    {
        foreach (var one in bytes)
            if (one < 0x20 && one is not ((byte)'\t' or (byte)'\n' or (byte)'\r' or (byte)'\f'))
                return true;
        return false;
    }
}
