using System.Text.Json;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Items;

/// <summary>One item with everything a team can change of it.</summary>
/// <param name="Before">What students see of it before it opens; null: as its unit says.</param>
/// <param name="Html">Its text; empty: none yet.</param>
/// <param name="ForGroups">For those in one of these; null: for everyone.</param>
/// <param name="ForWhom">The same in words; null: for everyone.</param>
/// <param name="Condition">In the plan file's form; null: none.</param>
/// <param name="HiddenUntilMet">A condition of it, of its lesson or of its unit hides it until it is met, whatever <paramref
/// name="Before"/> says.</param>
public sealed record ItemAnswer(
    Id<Item> Id,
    string Lineage,
    string Code,
    string Kind,
    string Purpose,
    string Title,
    bool Published,
    string? Before,
    string Html,
    ItemTiming Opens,
    ItemTiming Due,
    ItemTiming Closes,
    JsonElement? Condition,
    string? ConditionInWords,
    bool HiddenUntilMet,
    IReadOnlyList<string>? ForGroups,
    IReadOnlyList<string> NotForGroups,
    string? ForWhom,
    long Version,
    IReadOnlyList<ItemInSection> Sections
);

/// <param name="Anchor">In the plan file's form; null: none.</param>
public sealed record ItemTiming(JsonElement? Anchor, string? Words);

/// <summary>What its timing comes to in one section.</summary>
public sealed record ItemInSection(
    Id<Section> Section,
    string Name,
    string Letter,
    Moment? Opens,
    Moment? Due,
    Moment? Closes,
    bool Differs
);

/// <summary>Reads one item for its team.</summary>
public static class ReadItem
{
    public static async Task<ItemAnswer> Handle(
        long edition,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("What is set here");
        var plan = await compiled.Edition(access);
        var found = plan.Item(new Id<Item>(item)) ?? throw Problem.Unknown();
        var html = await database.Read(connection => BodyStore.Read(connection, found.Body), stop);
        return Of(plan, found, html ?? "");
    }

    private static ItemAnswer Of(EditionPlan plan, Item item, string html)
    {
        var row = plan.Row(item.Ref);
        var anchors = new AnchorWords(plan.TitleOf, plan.Edition.Levels);
        return new(
            row.As<Item>(),
            item.Ref.Name,
            plan.Schedule.CodeOf[item.Ref],
            EnumNames.Of(item.Kind),
            EnumNames.Of(item.Purpose),
            item.Title,
            item.Published,
            BeforeWords.Of(item.Before),
            html,
            Timing(item.Opens),
            Timing(item.Due),
            Timing(item.Closes),
            item.Gate is null ? null : JsonSerializer.Deserialize<JsonElement>(PlanParts.Json(item.Gate)),
            item.Gate is null
                ? null
                : new GateWords(named => plan.Schedule.CodeOf[named], plan.TitleOf, plan.Edition.Levels).Sentence(item.Gate),
            GatesOf(plan, row, item).Any(gate => gate?.IsHidden == true),
            item.For?.Groups,
            item.For?.Except ?? [],
            WhomWords.Of(item.For),
            row.Version,
            [.. plan.Sections.Select(section => InSection(plan, section, item))]
        );

        ItemTiming Timing(Anchor? anchor) =>
            anchor is null
                ? new(null, null)
                : new(JsonSerializer.Deserialize<JsonElement>(PlanParts.Json(anchor)), anchors.Of(anchor, row.Lesson is null));
    }

    private static IEnumerable<Gate?> GatesOf(EditionPlan plan, TreeRow row, Item item) =>
        [
            item.Gate,
            row.Lesson is { } lesson && plan.Row(lesson) is { } above ? plan.LessonOf(above).Gate : null,
            plan.Row(row.Unit) is { } unit ? plan.UnitOf(unit).Gate : null,
        ];

    private static ItemInSection InSection(EditionPlan plan, FollowingSection section, Item item)
    {
        var dates = plan.Schedule.Section(section.Section.Ref).Item(item.Ref)?.Dates;
        return new(
            section.Id,
            section.Name,
            section.Letter,
            Moment.Of(dates?.Opens.At, plan.Term.Zone),
            Moment.Of(dates?.Due.At, plan.Term.Zone),
            Moment.Of(dates?.Closes.At, plan.Term.Zone),
            plan.Adjustments.Any(row => row.Section == section.Id && row.Target == item.Ref.Name)
        );
    }
}
