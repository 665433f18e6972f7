using FluentValidation;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.People;

/// <summary>What names, mail addresses and passwords have to be.</summary>
internal static class PeopleRules
{
    public const int ShortestPassword = 10;
    private const int Longest = 200;

    /// <summary>1 to 200 characters of one line.</summary>
    public static void IsName<T>(this IRuleBuilder<T, string> rule) =>
        rule.Must(name => Bounds.IsVisible(name) && name.Trim().Length <= Longest && !name.Any(char.IsControl))
            .WithMessage("A name is one line of up to 200 characters, with at least one letter.");

    /// <summary>One mail address, without a name around it.</summary>
    public static void IsMailAddress<T>(this IRuleBuilder<T, string> rule) =>
        rule.Must(IsMailAddress).WithMessage("Enter a mail address, such as mara.lind@school.example.");

    public static bool IsMailAddress(string text) =>
        text.Trim() is { Length: > 2 and <= Longest } address
        && address.Split('@') is [{ Length: > 0 }, { Length: > 0 } host]
        && !address.Any(letter => char.IsWhiteSpace(letter) || char.IsControl(letter) || letter is '<' or '>' or ',' or ';' or '"')
        && !host.StartsWith('.')
        && !host.EndsWith('.');

    /// <exception cref="ProblemException">It is too short or too long, or is somebody's own name or address.</exception>
    public static void CheckPassword(string password, string name, string email)
    {
        if (password.Length is < ShortestPassword or > Longest)
            throw Problem.Field("password", $"Choose a password of at least {ShortestPassword} characters.");
        if (password.Trim().Equals(name, StringComparison.OrdinalIgnoreCase) || password.Equals(email, StringComparison.OrdinalIgnoreCase))
            throw Problem.Field("password", "Choose a password that is not your name or your mail address.");
    }
}
