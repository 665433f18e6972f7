using System.Text.Json;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.Wording;

namespace Polycline.Core.PlanFiles.Checking;

/// <summary>How an item is marked, as it is stored and put into packages; and what was given.</summary>
internal static class MarkedShapes
{
    private static readonly JsonShape Level = Forms.Object(
        new MemberShape("name", Forms.OfText(IsLevelName, $"must be a name of up to {MarkedAs.LongestLevel} characters"), true),
        new("percent", Amounts.Percent)
    );

    private static readonly JsonShape Levels = (piece, faults) =>
    {
        Forms.List(Level, 1)(piece, faults);
        if (piece.Kind != JsonKind.List)
            return;
        if (piece.Items.Count is < 2 or > MarkedAs.MostLevels)
            faults.Add(piece, $"must be 2 to {MarkedAs.MostLevels} levels");
        else if (piece.Items.Select(level => level["percent"] is null).Distinct().Count() > 1)
            faults.Add(piece, "either all levels have a percent or none has");
        else if (piece.Items.Select(level => level["name"]?.Value).Distinct().Count() < piece.Items.Count)
            faults.Add(piece, "two levels have one name");
    };

    // Of weights times points.
    private static readonly JsonShape Sum = Amounts.Decimal(0, 100_000_000_000m, 4);

    /// <summary>How an item is marked.</summary>
    public static readonly JsonShape Marked = Form([]);

    /// <summary>The same with what was given.</summary>
    public static readonly JsonShape Given = Form([
        new("value", Amounts.Amount),
        new("level", Forms.OfText(IsLevelName, "must be the name of a level")),
        new(
            "rubric",
            Forms.Object(
                new MemberShape("is", Forms.Text, true),
                new("reached", Sum, true),
                new("most", Sum, true),
                new(
                    "levels",
                    Forms.List(
                        Forms.Object(
                            new MemberShape("criterion", Forms.Id, true),
                            new("level", Forms.Id, true),
                            new("points", Amounts.Amount)
                        )
                    ),
                    true
                )
            )
        ),
    ]);

    /// <param name="piece">It has the form.</param>
    public static MarkedAs Of(JsonPiece piece) =>
        new(EnumNames.Parse<MarkForm>(piece["as"]!.Value!))
        {
            OutOf = piece["outOf"] is { } outOf ? Forms.NumberOf(outOf) : 100,
            Levels =
            [
                .. piece
                    .Each("levels")
                    .Select(level => new MarkLevel(
                        level["name"]!.Value!,
                        level["percent"] is { } percent ? Forms.NumberOf(percent) : null
                    )),
            ],
        };

    /// <param name="piece">It has the form.</param>
    public static GivenMark GivenOf(JsonPiece piece) =>
        new(Of(piece), piece["value"] is { } value ? Forms.NumberOf(value) : null, piece["level"]?.Value)
        {
            Rubric = piece["rubric"] is { } rubric
                ? new(
                    rubric["is"]!.Value!,
                    [
                        .. rubric
                            .Each("levels")
                            .Select(level => new GivenLevel(
                                level["criterion"]!.Value!,
                                level["level"]!.Value!,
                                level["points"] is { } points ? Forms.NumberOf(points) : null
                            )),
                    ],
                    Forms.NumberOf(rubric["reached"]!),
                    Forms.NumberOf(rubric["most"]!)
                )
                : null,
        };

    public static void Write(MarkedAs marked, Utf8JsonWriter json) => JsonMembers.Object(json, null, () => Members(marked, json));

    public static void Write(GivenMark mark, Utf8JsonWriter json) => JsonMembers.Object(json, null, () =>
        {
            Members(mark.As, json);
            if (mark.Value is { } value)
                json.WriteNumber("value", Short(value));
            JsonMembers.Text(json, "level", mark.Level);
            if (mark.Rubric is not { } rubric)
                return;
            json.WriteStartObject("rubric");
            json.WriteString("is", rubric.Rubric);
            json.WriteNumber("reached", Short(rubric.Reached));
            json.WriteNumber("most", Short(rubric.Most));
            json.WriteStartArray("levels");
            foreach (var level in rubric.Levels)
            {
                json.WriteStartObject();
                json.WriteString("criterion", level.Criterion);
                json.WriteString("level", level.Level);
                if (level.Points is { } points)
                    json.WriteNumber("points", Short(points));
                json.WriteEndObject();
            }
            json.WriteEndArray();
            json.WriteEndObject();
        });

    private static void Members(MarkedAs marked, Utf8JsonWriter json)
    {
        json.WriteString("as", EnumNames.Of(marked.Form));
        json.WriteNumber("outOf", Short(marked.OutOf));
        JsonMembers.List(json, "levels", marked.Levels, (level, _) => JsonMembers.Object(json, null, () =>
            {
                json.WriteString("name", level.Name);
                if (level.Percent is { } percent)
                    json.WriteNumber("percent", Short(percent));
            }));
    }

    private static JsonShape Form(MemberShape[] more) =>
        Amounts.ByWord(
            "as",
            word =>
                word switch
                {
                    "points" or "percent" => [new("as", Forms.Text), new("outOf", Amounts.Worth), .. more],
                    "scale" => [new("as", Forms.Text), new("outOf", Amounts.Worth), new("levels", Levels, true), .. more],
                    _ => null,
                },
            "points, percent, scale"
        );

    private static bool IsLevelName(string text) => text.Trim().Length > 0 && text.Length <= MarkedAs.LongestLevel;

    // Without the zeros at the end that a decimal keeps.
    private static decimal Short(decimal number) => number / 1.0000000000000000000000000000m;
}
