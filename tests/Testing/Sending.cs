using System.Net;
using System.Net.Http.Headers;

namespace Polycline.Testing;

/// <summary>Sends files as a page does: piece by piece.</summary>
public static class Sending
{
    /// <summary>Sends a file whole, and gives what to name in order to use it.</summary>
    public static async Task<Guid> SendFile(this Caller caller, string name, byte[] bytes)
    {
        var upload = await caller.Begin(name, bytes.Length);
        for (long from = 0; from < bytes.Length; )
            from = await caller.Piece(upload, from, bytes[(int)from..(int)Math.Min(bytes.Length, from + (1024 * 1024))]);
        var done = await caller.Post("/api/me/finish-upload", new { upload }, Guid.NewGuid());
        return done.Status == HttpStatusCode.OK ? upload : throw new InvalidOperationException(done.Text);
    }

    /// <summary>Begins to send a file.</summary>
    public static async Task<Guid> Begin(this Caller caller, string name, long size)
    {
        var begun = await caller.Post("/api/me/begin-upload", new { name, size }, Guid.NewGuid());
        return begun.Status == HttpStatusCode.OK ? begun.Json["upload"]!.GetValue<Guid>() : throw new InvalidOperationException(begun.Text);
    }

    /// <summary>Sends a piece, and gives how much is there then.</summary>
    public static async Task<long> Piece(this Caller caller, Guid upload, long from, byte[] bytes)
    {
        var sent = await caller.Send(HttpMethod.Put, $"/api/me/uploads/{upload}?from={from}", null, request =>
        {
            request.Content = new ByteArrayContent(bytes);
            request.Content.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        });
        return sent.Status == HttpStatusCode.OK ? sent.Json["received"]!.GetValue<long>() : throw new InvalidOperationException(sent.Text);
    }
}
