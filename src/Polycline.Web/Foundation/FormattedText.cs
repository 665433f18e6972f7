using Ganss.Xss;

namespace Polycline.Web.Foundation;

/// <summary>The one stored form of text: canonical sanitised HTML of a named list of elements.</summary>
public static class FormattedText
{
    private static readonly string[] Elements =
        ["p", "br", "h2", "h3", "ul", "ol", "li", "strong", "em", "s", "code", "pre", "blockquote", "a", "hr", "sub", "sup"];

    private static readonly HtmlSanitizer Sanitizer = Make();

    /// <summary>The text with nothing in it but what is kept; empty where it says nothing.</summary>
    public static string Canonical(string html)
    {
        var kept = Sanitizer.Sanitize(html).Trim();
        return kept is "<p></p>" or "<p><br></p>" ? "" : kept;
    }

    private static HtmlSanitizer Make()
    {
        var sanitizer = new HtmlSanitizer(new HtmlSanitizerOptions
        {
            AllowedTags = new HashSet<string>(Elements, StringComparer.OrdinalIgnoreCase),
            AllowedAttributes = new HashSet<string>(["href"], StringComparer.OrdinalIgnoreCase),
            AllowedSchemes = new HashSet<string>(["http", "https", "mailto"], StringComparer.OrdinalIgnoreCase),
            UriAttributes = new HashSet<string>(["href"], StringComparer.OrdinalIgnoreCase),
        })
        {
            // What stands in an element that is not kept is text all the same; scripts and styles are not.
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
