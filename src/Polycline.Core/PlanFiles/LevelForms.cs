using System.Text.Json;
using Polycline.Core.Courses;

namespace Polycline.Core.PlanFiles;

/// <summary>What a team calls its levels, as it is stored and put into packages.</summary>
internal static class LevelForms
{
    private static readonly Form Level = Forms.Object(new Field("one", Forms.Name, true), new Field("many", Forms.Name, true));

    public static readonly Form Levels = Forms.Object(new Field("unit", Level, true), new Field("lesson", Level, true), new Field("item", Level, true));

    /// <param name="piece">It has the form.</param>
    /// <exception cref="PlanRefusedException">A word is no good as one.</exception>
    public static LevelNames Checked(JsonPiece piece)
    {
        var levels = new LevelNames(Of(piece["unit"]!), Of(piece["lesson"]!), Of(piece["item"]!));
        foreach (var (at, message) in levels.Faults())
            throw new PlanRefusedException($"{piece.Path}.{at}", message);
        return levels;
    }

    public static void Write(LevelNames levels, Utf8JsonWriter json)
    {
        json.WriteStartObject();
        foreach (var (name, level) in new[] { ("unit", levels.Unit), ("lesson", levels.Lesson), ("item", levels.Item) })
            JsonMembers.Object(json, name, () =>
            {
                json.WriteString("one", level.One);
                json.WriteString("many", level.Many);
            });
        json.WriteEndObject();
    }

    private static LevelName Of(JsonPiece piece) => new(piece["one"]!.Value!, piece["many"]!.Value!);
}
