using System.Security.Cryptography;
using System.Text;
using System.Text.RegularExpressions;
using AngleSharp.Dom;
using AngleSharp.Html.Parser;
using Polycline.Core.Merging;

namespace Polycline.Web.Foundation.Reading;

/// <summary>
/// A stored text as its blocks: each element that stands by itself has an id in <c>data-block</c>, and keeps it while it lives.
/// </summary>
public static partial class TextBlocks
{
    /// <summary>The attribute that holds the id.</summary>
    public const string Attribute = "data-block";

    /// <summary>Whether something can be the id of a block: 6 to 16 small letters and digits.</summary>
    public static bool IsId(string? id) => id is not null && Ids().IsMatch(id);

    /// <summary>The blocks of a canonical text. One without an id gets one by what it says, the same whenever it is read.</summary>
    public static IReadOnlyList<TextBlock> Of(string html)
    {
        var body = new HtmlParser().ParseDocument($"<body>{html}</body>").Body!;
        var (blocks, taken) = (new List<TextBlock>(), new HashSet<string>(StringComparer.Ordinal));
        foreach (var element in body.Children)
            if (element.GetAttribute(Attribute) is { } id && !(IsId(id) && taken.Add(id)))
                element.RemoveAttribute(Attribute);
        foreach (var node in body.ChildNodes)
        {
            // Words that stand in no element are a paragraph.
            var element = node as IElement;
            if (element is null && node.TextContent.Trim().Length == 0)
                continue;
            var id = element?.GetAttribute(Attribute);
            element?.RemoveAttribute(Attribute);
            var says = element?.OuterHtml ?? $"<p>{System.Net.WebUtility.HtmlEncode(node.TextContent.Trim())}</p>";
            blocks.Add(new(id ?? Fresh(says, taken), says));
        }
        return blocks;
    }

    /// <summary>The text of some blocks, each with its id.</summary>
    public static string Html(IEnumerable<TextBlock> blocks) => string.Concat(blocks.Select(Named));

    /// <summary>The same text, every block with its id.</summary>
    public static string Named(string html) => Html(Of(html));

    /// <summary>The same text without ids: it is never merged block by block.</summary>
    public static string Unnamed(string html) => string.Concat(Of(html).Select(block => block.Html));

    /// <summary>An id by what a block says, different from those that are taken; it is one of them from now on.</summary>
    public static string Fresh(string says, HashSet<string> taken)
    {
        for (var n = 0; ; n++)
        {
            var id = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes($"{n}\n{says}")))[..10];
            if (taken.Add(id))
                return id;
        }
    }

    private static string Named(TextBlock block)
    {
        // It begins with a tag, whose name ends where a blank or the tag itself does.
        var at = block.Html.AsSpan().IndexOfAny(' ', '>');
        return $"{block.Html[..at]} {Attribute}=\"{block.Id}\"{block.Html[at..]}";
    }

    [GeneratedRegex("^[a-z0-9]{6,16}$")]
    private static partial Regex Ids();
}
