using Polycline.Data.Courses;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation.Reading;

/// <summary>What a question of a quiz asks: a text like any other, but never merged block by block.</summary>
public static class QuestionText
{
    /// <summary>In the one form in which texts are kept.</summary>
    /// <param name="field">Of the request, which has the text.</param>
    /// <param name="media">What the address of a picture, sound or film is kept as; null: it is left out.</param>
    /// <exception cref="ProblemException">It is more than can be read.</exception>
    public static string Stored(string html, string field, Func<string, string, string?> media) =>
        FormattedText.Fault(html) is { } fault
            ? throw Problem.Field(field, fault)
            : TextBlocks.Unnamed(FormattedText.Canonical(html, media));

    /// <summary>As it is shown.</summary>
    /// <param name="address">Of the item, for its pictures.</param>
    public static string Shown(string text, string address) => Pictures.Shown(FormattedText.Canonical(text, (_, source) => Pictures.HashOf(
                    source
                )
                    is { } hash
                    ? Pictures.Named(hash)
                // Whoever writes a quiz sees in it what they have just sent.
                : Pictures.UploadOf(source) is null ? null
                : source), address)!;
}
