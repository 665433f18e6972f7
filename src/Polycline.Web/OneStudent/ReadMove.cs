using System.Globalization;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Enrolling;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.OneStudent;

/// <summary>What a move to another section would come to: a proposal, by the computation's chapter 11.</summary>
/// <param name="IsBack">It undoes the move of the same day.</param>
/// <param name="TakesBack">How many differences that move gave would go with it.</param>
public sealed record MoveAnswer(bool IsBack, int TakesBack, IReadOnlyList<MoveRow> Rows);

public sealed record MoveRow
{
    public required Id<Item> Item { get; init; }

    public required string Code { get; init; }

    public required string Title { get; init; }

    /// <summary>What becomes of it.</summary>
    public required MovedState State { get; init; }

    public required bool Done { get; init; }

    /// <summary>They have begun it, so it stays readable.</summary>
    public required bool Readable { get; init; }

    public required Moment? DueThere { get; init; }

    public required Moment? DueHere { get; init; }

    public required bool KeptOpen { get; init; }

    /// <summary>Null: it asks for no choice.</summary>
    public required MoveChoice? Choice { get; init; }

    public required Moment? Proposed { get; init; }
}

/// <summary>Reads what a move would come to.</summary>
public static class ReadMove
{
    /// <param name="from">The section they leave.</param>
    /// <param name="to">The section they come into.</param>
    /// <param name="on">Their first day there.</param>
    /// <param name="choices">As <c>12:excuse,13:keep</c>: item and choice; what is left out gets a new due date.</param>
    public static async Task<MoveAnswer> Handle(
        long edition,
        long student,
        long from,
        long to,
        string on,
        string? choices,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("A move");
        var plan = await compiled.Edition(access);
        var day = StudentsHere.Day(plan, on, "on");
        var (_, record) = await ReadOneStudent.Known(database, plan, access, new(student), Bounds.Latest, stop);
        var chosen = Choices(plan, choices ?? "");
        var move = MoveStudents.Of(plan, record, new(from), new(to), day, chosen, viewpoint.At, "from");
        return Of(plan, move);
    }

    private static Dictionary<Ref<Item>, MoveChoice> Choices(EditionPlan plan, string choices)
    {
        var chosen = new Dictionary<Ref<Item>, MoveChoice>();
        foreach (var one in choices.Split(',', StringSplitOptions.RemoveEmptyEntries))
            if (
                one.Split(':') is [var id, var word]
                && Id<Item>.TryParse(id, CultureInfo.InvariantCulture, out var item)
                && plan.Item(item) is { } known
                && word is "new" or "excuse" or "keep"
            )
                chosen[known.Ref] = EnumNames.Parse<MoveChoice>(word);
            else
                throw Problem.Malformed("choices", "'choices' are items with new, excuse or keep, such as 12:excuse,13:keep.");
        return chosen;
    }

    private static MoveAnswer Of(EditionPlan plan, SectionMove move)
    {
        var zone = plan.Term.Zone;
        return new(
            move.IsBack,
            move.TakesBack,
            [
                .. move.Rows.Select(row => new MoveRow
                {
                    Item = plan.IdOf(row.Item),
                    Code = plan.Schedule.CodeOf[row.Item],
                    Title = plan.Schedule.Item(row.Item).Title,
                    State = row.State,
                    Done = row.Done,
                    Readable = row.Readable,
                    DueThere = Moment.Of(row.DueThere, zone),
                    DueHere = Moment.Of(row.DueHere, zone),
                    KeptOpen = row.KeptOpen,
                    Choice = row.Choice,
                    Proposed = Moment.Of(row.Proposed, zone),
                }),
            ]
        );
    }
}
