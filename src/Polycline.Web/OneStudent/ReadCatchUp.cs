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

/// <summary>What a student who joined late would catch up on: a proposal, by the computation's chapter 11.</summary>
/// <param name="Section">Null: no section lists them now.</param>
/// <param name="Joined">Null: from the beginning, and there is nothing to catch up.</param>
/// <param name="Lines">In the order in which they are to be done.</param>
/// <param name="Closed">Can no longer be handed in: another attempt, or excused.</param>
/// <param name="Stuck">Nothing they do would open it.</param>
/// <param name="Unplaced">No class is left for it.</param>
/// <param name="Over">Discussions that are over: nothing is asked.</param>
/// <param name="Left">Left out by choice.</param>
public sealed record CatchUpAnswer(
    string? Section,
    string? Joined,
    IReadOnlyList<CatchUpRow> Lines,
    IReadOnlyList<CatchUpAside> Closed,
    IReadOnlyList<CatchUpAside> Stuck,
    IReadOnlyList<CatchUpAside> Unplaced,
    IReadOnlyList<CatchUpAside> Over,
    IReadOnlyList<CatchUpAside> Left
);

/// <param name="Asked"><c>due</c> or <c>needed</c>.</param>
/// <param name="Was">When it was due for everybody.</param>
/// <param name="Class">The number of the class it would be due at.</param>
/// <param name="Needs">What it waits for.</param>
public sealed record CatchUpRow(
    Id<Item> Item,
    string Code,
    string Title,
    string Asked,
    Moment? Was,
    int Class,
    Moment Due,
    IReadOnlyList<string> Needs
);

/// <param name="Words">What it is stuck by, or what comes of what waits for it; a piece each.</param>
public sealed record CatchUpAside(Id<Item> Item, string Code, string Title, IReadOnlyList<string> Words);

/// <summary>Reads what a student would catch up on.</summary>
public static class ReadCatchUp
{
    /// <param name="perClass">How many are due at one class, 1 to 20; left out: 1.</param>
    /// <param name="leave">The items that are left out, by id, with commas between them.</param>
    public static async Task<CatchUpAnswer> Handle(
        long edition,
        long student,
        int? perClass,
        string? leave,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("A catch-up");
        if (perClass is < 1 or > 20)
            throw Problem.Field("perClass", "From 1 to 20 can be due at one class.");
        var plan = await compiled.Edition(access);
        var left = (leave ?? "")
            .Split(',', StringSplitOptions.RemoveEmptyEntries)
            .Select(id =>
                Id<Item>.TryParse(id, CultureInfo.InvariantCulture, out var item) && plan.Item(item) is { } known
                    ? known.Ref
                    : throw Problem.Unknown("leave")
            )
            .ToHashSet();
        var (_, record) = await ReadOneStudent.Known(database, plan, access, new(student), viewpoint.At, stop);
        return Of(plan, CatchUp.Of(plan.Schedule, record, viewpoint.At, perClass ?? 1, left));
    }

    private static CatchUpAnswer Of(EditionPlan plan, CatchUp catchUp)
    {
        var zone = plan.Term.Zone;
        var names = new PlanNames(plan.Schedule);
        return new(
            catchUp.Section is { } section ? plan.Following(PlanIds.IdOf(section))?.Name : null,
            StudentsHere.Iso(catchUp.Joined),
            [
                .. catchUp.Lines.Select(line => new CatchUpRow(
                    plan.IdOf(line.Item),
                    plan.Schedule.CodeOf[line.Item],
                    plan.Schedule.Item(line.Item).Title,
                    EnumNames.Of(line.Asked),
                    Moment.Of(line.Was, zone),
                    line.Meeting.Ordinal,
                    Moment.Of(line.Due, zone),
                    [.. line.Needs.Select(item => names.Of(item.Name))]
                )),
            ],
            [.. catchUp.Closed.Select(Waited)],
            [.. catchUp.Stuck.Select(one => Aside(one.Item, [.. one.By.Select(item => names.Of(item.Name))]))],
            [.. catchUp.Unplaced.Select(item => Aside(item, []))],
            [.. catchUp.Over.Select(item => Aside(item, []))],
            [.. catchUp.Left.Select(Waited)]
        );

        CatchUpAside Aside(Ref<Item> item, IReadOnlyList<string> words) =>
            new(plan.IdOf(item), plan.Schedule.CodeOf[item], plan.Schedule.Item(item).Title, words);

        CatchUpAside Waited(WaitedFor one) =>
            Aside(
                one.Item,
                [
                    .. one.Hangs.Select(hanging =>
                        hanging.Then switch
                        {
                            Hanging.Shut => $"{names.Of(hanging.Item.Name)} would then never open: open it for them",
                            Hanging.Replaced => $"{names.Of(hanging.Item.Name)} then waits for what this one waits for",
                            _ => $"{names.Of(hanging.Item.Name)} then does not wait for it",
                        }
                    ),
                ]
            );
    }
}
