using System.Text;
using System.Text.Json;
using Polycline.Core.Json;
using Polycline.Core.MarkFiles.Checking;
using Polycline.Core.Marking.Papers;

namespace Polycline.Core.MarkFiles;

/// <summary>
/// A rubric as it is stored and put into packages: criteria in the form of a marking file, with what they say beside. Read with the same
/// care, whoever wrote it.
/// </summary>
public static class RubricFile
{
    private static readonly JsonShape Name = Forms.OfText(
        text => text.Trim().Length > 0 && text.Length <= WrittenRubric.LongestName,
        $"must be a name of up to {WrittenRubric.LongestName} characters"
    );

    private static readonly JsonShape Whole = Forms.Object(
        new MemberShape("name", Name, true),
        new(
            "criteria",
            RubricShapes.Criteria(
                [new("title", Name, true)],
                [
                    new("name", Forms.OfText(text => text.Length <= WrittenRubric.LongestName, "must be a short name"), true),
                    new("words", Forms.OfText(text => text.Length <= WrittenRubric.LongestWords, "must be shorter")),
                ]
            ),
            true
        )
    );

    /// <exception cref="FileRefusedException">It is no such rubric; the path starts at it.</exception>
    public static WrittenRubric Read(string json)
    {
        var piece = JsonPiece.Parse(Encoding.UTF8.GetBytes(json)) ?? throw new FileRefusedException("$", "this is not JSON");
        FaultList.Pass(faults => Whole(piece, faults));
        FaultList.Pass(faults => CheckIds(piece, faults));
        return new(piece["name"]!.Value!, [.. piece.Each("criteria").Select(CriterionOf)]);
    }

    /// <summary>Whether a text is a rubric as it is stored, to the letter.</summary>
    public static bool IsOne(string json)
    {
        try
        {
            return Write(Read(json)) == json;
        }
        catch (FileRefusedException)
        {
            return false;
        }
    }

    /// <returns>The same rubric gives the same text.</returns>
    public static string Write(WrittenRubric rubric)
    {
        using var stream = new MemoryStream();
        using (var json = new Utf8JsonWriter(stream))
        {
            json.WriteStartObject();
            json.WriteString("name", rubric.Name);
            json.WriteStartArray("criteria");
            foreach (var criterion in rubric.Criteria)
                Write(criterion, json);
            json.WriteEndArray();
            json.WriteEndObject();
        }
        return Encoding.UTF8.GetString(stream.ToArray());
    }

    private static void Write(WrittenCriterion criterion, Utf8JsonWriter json)
    {
        json.WriteStartObject();
        json.WriteString("id", criterion.Id);
        json.WriteString("title", criterion.Title);
        if (criterion.Weight != 1)
            KeyWriter.Amount(json, "weight", criterion.Weight);
        if (criterion.IsOptional)
            json.WriteBoolean("optional", true);
        json.WriteStartArray("levels");
        foreach (var level in criterion.Levels)
        {
            json.WriteStartObject();
            json.WriteString("id", level.Id);
            json.WriteString("name", level.Name);
            if (level.IsRange)
            {
                KeyWriter.Amount(json, "from", level.From);
                KeyWriter.Amount(json, "to", level.To);
            }
            else
                KeyWriter.Amount(json, "points", level.From);
            if (level.Words.Length > 0)
                json.WriteString("words", level.Words);
            json.WriteEndObject();
        }
        json.WriteEndArray();
        json.WriteEndObject();
    }

    private static WrittenCriterion CriterionOf(JsonPiece piece) =>
        new(piece["id"]!.Value!, piece["title"]!.Value!, [.. piece.Each("levels").Select(LevelOf)])
        {
            Weight = piece["weight"] is { } weight ? Forms.NumberOf(weight) : 1,
            IsOptional = piece["optional"]?.Kind == JsonKind.True,
        };

    private static WrittenLevel LevelOf(JsonPiece piece)
    {
        var isRange = piece["points"] is null;
        return new(
            piece["id"]!.Value!,
            piece["name"]!.Value!,
            Forms.NumberOf(isRange ? piece["from"]! : piece["points"]!),
            Forms.NumberOf(isRange ? piece["to"]! : piece["points"]!),
            isRange
        )
        {
            Words = piece["words"]?.Value ?? "",
        };
    }

    private static void CheckIds(JsonPiece piece, FaultList faults)
    {
        if (piece.Each("criteria").Count > WrittenRubric.MostCriteria)
            faults.Add(piece["criteria"]!, $"at most {WrittenRubric.MostCriteria} criteria");
        Once(piece.Each("criteria"), faults);
        foreach (var criterion in piece.Each("criteria"))
        {
            if (criterion.Each("levels").Count > WrittenRubric.MostLevels)
                faults.Add(criterion["levels"]!, $"at most {WrittenRubric.MostLevels} levels");
            Once(criterion.Each("levels"), faults);
        }
    }

    private static void Once(IReadOnlyList<JsonPiece> pieces, FaultList faults)
    {
        var seen = new HashSet<string>(StringComparer.Ordinal);
        foreach (var piece in pieces.Where(piece => !seen.Add(piece["id"]!.Value!)))
            faults.Add(piece["id"]!, "this id is given twice");
    }
}
