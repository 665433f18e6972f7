using Polycline.Core.Json;

namespace Polycline.Core.MarkFiles.Checking;

/// <summary>Whether the ids in the keys of questions name something, and are given once. Source: the computation, chapter 13.8.</summary>
internal static class KeyNames
{
    /// <summary>The questions of a quiz, or of a correction.</summary>
    public static void Check(IReadOnlyList<JsonPiece> questions, FaultList faults)
    {
        Once(questions.Select(question => question["id"]!), faults);
        foreach (var question in questions)
        foreach (var key in question.Each("gaps").Prepend(question))
            CheckKey(key, faults);
    }

    /// <summary>What a student picks among, of a question or a gap.</summary>
    public static IEnumerable<string> IdsOf(JsonPiece key) =>
        key.Each("options")
            .Concat(key.Each("sequence"))
            .Concat(key.Each("spare"))
            .Select(id => id.Value!)
            .Concat((key["pairs"]?.Members ?? []).SelectMany(pair => new[] { pair.Name, pair.Value.Value! }))
            .Distinct();

    /// <summary>The one that comes second in the file is told of.</summary>
    public static void Once(IEnumerable<JsonPiece> texts, FaultList faults)
    {
        var seen = new HashSet<string>(StringComparer.Ordinal);
        foreach (var text in texts.OrderBy(text => text.At))
            if (!seen.Add(text.Value!))
                faults.Add(text, "this is given twice");
    }

    private static void CheckKey(JsonPiece key, FaultList faults)
    {
        Once(key.Each("options"), faults);
        Once(key.Each("sequence"), faults);
        if (key["options"] is not null)
        {
            var options = key.Each("options").Select(option => option.Value!).ToHashSet(StringComparer.Ordinal);
            foreach (var right in key.Each("right"))
                if (!options.Contains(right.Value!))
                    faults.Add(right, "there is no such option");
            Once(key.Each("right"), faults);
        }
        var rights = (key["pairs"]?.Members ?? []).Select(pair => pair.Value.Value!).ToHashSet(StringComparer.Ordinal);
        foreach (var spare in key.Each("spare"))
            if (rights.Contains(spare.Value!))
                faults.Add(spare, "this belongs to a pair");
        Once(key.Each("spare"), faults);
    }
}
