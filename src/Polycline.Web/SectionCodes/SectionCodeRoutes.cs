using System.Security.Cryptography;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.SectionCodes;

/// <summary>Codes by which people join a section themselves: adults, or where there is no roster.</summary>
public static class SectionCodeRoutes
{
    public static void MapSectionCodes(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/sections/{section:long}/codes", ReadSectionCodes.Handle).WithName("section-codes").For(May.SectionTeacher);
        routes.MapWork<MakeSectionCode, MakeSectionCodeRequest, MadeCodeAnswer>();
        routes.MapWork<WithdrawSectionCode, WithdrawSectionCodeRequest, DoneAnswer>();
        routes.MapWork<AnswerJoins, AnswerJoinsRequest, AnsweredJoins>();
        routes.MapPost("/api/join/look", JoinByCode.Look).WithName("look-at-code").For(May.Anyone).ProducesProblems(404, 422, 429);
        routes.MapPost("/api/join", JoinByCode.Join).WithName("join").For(May.Anyone).ProducesProblems(404, 409, 422, 429);
    }
}

/// <summary>How a code is written.</summary>
internal static class CodeLetters
{
    /// <summary>Nothing that is taken for something else when it is read out or copied from a board.</summary>
    private const string Letters = "ABCDEFGHJKMNPQRSTVWXYZ23456789";

    private const int Length = 8;

    public static string New() => RandomNumberGenerator.GetString(Letters, Length);

    /// <summary>As it is shown: <c>KTRW-9MPA</c>.</summary>
    public static string Shown(string code) => $"{code[..4]}-{code[4..]}";

    /// <summary>As it is kept, whatever was typed between its letters; null: it is no code.</summary>
    public static string? Read(string typed)
    {
        var letters = new string([.. typed.ToUpperInvariant().Where(letter => !char.IsWhiteSpace(letter) && letter != '-')]);
        return letters.Length == Length && letters.All(letter => Letters.Contains(letter, StringComparison.Ordinal)) ? letters : null;
    }
}
