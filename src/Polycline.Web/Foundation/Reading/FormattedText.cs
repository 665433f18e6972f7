using AngleSharp.Dom;
using Ganss.Xss;

namespace Polycline.Web.Foundation.Reading;

/// <summary>The one stored form of text: canonical sanitised HTML of a named list of elements.</summary>
public static class FormattedText
{
    private static readonly string[] Elements =
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
        "s",
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
        "audio",
        "video",
        "aside",
    ];

    private const int Deepest = 100;
    private const int MostElements = 10_000;
    private static readonly string[] Endless =
    [
        "br",
        "hr",
        "img",
        "input",
        "meta",
        "link",
        "col",
        "wbr",
        "area",
        "base",
        "embed",
        "source",
        "track",
    ];
    private static readonly string[] Attributes =
    [
        "href",
        "src",
        "alt",
        "title",
        "controls",
        "preload",
        "colspan",
        "rowspan",
        "data-kind",
        TextBlocks.Attribute,
    ];

    // What a formula is made of: nothing that can hold HTML in it is kept.
    private static readonly string[] Formulas =
    [
        "math",
        "mrow",
        "mi",
        "mn",
        "mo",
        "mtext",
        "mspace",
        "ms",
        "mfrac",
        "msqrt",
        "mroot",
        "msub",
        "msup",
        "msubsup",
        "munder",
        "mover",
        "munderover",
        "mmultiscripts",
        "mprescripts",
        "mtable",
        "mtr",
        "mtd",
        "mpadded",
        "mphantom",
        "mstyle",
    ];

    // Of formulas only; data-tex is what somebody typed.
    private static readonly string[] OfFormulas =
    [
        "data-tex",
        "display",
        "displaystyle",
        "mathvariant",
        "stretchy",
        "fence",
        "separator",
        "accent",
        "linethickness",
        "columnalign",
    ];
    private const int LongestTex = 2_000;
    private const int LongestDescription = 500;
    private const string MathMl = "http://www.w3.org/1998/Math/MathML";

    /// <summary>The kinds of an inset.</summary>
    private static readonly string[] Insets = ["note", "warning"];

    private static readonly HtmlSanitizer WithoutMedia = Make((_, _) => null);

    /// <summary>
    /// Why a text is too much to be read into a page, in words; null if it is not. It is scanned once, before it is parsed.
    /// </summary>
    public static string? Fault(string html)
    {
        var (tags, depth) = (0, 0);
        for (var at = html.IndexOf('<', StringComparison.Ordinal); at >= 0 && at + 1 < html.Length; at = html.IndexOf('<', at + 1))
        {
            if (html[at + 1] == '/')
                depth = Math.Max(0, depth - 1);
            else if (char.IsAsciiLetter(html[at + 1]))
            {
                tags++;
                // An element without an end tag holds nothing.
                if (
                    !Endless.Any(name =>
                        html.AsSpan(at + 1).StartsWith(name, StringComparison.OrdinalIgnoreCase)
                        && !char.IsAsciiLetterOrDigit(at + 1 + name.Length < html.Length ? html[at + 1 + name.Length] : ' ')
                    )
                )
                    depth++;
            }
            if (depth > Deepest)
                return $"This text is nested more than {Deepest} levels deep, or has an element that is not closed. Simplify it.";
            if (tags > MostElements)
                return $"This text has more than {MostElements:N0} elements. Split it in two.";
        }
        return null;
    }

    /// <summary>The text with nothing in it but what is kept; empty where it says nothing.</summary>
    /// <param name="media">
    /// What the address of an <c>img</c>, <c>audio</c> or <c>video</c> on the page is stored as; null: it is not kept. Without it none is.
    /// </param>
    /// <exception cref="ArgumentException">It is more than can be read (<see cref="Fault"/>).</exception>
    public static string Canonical(string html, Func<string, string, string?>? media = null)
    {
        if (Fault(html) is { } fault)
            throw new ArgumentException(fault, nameof(html));
        var kept = (media is null ? WithoutMedia : Make(media)).Sanitize(html).Trim();
        return kept is "<p></p>" or "<p><br></p>" ? "" : kept;
    }

    private static HtmlSanitizer Make(Func<string, string, string?> media)
    {
        var sanitizer = new HtmlSanitizer(
            new HtmlSanitizerOptions
            {
                AllowedTags = new HashSet<string>(Elements.Concat(Formulas), StringComparer.OrdinalIgnoreCase),
                AllowedAttributes = new HashSet<string>(Attributes.Concat(OfFormulas), StringComparer.OrdinalIgnoreCase),
                AllowedSchemes = new HashSet<string>(["http", "https", "mailto"], StringComparer.OrdinalIgnoreCase),
                UriAttributes = new HashSet<string>(["href", "src"], StringComparer.OrdinalIgnoreCase),
            }
        )
        {
            // The text inside an element that is not kept is kept, except for scripts and styles.
            KeepChildNodes = true,
        };
        sanitizer.RemovingTag += (_, removing) =>
        {
            if (removing.Tag.LocalName is "script" or "style")
                removing.Tag.TextContent = "";
        };
        sanitizer.FilterUrl += (_, filtering) =>
        {
            if (filtering.Tag?.LocalName is "img" or "audio" or "video")
                filtering.SanitizedUrl = media(filtering.Tag.LocalName, filtering.OriginalUrl);
        };
        sanitizer.PostProcessDom += (_, made) =>
        {
            foreach (var formula in made.Document.QuerySelectorAll("math").ToList())
                SettleFormula(formula);
            foreach (var element in made.Document.QuerySelectorAll("*").Where(element => element.NamespaceUri != MathMl).ToList())
            foreach (var name in OfFormulas)
                element.RemoveAttribute(name);
            foreach (var element in made.Document.QuerySelectorAll($"[{TextBlocks.Attribute}]").ToList())
                if (element.Parent != made.Document.Body || !TextBlocks.IsId(element.GetAttribute(TextBlocks.Attribute)))
                    element.RemoveAttribute(TextBlocks.Attribute);
            foreach (var element in made.Document.QuerySelectorAll("img, audio, video, aside, td, th").ToList())
                Settle(element);
            foreach (
                var element in made.Document.QuerySelectorAll("*").Where(element => element.LocalName is not ("audio" or "video")).ToList()
            )
            foreach (var name in new[] { "title", "controls", "preload" })
                element.RemoveAttribute(name);
        };
        return sanitizer;
    }

    // A formula is nothing but a formula: whatever else stands in one is read as its text.
    private static void SettleFormula(IElement formula)
    {
        var inside = formula.QuerySelectorAll("*");
        if (
            formula.NamespaceUri != MathMl
            || inside.Any(element => element.NamespaceUri != MathMl || element.LocalName == "math")
            || formula.TextContent.Trim().Length == 0
        )
        {
            if (formula.Parent is not null)
                formula.Replace(formula.Owner!.CreateTextNode(formula.TextContent));
            return;
        }
        foreach (var element in inside.Append(formula))
        foreach (var attribute in element.Attributes.Select(attribute => attribute.Name).ToList())
            if (!OfFormulas.Contains(attribute) || attribute is "data-tex" or "display" && element != formula)
                element.RemoveAttribute(attribute);
        if (formula.GetAttribute("data-tex") is { Length: > LongestTex })
            formula.RemoveAttribute("data-tex");
        if (formula.GetAttribute("display") is { } display && display != "block")
            formula.RemoveAttribute("display");
    }

    // What an element must be like to stand there at all.
    private static void Settle(IElement element)
    {
        switch (element.LocalName)
        {
            case "img" or "audio" or "video" when element.GetAttribute("src") is null or "":
                element.Remove();
                break;
            case "audio" or "video":
                element.TextContent = "";
                element.SetAttribute("title", Described(element, "title"));
                element.SetAttribute("controls", "");
                element.SetAttribute("preload", "metadata");
                break;
            case "img":
                element.SetAttribute("alt", Described(element, "alt"));
                break;
            case "aside" when !Insets.Contains(element.GetAttribute("data-kind")):
                element.SetAttribute("data-kind", Insets[0]);
                break;
            case "td" or "th":
                foreach (var name in new[] { "colspan", "rowspan" })
                    if (element.GetAttribute(name) is { } span && !(int.TryParse(span, out var many) && many is > 1 and <= 100))
                        element.RemoveAttribute(name);
                break;
        }
    }

    private static string Described(IElement element, string attribute) =>
        (element.GetAttribute(attribute) ?? "").Trim() is { Length: <= LongestDescription } said ? said : "";
}
