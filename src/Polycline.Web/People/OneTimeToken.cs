using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.WebUtilities;

namespace Polycline.Web.People;

/// <summary>The secret of a link that is good once: 256 random bits, of which only the hash is kept.</summary>
public static class OneTimeToken
{
    /// <summary>How long it is in an address.</summary>
    public const int Length = 43;

    public static string New() => WebEncoders.Base64UrlEncode(RandomNumberGenerator.GetBytes(32));

    public static byte[] Hash(string token) => SHA256.HashData(Encoding.UTF8.GetBytes(token));
}
