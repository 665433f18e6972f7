using System.Security.Cryptography;
using System.Text;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Dapper;
using Npgsql;
using Polycline.Core.Courses;
using Polycline.Data.Courses;

namespace Polycline.Demo.School;

/// <summary>Writes a course of the demo, kept in the plan file's form, into an edition.</summary>
/// <param name="course">The files beside this one: <c>course.json</c>, and where there are some, its texts and conditions.</param>
/// <param name="drawing">Stores a drawing by its name, and says what it is kept under.</param>
public sealed partial class DemoCourse(NpgsqlConnection connection, long edition, string course, Func<string, Task<string>> drawing)
{
    // What opens and falls due when, by kind: in teaching time, so that every section has dates of its own.
    private static readonly Dictionary<string, (string? Opens, string? Due)> Timing = new()
    {
        ["page"] = ("""{"at":"lesson-start"}""", null),
        ["link"] = ("""{"at":"lesson-start"}""", null),
        ["handout"] = ("""{"at":"lesson-start"}""", null),
        ["task"] = ("""{"at":"lesson-start"}""", """{"at":"lesson-end","meetings":2,"clock":"meeting-start"}"""),
        ["quiz"] = ("""{"at":"lesson-end"}""", """{"at":"lesson-end","days":7,"clock":"18:00"}"""),
        ["choice"] = ("""{"at":"lesson-start"}""", """{"at":"lesson-end","meetings":1,"clock":"meeting-start"}"""),
        ["discussion"] = ("""{"at":"lesson-start"}""", null),
    };

    private readonly IReadOnlyDictionary<string, Body> quizzes = DemoQuizzes.Of(course);
    private readonly IReadOnlyDictionary<string, Body> rubrics = DemoRubrics.Of(course);

    /// <summary>What the plan calls a thing of a file: the same in every edition of the course.</summary>
    public static Guid Lineage(string course, string id) => new(SHA256.HashData(Encoding.UTF8.GetBytes($"{course} {id}")).AsSpan(0, 16));

    public async Task Write()
    {
        var plan = (await File("")) ?? throw new InvalidOperationException($"There is no {course}.json.");
        var texts = await File("-texts") ?? [];
        var conditions = await File("-conditions") ?? [];
        foreach (var (unit, place) in Numbered(plan["units"]!))
        {
            var unitId = await Insert(
                "unit (edition, lineage, rank, title, published) VALUES (@edition, @lineage, @rank, @title, @published)",
                new
                {
                    edition,
                    lineage = Of(unit),
                    rank = Rank.Nth(place),
                    title = Text(unit, "title"),
                    published = (bool)unit["published"]!,
                }
            );
            var lessons = new Dictionary<string, long>();
            foreach (var (lesson, at) in Numbered(unit["lessons"]!))
                lessons[Text(lesson, "id")] = await Insert(
                    "lesson (edition, unit, lineage, rank, title, length, optional, published) "
                        + "VALUES (@edition, @unitId, @lineage, @rank, @title, @length, @optional, true)",
                    new
                    {
                        edition,
                        unitId,
                        lineage = Of(lesson),
                        rank = Rank.Nth(at),
                        title = Text(lesson, "title"),
                        length = (int)lesson["length"]!,
                        optional = (bool?)lesson["optional"] ?? false,
                    }
                );
            foreach (var (item, at) in Numbered(unit["items"]!))
                await WriteItem(item, unitId, lessons[Text(item, "lesson")], at, texts, conditions);
        }
    }

    private async Task WriteItem(JsonObject item, long unit, long lesson, int place, JsonObject texts, JsonObject conditions)
    {
        var (id, kind) = (Text(item, "id"), Text(item, "kind"));
        var body = texts[id] is { } html ? new Body(await WithDrawings((string)html!)) : null;
        if (body is not null)
            await BodyStore.Keep(connection, body);
        var quiz = quizzes.GetValueOrDefault(id);
        if (quiz is not null)
            await BodyStore.Keep(connection, quiz);
        var rubric = rubrics.GetValueOrDefault(id);
        if (rubric is not null)
            await BodyStore.Keep(connection, rubric);
        var (opens, due) = texts.Count > 0 ? Timing[kind] : default;
        // A student who waits for feedback needs time once it has come.
        if (due is not null && conditions[id] is not null)
            due = due.Replace("\"meetings\":2", "\"meetings\":5", StringComparison.Ordinal);
        // Whatever depends on a score opens once the score can exist, not before.
        if (conditions[id]?["scoreMin"] is not null || conditions[id]?["scoreBelow"] is not null)
            opens = Timing["quiz"].Opens;
        await Insert(
            """
            item (edition, unit, lesson, lineage, rank, kind, purpose, title, published, body, opens, due, gate, options, offered,
              asks, marked, quiz, rubric, address)
            VALUES (@edition, @unit, @lesson, @lineage, @rank, @kind, @purpose, @title, @published, @body,
              @opens::jsonb, @due::jsonb, @gate::jsonb, @options, @offered::jsonb, @asks::jsonb, @marked::jsonb, @quiz, @rubric, @address)
            """,
            new
            {
                edition,
                unit,
                lesson,
                lineage = Of(item),
                rank = Rank.Nth(place),
                kind,
                purpose = Text(item, "purpose"),
                title = Text(item, "title"),
                published = (bool)item["published"]!,
                body = body is null ? null : Convert.FromHexString(body.Hash),
                opens,
                due,
                gate = conditions[id] is { } gate
                    ? Named().Replace(gate.ToJsonString(), match => $"\"{Lineage(course, match.Groups[1].Value)}\"")
                    : null,
                options = item["options"]?.AsArray().Select(option => (string)option!).ToArray() ?? [],
                asks = item["asks"]?.ToJsonString(),
                offered = item["offered"]?.ToJsonString(),
                marked = item["marked"]?.ToJsonString(),
                quiz = quiz is null ? null : Convert.FromHexString(quiz.Hash),
                rubric = rubric is null ? null : Convert.FromHexString(rubric.Hash),
                address = (string?)item["address"],
            }
        );
    }

    // In the files a drawing goes by its name.
    private async Task<string> WithDrawings(string html)
    {
        foreach (var match in Drawings().Matches(html).ToList())
            html = html.Replace(match.Value, $"src=\"{Pictures.Named(await drawing(match.Groups[1].Value))}\"", StringComparison.Ordinal);
        return html;
    }

    private Task<long> Insert(string into, object values) =>
        connection.ExecuteScalarAsync<long>($"INSERT INTO {into} RETURNING id", values);

    private async Task<JsonObject?> File(string suffix)
    {
        await using var stream = typeof(DemoCourse).Assembly.GetManifestResourceStream($"Polycline.Demo.School.{course}{suffix}.json");
        return stream is null ? null : (await JsonNode.ParseAsync(stream))!.AsObject();
    }

    private Guid Of(JsonObject thing) => Lineage(course, Text(thing, "id"));

    private static IEnumerable<(JsonObject Thing, int Place)> Numbered(JsonNode list) =>
        list.AsArray().Select((thing, place) => (thing!.AsObject(), place));

    private static string Text(JsonObject owner, string name) => (string)owner[name]!;

    // An item of the file, named in a condition.
    [GeneratedRegex("src=\"drawing:([a-z0-9-]+\\.svg)\"")]
    private static partial Regex Drawings();

    [GeneratedRegex("\"(i[0-9]+)\"")]
    private static partial Regex Named();
}
