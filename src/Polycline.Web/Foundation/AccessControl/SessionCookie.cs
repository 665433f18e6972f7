using System.Security.Cryptography;
using Microsoft.AspNetCore.WebUtilities;
using NodaTime;

namespace Polycline.Web.Foundation.AccessControl;

/// <summary>The cookie that carries a session's token: 256 random bits, of which the database has the hash only.</summary>
public static class SessionCookie
{
    public const string Name = "__Host-polycline";

    private const string Known = "__Host-polycline-known";

    /// <summary>How long a session lasts.</summary>
    public static readonly Duration Life = Duration.FromDays(14);

    /// <summary>The hash of the token that the request carries; null where it carries none.</summary>
    public static byte[]? Read(HttpContext http) =>
        http.Request.Cookies[Name] is { Length: 43 } text ? SHA256.HashData(System.Text.Encoding.ASCII.GetBytes(text)) : null;

    /// <summary>Gives the browser a new token.</summary>
    /// <returns>Its hash.</returns>
    public static byte[] Give(HttpContext http)
    {
        var text = WebEncoders.Base64UrlEncode(RandomNumberGenerator.GetBytes(32));
        http.Response.Cookies.Append(Name, text, Options(Life.ToTimeSpan()));
        return SHA256.HashData(System.Text.Encoding.ASCII.GetBytes(text));
    }

    /// <summary>The hash of what this browser keeps to be known again; null: it has never signed in.</summary>
    public static byte[]? ReadKnown(HttpContext http) =>
        http.Request.Cookies[Known] is { Length: 43 } text ? SHA256.HashData(System.Text.Encoding.ASCII.GetBytes(text)) : null;

    /// <summary>Makes the browser recognisable for a year. One that is known already stays so.</summary>
    /// <returns>The hash of what it keeps.</returns>
    public static byte[] Remember(HttpContext http)
    {
        if (ReadKnown(http) is { } known)
            return known;
        var text = WebEncoders.Base64UrlEncode(RandomNumberGenerator.GetBytes(32));
        http.Response.Cookies.Append(Known, text, Options(TimeSpan.FromDays(365)));
        return SHA256.HashData(System.Text.Encoding.ASCII.GetBytes(text));
    }

    public static void Take(HttpContext http) => http.Response.Cookies.Append(Name, "", Options(TimeSpan.Zero));

    /// <summary>Of every cookie: for this host alone, over TLS alone, and out of reach of scripts.</summary>
    internal static CookieOptions Options(TimeSpan life) =>
        new()
        {
            Secure = true,
            HttpOnly = true,
            SameSite = SameSiteMode.Lax,
            Path = "/",
            MaxAge = life,
        };
}
