using Polycline.Core.Json;

namespace Polycline.Core.PlanFiles.Checking;

/// <summary>The forms of what a plan file asks. Source: the plan file, <i>Further questions</i>.</summary>
internal static class QuestionShapes
{
    private static readonly MemberShape[] OfItem =
    [
        new("student", Forms.Id, true),
        new("item", Forms.Id, true),
        new("at", Forms.Instant, true),
    ];

    private static readonly JsonShape CatchUp = Forms.Object(
        new MemberShape("student", Forms.Id, true),
        new("at", Forms.Instant, true),
        new("perClass", Forms.Whole(1)),
        new("leave", Forms.List(Forms.Id))
    );

    private static readonly JsonShape Move = Forms.Object(
        new MemberShape("student", Forms.Id, true),
        new("from", Forms.Id, true),
        new("to", Forms.Id, true),
        new("on", Forms.Date, true),
        new("at", Forms.Instant),
        new("choices", Forms.Map(Forms.OneOf("new", "excuse", "keep"), true))
    );

    private static readonly JsonShape OtherTerm = Forms.Both(
        Forms.Object(new MemberShape("zone", Forms.Text, true), new("first", Forms.Date, true), new("last", Forms.Date, true)),
        Forms.InOrder("first", "last", true)
    );

    private static readonly JsonShape Work = Forms.Object(
        new MemberShape("handedIn", Forms.Whole(0)),
        new("scores", Forms.Whole(0)),
        new("posts", Forms.Whole(0)),
        new("feedback", Forms.Whole(0))
    );

    private static readonly JsonShape OwnLesson = Forms.Object(
        new MemberShape("id", Forms.Id, true),
        new("title", Forms.Text, true),
        new("lineage", Forms.Id)
    );

    private static readonly JsonShape OwnItem = Forms.Object(
        new MemberShape("id", Forms.Id, true),
        new("kind", PlanShapes.Kind, true),
        new("title", Forms.Text, true),
        new("lesson", Forms.OrNull(Forms.Id)),
        new("code", Forms.OrNull(Forms.Name)),
        new("lineage", Forms.Id),
        new("work", Work)
    );

    private static readonly JsonShape OwnUnit = Forms.Object(
        new MemberShape("id", Forms.Id, true),
        new("title", Forms.Text, true),
        new("lineage", Forms.Id),
        new("lessons", Forms.List(OwnLesson)),
        new("items", Forms.List(OwnItem))
    );

    private static readonly JsonShape Join = Forms.Object(
        new MemberShape("section", Forms.Id, true),
        new("from", Forms.Date, true),
        new("term", OtherTerm),
        new("holds", Forms.List(OwnUnit))
    );

    private static readonly JsonShape Waiting = Forms.Object(new MemberShape("at", Forms.Instant, true), new("section", Forms.Id));

    private static readonly MemberShape[] Further =
    [
        new("catchUp", CatchUp),
        new("move", Move),
        new("join", Join),
        new("why", Forms.Object(OfItem)),
        new("waiting", Waiting),
    ];

    /// <summary>How an item stands, or exactly one of the further questions.</summary>
    public static readonly JsonShape Question = (piece, faults) =>
    {
        if (!Forms.IsObject(piece, faults))
            return;
        var further = Further.Where(shape => piece[shape.Name] is not null).ToList();
        if (further.Count > 1)
            faults.Add(piece, "ask one thing at a time");
        else
            Forms.Check(piece, further.Count == 1 ? further : OfItem, faults);
    };
}
