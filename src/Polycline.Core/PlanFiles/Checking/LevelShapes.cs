using System.Text.Json;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.Wording;

namespace Polycline.Core.PlanFiles.Checking;

/// <summary>What a team calls its levels, as it is stored and put into packages.</summary>
internal static class LevelShapes
{
    private static readonly JsonShape Level = Forms.Object(
        new MemberShape("one", Forms.Name, true),
        new MemberShape("many", Forms.Name, true)
    );

    public static readonly JsonShape Levels = Forms.Object(
        new MemberShape("unit", Level, true),
        new MemberShape("lesson", Level, true),
        new MemberShape("item", Level, true)
    );

    /// <param name="piece">It has the form.</param>
    /// <exception cref="FileRefusedException">A word is no good as one.</exception>
    public static LevelNames Checked(JsonPiece piece)
    {
        var levels = new LevelNames(Of(piece["unit"]!), Of(piece["lesson"]!), Of(piece["item"]!));
        foreach (var (at, message) in levels.Faults())
            throw new FileRefusedException($"{piece.Path}.{at}", message);
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
