using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline.Lessons;

namespace Polycline.Web.Outline.Items;

/// <summary>The rows of the outline that were chosen, in reading order whatever the order in which they were chosen.</summary>
internal sealed class ChosenRows
{
    private readonly EditionPlan plan;
    private readonly Dictionary<(Level, long), long> versions;

    private ChosenRows(EditionPlan plan, Dictionary<(Level, long), long> versions)
    {
        (this.plan, this.versions) = (plan, versions);
        All =
        [
            .. plan.ItemsByUnit()
                .SelectMany(unit =>
                    plan.Siblings(Level.Lesson, unit.Unit.Unit, null).Where(plan.IsHere).Prepend(unit.Unit).Concat(unit.Items)
                )
                .Where(Has),
        ];
        Outermost =
        [
            .. All.Where(row =>
                !(row.Level != Level.Unit && versions.ContainsKey((Level.Unit, row.Unit.Value)))
                && !(row.Level == Level.Item && row.Lesson is { } lesson && versions.ContainsKey((Level.Lesson, lesson.Value)))
            ),
        ];
    }

    /// <summary>Units, the lessons of each, then its items.</summary>
    public IReadOnlyList<TreeRow> All { get; }

    public IReadOnlyList<TreeRow> Items => [.. All.Where(row => row.Level == Level.Item)];

    /// <summary>Without what is in a unit or lesson that is chosen too.</summary>
    public IReadOnlyList<TreeRow> Outermost { get; }

    /// <exception cref="ProblemException">One of them is not in the edition.</exception>
    public static ChosenRows Of(EditionPlan plan, ChangeItemsRequest request)
    {
        var versions = new Dictionary<(Level, long), long>();
        for (var n = 0; n < request.Items.Count; n++)
            versions[(Level.Item, plan.Needed(request.Items[n].Item, $"items[{n}].item").Id)] = request.Items[n].Version;
        foreach (var (n, lesson) in (request.Lessons ?? []).Index())
            versions[(Level.Lesson, plan.Needed(lesson.Lesson, $"lessons[{n}].lesson").Id)] = lesson.Version;
        foreach (var (n, unit) in (request.Units ?? []).Index())
            versions[(Level.Unit, plan.Needed(unit.Unit, $"units[{n}].unit").Id)] = unit.Version;
        return new(plan, versions);
    }

    /// <summary>The version of a chosen row that was read.</summary>
    public long Version(TreeRow row) => versions[(row.Level, row.Id)];

    /// <summary>Puts them, one after another, where the request says; what is in them goes along.</summary>
    /// <param name="removed">Items that were removed from the lessons: they go with them, so that they can be brought back.</param>
    /// <exception cref="ProblemException">They are not all of the kind that goes there, or the place is one of themselves.</exception>
    public CommandDecision Move(ChangeItemsRequest request, RemovedItems removed)
    {
        var level = request switch
        {
            { UnitsPlace: not null } => Level.Unit,
            { LessonsPlace: not null } => Level.Lesson,
            _ => Level.Item,
        };
        var levels = plan.Edition.Levels;
        if (Outermost.Any(row => row.Level != level))
            throw Problem.Field(
                "items",
                $"{levels.Unit.Many.Capital()}, {levels.Lesson.Many} and {levels.Item.Many} go to different places. Move them separately."
            );
        var changes = request switch
        {
            { UnitsPlace: { } place } => Ranked(plan.Siblings(Level.Unit, null, null), place.After?.Value, "unitsPlace.after", _ => []),
            { LessonsPlace: { } place } => Lessons(place, removed),
            _ => ItemsTo(request.Place!),
        };
        var what = levels.Of(level).Counted(Outermost.Count);
        return new($"moved {what}", changes) { Act = $"Move {what} in {plan.Where(Outermost)}" };
    }

    private List<Change> ItemsTo(ItemsPlace place)
    {
        var unit = plan.Needed(place.Unit, "place.unit");
        var lesson = place.Lesson is { } on ? plan.Needed(on, "place.lesson") : null;
        if (lesson is not null && lesson.Unit != unit.Unit)
            throw Problem.Unknown("place.lesson");
        foreach (var row in Outermost)
        {
            plan.MayStandIn(row.Section, unit);
            plan.MayStandIn(row.Section, lesson);
        }
        return Ranked(plan.Siblings(Level.Item, place.Unit, place.Lesson), place.After?.Value, "place.after", row =>
            [Tables.Items.Unit.Turns(row.Unit, place.Unit), Tables.Items.Lesson.Turns(row.Lesson, place.Lesson)]
        );
    }

    private List<Change> Lessons(LessonsPlace place, RemovedItems removed)
    {
        var unit = plan.Needed(place.Unit, "lessonsPlace.unit");
        foreach (var row in Outermost)
            plan.MayStandIn(row.Section, unit);
        var changes = Ranked(plan.Siblings(Level.Lesson, place.Unit, null), place.After?.Value, "lessonsPlace.after", row =>
            [Tables.Lessons.Unit.Turns(row.Unit, place.Unit)]
        );
        return [.. changes, .. Outermost.SelectMany(row => MoveLesson.ItemsOf(plan, row, removed, place.Unit))];
    }

    // Between the row they are to come after and the next that stays.
    private List<Change> Ranked(IReadOnlyList<TreeRow> siblings, long? after, string field, Func<TreeRow, IReadOnlyList<Turn>> turns)
    {
        var level = Outermost[0].Level;
        if (after is { } follows && versions.ContainsKey((level, follows)))
            throw Problem.Field(field, "They cannot be moved after one of themselves. Choose another place.");
        var others = siblings.Where(row => !Has(row)).ToList();
        var at = after is null ? -1 : others.FindIndex(row => row.Id == after);
        if (after is not null && at < 0)
            throw Problem.Unknown(field);
        var (before, next) = (at < 0 ? null : others[at].Rank, at + 1 < others.Count ? others[at + 1].Rank : null);
        var changes = new List<Change>();
        foreach (var row in Outermost)
            changes.Add(row.Move(before = Rank.Between(before, next), Version(row), turns(row)));
        return changes;
    }

    private bool Has(TreeRow row) => versions.ContainsKey((row.Level, row.Id));
}
