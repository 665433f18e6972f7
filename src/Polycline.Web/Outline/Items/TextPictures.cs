using System.Text.RegularExpressions;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Formats.Files;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Items;

/// <summary>
/// The pictures, sounds and films that a text can use: those in the course's texts, and those that its writer has just sent.
/// </summary>
public sealed partial record TextPictures(IReadOnlySet<string> Known, IReadOnlyDictionary<Guid, SentFile> Sent)
{
    /// <summary>Reads those that an unchecked text names.</summary>
    public static async Task<TextPictures> Read(NpgsqlConnection connection, Id<Edition> edition, string html)
    {
        var sources = Sources().Matches(html).Select(match => match.Groups[1].Value).Distinct().ToList();
        var uploads = sources.Select(Pictures.UploadOf).OfType<Guid>().ToList();
        return new(
            await Pictures.Known(connection, edition, [.. sources.Select(Pictures.HashOf).OfType<string>()]),
            uploads.Count == 0
                ? new Dictionary<Guid, SentFile>()
                : (await UploadStore.Sent(connection, uploads)).ToDictionary(file => file.Id)
        );
    }

    /// <summary>The name of one in a stored text; null if its address is not one of ours, and it is left out.</summary>
    /// <param name="element"><c>img</c>, <c>audio</c> or <c>video</c>.</param>
    /// <param name="field">Of the request, which has the text.</param>
    /// <exception cref="ProblemException">It is something else, or not one that the writer may use.</exception>
    public string? Stored(string element, string source, Viewpoint viewpoint, string field = "html")
    {
        if (Pictures.UploadOf(source) is { } upload)
            return Sent.TryGetValue(upload, out var file) && file.Person == viewpoint.Who.Id
                ? CanStand(element, FileTypes.KindOf(file.Name, file.Type))
                    ? Pictures.Named(file.Hash)
                    : throw Problem.Field(field, $"“{file.Name}” is not {Called(element)}. Add it to the files instead.")
                : throw Problem.Field(field, "A picture in this text is no longer available. Remove it and insert it again.");
        if (Pictures.HashOf(source) is { } hash)
            // To know what a picture is called is no right to it.
            return Known.Contains(hash)
                ? Pictures.Named(hash)
                : throw Problem.Field(
                    field,
                    "A picture in this text comes from another course. Save it there, then insert it here from the file."
                );
        return null;
    }

    private static bool CanStand(string element, FileKind kind) =>
        element switch
        {
            "img" => kind is FileKind.Picture or FileKind.Drawing,
            "audio" => kind is FileKind.Audio,
            _ => kind is FileKind.Video,
        };

    private static string Called(string element) =>
        element switch
        {
            "img" => "a picture",
            "audio" => "a sound that a browser can play",
            _ => "a film that a browser can play",
        };

    [GeneratedRegex("src\\s*=\\s*[\"']?([^\"'\\s>]+)", RegexOptions.IgnoreCase)]
    private static partial Regex Sources();
}
