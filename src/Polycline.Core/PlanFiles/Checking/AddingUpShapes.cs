using System.Collections.Immutable;
using System.Text.Json;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.Wording;

namespace Polycline.Core.PlanFiles.Checking;

/// <summary>How a course adds scores up, as it is stored and put into packages.</summary>
internal static class AddingUpShapes
{
    public static readonly JsonShape AddingUp = Forms.Object(
        new MemberShape("by", Forms.OneOf([.. Enum.GetValues<WeighedBy>().Select(EnumNames.Of)])),
        new MemberShape("weights", Forms.Map(Amounts.Worth, false)),
        new MemberShape("missing", Forms.OneOf("zero", "open")),
        new MemberShape("drop", Forms.Map(Dropped, false))
    );

    /// <param name="piece">It has the form.</param>
    public static AddingUp Of(JsonPiece piece) =>
        new()
        {
            By = piece["by"] is { } by ? EnumNames.Parse<WeighedBy>(by.Value!) : WeighedBy.Nothing,
            WeightOf = Map(piece["weights"], Forms.NumberOf),
            MissingAsZero = piece["missing"]?.Value == "zero",
            Drop = Map(piece["drop"], count => (int)Forms.NumberOf(count)),
        };

    public static void Write(AddingUp adding, Utf8JsonWriter json) => JsonMembers.Object(json, null, () =>
        {
            json.WriteString("by", EnumNames.Of(adding.By));
            if (!adding.WeightOf.IsEmpty)
                JsonMembers.Object(json, "weights", () =>
                {
                    foreach (var (of, weight) in adding.WeightOf)
                        json.WriteNumber(of, weight / 1.0000000000000000000000000000m);
                });
            json.WriteString("missing", adding.MissingAsZero ? "zero" : "open");
            if (!adding.Drop.IsEmpty)
                JsonMembers.Object(json, "drop", () =>
                {
                    foreach (var (of, count) in adding.Drop)
                        json.WriteNumber(of, count);
                });
        });

    private static void Dropped(JsonPiece piece, FaultList faults)
    {
        Forms.Whole(1)(piece, faults);
        if (Amounts.AmountOf(piece) > Courses.AddingUp.MostDropped)
            faults.Add(piece, $"must be at most {Courses.AddingUp.MostDropped}");
    }

    private static ImmutableSortedDictionary<string, T> Map<T>(JsonPiece? piece, Func<JsonPiece, T> of) =>
        (piece?.Members ?? []).ToImmutableSortedDictionary(member => member.Name, member => of(member.Value), StringComparer.Ordinal);
}
