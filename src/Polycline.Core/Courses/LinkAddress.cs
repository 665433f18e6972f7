namespace Polycline.Core.Courses;

/// <summary>Where a link leads.</summary>
public static class LinkAddress
{
    public const int Longest = 2_000;

    /// <summary>Why text is no address of a page, in words; null if it is one.</summary>
    public static string? Fault(string text) =>
        text.Length > Longest ? $"This address is too long: {Longest:N0} characters at most."
        : text.Any(letter => char.IsWhiteSpace(letter) || char.IsControl(letter))
        || !Uri.TryCreate(text, UriKind.Absolute, out var address)
        || address.Scheme is not ("https" or "http")
        || address.Host.Length == 0
        || address.UserInfo.Length > 0
            ? "Give the whole address of a page, such as https://films.example/weather."
        : null;

    /// <summary>The place that it leads to, in short: <c>films.example</c>.</summary>
    public static string HostOf(string address) => new Uri(address).Host;
}
