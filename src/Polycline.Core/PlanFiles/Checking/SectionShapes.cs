using Polycline.Core.Json;

namespace Polycline.Core.PlanFiles.Checking;

/// <summary>The form of a section in a plan file. Source: the plan file; the computation, chapters 2 to 4.</summary>
internal static class SectionShapes
{
    private static readonly MemberShape[] When =
    [
        new("date", Forms.Date, true),
        new("start", Forms.Time, true),
        new("end", Forms.Time, true),
    ];

    private static readonly MemberShape[] Which = [new("date", Forms.Date, true), new("start", Forms.Time)];

    private static readonly JsonShape EndAfterStart = Forms.InOrder("start", "end", false);

    public static readonly JsonShape Section = Forms.Object(
        new MemberShape("id", Forms.Id, true),
        new("title", Forms.Text, true),
        new("slots", Forms.List(Slot)),
        new("changes", Forms.List(Change)),
        new("adjustments", Forms.List(Adjustment)),
        new(
            "taught",
            Forms.List(
                Forms.Object(
                    new MemberShape("lesson", Forms.Id, true),
                    new("took", Forms.Whole(0), true),
                    new("done", Forms.Bool, true),
                    new("left", Forms.Whole(0)),
                    new("at", Forms.Instant)
                )
            )
        ),
        new(
            "opened",
            Forms.List(Forms.Object(new MemberShape("item", Forms.Id, true), new("at", Forms.Instant, true), new("due", Forms.Instant)))
        ),
        new("students", Forms.List(Student))
    );

    public static void Slot(JsonPiece piece, FaultList faults)
    {
        if (!Forms.IsObject(piece, faults))
            return;
        var inPeriods = piece["periods"] is not null;
        if (inPeriods == (piece["start"] is not null || piece["end"] is not null))
        {
            faults.Add(piece, "a slot has either 'periods' or 'start' and 'end'");
            return;
        }
        MemberShape[] times = inPeriods
            ? [new("periods", Forms.List(Forms.Name, 1), true)]
            : [new("start", Forms.Time, true), new("end", Forms.Time, true)];
        Forms.Check(
            piece,
            [new("day", Forms.Name, true), new("from", Forms.Date), new("until", Forms.Date), new("counts", Forms.Whole(1)), .. times],
            faults
        );
        Forms.InOrder("from", "until", true)(piece, faults);
        EndAfterStart(piece, faults);
    }

    public static void Change(JsonPiece piece, FaultList faults)
    {
        var to = Forms.Object(_ => When, EndAfterStart);
        OneForm(
            piece,
            faults,
            "a change is exactly one of: cancel, move, add",
            form =>
                form switch
                {
                    "cancel" => Forms.Object(Which),
                    "move" => Forms.Object([.. Which, new("to", to, true)]),
                    _ => Forms.Object(_ => [.. When, new("counts", Forms.Whole(1))], EndAfterStart),
                },
            "cancel",
            "move",
            "add"
        );
    }

    public static void Adjustment(JsonPiece piece, FaultList faults)
    {
        if (!Forms.IsObject(piece, faults))
            return;
        // In one of an item, 'lesson' is a field.
        var forms = new[] { "addUnit", "insert", "add", "unit", "lesson", "item" }
            .Where(form => piece[form] is not null && !(form == "lesson" && piece["item"] is not null))
            .ToArray();
        MemberShape[]? fields = forms switch
        {
            ["addUnit"] =>
            [
                new(
                    "addUnit",
                    Forms.Object(
                        new MemberShape("id", Forms.Id, true),
                        new("title", Forms.Text, true),
                        new("after", Forms.OrNull(Forms.Id), true)
                    ),
                    true
                ),
            ],
            ["insert"] => [new("insert", Insert, true)],
            ["add"] => [new("add", PlanShapes.ItemOf(added: true), true)],
            ["unit"] => [new("unit", Forms.Id, true), new("order", Forms.Whole(1)), .. Flags],
            ["lesson"] =>
            [
                new("lesson", Forms.Id, true),
                new("after", Forms.Id),
                new("length", Forms.Whole(0)),
                new("pin", Forms.Date),
                .. Flags,
            ],
            ["item"] =>
            [
                new("item", Forms.Id, true),
                new("opens", PlanShapes.Date),
                new("due", PlanShapes.Date),
                new("closes", PlanShapes.Date),
                new("for", PlanShapes.ForWhom(withStudents: true)),
                new("lesson", Forms.Id),
                .. Flags,
            ],
            _ => null,
        };
        if (fields is null)
            faults.Add(piece, "an adjustment is exactly one of: addUnit, insert, add, or of one unit, lesson or item");
        else
            Forms.Check(piece, fields, faults);
    }

    private static MemberShape[] Flags => [new("skip", Forms.Bool), new("hold", Forms.Bool), new("published", Forms.Bool)];

    private static void Insert(JsonPiece piece, FaultList faults)
    {
        if (!Forms.IsObject(piece, faults))
            return;
        if ((piece["after"] is not null) == (piece["unit"] is not null))
            faults.Add(piece, "a lesson is inserted either 'after' another or first in a 'unit'");
        else
            Forms.Check(
                piece,
                [
                    new("id", Forms.Id, true),
                    new("title", Forms.Text, true),
                    new("length", Forms.Whole(0), true),
                    new(piece["unit"] is null ? "after" : "unit", Forms.Id, true),
                ],
                faults
            );
    }

    private static void Student(JsonPiece piece, FaultList faults)
    {
        if (piece.Kind != JsonKind.Object)
        {
            Forms.Id(piece, faults);
            return;
        }
        Forms.Check(piece, [new("id", Forms.Id, true), new("from", Forms.Date), new("to", Forms.Date)], faults);
        Forms.InOrder("from", "to", true)(piece, faults);
    }

    private static void OneForm(JsonPiece piece, FaultList faults, string wanted, Func<string, JsonShape> formOf, params string[] forms)
    {
        if (!Forms.IsObject(piece, faults))
            return;
        if (forms.Where(form => piece[form] is not null).ToArray() is [var only])
            Forms.Check(piece, [new(only, formOf(only), true)], faults);
        else
            faults.Add(piece, wanted);
    }
}
