using Polycline.Core.Json;

namespace Polycline.Core.PlanFiles.Checking;

/// <summary>The forms of gates and anchors. Source: the computation, chapters 4 and 5.</summary>
internal static class GateShapes
{
    private const int Deepest = 16;
    private static readonly string[] Bases =
    [
        "lesson-start",
        "lesson-end",
        "unit-start",
        "unit-end",
        "term-start",
        "term-end",
        "own-opens",
        "own-due",
        "fixed",
    ];

    private static readonly string[] NodeForms = ["all", "any", "atLeast", "not", "item", "choice", "group", "taught", "from"];

    public static readonly JsonShape Clock = (piece, faults) =>
    {
        if (
            piece.Kind != JsonKind.Text
            || piece.Value is null
            || (piece.Value is not ("meeting-start" or "meeting-end" or "keep") && Forms.TimeOf(piece.Value) is null)
        )
            faults.Add(piece, "must be 'meeting-start', 'meeting-end', 'keep' or a time such as 08:40");
    };

    /// <summary>An anchor of an item's date.</summary>
    public static readonly JsonShape Anchor = AnchorOf(ofAnItem: true);

    /// <summary>A gate: its outermost node, with how it latches and what is seen.</summary>
    public static readonly JsonShape Gate = (piece, faults) => Node(piece, faults, 1);

    private static readonly JsonShape FromAnchor = AnchorOf(ofAnItem: false);

    // The moment of a gate belongs to no item: it needs to name its lesson or unit, and has no dates of its own.
    private static JsonShape AnchorOf(bool ofAnItem) =>
        (piece, faults) =>
        {
            if (!Forms.IsObject(piece, faults))
                return;
            var allowed = ofAnItem ? Bases : Bases.Where(known => !known.StartsWith("own-", StringComparison.Ordinal)).ToArray();
            if (piece["at"] is not { } at)
            {
                faults.AddMissing(piece, "at", "'at' is missing");
                return;
            }
            if (at.Kind != JsonKind.Text || !allowed.Contains(at.Value))
            {
                faults.Add(at, "must be one of: " + string.Join(", ", allowed));
                return;
            }
            List<MemberShape> fields =
            [
                new("at", Forms.Text),
                new("meetings", Forms.Whole()),
                new("weeks", Forms.Whole()),
                new("days", Forms.Whole()),
                new("classDays", Forms.Whole()),
                new("clock", Clock),
            ];
            if (at.Value!.StartsWith("lesson-", StringComparison.Ordinal) || at.Value.StartsWith("unit-", StringComparison.Ordinal))
                fields.Add(new("of", Forms.Id, Required: !ofAnItem));
            if (at.Value == "fixed")
                fields.AddRange([new("date", Forms.Date, true), new("time", Forms.Time, true)]);
            Forms.Check(piece, fields, faults);
        };

    private static void Node(JsonPiece piece, FaultList faults, int depth)
    {
        if (depth > Deepest)
        {
            faults.Add(piece, $"a gate is nested at most {Deepest} deep");
            return;
        }
        if (!Forms.IsObject(piece, faults))
            return;
        var forms = NodeForms.Where(form => piece[form] is not null).ToArray();
        var scores = piece["scoreMin"] is not null || piece["scoreBelow"] is not null;
        if (forms is not [var form] || (form == "item" && (piece["is"] is not null) == scores))
        {
            faults.Add(piece, "a gate's node is exactly one of: " + string.Join(", ", NodeForms) + "; of an item either 'is' or a score");
            return;
        }
        JsonShape inner = (node, found) => Node(node, found, depth + 1);
        List<MemberShape> fields = form switch
        {
            "all" or "any" => [new(form, Forms.List(inner), true)],
            "atLeast" => [new("atLeast", Forms.Whole(0), true), new("of", Forms.List(inner), true)],
            "not" => [new("not", inner, true)],
            "item" when scores =>
            [
                new("item", Forms.Id, true),
                new("scoreMin", Forms.Number(0, 100)),
                new("scoreBelow", Forms.Number(0, 100)),
                new("using", Forms.OneOf("best", "latest")),
            ],
            "item" => [new("item", Forms.Id, true), new("is", Forms.OneOf("opened", "ticked", "submitted", "returned"), true)],
            "choice" => [new("choice", Forms.Id, true), new("picked", Forms.Id, true)],
            "group" => [new("group", Forms.Name, true)],
            "taught" => [new("taught", Forms.Id, true)],
            _ => [new("from", FromAnchor, true)],
        };
        if (depth == 1)
            fields.AddRange([new("latch", Forms.Bool), new("whenLocked", Forms.OneOf("show", "hide"))]);
        Forms.Check(piece, fields, faults);
        NotMoreThan(piece, "atLeast", "of", faults);
    }

    /// <summary>A number that may not be greater than a list is long.</summary>
    public static void NotMoreThan(JsonPiece piece, string number, string list, FaultList faults)
    {
        if (
            piece[number] is { Kind: JsonKind.Number } least
            && piece[list] is { Kind: JsonKind.List } entries
            && int.TryParse(least.Value, out var value)
            && value > entries.Items.Count
        )
            faults.Add(least, $"'{number}' is more than the {entries.Items.Count} of '{list}'");
    }
}
