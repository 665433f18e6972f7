using System.Text;
using System.Text.RegularExpressions;
using UglyToad.PdfPig;

namespace Polycline.Formats.Files;

/// <summary>The words of a file, so that it can be found by them.</summary>
public static partial class FileText
{
    /// <summary>How many characters are kept.</summary>
    public const int Longest = 200_000;

    /// <summary>The largest file that is read, in bytes.</summary>
    public const long Largest = 40 * 1024 * 1024;

    private const int MostPages = 1_000;
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);

    /// <summary>Whether a file of this type has words that can be read.</summary>
    /// <param name="type">What its bytes are (<see cref="FileTypes.Of"/>).</param>
    public static bool CanRead(string type, long size) => type is FileTypes.Text or "application/pdf" && size <= Largest;

    /// <summary>The words; empty where there are none, or the file is damaged.</summary>
    public static string Of(string type, byte[] bytes) =>
        Tidy(
            type switch
            {
                FileTypes.Text => OfText(bytes),
                "application/pdf" => OfPdf(bytes),
                _ => "",
            }
        );

    private static string OfText(byte[] bytes)
    {
        var text = Encoding.UTF8.GetString(bytes, 0, Math.Min(bytes.Length, 4 * Longest));
        // A drawing is found by what is written in it.
        return text.AsSpan(0, Math.Min(text.Length, 1_000)).Contains("<svg", StringComparison.OrdinalIgnoreCase)
            ? System.Net.WebUtility.HtmlDecode(Tags().Replace(text, " "))
            : text;
    }

    private static string OfPdf(byte[] bytes)
    {
        var text = new StringBuilder();
        var until = Environment.TickCount64 + (long)Patience.TotalMilliseconds;
        try
        {
            using var document = PdfDocument.Open(bytes);
            foreach (var page in document.GetPages().Take(MostPages))
            {
                foreach (var word in page.GetWords())
                    text.Append(word.Text).Append(' ');
                if (text.Length >= Longest || Environment.TickCount64 > until)
                    break;
            }
        }
        // Whatever is wrong with a file from outside, it just is not found by its words.
        catch (Exception fault) when (fault is not OutOfMemoryException)
        {
            return text.ToString();
        }
        return text.ToString();
    }

    private static string Tidy(string text)
    {
        var tidy = new StringBuilder(Math.Min(text.Length, Longest));
        foreach (var letter in text)
        {
            if (tidy.Length == Longest)
                break;
            if (char.IsSurrogate(letter))
                continue;
            var isGap = char.IsWhiteSpace(letter) || char.IsControl(letter);
            if (!isGap)
                tidy.Append(letter);
            else if (tidy.Length > 0 && tidy[^1] != ' ')
                tidy.Append(' ');
        }
        return tidy.ToString().TrimEnd();
    }

    [GeneratedRegex("<[^>]*>")]
    private static partial Regex Tags();
}
