using System.Net.Mime;
using Microsoft.Net.Http.Headers;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Files;
using Polycline.Formats.Files;

namespace Polycline.Web.Foundation.Files;

/// <summary>A file as a screen lists it.</summary>
/// <param name="Size">In bytes.</param>
/// <param name="SizeInWords">Such as “1.4 MB”.</param>
/// <param name="Kind">How it can be shown: <c>picture</c>, <c>drawing</c>, <c>pdf</c>, <c>text</c>, <c>table</c>,
/// <c>audio</c>, <c>video</c> or <c>other</c>.</param>
/// <param name="Address">Where its bytes are, for those who may read it at the moment they look at.</param>
public sealed record FileAnswer(long Id, string Name, long Size, string SizeInWords, string Kind, string Address)
{
    public static FileAnswer Of(long id, string name, StoredFile file, string address) =>
        new(id, name, file.Size, FileLimits.InWords(file.Size), EnumNames.Of(FileTypes.KindOf(name, file.Type)), address);
}

/// <summary>Marks endpoints that answer with bytes somebody sent. Browsers are told never to run anything in them.</summary>
public sealed record SentBytes;

/// <summary>Sends files.</summary>
public static class SendingFiles
{
    /// <summary>Answers with a file, or the part of it that was asked for. Anything a browser might run is only ever saved.</summary>
    /// <param name="save">Whether the file is to be saved rather than shown.</param>
    public static IResult Send(HttpContext http, Database database, string name, StoredFile file, bool save)
    {
        var kind = FileTypes.KindOf(name, file.Type);
        var disposition = new ContentDispositionHeaderValue(
            save || kind is FileKind.Drawing or FileKind.Other ? DispositionTypeNames.Attachment : DispositionTypeNames.Inline
        );
        disposition.SetHttpFileName(name);
        http.Response.Headers.ContentDisposition = $"{disposition}";
        return Results.Stream(
            StoredStream.Of(database, file),
            FileTypes.SentAs(name, file.Type),
            entityTag: new($"\"{file.Hash[..32]}\""),
            enableRangeProcessing: true
        );
    }

    /// <summary>Marks an endpoint as answering with bytes that somebody sent.</summary>
    public static RouteHandlerBuilder SendsBytes(this RouteHandlerBuilder endpoint) => endpoint.WithMetadata(new SentBytes());
}
