using System.Globalization;
using System.Text.Json;
using Dapper;
using Npgsql;

namespace Polycline.Demo.School;

/// <summary>Writes a course of the demo, kept in the plan file's form, into an edition.</summary>
public static class DemoCourse
{
    /// <param name="file">A file beside this one.</param>
    public static async Task Write(NpgsqlConnection connection, long edition, string file)
    {
        using var stream = typeof(DemoCourse).Assembly.GetManifestResourceStream($"Polycline.Demo.School.{file}")
            ?? throw new InvalidOperationException($"There is no {file}.");
        using var document = await JsonDocument.ParseAsync(stream);
        foreach (var (unit, place) in Numbered(document.RootElement.GetProperty("units")))
        {
            var unitId = await connection.ExecuteScalarAsync<long>(
                "INSERT INTO unit (edition, lineage, rank, title, published) VALUES (@edition, gen_random_uuid(), @rank, @title, @published) RETURNING id",
                new { edition, rank = Rank(place), title = Text(unit, "title"), published = unit.GetProperty("published").GetBoolean() });
            var lessons = new Dictionary<string, long>();
            foreach (var (lesson, at) in Numbered(unit.GetProperty("lessons")))
                lessons[Text(lesson, "id")] = await connection.ExecuteScalarAsync<long>(
                    "INSERT INTO lesson (edition, unit, lineage, rank, title, length, optional, published) VALUES (@edition, @unitId, gen_random_uuid(), @rank, @title, @length, @optional, true) RETURNING id",
                    new
                    {
                        edition,
                        unitId,
                        rank = Rank(at),
                        title = Text(lesson, "title"),
                        length = lesson.GetProperty("length").GetInt32(),
                        optional = lesson.TryGetProperty("optional", out var optional) && optional.GetBoolean(),
                    });
            foreach (var (item, at) in Numbered(unit.GetProperty("items")))
                await connection.ExecuteAsync(
                    "INSERT INTO item (edition, unit, lesson, lineage, rank, kind, purpose, title, published) VALUES (@edition, @unitId, @lesson, gen_random_uuid(), @rank, @kind, @purpose, @title, @published)",
                    new
                    {
                        edition,
                        unitId,
                        lesson = lessons[Text(item, "lesson")],
                        rank = Rank(at),
                        kind = Text(item, "kind"),
                        purpose = Text(item, "purpose"),
                        title = Text(item, "title"),
                        published = item.GetProperty("published").GetBoolean(),
                    });
        }
    }

    private static IEnumerable<(JsonElement Element, int Place)> Numbered(JsonElement list) => list.EnumerateArray().Select((element, place) => (element, place));

    private static string Text(JsonElement owner, string name) => owner.GetProperty(name).GetString()!;

    // Room between neighbours for whatever comes to stand there.
    private static string Rank(int place) => ((place + 1) * 16).ToString("x4", CultureInfo.InvariantCulture);
}
