using Polycline.Core.Json;

namespace Polycline.Core.PlanFiles.Checking;

/// <summary>The form of a plan file, from top to bottom. Source: the plan file.</summary>
internal static class PlanShapes
{
    private static readonly JsonShape Weekday = Forms.OneOf("mon", "tue", "wed", "thu", "fri", "sat", "sun");

    public static readonly JsonShape Period = Forms.Object(
        Always(new("name", Forms.Name, true), new("start", Forms.Time, true), new("end", Forms.Time, true)),
        Forms.InOrder("start", "end", false)
    );

    public static readonly JsonShape Term = Forms.Object(
        Always(
            new("name", Forms.Text, true),
            new("zone", Forms.Text, true),
            new("first", Forms.Date, true),
            new("last", Forms.Date, true),
            new("weekdays", Forms.List(Weekday)),
            new(
                "closures",
                Forms.List(
                    Forms.Object(
                        Always(new("from", Forms.Date, true), new("to", Forms.Date, true), new("name", Forms.Text, true)),
                        Forms.InOrder("from", "to", true)
                    )
                )
            ),
            new("extraDays", Forms.List(Forms.Object(new MemberShape("date", Forms.Date, true), new("name", Forms.Text, true)))),
            new("rotation", Rotation),
            new("periods", Forms.List(Period)),
            new(
                "specialDays",
                Forms.List(
                    Forms.Object(
                        new MemberShape("date", Forms.Date, true),
                        new("runs", Forms.Name),
                        new("periods", Forms.List(Period)),
                        new("name", Forms.Text)
                    )
                )
            ),
            new("offDays", Forms.OneOf("stay", "back", "forward"))
        ),
        Forms.InOrder("first", "last", true)
    );

    private static readonly JsonShape Lesson = Forms.Object(
        new MemberShape("id", Forms.Id, true),
        new("title", Forms.Text, true),
        new("lineage", Forms.Id),
        new("length", Forms.Whole(0), true),
        new("optional", Forms.Bool),
        new("published", Forms.Bool),
        new("gate", Forms.OrNull(GateShapes.Gate))
    );

    private static readonly JsonShape Unit = Forms.Object(
        new MemberShape("id", Forms.Id, true),
        new("title", Forms.Text, true),
        new("lineage", Forms.Id),
        new("published", Forms.Bool),
        new("gate", Forms.OrNull(GateShapes.Gate)),
        new("before", Before),
        new("lessons", Forms.List(Lesson)),
        new("items", Forms.List(ItemOf(added: false)))
    );

    private static readonly JsonShape Edition = Forms.Object(
        new MemberShape("title", Forms.Text, true),
        new("basis", Forms.OneOf("meetings", "minutes"), true),
        new("minStart", Forms.Whole(0)),
        new("codes", Forms.OneOf("by-unit", "straight")),
        new("before", Before),
        new("units", Forms.List(Unit))
    );

    private static readonly JsonShape MoveMark = Forms.Object(
        new MemberShape("from", Forms.Id, true),
        new("to", Forms.Id, true),
        new("on", Forms.Date, true)
    );

    private static readonly JsonShape MoreTime = (piece, faults) =>
    {
        if (!Forms.IsObject(piece, faults))
            return;
        Forms.Check(piece, [new("dueDays", Forms.Whole(0)), new("quizTime", Forms.Whole(0))], faults);
        if (piece["dueDays"] is null && piece["quizTime"] is null)
            faults.Add(piece, "must give 'dueDays' or 'quizTime'");
    };

    private static readonly JsonShape Arrangement = Forms.Object(new MemberShape("student", Forms.Id, true), new("always", MoreTime, true));

    private static readonly JsonShape OfItem = Forms.Object(
        new MemberShape("student", Forms.Id, true),
        new("item", Forms.Id, true),
        new("opens", Date),
        new("due", Date),
        new("closes", Date),
        new("excused", Forms.Bool),
        new("include", Forms.Bool),
        new("exclude", Forms.Bool),
        new("unlocked", Forms.Bool),
        new("move", MoveMark)
    );

    // Of one item, or a standing arrangement.
    private static readonly JsonShape Exception = (piece, faults) =>
    {
        if (!Forms.IsObject(piece, faults))
            return;
        if (piece["item"] is not null && piece["always"] is not null)
            faults.Add(piece, "must be of an item or of everything, not both");
        else
            (piece["always"] is null ? OfItem : Arrangement)(piece, faults);
    };

    /// <summary>The whole file.</summary>
    public static readonly JsonShape Plan = Forms.Object(
        new MemberShape("format", Forms.OneOf("polycline-plan"), true),
        new("version", Forms.Whole(1, 1), true),
        new("term", Term, true),
        new("edition", Edition, true),
        new("sections", Forms.List(SectionShapes.Section)),
        new("groups", Forms.Map(Forms.List(Forms.Id), false)),
        new("home", Forms.Map(Forms.Id, true)),
        new("exceptions", Forms.List(Exception)),
        new("facts", Forms.List(Fact)),
        new("ask", Forms.List(QuestionShapes.Question))
    );

    public static JsonShape Kind => Forms.OneOf("page", "link", "handout", "task", "quiz", "choice", "discussion");

    public static JsonShape Before => Forms.OneOf("listed", "unseen");

    public static JsonShape Date => Forms.OrNull(GateShapes.Anchor);

    /// <summary>For whom an item is; students only where they are of the section.</summary>
    public static JsonShape ForWhom(bool withStudents) =>
        Forms.OrNull(
            Forms.Object(
                withStudents
                    ? [new("students", Forms.List(Forms.Id)), new("groups", Forms.List(Forms.Name)), new("except", Forms.List(Forms.Name))]
                    : [new("groups", Forms.List(Forms.Name)), new("except", Forms.List(Forms.Name))]
            )
        );

    /// <summary>An item of the edition, or one that a section adds: then on a unit where it is on no lesson.</summary>
    public static JsonShape ItemOf(bool added) =>
        Forms.Object(
            piece =>
            {
                List<MemberShape> fields =
                [
                    new("id", Forms.Id, true),
                    new("kind", Kind, true),
                    new("title", Forms.Text, true),
                    new("lesson", Forms.OrNull(Forms.Id)),
                    new("published", Forms.Bool),
                    new("for", ForWhom(added)),
                    new("before", Before),
                    new("code", Forms.OrNull(Forms.Name)),
                    new("opens", Date),
                    new("due", Date),
                    new("closes", Date),
                    new("gate", Forms.OrNull(GateShapes.Gate)),
                    new("purpose", Forms.OneOf("read", "practice", "marks")),
                ];
                if (!added)
                    fields.Add(new("lineage", Forms.Id));
                var kind = piece["kind"]?.Value;
                if (kind is null or not ("page" or "link" or "handout" or "task" or "quiz" or "discussion"))
                    fields.AddRange([new("options", Forms.List(Forms.Id, 1), Required: kind == "choice"), new("picks", Forms.Whole(1))]);
                if (added && piece["lesson"] is null or { IsNull: true })
                    fields.Add(new("unit", Forms.Id, true));
                return fields;
            },
            (piece, faults) => GateShapes.NotMoreThan(piece, "picks", "options", faults)
        );

    public static Func<JsonPiece, IReadOnlyList<MemberShape>> Always(params MemberShape[] fields) => _ => fields;

    private static void Rotation(JsonPiece piece, FaultList faults)
    {
        if (!Forms.IsObject(piece, faults))
            return;
        if (piece["kind"] is not { } kind)
        {
            faults.AddMissing(piece, "kind", "'kind' is missing");
            return;
        }
        MemberShape[]? fields = kind.Value switch
        {
            "weekly" => [],
            "weeks" => [new("labels", Forms.List(Forms.Name, 1), true), new("count", Forms.OneOf("calendar", "teaching"), true)],
            "days" => [new("labels", Forms.List(Forms.Name, 1), true), new("closures", Forms.OneOf("pause", "count"), true)],
            _ => null,
        };
        if (kind.Kind != JsonKind.Text || fields is null)
            faults.Add(kind, "must be one of: weekly, weeks, days");
        else
            Forms.Check(piece, [new("kind", Forms.Text), .. fields], faults);
    }

    private static void Fact(JsonPiece piece, FaultList faults)
    {
        if (!Forms.IsObject(piece, faults))
            return;
        var happened = piece["event"]?.Value;
        string[] events = ["opened", "begun", "ticked", "unticked", "submitted", "taken-back", "returned", "scored", "picked"];
        List<MemberShape> fields =
        [
            new("student", Forms.Id, true),
            new("item", Forms.Id, true),
            new("event", Forms.OneOf(events), true),
            new("at", Forms.Instant, true),
        ];
        if (happened == "scored")
            fields.AddRange([new("score", Forms.Score, true), new("attempt", Forms.Whole(1))]);
        if (happened == "picked")
            fields.Add(new("option", Forms.OrNull(Forms.Id), true));
        if (happened == "returned")
            fields.Add(new("again", Forms.Bool));
        Forms.Check(piece, fields, faults);
    }
}
