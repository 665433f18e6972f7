using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Work;

/// <param name="Sections">Those whose work is the viewer's to read, in order of name.</param>
public sealed record WorkAnswer(bool CanGiveBack, IReadOnlyList<WorkSection> Sections);

public sealed record WorkSection(Id<Section> Section, string Name, string Letter, int Waiting, IReadOnlyList<WorkPiece> Pieces);

/// <param name="Work">Null: it came after the item had closed, and is kept as a draft.</param>
/// <param name="N">Which hand-in of it this is.</param>
/// <param name="PressedAt">When the student's page says it was sent first, where it arrived later.</param>
/// <param name="Late">How late after its due, in words; null: in time.</param>
/// <param name="Back">What was given back; null: it waits.</param>
public sealed record WorkPiece(
    Id<PieceRow>? Work,
    int N,
    Id<Item> Item,
    string Code,
    string Title,
    Id<Person> Student,
    string Name,
    string Text,
    Moment HandedInAt,
    Moment? PressedAt,
    string? Late,
    string? WaitsFor,
    WorkBack? Back
);

public sealed record WorkBack(string Text, bool Again, Moment At);

/// <summary>Reads what was handed in, by section: what waits longest first.</summary>
public static class ReadWork
{
    public static async Task<WorkAnswer> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("The work");
        var plan = await compiled.Edition(access);
        var (mine, pieces) = await database.Read(
            connection => WorkStore.OfEdition(connection, access.Edition!.Value, access.Person.Id, access.IsLead, viewpoint.At),
            stop
        );
        var bySection = pieces.ToLookup(piece => piece.Section);
        return new(
            viewpoint.TakesCommands,
            [
                .. plan
                    .Sections.Where(section => mine.Contains(section.Id))
                    .Select(section => SectionOf(plan, section, bySection[section.Id])),
            ]
        );
    }

    private static WorkSection SectionOf(EditionPlan plan, FollowingSection section, IEnumerable<PieceRow> rows)
    {
        var pieces = rows.Where(row => plan.Row(row.Item) is { } known && plan.Schedule.Knows(new(known.Lineage)))
            .Select(row => PieceOf(plan, section, row))
            .ToList();
        return new(section.Id, section.Name, section.Letter, pieces.Count(piece => piece.Back is null), pieces);
    }

    private static WorkPiece PieceOf(EditionPlan plan, FollowingSection section, PieceRow row)
    {
        var item = plan.Schedule.Item(new(plan.Row(row.Item)!.Lineage));
        var zone = plan.Term.Zone;
        var due = plan.Schedule.Section(section.Section.Ref).Item(item.Ref)?.Dates?.Due.At;
        var late = due is { } falls && row.HandedInAt > falls ? (row.HandedInAt - falls).TotalDays : 0;
        var waiting = plan
            .Edition.InReadingOrder()
            .Where(other => other.Gate?.Root.Leaves().Any(leaf => leaf.ItemOf == item.Ref) == true)
            .Select(other => plan.Schedule.CodeOf[other.Ref])
            .ToList();
        return new(
            row.Work,
            row.N,
            row.Item,
            plan.Schedule.CodeOf[item.Ref],
            item.Title,
            row.Person,
            row.Name,
            row.Text,
            Moment.Of(row.HandedInAt, zone),
            Moment.Of(row.ClaimedAt, zone),
            late <= 0 ? null
                : late < 1 ? "less than a day late"
                : Core.Wording.Counting.Counted((int)late, "day late", "days late"),
            waiting.Count == 0 ? null : Core.Wording.Counting.Joined(waiting, "and"),
            row.ReturnedAt is { } at ? new(row.Feedback!, row.Again == true, Moment.Of(at, zone)) : null
        );
    }
}
