using System.Text.Json;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.Wording;

namespace Polycline.Core.PlanFiles.Checking;

/// <summary>What an item asks for, as it is stored and put into packages.</summary>
internal static class AsksShapes
{
    private static readonly JsonShape Part = WordsOf<AskedPart>();

    public static readonly JsonShape Asks = Forms.Object(
        new MemberShape("way", WordsOf<AskedWay>(), true),
        new MemberShape("text", Part),
        new MemberShape("links", Part),
        new MemberShape(
            "files",
            Forms.List(Forms.Object(new MemberShape("what", Forms.Name, true), new MemberShape("kind", Forms.OrNull(WordsOf<AskedKind>()))))
        ),
        new MemberShape("others", Forms.Bool),
        new MemberShape("together", Forms.List(Forms.Name)),
        new MemberShape("judged", Forms.Bool)
    );

    /// <param name="piece">It has the form.</param>
    public static Asks Of(JsonPiece piece) =>
        new()
        {
            Way = EnumNames.Parse<AskedWay>(piece["way"]!.Value!),
            Text = PartOf(piece["text"]),
            Links = PartOf(piece["links"]),
            Files =
            [
                .. (piece["files"]?.Items ?? []).Select(file => new AskedFile(
                    file["what"]!.Value!,
                    file["kind"] is null or { IsNull: true } ? null : EnumNames.Parse<AskedKind>(file["kind"]!.Value!)
                )),
            ],
            OtherFiles = piece["others"]?.Kind != JsonKind.False,
            Judged = piece["judged"]?.Kind == JsonKind.True,
            Together = [.. (piece["together"]?.Items ?? []).Select(group => group.Value!)],
        };

    public static void Write(Asks asks, Utf8JsonWriter json)
    {
        json.WriteStartObject();
        json.WriteString("way", EnumNames.Of(asks.Way));
        if (asks.Way != AskedWay.Tick)
        {
            json.WriteString("text", EnumNames.Of(asks.Text));
            json.WriteString("links", EnumNames.Of(asks.Links));
            json.WriteStartArray("files");
            foreach (var file in asks.Files)
            {
                json.WriteStartObject();
                json.WriteString("what", file.What);
                if (file.Kind is { } kind)
                    json.WriteString("kind", EnumNames.Of(kind));
                json.WriteEndObject();
            }
            json.WriteEndArray();
            json.WriteBoolean("others", asks.OtherFiles);
            if (asks.Judged)
                json.WriteBoolean("judged", true);
            if (!asks.Together.IsEmpty)
            {
                json.WriteStartArray("together");
                foreach (var group in asks.Together)
                    json.WriteStringValue(group);
                json.WriteEndArray();
            }
        }
        json.WriteEndObject();
    }

    private static AskedPart PartOf(JsonPiece? piece) => piece is null ? AskedPart.Welcome : EnumNames.Parse<AskedPart>(piece.Value!);

    private static JsonShape WordsOf<T>()
        where T : struct, Enum => Forms.OneOf([.. Enum.GetValues<T>().Select(EnumNames.Of)]);
}
