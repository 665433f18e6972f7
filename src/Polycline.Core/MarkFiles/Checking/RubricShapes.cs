using Polycline.Core.Json;

namespace Polycline.Core.MarkFiles.Checking;

/// <summary>The form of a rubric. Source: the computation, chapter 13.3.</summary>
internal static class RubricShapes
{
    private static readonly JsonShape CriterionLevel = (piece, faults) =>
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
            [new("id", Forms.Id, true), new("points", Amounts.Amount), new("from", Amounts.Amount), new("to", Amounts.Amount)],
            faults
        );
        if (isRange && Amounts.AmountOf(piece["from"]!) > Amounts.AmountOf(piece["to"]!))
            faults.Add(piece["to"]!, "'to' lies below 'from'");
    };

    public static readonly JsonShape Rubric = Forms.Object(
        new MemberShape("id", Forms.Id, true),
        new("version", Amounts.FromOne, true),
        new(
            "criteria",
            Forms.List(
                Forms.Object(
                    new MemberShape("id", Forms.Id, true),
                    new("weight", Amounts.Amount),
                    new("optional", Forms.Bool),
                    new("levels", Forms.List(CriterionLevel, 1), true)
                ),
                1
            ),
            true
        )
    );
}
