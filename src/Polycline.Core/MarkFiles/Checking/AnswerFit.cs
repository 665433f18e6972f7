using Polycline.Core.Json;
using Polycline.Core.Marking;

namespace Polycline.Core.MarkFiles.Checking;

/// <summary>Whether an answer has the form that its question takes, and what it says. Source: the computation, chapter 13.</summary>
internal static class AnswerFit
{
    /// <summary>Reads an answer.</summary>
    /// <returns>Null: cleared, or at fault, of which <paramref name="faults"/> has been told.</returns>
    public static Answer? Read(JsonPiece piece, QuestionKey key, FaultList faults)
    {
        if (piece.IsNull)
            return null;
        return key switch
        {
            QuestionKey.OneKey one => Option(piece, one.Options.Contains, faults) is { } option ? new Answer.PickedOption(option) : null,
            QuestionKey.ManyKey many => Listed(piece, many.Options.Contains, faults),
            QuestionKey.OrderKey order => Listed(piece, order.Sequence.Contains, faults),
            QuestionKey.TruthKey => Said(piece, faults),
            QuestionKey.MatchKey match => Matched(piece, match, faults),
            QuestionKey.GapsKey gaps => Filled(piece, gaps, faults),
            _ => Text(piece, faults) is { } text ? new Answer.Typed(text) : null,
        };
    }

    private static string? Text(JsonPiece piece, FaultList faults)
    {
        if (piece is { Kind: JsonKind.Text, Value: { } text })
            return text;
        faults.Add(piece, "must be text");
        return null;
    }

    private static string? Option(JsonPiece piece, Func<string, bool> isKnown, FaultList faults)
    {
        if (Text(piece, faults) is not { } option)
            return null;
        if (isKnown(option))
            return option;
        faults.Add(piece, "the question has no such option");
        return null;
    }

    private static Answer.Said? Said(JsonPiece piece, FaultList faults)
    {
        if (piece.Kind is JsonKind.True or JsonKind.False)
            return new(piece.Kind == JsonKind.True);
        faults.Add(piece, "must be true or false");
        return null;
    }

    private static Answer.ListedOptions? Listed(JsonPiece piece, Func<string, bool> isKnown, FaultList faults)
    {
        if (piece.Kind != JsonKind.List)
        {
            faults.Add(piece, "must be a list");
            return null;
        }
        var seen = new HashSet<string>(StringComparer.Ordinal);
        foreach (var entry in piece.Items)
            if (Option(entry, isKnown, faults) is { } option && !seen.Add(option))
                faults.Add(entry, "this is given twice");
        return new([.. piece.Items.Select(entry => entry.Value ?? "")]);
    }

    private static Answer.Matched? Matched(JsonPiece piece, QuestionKey.MatchKey key, FaultList faults)
    {
        if (piece.Kind != JsonKind.Object)
        {
            faults.Add(piece, "must be an object");
            return null;
        }
        var lefts = key.Pairs.Select(pair => pair.Left).ToHashSet(StringComparer.Ordinal);
        var rights = key.Pairs.Select(pair => pair.Right).Concat(key.Spare).ToHashSet(StringComparer.Ordinal);
        var seen = new HashSet<string>(StringComparer.Ordinal);
        foreach (var pair in piece.Members)
        {
            if (!lefts.Contains(pair.Name))
                faults.Add(piece, pair, "the question has nothing of this name");
            else if (!seen.Add(pair.Name))
                faults.Add(piece, pair, "this is given twice");
            Option(pair.Value, rights.Contains, faults);
        }
        return new([.. piece.Members.Select(pair => new MatchPair(pair.Name, pair.Value.Value ?? ""))]);
    }

    private static Answer.Filled? Filled(JsonPiece piece, QuestionKey.GapsKey key, FaultList faults)
    {
        if (piece.Kind != JsonKind.List || piece.Items.Count != key.Parts.Length)
        {
            faults.Add(piece, $"must be a list of {key.Parts.Length} answers");
            return null;
        }
        return new([.. piece.Items.Zip(key.Parts, (entry, part) => Read(entry, part, faults))]);
    }
}
