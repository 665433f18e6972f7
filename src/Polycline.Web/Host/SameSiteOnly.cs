using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Host;

/// <summary>
/// Refuses what another site makes a browser send. Three things beside the cookie's <c>SameSite</c>: the browser's own
/// word for where a request comes from, the origin it names, and a header that no form can set and no other site may.
/// </summary>
public sealed class SameSiteOnly(RequestDelegate next)
{
    /// <summary>Stands on every request that changes something.</summary>
    public const string Header = "X-Polycline";

    public Task InvokeAsync(HttpContext http)
    {
        var request = http.Request;
        var changes = !HttpMethods.IsGet(request.Method) && !HttpMethods.IsHead(request.Method);
        var connects = http.WebSockets.IsWebSocketRequest || request.Headers.Upgrade.Count > 0;
        if (
            (changes || connects)
            && (FromElsewhere(request) || (changes && !request.Headers.ContainsKey(Header) && !request.Path.StartsWithSegments("/live")))
        )
            throw Problem.CrossSite();
        return next(http);
    }

    private static bool FromElsewhere(HttpRequest request)
    {
        string? origin = request.Headers.Origin,
            site = request.Headers["Sec-Fetch-Site"];
        return (site is not null && site is not ("same-origin" or "none"))
            || (origin is not null && origin != $"{request.Scheme}://{request.Host}");
    }
}
