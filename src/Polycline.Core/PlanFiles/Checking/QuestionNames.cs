using Polycline.Core.Enrolling;
using Polycline.Core.Json;
using Polycline.Core.PlanFiles.Reading;
using Polycline.Core.Release;

namespace Polycline.Core.PlanFiles.Checking;

/// <summary>
/// Whether what the further questions name is there, and whether a move can be asked about at all. Source: the plan file, <i>Refusal</i>.
/// </summary>
internal sealed class QuestionNames(Func<string, bool> students, Func<string, bool> sections, Func<string, bool> items, FaultList faults)
{
    public void Check(JsonPiece asked)
    {
        if (asked["catchUp"] is { } catchUp)
        {
            Wanted(catchUp["student"], students, "no section lists such a student");
            foreach (var item in catchUp.Each("leave"))
                Wanted(item, items, "no such item");
            TermNames.Once(catchUp.Each("leave"), "this item is left out already", faults);
        }
        if (asked["move"] is { } move)
        {
            Wanted(move["student"], students, "no section lists such a student");
            Sections(move);
            foreach (var choice in move["choices"]?.Members ?? [])
                if (!items(choice.Name))
                    faults.Add(move["choices"]!, choice, "no such item");
        }
        if (asked["join"] is { } join)
            Join(join);
        if (asked["why"] is { } why)
        {
            Wanted(why["student"], students, "no section lists such a student");
            Wanted(why["item"], items, "no such item");
        }
        Wanted(asked["waiting"]?["section"], sections, "no such section");
    }

    /// <summary>The two sections of a move.</summary>
    public void Sections(JsonPiece move)
    {
        Wanted(move["from"], sections, "no such section");
        Wanted(move["to"], sections, "no such section");
    }

    private void Join(JsonPiece join)
    {
        Wanted(join["section"], sections, "no such section");
        if (join["term"] is { } term)
            Wanted(term["zone"], TermNames.IsZone, TermNames.NoSuchZone);
        var units = join.Each("holds").ToList();
        TermNames.Once(
            units.SelectMany(unit => unit.Each("lessons").Concat(unit.Each("items")).Prepend(unit)).Select(thing => thing["id"]!),
            "this id is already used",
            faults
        );
        foreach (var unit in units)
        {
            var lessons = unit.Each("lessons").Select(lesson => lesson["id"]!.Value!).ToHashSet(StringComparer.Ordinal);
            foreach (var item in unit.Each("items"))
                Wanted(item["lesson"], lessons.Contains, "no such lesson in this unit");
        }
    }

    /// <summary>The fourth pass: a move has to go from a section that lists the student to another that does not yet.</summary>
    public static void CheckMove(Plan plan, JsonPiece asked, FaultList faults)
    {
        if (asked["move"] is not { } piece)
            return;
        var (student, move) = (PlanBuilder.Ref<Courses.Student>(piece["student"]!), PlanBuilder.MoveOf(piece));
        var isBack = move.From != move.To && SectionMove.IsGoingBack(plan, student, move);
        if (!isBack && move.To == move.From)
            faults.Add(piece["to"]!, "the student is to move to another section");
        else if (
            !isBack && !SectionMove.Lists(plan, move.From, student, entry => entry.Holds(move.On) || entry.Holds(move.On.PlusDays(-1)))
        )
            faults.Add(piece["from"]!, "this section lists the student neither on that date nor on the day before");
        else if (!isBack && SectionMove.Lists(plan, move.To, student, entry => entry.To is null || entry.To >= move.On))
            faults.Add(piece["to"]!, "this section lists the student already on that date or later");
        else if (PlanBuilder.Moment(piece, "at") is { } at && plan.Term.Local(at).Date > move.On)
            faults.Add(piece["at"]!, "this moment comes after the date of the move");
    }

    private void Wanted(JsonPiece? id, Func<string, bool> known, string message)
    {
        if (id is { IsNull: false } && !known(id.Value!))
            faults.Add(id, message);
    }
}
