using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Host;

/// <summary>The page that everything on screen runs in, and the files it is made of.</summary>
public static class Shell
{
    private const string NoncePlace = "__NONCE__";
    private const string ProfilePlace = "__PROFILE__";

    public static void MapShell(this WebApplication app, IProfile profile)
    {
        // Named after whichever program was published: the school's or the demo's.
        var program = System.Reflection.Assembly.GetEntryAssembly()?.GetName().Name;
        var manifest = Path.Combine(AppContext.BaseDirectory, $"{program}.staticwebassets.endpoints.json");
        if (File.Exists(manifest))
            app.MapStaticAssets(manifest);
        var file = Path.Combine(app.Environment.WebRootPath ?? AppContext.BaseDirectory, "index.html");
        var page = File.Exists(file) ? File.ReadAllText(file).Replace(ProfilePlace, profile.Name, StringComparison.Ordinal) : null;
        app.MapGet("/index.html", () => Results.Redirect("/")).WithOrder(-1).ExcludeFromDescription();
        app.MapFallback(http => Answer(http, page)).For(May.Anyone);
    }

    // Any address that is neither the server's nor a file is a screen's, and the page finds it itself.
    private static Task Answer(HttpContext http, string? page)
    {
        var path = http.Request.Path;
        if (
            HttpMethods.IsPost(http.Request.Method)
            && path.StartsWithSegments("/api")
            && http.Request.ContentType is { } type
            && !http.Request.HasJsonContentType()
        )
            throw Problem.From(new BadHttpRequestException(type, StatusCodes.Status415UnsupportedMediaType))!;
        if (
            page is null
            || !HttpMethods.IsGet(http.Request.Method)
            || path.StartsWithSegments("/api")
            || path.StartsWithSegments("/live")
            || path.StartsWithSegments("/health")
            || Path.HasExtension(path)
        )
            throw Problem.Unknown();
        http.Response.Headers.CacheControl = "no-store";
        http.Response.ContentType = "text/html; charset=utf-8";
        return http.Response.WriteAsync(page.Replace(NoncePlace, SecurityHeaders.NonceOf(http), StringComparison.Ordinal));
    }
}
