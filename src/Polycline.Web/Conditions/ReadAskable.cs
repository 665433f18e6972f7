using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Conditions;

/// <summary>What a condition can ask in this edition.</summary>
/// <param name="Groups">The names of its groups.</param>
public sealed record AskableAnswer(IReadOnlyList<AskableItem> Items, IReadOnlyList<AskableLesson> Lessons, IReadOnlyList<string> Groups);

/// <summary>An item with what can come of it.</summary>
public sealed record AskableItem
{
    public required string Lineage { get; init; }

    public required string Code { get; init; }

    public required string Title { get; init; }

    public required string Kind { get; init; }

    /// <summary><c>opened</c>, <c>ticked</c>, <c>submitted</c>, <c>returned</c>: those that can happen to it.</summary>
    public required IReadOnlyList<string> Deeds { get; init; }

    public required bool IsScored { get; init; }

    /// <summary>What its points are out of; null: it is not marked in points.</summary>
    public required decimal? OutOf { get; init; }

    /// <summary>Of a short scale, lowest first; empty: it is marked otherwise, or its levels stand for no percentage.</summary>
    public required IReadOnlyList<AskableLevel> Levels { get; init; }

    /// <summary>Of a choice.</summary>
    public required IReadOnlyList<AskableOption> Options { get; init; }

    /// <summary>The letter of the only section it is of; null: of the course.</summary>
    public required string? Only { get; init; }
}

/// <param name="Percent">From which percentage on it is reached.</param>
public sealed record AskableLevel(string Name, decimal Percent);

public sealed record AskableOption(string Option, string Title);

public sealed record AskableLesson(string Lineage, string Title, string Unit);

/// <summary>Reads what conditions can ask: of every item what can happen to it, and no more.</summary>
public static class ReadAskable
{
    public static async Task<AskableAnswer> Handle(long edition, Access access, Viewpoint viewpoint, PlanCache compiled)
    {
        viewpoint.NeedsTeam("What conditions can ask");
        var plan = await compiled.Edition(access);
        return new(
            [.. plan.ItemsByUnit().SelectMany(unit => unit.Items).Select(row => Of(plan, row))],
            [
                .. plan.Edition.Units.SelectMany(unit =>
                    unit.Lessons.Select(lesson => new AskableLesson(lesson.Ref.Name, lesson.Title, unit.Title))
                ),
            ],
            [.. plan.Groups.Select(group => group.Name)]
        );
    }

    private static AskableItem Of(EditionPlan plan, TreeRow row)
    {
        var item = plan.Schedule.Item(new(row.Lineage));
        return new()
        {
            Lineage = row.Lineage,
            Code = plan.Schedule.CodeOf[item.Ref],
            Title = item.Title,
            Kind = EnumNames.Of(item.Kind),
            Deeds = [.. Enum.GetValues<Deed>().Where(deed => CanHappen(item, deed)).Select(EnumNames.Of)],
            IsScored = item.CanCome(new GateNode.Scored(item.Ref, 0, null)),
            OutOf = item.Marked is { Form: MarkForm.Points, OutOf: var outOf } ? outOf : null,
            Levels =
            [
                .. (item.Marked is { Form: MarkForm.Scale, Levels: var levels } ? levels : [])
                    .Where(level => level.Percent is not null)
                    .Select(level => new AskableLevel(level.Name, level.Percent!.Value)),
            ],
            Options = [.. item.Options.Select(option => new AskableOption(option, item.TitleOf(option)))],
            Only = row.Section is { } only ? plan.Following(only)?.Letter : null,
        };
    }

    private static bool CanHappen(Item item, Deed deed) =>
        deed == Deed.Ticked ? item.Asked is { Way: AskedWay.Tick } : item.CanCome(new GateNode.Done(item.Ref, deed));
}
