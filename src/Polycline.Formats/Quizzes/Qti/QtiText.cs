using System.Text;
using System.Text.RegularExpressions;
using System.Xml;
using System.Xml.Linq;

namespace Polycline.Formats.Quizzes.Qti;

/// <summary>What is asked, between the HTML of a page and the XHTML of an item's body.</summary>
internal static partial class QtiText
{
    private static readonly string[] Kept =
    [
        "p",
        "br",
        "h2",
        "h3",
        "ul",
        "ol",
        "li",
        "strong",
        "em",
        "code",
        "pre",
        "blockquote",
        "a",
        "hr",
        "sub",
        "sup",
        "table",
        "tbody",
        "tr",
        "th",
        "td",
        "img",
    ];
    private static readonly string[] Attributes = ["href", "src", "alt", "colspan", "rowspan"];
    private static readonly string[] Void = ["br", "hr", "img"];

    /// <summary>The elements of a body.</summary>
    /// <param name="html">Canonical.</param>
    /// <param name="file">The name in the package of the file that <c>file:…</c> names.</param>
    public static IEnumerable<XNode> Body(string html, Func<string, string> file)
    {
        var xml = string.Concat(HtmlPieces.Of(Sound(html).Replace("&nbsp;", "\u00a0", StringComparison.Ordinal)).Select(Xml));
        var root = XElement.Parse($"<div>{xml}</div>", LoadOptions.PreserveWhitespace);
        return Blocks(root.Nodes().SelectMany(node => Out(node, file)));
    }

    /// <summary>A body as the HTML of a page; whoever keeps it lets only the elements of a page through.</summary>
    /// <param name="put">What stands in the place of an interaction or of something else that is no text; null: nothing special.</param>
    public static string Html(IEnumerable<XNode> nodes, Func<XElement, string?> put)
    {
        var html = new StringBuilder();
        foreach (var node in nodes)
            Write(node, html, put);
        return html.ToString();
    }

    /// <summary>Plain text as the value of an attribute.</summary>
    public static string Quoted(string text) => GapText.Encoded(text).Replace("\"", "&quot;", StringComparison.Ordinal);

    /// <summary>A text without what XML cannot hold.</summary>
    public static string Sound(string text)
    {
        var sound = new StringBuilder(text.Length);
        for (var at = 0; at < text.Length; at++)
            if (XmlConvert.IsXmlChar(text[at]))
                sound.Append(text[at]);
            else if (at + 1 < text.Length && XmlConvert.IsXmlSurrogatePair(text[at + 1], text[at]))
                sound.Append(text, at++, 2);
        return sound.ToString();
    }

    // Elements without an end are closed, and formulas have their namespace.
    private static string Xml(HtmlPiece piece) =>
        piece.Kind switch
        {
            HtmlPieceKind.Tag when Void.Contains(piece.Element) && !piece.Text.EndsWith("/>", StringComparison.Ordinal) =>
                $"{piece.Text[..^1]}/>",
            HtmlPieceKind.Formula => $"<math xmlns=\"{QtiNames.Math}\"{piece.Text["<math".Length..]}",
            _ => piece.Text,
        };

    /// <summary>The words of an element, in one line.</summary>
    public static string Words(XElement element) => Space().Replace(element.Value, " ").Trim();

    private static IEnumerable<XNode> Out(XNode node, Func<string, string> file)
    {
        if (node is XText text)
            return [new XText(text.Value)];
        if (node is not XElement element)
            return [];
        if (element.Name.Namespace == QtiNames.Math)
            return [Formula(element)];
        var name = element.Name.LocalName;
        var inside = element.Nodes().SelectMany(one => Out(one, file));
        if (name is "audio" or "video")
            return
            [
                new XElement(
                    QtiNames.V2 + "object",
                    new XAttribute("data", file($"{element.Attribute("src")?.Value}")),
                    new XAttribute("type", name == "audio" ? "audio/mpeg" : "video/mp4"),
                    $"{element.Attribute("title")?.Value}"
                ),
            ];
        if (name == "aside")
            return [new XElement(QtiNames.V2 + "div", Blocks(inside))];
        if (!Kept.Contains(name))
            return inside;
        return
        [
            new XElement(
                QtiNames.V2 + name,
                element
                    .Attributes()
                    .Where(attribute => Attributes.Contains(attribute.Name.LocalName))
                    .Select(attribute => new XAttribute(
                        attribute.Name.LocalName,
                        attribute.Name.LocalName == "src" ? file(attribute.Value) : attribute.Value
                    )),
                name is "blockquote" ? Blocks(inside) : inside
            ),
        ];
    }

    private static XElement Formula(XElement element) =>
        new(
            element.Name,
            element.Attributes().Where(attribute => !attribute.Name.LocalName.StartsWith("data-", StringComparison.Ordinal)),
            element.Nodes().Select(node => node is XElement inner ? Formula(inner) : node)
        );

    // A body holds blocks: words by themselves are a paragraph.
    private static IEnumerable<XNode> Blocks(IEnumerable<XNode> nodes)
    {
        var loose = new List<XNode>();
        foreach (var node in nodes.ToList())
            if (
                node is XElement
                {
                    Name.LocalName: "p" or "h2" or "h3" or "ul" or "ol" or "pre" or "blockquote" or "hr" or "table" or "div"
                }
            )
            {
                if (Paragraph() is { } before)
                    yield return before;
                yield return node;
            }
            else
                loose.Add(node);
        if (Paragraph() is { } last)
            yield return last;

        XElement? Paragraph()
        {
            var said = loose.Any(node => node is XElement || node is XText { Value: var words } && !string.IsNullOrWhiteSpace(words));
            XElement? paragraph = said ? new(QtiNames.V2 + "p", loose) : null;
            loose.Clear();
            return paragraph;
        }
    }

    private static void Write(XNode node, StringBuilder html, Func<XElement, string?> put)
    {
        if (node is XText text)
            html.Append(GapText.Encoded(text.Value));
        else if (node is XElement element)
        {
            if (put(element) is { } instead)
            {
                html.Append(instead);
                return;
            }
            var name = element.Name.LocalName;
            html.Append('<').Append(name);
            foreach (var attribute in element.Attributes().Where(attribute => !attribute.IsNamespaceDeclaration))
                html.Append(' ').Append(attribute.Name.LocalName).Append("=\"").Append(Quoted(attribute.Value)).Append('"');
            html.Append('>');
            foreach (var inner in element.Nodes())
                Write(inner, html, put);
            if (!Void.Contains(name))
                html.Append("</").Append(name).Append('>');
        }
    }

    [GeneratedRegex("\\s+", RegexOptions.CultureInvariant)]
    private static partial Regex Space();
}
