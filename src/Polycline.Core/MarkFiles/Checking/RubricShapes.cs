using Polycline.Core.Json;

namespace Polycline.Core.MarkFiles.Checking;

/// <summary>The form of a rubric. Source: the computation, chapter 13.3.</summary>
internal static class RubricShapes
{
    public static readonly JsonShape Rubric = Forms.Object(
        new MemberShape("id", Forms.Id, true),
        new("version", Amounts.FromOne, true),
        new("criteria", Criteria([], []), true)
    );

    /// <param name="beside">What a criterion has besides.</param>
    /// <param name="ofLevel">What a level has besides.</param>
    public static JsonShape Criteria(MemberShape[] beside, MemberShape[] ofLevel) =>
        Forms.List(
            Forms.Object([
                new MemberShape("id", Forms.Id, true),
                .. beside,
                new("weight", Amounts.Amount),
                new("optional", Forms.Bool),
                new("levels", Forms.List(Level(ofLevel), 1), true),
            ]),
            1
        );

    private static JsonShape Level(MemberShape[] beside) =>
        (piece, faults) =>
        {
            if (!Forms.IsObject(piece, faults))
                return;
            var isRange = piece["from"] is not null && piece["to"] is not null;
            if (piece["points"] is not null ? piece["from"] is not null || piece["to"] is not null : !isRange)
            {
                faults.Add(piece, "must give 'points', or 'from' and 'to'");
                return;
            }
            Forms.Check(
                piece,
                [
                    new("id", Forms.Id, true),
                    .. beside,
                    new("points", Amounts.Amount),
                    new("from", Amounts.Amount),
                    new("to", Amounts.Amount),
                ],
                faults
            );
            if (isRange && Amounts.AmountOf(piece["from"]!) > Amounts.AmountOf(piece["to"]!))
                faults.Add(piece["to"]!, "'to' lies below 'from'");
        };
}
