using System.Net;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Host;

/// <summary>The hosts by which this school is known.</summary>
/// <param name="set">The address the school has set; null: none.</param>
/// <param name="listening">Where the server listens.</param>
/// <param name="behindProxies">Without an address of its own, what a believed proxy says of the host is taken.</param>
public sealed class KnownHosts(Uri? set, string listening, bool behindProxies)
{
    private readonly string? own = Uri.TryCreate(listening, UriKind.Absolute, out var address) ? address.Host : null;

    public bool Knows(HttpContext http)
    {
        var host = http.Request.Host.Host;
        if (set is not null && string.Equals(host, set.Host, StringComparison.OrdinalIgnoreCase))
            return true;
        // It can always be reached from this machine, for health checks.
        if (host is "localhost" or "127.0.0.1" or "[::1]" or "::1" || string.Equals(host, own, StringComparison.OrdinalIgnoreCase))
            return true;
        return set is null
            && behindProxies
            && http.Request.Headers.ContainsKey("X-Original-Host")
            && IPAddress.TryParse(host, out _) == false;
    }
}

/// <summary>
/// Answers only requests for hosts by which the school is known: another site's name that leads here gets nothing, and no link is made with
/// it.
/// </summary>
public sealed class KnownHostsOnly(RequestDelegate next, KnownHosts hosts)
{
    public Task InvokeAsync(HttpContext http) => hosts.Knows(http) ? next(http) : throw Problem.UnknownHost();
}

/// <summary>Answers HEAD as GET is answered, without the body; and the page is never served as the raw file.</summary>
public sealed class Heads(RequestDelegate next)
{
    public Task InvokeAsync(HttpContext http)
    {
        if (
            http.Request.Path.StartsWithSegments("/index.html")
            || http.Request.Path.Value?.StartsWith("/index.html.", StringComparison.OrdinalIgnoreCase) == true
        )
        {
            http.Response.Redirect("/");
            return Task.CompletedTask;
        }
        if (HttpMethods.IsHead(http.Request.Method))
        {
            http.Request.Method = HttpMethods.Get;
            http.Response.Body = Stream.Null;
        }
        return next(http);
    }
}
