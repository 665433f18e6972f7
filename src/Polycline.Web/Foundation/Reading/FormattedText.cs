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
    private static readonly HtmlSanitizer Sanitizer = Make();

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
    /// <exception cref="ArgumentException">It is more than can be read (<see cref="Fault"/>).</exception>
    public static string Canonical(string html)
    {
        if (Fault(html) is { } fault)
            throw new ArgumentException(fault, nameof(html));
        var kept = Sanitizer.Sanitize(html).Trim();
        return kept is "<p></p>" or "<p><br></p>" ? "" : kept;
    }

    private static HtmlSanitizer Make()
    {
        var sanitizer = new HtmlSanitizer(
            new HtmlSanitizerOptions
            {
                AllowedTags = new HashSet<string>(Elements, StringComparer.OrdinalIgnoreCase),
                AllowedAttributes = new HashSet<string>(["href"], StringComparer.OrdinalIgnoreCase),
                AllowedSchemes = new HashSet<string>(["http", "https", "mailto"], StringComparer.OrdinalIgnoreCase),
                UriAttributes = new HashSet<string>(["href"], StringComparer.OrdinalIgnoreCase),
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
        return sanitizer;
    }
}
