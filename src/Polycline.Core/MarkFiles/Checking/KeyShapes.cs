using Polycline.Core.Json;

namespace Polycline.Core.MarkFiles.Checking;

/// <summary>The form of a question and its key. Source: the computation, chapters 13.1 and 13.8.</summary>
internal static class KeyShapes
{
    private static readonly JsonShape Partial = Forms.OneOf("shared", "all");

    private static readonly JsonShape Tolerance = (piece, faults) =>
    {
        if (!Forms.IsObject(piece, faults))
            return;
        if (piece["by"] is null == piece["percent"] is null)
            faults.Add(piece, "must give 'by' or 'percent', and not both");
        else
            Forms.Check(piece, [new("by", Amounts.Decimal(0, Amounts.MostValue, 9)), new("percent", Amounts.Amount)], faults);
    };

    public static readonly JsonShape Question = With();

    /// <summary>A question with members of more than its key.</summary>
    public static JsonShape With(params MemberShape[] more) =>
        Amounts.ByWord(
            "kind",
            word =>
                KeyOf(word, isGap: false) is { } key
                    ?
                    [
                        new("id", Forms.Id, true),
                        new("kind", Forms.Text),
                        new("points", Amounts.Worth, true),
                        new("extra", Forms.Bool),
                        new("void", Forms.OneOf("full", "out")),
                        .. key,
                        .. more,
                    ]
                    : null,
            "one, many, truth, number, text, order, match, gaps, free, file"
        );

    // The key of a kind of question; null: there is no such kind.
    private static MemberShape[]? KeyOf(string? kind, bool isGap) =>
        kind switch
        {
            "one" => [new("options", Forms.List(Forms.Id, 1), true), new("right", Forms.List(Forms.Id, 1), true)],
            "number" =>
            [
                new("value", Amounts.Decimal(-Amounts.MostValue, Amounts.MostValue, 9), true),
                new("tolerance", Tolerance),
                new("units", Forms.List(Forms.Name)),
                new("needUnit", Forms.Bool),
                new("figures", Amounts.FromOne),
                new("slip", Amounts.Percent),
            ],
            "text" =>
            [
                new("accept", Forms.List(Forms.Name, 1), true),
                new("not", Forms.List(Forms.Name)),
                new("case", Forms.OneOf("fold", "keep")),
                new("space", Forms.OneOf("fold", "drop")),
                new("accents", Forms.OneOf("keep", "fold")),
                new("edits", Forms.Whole(0, 3)),
            ],
            _ when isGap => null,
            "many" => [new("options", Forms.List(Forms.Id, 1), true), new("right", Forms.List(Forms.Id), true), new("partial", Partial)],
            "truth" => [new("right", Forms.Bool, true)],
            "order" => [new("sequence", Sequence, true), new("partial", Partial)],
            "match" => [new("pairs", Pairs, true), new("spare", Forms.List(Forms.Id)), new("partial", Partial)],
            "gaps" => [new("gaps", Forms.List(Gap, 1), true), new("partial", Partial)],
            "free" or "file" => [],
            _ => null,
        };

    private static void Gap(JsonPiece piece, FaultList faults) =>
        Amounts.ByWord("kind", word => KeyOf(word, isGap: true) is { } key ? [new("kind", Forms.Text), .. key] : null, "one, number, text")(
            piece,
            faults
        );

    private static void Sequence(JsonPiece piece, FaultList faults)
    {
        Forms.List(Forms.Id)(piece, faults);
        if (piece.Kind == JsonKind.List && piece.Items.Count < 2)
            faults.Add(piece, "must be a list with at least two entries");
    }

    private static void Pairs(JsonPiece piece, FaultList faults)
    {
        Forms.Map(Forms.Id, false)(piece, faults);
        if (piece.Kind == JsonKind.Object && piece.Members.Count == 0)
            faults.Add(piece, "must have at least one pair");
        foreach (var pair in piece.Members)
            if (!Forms.IsId(pair.Name))
                faults.Add(piece, pair, "must be an id: 1 to 64 ASCII letters, digits, '-', '_' and '.'");
    }
}
