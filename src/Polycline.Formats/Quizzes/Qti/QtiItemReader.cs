using System.Collections.Immutable;
using System.Globalization;
using System.Xml.Linq;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;

namespace Polycline.Formats.Quizzes.Qti;

/// <summary>Reads one assessment item of QTI 2 as a question.</summary>
/// <param name="file">What a file that it shows is called in the text; null: it is not in the package.</param>
internal sealed class QtiItemReader(XElement item, Func<string, string?> file)
{
    private const int LongestWords = 1_000;
    private const decimal MostPoints = 10_000;

    private readonly PaperWords words = new();
    private readonly List<string> left = [];
    private ImmutableDictionary<string, string> replies = ImmutableDictionary<string, string>.Empty;

    /// <summary>What of it does not fit, in words.</summary>
    public IReadOnlyList<string> Left => left;

    /// <returns>Null: a quiz here has no such question; <see cref="Left"/> says why.</returns>
    public PaperQuestion? Read(int number)
    {
        var body = Child(item, "itemBody");
        var all = body?.Descendants().Where(IsInteraction).ToList() ?? [];
        var key =
            all.Count == 0 ? Nothing("it asks for no answer.")
            : all.All(IsInline) ? (all.Count == 1 && StandsLast(all[0]) ? Line(all[0]) : Gaps(all))
            : all.Count == 1 ? One(all[0])
            : Nothing("it asks for several answers of different kinds.");
        if (key is null || body is null)
            return null;
        if (key is not (QuestionKey.GapsKey or QuestionKey.NumberKey or QuestionKey.TextKey) && !key.IsReadByPerson && !IsKnownScoring)
            left.Add("it is scored by rules of its own, which are left out. Check its points.");
        var gap = 0;
        var html = QtiText.Html(body.Nodes(), element => Put(element, key, ref gap)).Replace("<p></p>", "", StringComparison.Ordinal);
        if (QuizText.PlainText(html).Length == 0 && !html.Contains("<img", StringComparison.Ordinal))
            html = $"<p>{GapText.Encoded(item.Attribute("title")?.Value is { Length: > 0 } title ? title : $"Question {number}")}</p>";
        if (words.All.Values.Any(said => said.Length is 0 or > LongestWords))
            return Nothing<PaperQuestion>("an answer to choose from has no words, or too many.");
        return new(new($"k{number}", key, Points(key)), html, words.All) { After = After(), Replies = replies };
    }

    private static bool IsInteraction(XElement element) => element.Name.LocalName.EndsWith("Interaction", StringComparison.Ordinal);

    private static bool IsInline(XElement element) => element.Name.LocalName is "textEntryInteraction" or "inlineChoiceInteraction";

    // A line to write in at the very end is the answer; words after it make it a gap.
    private static bool StandsLast(XElement line)
    {
        if (line.Name.LocalName != "textEntryInteraction")
            return false;
        for (XNode? node = line; node is not null && node is not XElement { Name.LocalName: "itemBody" }; node = node.Parent)
            if (
                node.NodesAfterSelf()
                    .Any(after =>
                        (after as XElement)?.Value.Trim().Length > 0 || after is XText { Value: var text } && text.Trim().Length > 0
                    )
            )
                return false;
        return true;
    }

    private QuestionKey? One(XElement interaction) =>
        interaction.Name.LocalName switch
        {
            "choiceInteraction" => Choice(interaction),
            "orderInteraction" => Order(interaction),
            "matchInteraction" => Match(interaction),
            "extendedTextInteraction" => new QuestionKey.FreeKey(),
            "uploadInteraction" => new QuestionKey.FileKey(),
            var other => Nothing($"a quiz here has no answers of the kind “{other}”."),
        };

    private QuestionKey? Choice(XElement interaction)
    {
        var response = Declared(interaction);
        var options = Children(interaction, "simpleChoice").ToList();
        var known = options.Select(Id).ToList();
        if (options.Count == 0 || known.Distinct().Count() < known.Count)
            return Nothing("there is nothing to choose from, or two answers have one identifier.");
        var right =
            response.Correct.Count > 0
                ? response.Correct
                : [.. response.Entries.Where(entry => entry.Points > 0).Select(entry => entry.Key)];
        if (
            options.Count == 2
            && options.Select(option => QtiText.Words(option).ToUpperInvariant()).SequenceEqual(["TRUE", "FALSE"])
            && right.Count == 1
        )
            return new QuestionKey.TruthKey(right[0] == known[0]);
        var ids = words.Add(options.Select(Words));
        replies = ids.Zip(options, (id, option) => KeyValuePair.Create(id, ReplyIn(option)))
            .Where(reply => reply.Value.Length > 0)
            .ToImmutableDictionary();
        ImmutableArray<string> picked = [.. right.Where(known.Contains).Distinct().Select(one => ids[known.IndexOf(one)])];
        if (interaction.Attribute("maxChoices")?.Value is not ("1" or null))
            return new QuestionKey.ManyKey(ids, picked, !picked.IsEmpty && !IsMapped);
        return picked.IsEmpty ? Nothing("it does not say which answer is right.") : new QuestionKey.OneKey(ids, picked);
    }

    private QuestionKey? Order(XElement interaction)
    {
        var choices = Children(interaction, "simpleChoice").ToDictionary(Id, StringComparer.Ordinal);
        var sequence = Declared(interaction).Correct.Where(choices.ContainsKey).ToList();
        return sequence.Count < 2 || sequence.Distinct().Count() < choices.Count
            ? Nothing("it does not say which order is right.")
            : new QuestionKey.OrderKey(words.Add(sequence.Select(id => Words(choices[id]))), true);
    }

    private QuestionKey? Match(XElement interaction)
    {
        var sets = Children(interaction, "simpleMatchSet").Select(set => Children(set, "simpleAssociableChoice").ToList()).ToList();
        if (sets.Count != 2)
            return Nothing("it has no two lists to match.");
        var response = Declared(interaction);
        var pairs = (
            response.Correct.Count > 0
                ? response.Correct
                : [.. response.Entries.Where(entry => entry.Points > 0).Select(entry => entry.Key)]
        )
            .Select(pair => pair.Split(' ', StringSplitOptions.RemoveEmptyEntries))
            .Where(pair => pair.Length == 2)
            .ToList();
        var (lefts, rights) = (sets[0].Select(Id).ToList(), sets[1].Select(Id).ToList());
        var matched = lefts
            .Select(id => pairs.Where(pair => pair[0] == id && rights.Contains(pair[1])).Select(pair => pair[1]).ToList())
            .ToList();
        if (lefts.Count == 0 || matched.Any(found => found.Count != 1))
            return Nothing("something to be matched has no match, or several.");
        var left = words.Add(sets[0].Select(Words));
        var right = words.Add(sets[1].Select(Words));
        ImmutableArray<MatchPair> made = [.. left.Select((id, at) => new MatchPair(id, right[rights.IndexOf(matched[at][0])]))];
        return new QuestionKey.MatchKey(made, [.. right.Where(id => made.All(pair => pair.Right != id))], !IsMapped);
    }

    private QuestionKey? Line(XElement line) => Typed(line) ?? Nothing("it does not say what is right.");

    private QuestionKey? Gaps(List<XElement> all)
    {
        var parts = all.Select(gap => gap.Name.LocalName == "inlineChoiceInteraction" ? Inline(gap) : Typed(gap)).ToList();
        return parts.Contains(null)
            ? Nothing("a gap does not say what is right.")
            : new QuestionKey.GapsKey([.. parts.OfType<QuestionKey>()], !IsMapped && !Scoring("sum").Any());
    }

    private QuestionKey.OneKey? Inline(XElement gap)
    {
        var response = Declared(gap);
        var choices = Children(gap, "inlineChoice").ToList();
        var known = choices.Select(Id).ToList();
        var ids = words.Add(choices.Select(Words));
        var right = response.Correct.Concat(response.Entries.Where(entry => entry.Points > 0).Select(entry => entry.Key));
        ImmutableArray<string> picked = [.. right.Where(known.Contains).Distinct().Select(one => ids[known.IndexOf(one)])];
        return picked.IsEmpty ? null : new(ids, picked);
    }

    private QuestionKey? Typed(XElement line)
    {
        var response = Declared(line);
        if (response.Type is "float" or "integer")
            return response.Correct.Count > 0 && Number(response.Correct[0]) is { } value && Math.Abs(value) <= 1_000_000_000
                ? new QuestionKey.NumberKey(value) { Tolerance = Tolerance(response.Name, value) }
                : null;
        var right = response.Correct.Concat(response.Entries.Where(entry => entry.Points > 0).Select(entry => entry.Key));
        ImmutableArray<string> forms = [.. right.Select(form => form.Trim()).Where(form => form.Length > 0).Distinct()];
        return forms.IsEmpty
            ? null
            : new QuestionKey.TextKey(forms)
            {
                NotAccepted =
                [
                    .. response.Entries.Where(entry => entry.Points == 0).Select(entry => entry.Key.Trim()).Where(form => form.Length > 0),
                ],
                KeepsCase = response.KeepsCase,
            };
    }

    private decimal Tolerance(string name, decimal value)
    {
        var equal = Scoring("equal").FirstOrDefault(one => one.Elements().Any(part => part.Attribute("identifier")?.Value == name));
        var given = equal?.Attribute("tolerance")?.Value.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(Number).FirstOrDefault();
        return equal?.Attribute("toleranceMode")?.Value switch
        {
            "absolute" => decimal.Round(Math.Clamp(given ?? 0, 0, 1_000_000_000), 9),
            "relative" => decimal.Round(Math.Abs(value) * Math.Clamp(given ?? 0, 0, 100) / 100, 9),
            _ => 0,
        };
    }

    // Where nothing says it, the most that its map gives, or 1.
    private Fraction Points(QuestionKey key)
    {
        var most = item.Elements()
            .Where(element => element.Name.LocalName == "outcomeDeclaration" && element.Attribute("identifier")?.Value == QtiNames.MaxScore)
            .Select(element => Number(element.Value.Trim()))
            .FirstOrDefault();
        var mapping = Of("mapping").FirstOrDefault();
        var found = most
            ?? (mapping?.Attribute("upperBound")?.Value is { } bound ? Number(bound) : null)
            ?? (
                mapping is not null && key is not QuestionKey.GapsKey
                    ? Entries(mapping).Where(entry => entry.Points > 0).Select(entry => (decimal?)entry.Points).DefaultIfEmpty(null).Sum()
                    : null
            );
        return decimal.Round(Math.Clamp(found is > 0 and var points ? points : 1, 0.01m, MostPoints), 2);
    }

    private string? After()
    {
        var said = Children(item, "modalFeedback").Select(QtiText.Words).Where(text => text.Length > 0).ToList();
        if (said.Count > 1)
            left.Add("of several remarks that it makes afterwards, the first is kept.");
        return said.FirstOrDefault() is { } first ? first[..Math.Min(first.Length, LongestWords)] : null;
    }

    private string? Put(XElement element, QuestionKey key, ref int gap)
    {
        if (IsInteraction(element))
            return key is QuestionKey.GapsKey ? $"[{++gap}]"
                : Children(element, "prompt").FirstOrDefault() is { } prompt ? $"<p>{Inside(prompt)}</p>"
                : "";
        switch (element.Name.LocalName)
        {
            case "img":
                return Shown("img", element.Attribute("src")?.Value, "alt", element.Attribute("alt")?.Value);
            case "object":
                var type = element.Attribute("type")?.Value ?? "";
                var tag =
                    type.StartsWith("audio/", StringComparison.Ordinal) ? "audio"
                    : type.StartsWith("video/", StringComparison.Ordinal) ? "video"
                    : "img";
                return Shown(tag, element.Attribute("data")?.Value, tag == "img" ? "alt" : "title", QtiText.Words(element));
            case "div" or "span" or "blockquote" when element.Descendants().Any(IsInteraction):
            case "div" or "span":
                var n = gap;
                var inside = QtiText.Html(element.Nodes(), inner => Put(inner, key, ref n));
                gap = n;
                return inside;
            case "rubricBlock"
            or "feedbackBlock"
            or "feedbackInline"
            or "templateBlock"
            or "templateInline"
            or "printedVariable"
            or "stylesheet":
                left.Add($"“{element.Name.LocalName}” in it is left out.");
                return "";
            default:
                return null;
        }
    }

    private string Inside(XElement prompt)
    {
        var none = 0;
        return QtiText.Html(prompt.Nodes(), element => Put(element, new QuestionKey.FreeKey(), ref none));
    }

    private string Shown(string tag, string? source, string attribute, string? words)
    {
        if (source is not null && file(source) is { } name)
            return $"<{tag} src=\"{name}\" {attribute}=\"{QtiText.Quoted(words ?? "")}\">" + (tag == "img" ? "" : $"</{tag}>");
        left.Add("a picture, sound or film in it is not in the package, and is left out.");
        return "";
    }

    // What is said to whoever chooses an answer; it stands within it.
    private static string ReplyIn(XElement option) =>
        Children(option, "feedbackInline")
            .Where(reply => reply.Attribute("showHide")?.Value == "show" && Id(reply) == Id(option))
            .Select(QtiText.Words)
            .Select(said => said[..Math.Min(said.Length, LongestWords)])
            .FirstOrDefault()
        ?? "";

    // What an answer to choose from says; markup in it has no place.
    private string Words(XElement answer)
    {
        var element = new XElement(answer);
        Children(element, "feedbackInline").ToList().ForEach(reply => reply.Remove());
        if (element.Descendants().Any(inner => inner.Name.LocalName is not "p"))
            left.Add("the formatting of its answers is left out.");
        return QtiText.Words(element);
    }

    private sealed record Response(
        string Name,
        string Type,
        IReadOnlyList<string> Correct,
        IReadOnlyList<(string Key, decimal Points)> Entries,
        bool KeepsCase
    );

    private Response Declared(XElement interaction)
    {
        var name = interaction.Attribute("responseIdentifier")?.Value ?? "";
        var found = item.Elements()
            .FirstOrDefault(element => element.Name.LocalName == "responseDeclaration" && element.Attribute("identifier")?.Value == name);
        var mapping = found is null ? null : Child(found, "mapping");
        return new(
            name,
            found?.Attribute("baseType")?.Value ?? "",
            [.. (found is null ? null : Child(found, "correctResponse"))?.Elements().Select(value => value.Value.Trim()) ?? []],
            mapping is null ? [] : [.. Entries(mapping)],
            mapping?.Elements().Any(entry => entry.Attribute("caseSensitive")?.Value == "false") == false
        );
    }

    private static IEnumerable<(string Key, decimal Points)> Entries(XElement mapping) =>
        mapping.Elements().Select(entry => (entry.Attribute("mapKey")?.Value ?? "", Number(entry.Attribute("mappedValue")?.Value) ?? 0));

    private string Template => Child(item, "responseProcessing")?.Attribute("template")?.Value ?? "";

    private bool IsMapped => Scoring("mapResponse").Any() || Template.TrimEnd('/').EndsWith("map_response", StringComparison.Ordinal);

    private bool IsKnownScoring =>
        IsMapped
        || Scoring("match").Any()
        || Scoring("isNull").Any()
        || Template.TrimEnd('/').EndsWith("match_correct", StringComparison.Ordinal);

    private IEnumerable<XElement> Scoring(string name) =>
        Child(item, "responseProcessing")?.Descendants().Where(element => element.Name.LocalName == name) ?? [];

    private IEnumerable<XElement> Of(string name) => item.Descendants().Where(element => element.Name.LocalName == name);

    private static XElement? Child(XElement element, string name) => Children(element, name).FirstOrDefault();

    private static IEnumerable<XElement> Children(XElement element, string name) =>
        element.Elements().Where(child => child.Name.LocalName == name);

    private static string Id(XElement element) => element.Attribute("identifier")?.Value ?? "";

    private static decimal? Number(string? text) =>
        decimal.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) ? number : null;

    private QuestionKey? Nothing(string why) => Nothing<QuestionKey>(why);

    private T? Nothing<T>(string why)
        where T : class
    {
        left.Clear();
        left.Add($"left out: {why}");
        return null;
    }
}
