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

/// <summary>The pictures that a text can use: those in the course's texts, and those that its writer has just sent.</summary>
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

    /// <summary>The name of a picture in a stored text; null if its address is not one of ours, and it is left out.</summary>
    /// <exception cref="ProblemException">It is not a picture, or not one that the writer may use.</exception>
    public string? Stored(string source, Viewpoint viewpoint)
    {
        if (Pictures.UploadOf(source) is { } upload)
            return Sent.TryGetValue(upload, out var file) && file.Person == viewpoint.Who.Id
                ? FileTypes.KindOf(file.Name, file.Type) is FileKind.Picture or FileKind.Drawing
                    ? Pictures.Named(file.Hash)
                    : throw Problem.Field("html", $"“{file.Name}” is not a picture. Add it to the files instead.")
                : throw Problem.Field("html", "A picture in this text is no longer available. Remove it and insert it again.");
        if (Pictures.HashOf(source) is { } hash)
            // To know what a picture is called is no right to it.
            return Known.Contains(hash)
                ? Pictures.Named(hash)
                : throw Problem.Field(
                    "html",
                    "A picture in this text comes from another course. Save it there, then insert it here from the file."
                );
        return null;
    }

    [GeneratedRegex("src\\s*=\\s*[\"']?([^\"'\\s>]+)", RegexOptions.IgnoreCase)]
    private static partial Regex Sources();
}
