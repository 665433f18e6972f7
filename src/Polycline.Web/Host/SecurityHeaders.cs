using System.Security.Cryptography;
using Polycline.Web.Foundation.Files;

namespace Polycline.Web.Host;

/// <summary>
/// What every answer says to the browser. The page runs its own scripts and styles only, by a nonce made for each
/// answer; nothing is framed, sniffed, referred or kept.
/// </summary>
public sealed class SecurityHeaders(RequestDelegate next)
{
    private sealed record Nonce(string Value);

    /// <summary>The nonce of this answer.</summary>
    public static string NonceOf(HttpContext http) => http.Features.Get<Nonce>()!.Value;

    public Task InvokeAsync(HttpContext http)
    {
        var nonce = Convert.ToBase64String(RandomNumberGenerator.GetBytes(18));
        http.Features.Set(new Nonce(nonce));
        // Set at the last moment, so that an answer that was started again has them too.
        http.Response.OnStarting(() =>
        {
            Set(http, nonce);
            return Task.CompletedTask;
        });
        return next(http);
    }

    private static void Set(HttpContext http, string nonce)
    {
        var headers = http.Response.Headers;
        headers.ContentSecurityPolicy = http.GetEndpoint()?.Metadata.GetMetadata<SentBytes>() is not null
            // What somebody sent is shown and nothing more.
            ? "default-src 'none'; style-src 'unsafe-inline'; sandbox; frame-ancestors 'none'"
            : $"default-src 'none'; script-src 'self' 'nonce-{nonce}'; style-src "
                + $"'self' 'nonce-{nonce}'; font-src 'self'; img-src 'self' data:; media-src 'self'; "
                + "connect-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'; object-src 'none'";
        headers.XContentTypeOptions = "nosniff";
        headers["Referrer-Policy"] = "no-referrer";
        headers["Permissions-Policy"] = "camera=(), geolocation=(), microphone=(), payment=(), usb=()";
        headers["Cross-Origin-Opener-Policy"] = "same-origin";
        headers["Cross-Origin-Resource-Policy"] = "same-origin";
        if (http.Request.IsHttps)
            headers.StrictTransportSecurity = "max-age=31536000";
        if (http.Request.Path.StartsWithSegments("/api"))
            headers.CacheControl = "private, no-store";
        // Their names hold a hash of what is in them: under one name there is never anything else.
        if (
            http.Request.Path.StartsWithSegments("/assets")
            && http.Response.StatusCode is StatusCodes.Status200OK or StatusCodes.Status304NotModified
        )
            headers.CacheControl = "public, max-age=31536000, immutable";
    }
}
