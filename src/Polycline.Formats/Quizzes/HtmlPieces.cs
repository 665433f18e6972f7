namespace Polycline.Formats.Quizzes;

internal enum HtmlPieceKind
{
    Text,
    Tag,

    /// <summary>A whole formula, from its first tag to its last.</summary>
    Formula,
}

/// <summary>A stretch of HTML as it is written.</summary>
internal readonly record struct HtmlPiece(HtmlPieceKind Kind, string Text)
{
    /// <summary>Of a tag: its element, in small letters.</summary>
    public string Element =>
        string.Concat(Text.AsSpan(Text.StartsWith("</", StringComparison.Ordinal) ? 2 : 1).ToString().TakeWhile(char.IsAsciiLetterOrDigit))
            .ToLowerInvariant();

    public bool IsEnd => Text.StartsWith("</", StringComparison.Ordinal);
}

/// <summary>Reads HTML as words, tags and formulas, in one pass however it is made: it may be anybody's.</summary>
internal static class HtmlPieces
{
    private const string Formula = "<math";
    private const string EndOfFormula = "</math>";

    public static IEnumerable<HtmlPiece> Of(string html)
    {
        // Where one tag, or one formula, does not end, what follows holds none that does.
        var (hasTags, hasFormulas) = (true, true);
        var begin = 0;
        for (var at = 0; at < html.Length; )
        {
            if (html[at] != '<')
            {
                at++;
                continue;
            }
            var (end, kind) = (-1, HtmlPieceKind.Tag);
            if (hasFormulas && IsFormula(html, at))
            {
                end = html.IndexOf(EndOfFormula, at, StringComparison.Ordinal);
                hasFormulas = end >= 0;
                (end, kind) = end < 0 ? (end, kind) : (end + EndOfFormula.Length, HtmlPieceKind.Formula);
            }
            if (end < 0 && hasTags && EndOfTag(html, at) is var found)
                (end, hasTags) = (found, found != html.Length);
            if (end < 0 || end == html.Length && kind == HtmlPieceKind.Tag && html[^1] != '>')
            {
                at++;
                continue;
            }
            if (at > begin)
                yield return new(HtmlPieceKind.Text, html[begin..at]);
            yield return new(kind, html[at..end]);
            (at, begin) = (end, end);
        }
        if (begin < html.Length)
            yield return new(HtmlPieceKind.Text, html[begin..]);
    }

    private static bool IsFormula(string html, int at) =>
        string.CompareOrdinal(html, at, Formula, 0, Formula.Length) == 0
        && at + Formula.Length < html.Length
        && html[at + Formula.Length] is ' ' or '>';

    // After the tag; the whole length: it does not end; -1: it is none.
    private static int EndOfTag(string html, int at)
    {
        if (at + 1 == html.Length || html[at + 1] != '/' && !char.IsAsciiLetter(html[at + 1]))
            return -1;
        char? quote = null;
        for (var place = at + 1; place < html.Length; place++)
            if (quote is { } open)
                quote = html[place] == open ? null : open;
            else if (html[place] is '"' or '\'')
                quote = html[place];
            else if (html[place] == '>')
                return place + 1;
            else if (html[place] == '<')
                return -1;
        return html.Length;
    }
}
