using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using System.Xml.Linq;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using static Polycline.Formats.Quizzes.Qti.QtiNames;
using static Polycline.Formats.Quizzes.Qti.QtiRules;

namespace Polycline.Formats.Quizzes.Qti;

/// <summary>One question as an assessment item of QTI 2.2.</summary>
/// <param name="isMixed">Whether what there is to choose from may stand in any order.</param>
/// <param name="file">The name in the package of the file that <c>file:…</c> names.</param>
internal sealed partial class QtiItem(PaperQuestion question, bool isMixed, Func<string, string> file)
{
    private readonly QuestionKey key = question.Question.Key;
    private readonly string points = Float(question.Question.Points);
    private readonly List<XElement> responses = [];

    public XElement Write()
    {
        var body = QtiText.Body(question.Text, file).ToList();
        var scoring = key is QuestionKey.GapsKey gaps ? Gaps(gaps, body) : One(body);
        return new(
            V2 + "assessmentItem",
            new XAttribute("identifier", question.Question.Id),
            new XAttribute("title", Title()),
            new XAttribute("adaptive", "false"),
            new XAttribute("timeDependent", "false"),
            responses,
            Outcome(Score, "float", key.IsReadByPerson ? new XAttribute("externalScored", "human") : null, "0"),
            Outcome(MaxScore, "float", null, points),
            question.After is null ? null : Outcome(Feedback, "identifier", null, null),
            question.Replies.IsEmpty ? null : Outcome(Reply, "identifier", null, null, key is QuestionKey.ManyKey ? "multiple" : "single"),
            new XElement(V2 + "itemBody", body),
            key.IsReadByPerson && question.After is null
                ? null
                : new XElement(
                    V2 + "responseProcessing",
                    scoring,
                    question.Replies.IsEmpty ? null : Set(Reply, Variable(Response)),
                    question.After is null ? null : Set(Feedback, "identifier", "after")
                ),
            question.After is { } after
                ? new XElement(
                    V2 + "modalFeedback",
                    new XAttribute("outcomeIdentifier", Feedback),
                    new XAttribute("showHide", "show"),
                    new XAttribute("identifier", "after"),
                    new XElement(V2 + "p", after)
                )
                : null
        );
    }

    private string Title() =>
        QtiText.Sound(QuizText.PlainText(question.Text)).Split('\n')[0] is { Length: > 0 } first
            ? first.Length <= 100
                ? first
                : $"{first[..100].TrimEnd('\ud800', ' ')} …"
            : question.Question.Id;

    private IEnumerable<XElement> One(List<XNode> body)
    {
        var (interaction, scoring) = key switch
        {
            QuestionKey.OneKey one => (
                Choice(one.Options, 1),
                Mapped(Response, "single", "identifier", one.Right.Select(id => (id, points)), 1)
            ),
            QuestionKey.ManyKey many => (Choice(many.Options, 0), Several(many)),
            QuestionKey.TruthKey truth => (
                Interaction(
                    "choiceInteraction",
                    new XAttribute("shuffle", "false"),
                    new XAttribute("maxChoices", "1"),
                    Said("true"),
                    Said("false")
                ),
                Mapped(Response, "single", "identifier", [(truth.Right ? "true" : "false", points)], 1)
            ),
            QuestionKey.NumberKey number => (Line(Response), Number(Response, number, Set(Score, "float", points))),
            QuestionKey.TextKey text => (Line(Response), Mapped(Response, "single", "string", Forms(text, points), 1, text.KeepsCase)),
            QuestionKey.OrderKey order => (
                Interaction(
                    "orderInteraction",
                    new XAttribute("shuffle", "true"),
                    order.Sequence.OrderBy(id => question.Words[id], StringComparer.Ordinal).Select(Option)
                ),
                Whole("ordered", "identifier", order.Sequence)
            ),
            QuestionKey.MatchKey match => Matching(match),
            QuestionKey.FileKey => (Interaction("uploadInteraction"), Nothing("file")),
            _ => (Interaction("extendedTextInteraction", new XAttribute("expectedLines", "6")), Nothing("string")),
        };
        body.Add(key is QuestionKey.NumberKey or QuestionKey.TextKey ? new XElement(V2 + "p", interaction) : interaction);
        return scoring;
    }

    private XElement Choice(ImmutableArray<string> options, int most) =>
        Interaction(
            "choiceInteraction",
            new XAttribute("shuffle", isMixed && !question.KeepsOrder ? "true" : "false"),
            new XAttribute("maxChoices", most),
            options.Select(Option)
        );

    private IEnumerable<XElement> Several(QuestionKey.ManyKey many)
    {
        var wrong = many.Options.Length - many.Right.Length;
        if (many.AllOrNothing || many.Right.IsEmpty)
            return Whole("multiple", "identifier", many.Right);
        var (gain, loss) = (
            Float(question.Question.Points / many.Right.Length),
            wrong == 0 ? "0" : Float(-question.Question.Points / wrong)
        );
        return Mapped(
            Response,
            "multiple",
            "identifier",
            many.Options.Select(id => (id, many.Right.Contains(id) ? gain : loss)),
            many.Right.Length
        );
    }

    private (XElement, IEnumerable<XElement>) Matching(QuestionKey.MatchKey match)
    {
        var lefts = match.Pairs.Select(pair => pair.Left).ToList();
        var rights = match
            .Pairs.Select(pair => pair.Right)
            .Concat(match.Spare)
            .Distinct()
            .OrderBy(id => question.Words[id], StringComparer.Ordinal);
        var interaction = Interaction(
            "matchInteraction",
            new XAttribute("shuffle", "true"),
            new XAttribute("maxAssociations", lefts.Count),
            new XElement(V2 + "simpleMatchSet", lefts.Select(id => Associable(id, 1))),
            new XElement(V2 + "simpleMatchSet", rights.Select(id => Associable(id, lefts.Count)))
        );
        var pairs = match.Pairs.Select(pair => $"{pair.Left} {pair.Right}").ToList();
        return (
            interaction,
            match.AllOrNothing
                ? Whole("multiple", "directedPair", pairs)
                : Mapped(
                    Response,
                    "multiple",
                    "directedPair",
                    pairs.Select(pair => (pair, Float(question.Question.Points / pairs.Count))),
                    pairs.Count
                )
        );
    }

    // Each gap stands where its number is, and gives its part of the points.
    private List<XElement> Gaps(QuestionKey.GapsKey gaps, List<XNode> body)
    {
        var part = Float(question.Question.Points / gaps.Parts.Length);
        var scoring = new List<XElement>();
        var right = new List<XElement>();
        for (var n = 1; n <= gaps.Parts.Length; n++)
        {
            var name = $"{Response}{n}";
            var add = new XElement(
                V2 + "setOutcomeValue",
                new XAttribute("identifier", Score),
                new XElement(V2 + "sum", Variable(Score), Value("float", part))
            );
            XElement isRight;
            if (gaps.Parts[n - 1] is QuestionKey.NumberKey number)
            {
                Declare(name, "single", "float", [Float(number.Value)], null);
                isRight = Equal(name, number);
            }
            else
            {
                var (type, forms) = gaps.Parts[n - 1] switch
                {
                    QuestionKey.OneKey one => ("identifier", one.Right.Select(id => (id, "1"))),
                    QuestionKey.TextKey text => ("string", Forms(text, "1")),
                    _ => throw new InvalidOperationException("No such gap."),
                };
                Mapped(name, "single", type, forms, 1, gaps.Parts[n - 1] is QuestionKey.TextKey { KeepsCase: true });
                isRight = new(V2 + "gt", new XElement(V2 + "mapResponse", new XAttribute("identifier", name)), Value("float", "0"));
            }
            right.Add(isRight);
            scoring.Add(If(isRight, add));
        }
        foreach (var text in body.SelectMany(node => node is XElement element ? element.DescendantNodes().OfType<XText>() : []).ToList())
            Split(text, n => n <= gaps.Parts.Length ? Gap(gaps.Parts[n - 1], $"{Response}{n}") : null);
        return gaps.AllOrNothing ? [If(new(V2 + "and", right), Set(Score, "float", points))] : scoring;
    }

    private static void Split(XText text, Func<int, XElement?> gap)
    {
        var pieces = Numbered().Split(text.Value);
        if (pieces.Length == 1)
            return;
        var nodes = new List<XNode>();
        for (var at = 0; at < pieces.Length; at++)
            if (at % 2 == 0)
                nodes.Add(new XText(pieces[at]));
            else
                nodes.Add(gap(int.Parse(pieces[at], CultureInfo.InvariantCulture)) ?? (XNode)new XText($"[{pieces[at]}]"));
        text.ReplaceWith(nodes);
    }

    private XElement Gap(QuestionKey part, string name) =>
        part is QuestionKey.OneKey one
            ? new(
                V2 + "inlineChoiceInteraction",
                new XAttribute("responseIdentifier", name),
                new XAttribute("shuffle", isMixed && !question.KeepsOrder ? "true" : "false"),
                one.Options.Select(id => new XElement(V2 + "inlineChoice", new XAttribute("identifier", id), question.Words[id]))
            )
            : Line(name);

    private static XElement Line(string name) => new(V2 + "textEntryInteraction", new XAttribute("responseIdentifier", name));

    private static XElement Interaction(string name, params object[] what) =>
        new(V2 + name, new XAttribute("responseIdentifier", Response), what);

    private XElement Option(string id) =>
        new(
            V2 + "simpleChoice",
            new XAttribute("identifier", id),
            question.Words[id],
            question.Replies.TryGetValue(id, out var reply)
                ? new XElement(
                    V2 + "feedbackInline",
                    new XAttribute("outcomeIdentifier", Reply),
                    new XAttribute("identifier", id),
                    new XAttribute("showHide", "show"),
                    reply
                )
                : null
        );

    private static XElement Said(string word) => new(V2 + "simpleChoice", new XAttribute("identifier", word), word);

    private XElement Associable(string id, int most) =>
        new(V2 + "simpleAssociableChoice", new XAttribute("identifier", id), new XAttribute("matchMax", most), question.Words[id]);

    private static IEnumerable<(string, string)> Forms(QuestionKey.TextKey text, string points) =>
        text
            .Accepted.Select(form => (QtiText.Sound(form), points))
            .Concat(text.NotAccepted.Select(form => (QtiText.Sound(form), "0")))
            .DistinctBy(entry => entry.Item1);

    private IEnumerable<XElement> Number(string name, QuestionKey.NumberKey number, XElement then)
    {
        Declare(name, "single", "float", [Float(number.Value)], null);
        return [If(Equal(name, number), then)];
    }

    private IEnumerable<XElement> Whole(string cardinality, string type, IReadOnlyList<string> right)
    {
        Declare(Response, cardinality, type, right, null);
        var isRight =
            right.Count == 0
                ? new XElement(V2 + "isNull", Variable(Response))
                : new XElement(V2 + "match", Variable(Response), new XElement(V2 + "correct", new XAttribute("identifier", Response)));
        return [If(isRight, Set(Score, "float", points))];
    }

    private IEnumerable<XElement> Nothing(string type)
    {
        Declare(Response, "single", type, [], null);
        return [];
    }

    private IEnumerable<XElement> Mapped(
        string name,
        string cardinality,
        string type,
        IEnumerable<(string Key, string Points)> entries,
        int right,
        bool keepsCase = true
    )
    {
        var all = entries.ToList();
        Declare(
            name,
            cardinality,
            type,
            all.Where(entry => entry.Points[0] != '-' && entry.Points != "0").Take(right).Select(entry => entry.Key),
            new(
                V2 + "mapping",
                new XAttribute("lowerBound", "0"),
                name == Response ? new XAttribute("upperBound", points) : null,
                new XAttribute("defaultValue", "0"),
                all.Select(entry => new XElement(
                    V2 + "mapEntry",
                    new XAttribute("mapKey", entry.Key),
                    new XAttribute("mappedValue", entry.Points),
                    type == "string" ? new XAttribute("caseSensitive", keepsCase ? "true" : "false") : null
                ))
            )
        );
        return [Set(Score, new XElement(V2 + "mapResponse", new XAttribute("identifier", name)))];
    }

    private void Declare(string name, string cardinality, string type, IEnumerable<string> right, XElement? mapping)
    {
        var values = right.Select(QtiNames.Value).ToList();
        responses.Add(
            new(
                V2 + "responseDeclaration",
                new XAttribute("identifier", name),
                new XAttribute("cardinality", cardinality),
                new XAttribute("baseType", type),
                values.Count == 0 ? null : new XElement(V2 + "correctResponse", values),
                mapping
            )
        );
    }

    [GeneratedRegex(@"\[(\d{1,3})\]", RegexOptions.CultureInvariant)]
    private static partial Regex Numbered();
}
