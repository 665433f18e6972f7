using Polycline.Data.Work;

namespace Polycline.Demo.School;

/// <summary>What the lead remarks beside certain sentences of what is handed in.</summary>
internal static class DemoRemarks
{
    private static readonly IReadOnlyDictionary<string, string> Said = new Dictionary<string, string>(StringComparer.Ordinal)
    {
        ["I read it three times and took the middle one."] = "Good habit. Write all three down.",
        ["We went up on the roof in the break."] = "Who is “we”? And did the roof warm the thermometer?",
        ["The needle moved while I was looking."] = "Which way?",
        ["My neighbour and I did not agree at first."] = "What settled it?",
        ["The wind came round from the south in the afternoon."] = "Yes. What else changed then?",
        ["I would take the last one again."] = "Then say why.",
        ["I am not sure about the third."] = "You noticed. What would make you sure?",
        ["It fell fastest in the night."] = "How fast? Use the numbers.",
        ["Next time I would stand further from the wall."] = "How far is far enough?",
        ["That fits with what the chart says."] = "Which chart, of what time?",
        ["1013 hPa and rising. Clear over the harbour."] = "These two belong together. Say so.",
        ["9 °C. Fog to the second bollard."] = "I like the bollard: how far is it?",
        ["1002 hPa, the lowest so far. The flag stood straight out."] = "Which way did it point?",
    };

    /// <summary>Remarks on what was handed in, in the order in which one reads.</summary>
    /// <returns>Empty for one piece in three, and where no sentence calls for a remark.</returns>
    public static IReadOnlyList<Remark> On(string text, string? entries, long person)
    {
        // Two pieces of three.
        if (person % 3 == 0)
            return [];
        return
        [
            .. Said.Where(one => text.Contains(one.Key, StringComparison.Ordinal))
                .Select(one => (From: text.IndexOf(one.Key, StringComparison.Ordinal), one.Key, one.Value))
                .OrderBy(one => one.From)
                .Select(one => new Remark(new(one.From, one.From + one.Key.Length, null, null, null, null), one.Value)),
            .. LogEntry
                .Read(entries)
                .Select((entry, at) => (entry.Text, At: at))
                .Where(entry => Said.ContainsKey(entry.Text))
                .Select(entry => new Remark(new(0, entry.Text.Length, entry.At, null, null, null), Said[entry.Text])),
        ];
    }
}
