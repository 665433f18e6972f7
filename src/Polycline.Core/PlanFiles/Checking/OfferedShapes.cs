using System.Text.Json;
using Polycline.Core.Courses;
using Polycline.Core.Json;

namespace Polycline.Core.PlanFiles.Checking;

/// <summary>What a choice offers, as it is stored and put into packages.</summary>
internal static class OfferedShapes
{
    private static readonly JsonShape Option = Forms.Object(
        new MemberShape("option", Forms.Id, true),
        new("title", Forms.OfText(IsTitle, $"must be a title of up to {Offered.LongestTitle} characters"), true),
        new("words", Forms.OfText(words => words.Length <= Offered.LongestWords, $"must be up to {Offered.LongestWords} characters")),
        new("room", Forms.Whole(1, Offered.MostRoom)),
        new(
            "picture",
            Forms.Object(
                new MemberShape(
                    "file",
                    Forms.OfText(CourseFile.IsFileName, "must be a name of letters, digits, dots, dashes and underlines"),
                    true
                ),
                new(
                    "words",
                    Forms.OfText(
                        words => words.Length <= OptionPicture.LongestWords,
                        $"must be up to {OptionPicture.LongestWords} characters"
                    )
                )
            )
        )
    );

    public static readonly JsonShape Offer = (piece, faults) =>
    {
        Forms.Object(new MemberShape("final", Forms.Bool), new("options", Forms.List(Option, 1), true))(piece, faults);
        if (piece.Each("options") is not { Count: > 0 } options)
            return;
        if (options.Count > Offered.MostOptions)
            faults.Add(piece["options"]!, $"at most {Offered.MostOptions} options");
        else if (options.Select(option => option["option"]?.Value).Distinct().Count() < options.Count)
            faults.Add(piece["options"]!, "two options have one id");
    };

    /// <param name="piece">It has the form.</param>
    public static Offered Of(JsonPiece piece) =>
        new(
            [
                .. piece
                    .Each("options")
                    .Select(option => new OfferedOption(
                        option["option"]!.Value!,
                        option["title"]!.Value!,
                        option["words"]?.Value ?? "",
                        option["room"] is { } room ? Forms.WholeOf(room) : null
                    )
                    {
                        Picture = option["picture"] is { } picture ? new(picture["file"]!.Value!, picture["words"]?.Value ?? "") : null,
                    }),
            ],
            piece["final"] is { Kind: JsonKind.True }
        );

    public static void Write(Offered offered, Utf8JsonWriter json) => JsonMembers.Object(json, null, () =>
        {
            if (offered.IsFinal)
                json.WriteBoolean("final", true);
            json.WriteStartArray("options");
            foreach (var option in offered.Options)
            {
                json.WriteStartObject();
                json.WriteString("option", option.Option);
                json.WriteString("title", option.Title);
                if (option.Words.Length > 0)
                    json.WriteString("words", option.Words);
                if (option.Room is { } room)
                    json.WriteNumber("room", room);
                if (option.Picture is { } picture)
                {
                    json.WriteStartObject("picture");
                    json.WriteString("file", picture.File);
                    if (picture.Words.Length > 0)
                        json.WriteString("words", picture.Words);
                    json.WriteEndObject();
                }
                json.WriteEndObject();
            }
            json.WriteEndArray();
        });

    private static bool IsTitle(string text) => text.Trim().Length > 0 && text.Length <= Offered.LongestTitle;
}
