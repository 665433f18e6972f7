using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Wording;
using Polycline.Data.Files;
using Polycline.Formats.Files;

namespace Polycline.Demo.School;

/// <summary>The files that the demo course gives with its items: drawn and written for it.</summary>
internal static class DemoFiles
{
    private static readonly (string Item, string Name, FileWay Way, string? CopyName)[] Given =
    [
        ("Guide: the maximum-minimum thermometer", "maximum and minimum.svg", FileWay.Read, null),
        ("Guide: the rain gauge", "rain gauge.svg", FileWay.Read, null),
        ("The twelve forces of wind", "forces of wind.csv", FileWay.Read, null),
        ("Station log, a copy each", "station log.csv", FileWay.Copy, "{file} – {student}"),
        ("Chart: fourteen harbours, a copy each", "fourteen harbours.svg", FileWay.Copy, "{file} – {student}"),
        ("Compare your charts", "comparing our charts.txt", FileWay.Together, null),
    ];

    /// <summary>Puts each with its item of an edition.</summary>
    public static async Task Give(NpgsqlConnection connection, long edition, long lead, Instant at)
    {
        foreach (var (item, name, way, copyName) in Given)
            await connection.ExecuteAsync(
                """
                INSERT INTO item_file (edition, item, rank, name, file, given, copy_name, brought_by, brought_at)
                SELECT edition, id, 'i', @name, @hash, @given, @copyName, @lead, @at FROM item WHERE edition = @edition AND title = @item;
                -- A copy is handed in.
                UPDATE item SET asks = @asks::jsonb WHERE edition = @edition AND title = @item AND @given = 'copy';
                """,
                new
                {
                    edition,
                    item,
                    name,
                    hash = Convert.FromHexString(await Store(connection, "files", name, lead, at)),
                    given = EnumNames.Of(way),
                    copyName,
                    asks = PlanParts.Json(new Asks { Text = AskedPart.No, Links = AskedPart.No }),
                    lead,
                    at,
                }
            );
    }

    /// <summary>Stores a file of the demo, unless its bytes are there already, and says what it is kept under.</summary>
    /// <param name="folder">The folder beside this file.</param>
    public static async Task<string> Store(NpgsqlConnection connection, string folder, string name, long lead, Instant at)
    {
        await using var stream = typeof(DemoFiles).Assembly.GetManifestResourceStream($"Polycline.Demo.School.{folder}.{name}")
            ?? throw new InvalidOperationException($"There is no file '{name}'.");
        using var read = new MemoryStream();
        await stream.CopyToAsync(read);
        var (bytes, upload) = (read.ToArray(), Guid.NewGuid());
        await UploadStore.Begin(connection, upload, new(lead), name, bytes.Length, at);
        await UploadStore.Add(connection, upload, 0, [.. bytes.Chunk(Chunks.Size)]);
        var stored = await UploadStore.Finish(connection, upload, FileTypes.Of(bytes), at);
        await UploadStore.Cancel(connection, new(lead), upload);
        return stored.Hash;
    }
}
