using System.Text.Json;
using System.Text.Json.Nodes;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;

namespace Polycline.Web.Student.Quizzes;

/// <summary>
/// What a browser calls the options of a question. Their own ids stand in the order in which they were written, which is the right order
/// of things to be put in order, and tells pairs: so each attempt has names of its own for them, given by its lot.
/// </summary>
internal sealed class PutNames
{
    private readonly Dictionary<string, string> names;
    private readonly Dictionary<string, string> ids;

    /// <param name="lot">The attempt's own, which no browser knows.</param>
    public PutNames(PaperQuestion question, string lot)
    {
        names = QuizDraw
            .Mixed(question.Words.Keys, $"{lot} names {question.Question.Id}")
            .Select((id, at) => (id, Name: $"o{at + 1}"))
            .ToDictionary(pair => pair.id, pair => pair.Name, StringComparer.Ordinal);
        ids = names.ToDictionary(pair => pair.Value, pair => pair.Key, StringComparer.Ordinal);
    }

    public string Of(string id) => names[id];

    /// <summary>An answer in the form in which a browser sends it.</summary>
    public JsonNode? Sent(QuestionKey key, Answer? answer) =>
        answer is null ? null : JsonNode.Parse(Renamed(key, JsonSerializer.SerializeToElement(PutQuestion.Sent(answer)), names));

    /// <summary>What a browser sent, with the ids by which it is kept and marked; an unknown name becomes an unknown id.</summary>
    public string Meant(QuestionKey key, JsonElement sent) => Renamed(key, sent, ids);

    private static string Renamed(QuestionKey key, JsonElement given, Dictionary<string, string> to)
    {
        using var written = new MemoryStream();
        try
        {
            using var writer = new Utf8JsonWriter(written);
            Write(writer, key, given, to);
        }
        // Half a character is no text: it is refused where it is read.
        catch (InvalidOperationException)
        {
            return given.GetRawText();
        }
        return System.Text.Encoding.UTF8.GetString(written.ToArray());
    }

    // What does not have the form of such an answer stays as it is, and is refused where it is read.
    private static void Write(Utf8JsonWriter writer, QuestionKey? key, JsonElement given, Dictionary<string, string> to)
    {
        switch (key, given.ValueKind)
        {
            case (QuestionKey.OneKey or QuestionKey.ManyKey or QuestionKey.OrderKey or QuestionKey.MatchKey, JsonValueKind.String):
                writer.WriteStringValue(Renamed(given.GetString()!));
                break;
            case (QuestionKey.ManyKey or QuestionKey.OrderKey, JsonValueKind.Array):
            case (QuestionKey.GapsKey, JsonValueKind.Array):
                writer.WriteStartArray();
                foreach (var (at, element) in given.EnumerateArray().Index())
                    Write(writer, key is QuestionKey.GapsKey gaps ? gaps.Parts.ElementAtOrDefault(at) : key, element, to);
                writer.WriteEndArray();
                break;
            case (QuestionKey.MatchKey, JsonValueKind.Object):
                writer.WriteStartObject();
                foreach (var pair in given.EnumerateObject())
                {
                    writer.WritePropertyName(Renamed(pair.Name));
                    Write(writer, key, pair.Value, to);
                }
                writer.WriteEndObject();
                break;
            default:
                given.WriteTo(writer);
                break;
        }

        string Renamed(string one) => to.GetValueOrDefault(one, $"?{one}");
    }
}
