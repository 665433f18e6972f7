using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Polycline.Core.Json;
using Polycline.Core.MarkFiles;

namespace Polycline.Tests.Core.Marking;

/// <summary>Marking files for tests.</summary>
internal static class MarkingFiles
{
    public static JsonNode Answer(string text) => Answer(Encoding.UTF8.GetBytes(text));

    public static JsonNode Answer(byte[] text)
    {
        using var kept = new MemoryStream();
        using (var json = new Utf8JsonWriter(kept))
            try
            {
                MarkingAnswer.Write(MarkingFile.Read(text), json);
            }
            catch (FileRefusedException refusal)
            {
                refusal.Write(json);
            }
        return JsonNode.Parse(kept.ToArray())!;
    }

    /// <summary>Where a file is refused; null: it is not.</summary>
    public static string? PathOf(string text) => Answer(text)["error"]?["path"]?.GetValue<string>();

    /// <summary>One quiz of some questions, and one student's answers to them.</summary>
    public static string OfQuestions(string questions, string answers, string course = "{}") =>
        $$"""
            {"format":"polycline-marking","version":1,"now":"2026-10-08T09:15:00Z","course":{{course}},
             "units":[{"id":"u1","items":[{"id":"q1","kind":"quiz","questions":[{{questions}}]}]}],
             "students":[{"id":"p1","name":"Wren Calder"}],"sections":[{"id":"s1","students":[{"id":"p1"}]}],
             "attempts":[{"student":"p1","item":"q1","n":1,"began":"2026-10-05T09:00:00Z","ended":"2026-10-05T09:10:00Z",
              "answers":[{{answers}}]}]}
            """;

    /// <summary>What one answer to one question gives, with its note where there is one: <c>1/2 figures</c>.</summary>
    public static string Marked(string question, string answer, string course = "{}")
    {
        var given = $$"""{"question":"k","at":"2026-10-05T09:01:00Z","answer":{{answer}}}""";
        var marked = Answer(OfQuestions($$"""{"id":"k","points":1,{{question}}}""", given, course));
        if (marked["error"] is { } error)
            return $"{error["path"]} {error["message"]}";
        var one = marked["attempts"]![0]!["questions"]!["k"]!;
        return $"{one["points"]} {one["note"]}".Trim();
    }
}
