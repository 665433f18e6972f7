using Polycline.Core.Json;

namespace Polycline.Core.MergeFiles;

/// <summary>The form of a merge file. Source: the merge file, and the rules of form of the plan file.</summary>
internal static class MergeShapes
{
    private static readonly JsonShape Block = Forms.Object(new("id", Forms.Id, true), new MemberShape("text", Forms.Text, true));

    private static readonly JsonShape Item = Thing(true);
    private static readonly JsonShape Lesson = Thing(true, new MemberShape("items", Forms.List(Item)));
    private static readonly JsonShape Unit = Thing(
        true,
        new MemberShape("lessons", Forms.List(Lesson)),
        new MemberShape("items", Forms.List(Item))
    );
    private static readonly JsonShape Tree = Thing(false, new MemberShape("units", Forms.List(Unit)));

    private static readonly MemberShape[] OfAll =
    [
        new("id", Forms.OrNull(Forms.Id), true),
        new("kind", Forms.Text, true),
        new("take", Forms.OneOf("mine", "theirs"), true),
    ];

    private static readonly JsonShape Choice = Amounts.ByWord(
        "kind",
        kind =>
            kind switch
            {
                "removed" or "moved" => OfAll,
                "field" => [.. OfAll, new("field", Forms.Name, true)],
                "text" => [.. OfAll, new("text", Forms.Name, true), new("block", Forms.Id, true)],
                "order" => [.. OfAll, new("list", Forms.OneOf("units", "lessons", "items")), new("text", Forms.Name)],
                _ => null,
            },
        "removed, moved, field, text, order"
    );

    public static readonly JsonShape File = Forms.Object(
        new("format", Forms.OneOf("polycline-merge"), true),
        new("version", Forms.Whole(1, 1), true),
        new("base", Tree, true),
        new("mine", Tree, true),
        new("theirs", Tree, true),
        new MemberShape("choices", Forms.List(Forms.Both(Choice, OneOrder)))
    );

    private static JsonShape Thing(bool hasId, params MemberShape[] lists) =>
        Forms.Object([
            .. hasId ? new MemberShape[] { new("id", Forms.Id, true) } : [],
            new("fields", Forms.Map(JsonValues.Check, namesMayBeEmpty: false)),
            new("texts", Forms.Map(Forms.List(Block), namesMayBeEmpty: false)),
            .. lists,
        ]);

    // An order is that of a list or that of a text.
    private static void OneOrder(JsonPiece choice, FaultList faults)
    {
        if (choice.Kind != JsonKind.Object || choice["kind"]?.Value != "order")
            return;
        if (choice["list"] is null && choice["text"] is null)
            faults.AddMissing(choice, "list", "'list' or 'text' is missing: say whose order it is");
        else if (choice["list"] is { } list && choice["text"] is { } text)
            faults.Add(list.At > text.At ? list : text, "give 'list' or 'text', not both");
    }
}
