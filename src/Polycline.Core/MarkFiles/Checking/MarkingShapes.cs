using Polycline.Core.Json;

namespace Polycline.Core.MarkFiles.Checking;

/// <summary>The form of a marking file, from top to bottom. Source: the computation, chapter 13.8.</summary>
internal static class MarkingShapes
{
    private static readonly JsonShape Any = (_, _) => { };
    private static readonly JsonShape RubricVersion = Forms.Object(
        new MemberShape("id", Forms.Id, true),
        new("version", Amounts.FromOne, true)
    );

    private static readonly JsonShape Extra = Forms.Object(new MemberShape("percent", Amounts.Amount), new("minutes", Amounts.Count));

    private static readonly JsonShape ScaleLevels = (piece, faults) =>
    {
        Forms.List(Forms.Object(new MemberShape("id", Forms.Id, true), new("percent", Amounts.Percent)), 1)(piece, faults);
        if (piece.Kind == JsonKind.List && piece.Items.Select(level => level["percent"] is null).Distinct().Count() > 1)
            faults.Add(piece, "either all levels have a percent or none has");
    };

    private static readonly JsonShape Quiz = Forms.Object([
        .. OfAnyItem,
        new("outOf", Amounts.Worth),
        new("using", Forms.OneOf("best", "latest", "mean")),
        new("limit", Amounts.FromOne),
        new("grace", Amounts.Count),
        new("questions", Forms.List(KeyShapes.Question, 1), true),
    ]);

    private static readonly JsonShape Task = Amounts.ByWord(
        "score",
        word =>
            word switch
            {
                "points" => [.. OfATask, new("outOf", Amounts.Worth, true)],
                "percent" => [.. OfATask, new("outOf", Amounts.Worth)],
                "scale" => [.. OfATask, new("outOf", Amounts.Worth), new("scale", Forms.Id, true)],
                "none" => OfATask,
                _ => null,
            },
        "points, percent, scale, none"
    );

    private static readonly JsonShape Item = (piece, faults) =>
    {
        if (!Forms.IsObject(piece, faults))
            return;
        if (piece["kind"] is not { } kind)
            faults.AddMissing(piece, "kind", "'kind' is missing");
        else if (kind is { Kind: JsonKind.Text, Value: "quiz" })
            Quiz(piece, faults);
        else if (kind is { Kind: JsonKind.Text, Value: "task" })
            Task(piece, faults);
        else
            faults.Add(kind, "must be one of: quiz, task");
    };

    private static readonly JsonShape Weights = Amounts.ByWord(
        "by",
        word =>
            word switch
            {
                "none" => [new("by", Forms.Text)],
                "purpose" or "unit" => [new("by", Forms.Text), new("of", Forms.Map(Amounts.Amount, true))],
                _ => null,
            },
        "none, purpose, unit"
    );

    private static readonly JsonShape Dates = Forms.Map(
        Forms.Object(new MemberShape("due", Forms.OrNull(Forms.Instant)), new("closes", Forms.OrNull(Forms.Instant))),
        true
    );

    private static readonly JsonShape Mark = (piece, faults) =>
    {
        if (!Forms.IsObject(piece, faults))
            return;
        string[] forms = ["points", "percent", "level", "rubric"];
        if (forms.Count(form => piece[form] is not null) > 1)
        {
            faults.Add(piece, "must give one of: " + string.Join(", ", forms));
            return;
        }
        var criterion = Forms.Object(
            new MemberShape("criterion", Forms.Id, true),
            new("level", Forms.Id, true),
            new("points", Amounts.Amount)
        );
        MemberShape[] fields =
        [
            new("student", Forms.Id, true),
            new("item", Forms.Id, true),
            new("at", Forms.Instant, true),
            new("attempt", Amounts.FromOne),
            new("question", Forms.Id),
            new("again", Forms.Bool),
            new("points", Amounts.Amount),
            new("percent", Amounts.Amount),
            new("level", Forms.Id),
            new(
                "rubric",
                Forms.Object(
                    new MemberShape("id", Forms.Id, true),
                    new("version", Amounts.FromOne, true),
                    new("levels", Forms.List(criterion))
                )
            ),
        ];
        Forms.Check(piece, fields, faults);
    };

    private static readonly JsonShape Attempt = Forms.Object(
        new MemberShape("student", Forms.Id, true),
        new("item", Forms.Id, true),
        new("n", Amounts.FromOne, true),
        new("began", Forms.Instant, true),
        new("ended", Forms.OrNull(Forms.Instant)),
        new("asked", Forms.List(Forms.Id)),
        new("lateAllowed", Forms.Instant),
        new(
            "answers",
            Forms.List(Forms.Object(new MemberShape("question", Forms.Id, true), new("at", Forms.Instant, true), new("answer", Any, true)))
        )
    );

    private static readonly JsonShape Exception = Forms.Object(
        new MemberShape("student", Forms.Id, true),
        new("item", Forms.Id, true),
        new("excused", Forms.Bool),
        new("include", Forms.Bool),
        new("exclude", Forms.Bool),
        new("due", Forms.OrNull(Forms.Instant)),
        new("closes", Forms.OrNull(Forms.Instant)),
        new("extra", Extra)
    );

    /// <summary>The whole file.</summary>
    public static readonly JsonShape File = Forms.Object(
        new MemberShape("format", Forms.OneOf("polycline-marking"), true),
        new("version", Forms.Whole(1, 1), true),
        new("now", Forms.Instant, true),
        new(
            "course",
            Forms.Object(
                new MemberShape("weights", Weights),
                new("missing", Forms.OneOf("open", "zero")),
                new("decimalMark", Forms.OneOf(".", ","))
            )
        ),
        new("scales", Forms.List(Forms.Object(new MemberShape("id", Forms.Id, true), new("levels", ScaleLevels, true)))),
        new("rubrics", Forms.List(RubricShapes.Rubric)),
        new(
            "units",
            Forms.List(
                Forms.Object(new MemberShape("id", Forms.Id, true), new("drop", Amounts.Count), new("items", Forms.List(Item), true))
            ),
            true
        ),
        new(
            "students",
            Forms.List(Forms.Object(new MemberShape("id", Forms.Id, true), new("name", Forms.Name, true), new("extra", Extra)))
        ),
        new(
            "sections",
            Forms.List(
                Forms.Object(
                    new MemberShape("id", Forms.Id, true),
                    new("skips", Forms.List(Forms.Id)),
                    new("dates", Dates),
                    new("students", Forms.List(Forms.Object(new MemberShape("id", Forms.Id, true), new("from", Forms.Instant))))
                )
            )
        ),
        new("exceptions", Forms.List(Exception)),
        new("attempts", Forms.List(Attempt)),
        new(
            "work",
            Forms.List(
                Forms.Object(new MemberShape("student", Forms.Id, true), new("item", Forms.Id, true), new("at", Forms.Instant, true))
            )
        ),
        new("marks", Forms.List(Mark)),
        new(
            "corrections",
            Forms.List(
                Forms.Object(
                    new MemberShape("item", Forms.Id, true),
                    new("at", Forms.Instant, true),
                    new("questions", Forms.List(KeyShapes.Question, 1), true)
                )
            )
        ),
        new(
            "frees",
            Forms.List(
                Forms.Object(new MemberShape("student", Forms.Id, true), new("item", Forms.Id, true), new("count", Amounts.Count, true))
            )
        ),
        new(
            "ask",
            Forms.List(
                Forms.Object(
                    new MemberShape("item", Forms.Id, true),
                    new("section", Forms.Id),
                    new("from", Amounts.Percent, true),
                    new("to", Amounts.Percent, true)
                )
            )
        )
    );

    private static MemberShape[] OfAnyItem =>
        [
            new("id", Forms.Id, true),
            new("kind", Forms.Text),
            new("purpose", Forms.OneOf("marks", "practice", "read")),
            new("counts", Forms.Bool),
            new("for", Forms.List(Forms.Id)),
        ];

    private static MemberShape[] OfATask => [.. OfAnyItem, new("score", Forms.Text), new("rubric", RubricVersion)];
}
