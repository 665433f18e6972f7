using System.Buffers.Binary;

namespace Polycline.Formats.Files;

/// <summary>
/// Removes what cameras record in pictures: place, time and device. It keeps which way up a photograph is, and does not touch what it
/// shows.
/// </summary>
public static class PictureCleaning
{
    /// <summary>The picture without what it tells of where it was taken; null: it is damaged.</summary>
    /// <param name="type"><c>image/jpeg</c>, <c>image/png</c> or <c>image/webp</c>; anything else is given back as it is.</param>
    public static byte[]? Of(byte[] picture, string type)
    {
        try
        {
            return type switch
            {
                "image/jpeg" => Jpeg(picture),
                "image/png" => Png(picture),
                "image/webp" => WebP(picture),
                _ => picture,
            };
        }
        catch (Exception fault) when (fault is ArgumentException or IndexOutOfRangeException)
        {
            // It says it goes on where there is nothing more.
            return null;
        }
    }

    private static byte[] Jpeg(ReadOnlySpan<byte> from)
    {
        using var kept = new MemoryStream(from.Length);
        kept.Write(from[..2]);
        var turned = 1;
        var at = 2;
        // Segments, each with its length, up to the picture itself.
        while (from[at + 1] != 0xDA)
        {
            if (from[at] != 0xFF)
                throw new ArgumentException("A segment is missing.");
            var whole = from.Slice(at, 2 + BinaryPrimitives.ReadUInt16BigEndian(from[(at + 2)..]));
            var marker = from[at + 1];
            if (marker == 0xE1 && whole[4..].StartsWith("Exif\0\0"u8))
                turned = OrientationOf(whole[10..]);
            // Application data, but for what colours and decoders need; comments.
            else if (marker is not ((>= 0xE1 and <= 0xEF) or 0xFE) || marker is 0xE2 or 0xEE)
                kept.Write(whole);
            at += whole.Length;
        }
        if (turned is > 1 and <= 8)
            kept.Write(Orientation(turned));
        // The picture ends with its own marker; what hangs on behind it, such as a short film, is no part of it.
        var end = at + 2 + BinaryPrimitives.ReadUInt16BigEndian(from[(at + 2)..]);
        for (; ; end++)
        {
            if (from[end] != 0xFF || from[end + 1] is 0x00 or 0xFF or (>= 0xD0 and <= 0xD7))
                continue;
            if (from[end + 1] == 0xD9)
                break;
            end += 1 + BinaryPrimitives.ReadUInt16BigEndian(from[(end + 2)..]);
        }
        kept.Write(from[at..(end + 2)]);
        return kept.ToArray();
    }

    private static int OrientationOf(ReadOnlySpan<byte> tiff)
    {
        if (tiff.Length < 8)
            return 1;
        var little = tiff[0] == 'I';
        var first = (int)Number(tiff[4..8]);
        var count = Short(tiff[first..]);
        for (var n = 0; n < count; n++)
            if (tiff[(first + 2 + (n * 12))..] is var entry && Short(entry) == 0x0112)
                return Short(entry[8..]);
        return 1;

        int Short(ReadOnlySpan<byte> bytes) =>
            little ? BinaryPrimitives.ReadUInt16LittleEndian(bytes) : BinaryPrimitives.ReadUInt16BigEndian(bytes);
        uint Number(ReadOnlySpan<byte> bytes) =>
            little ? BinaryPrimitives.ReadUInt32LittleEndian(bytes) : BinaryPrimitives.ReadUInt32BigEndian(bytes);
    }

    // Exif that says which way up, and nothing else.
    private static byte[] Orientation(int turned) =>
        [
            .. (ReadOnlySpan<byte>)[0xFF, 0xE1, 0x00, 0x22],
            .. "Exif\0\0MM\0*\0\0\0\u0008"u8,
            .. (ReadOnlySpan<byte>)[0x00, 0x01, 0x01, 0x12, 0x00, 0x03, 0x00, 0x00, 0x00, 0x01, 0x00, (byte)turned, 0x00, 0x00],
            .. (ReadOnlySpan<byte>)[0x00, 0x00, 0x00, 0x00],
        ];

    private static byte[] Png(ReadOnlySpan<byte> from)
    {
        using var kept = new MemoryStream(from.Length);
        kept.Write(from[..8]);
        for (var at = 8; ; )
        {
            var name = from.Slice(at + 4, 4);
            var whole = from.Slice(at, checked(12 + (int)Math.Min(int.MaxValue - 12u, BinaryPrimitives.ReadUInt32BigEndian(from[at..]))));
            if (
                !(
                    name.SequenceEqual("eXIf"u8)
                    || name.SequenceEqual("tEXt"u8)
                    || name.SequenceEqual("zTXt"u8)
                    || name.SequenceEqual("iTXt"u8)
                    || name.SequenceEqual("tIME"u8)
                )
            )
                kept.Write(whole);
            if (name.SequenceEqual("IEND"u8))
                return kept.ToArray();
            at += whole.Length;
        }
    }

    private static byte[] WebP(ReadOnlySpan<byte> from)
    {
        const byte Exif = 0x08,
            Xmp = 0x04;
        var end = Math.Min(from.Length, 8L + BinaryPrimitives.ReadUInt32LittleEndian(from[4..]));
        using var kept = new MemoryStream(from.Length);
        kept.Write(from[..12]);
        for (var at = 12; at + 8 <= end; )
        {
            var name = from.Slice(at, 4);
            var size = BinaryPrimitives.ReadUInt32LittleEndian(from[(at + 4)..]);
            // Chunks begin at even places.
            var whole = from.Slice(at, (int)Math.Min(int.MaxValue, 8L + size + (size & 1)));
            if (name.SequenceEqual("VP8X"u8))
            {
                var flags = whole.ToArray();
                flags[8] &= unchecked((byte)~(Exif | Xmp));
                kept.Write(flags);
            }
            else if (!(name.SequenceEqual("EXIF"u8) || name.SequenceEqual("XMP "u8)))
                kept.Write(whole);
            at += whole.Length;
        }
        var clean = kept.ToArray();
        BinaryPrimitives.WriteUInt32LittleEndian(clean.AsSpan(4), (uint)(clean.Length - 8));
        return clean;
    }
}
