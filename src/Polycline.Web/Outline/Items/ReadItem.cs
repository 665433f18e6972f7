using System.Text.Json;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Web.Choices;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Links;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Outline.Files;
using Polycline.Web.Outline.Texts;

namespace Polycline.Web.Outline.Items;

/// <summary>One item with everything a team can change of it.</summary>
public sealed record ItemAnswer
{
    public required Id<Item> Id { get; init; }

    public required string Lineage { get; init; }

    public required string Code { get; init; }

    public required string Kind { get; init; }

    public required string Purpose { get; init; }

    public required string Title { get; init; }

    public required bool Published { get; init; }

    /// <summary>What students see of it before it opens; null: as its unit says.</summary>
    public required string? Before { get; init; }

    /// <summary>Its text; empty: none yet.</summary>
    public required string Html { get; init; }

    /// <summary>The team is writing it anew, and students do not see that yet; null: nobody is.</summary>
    public required WritingLine? Writing { get; init; }

    /// <summary>In their order.</summary>
    public required IReadOnlyList<ItemFileAnswer> Files { get; init; }

    /// <summary>The sheets that sections write in together, of those that whoever asks teaches.</summary>
    public required IReadOnlyList<SectionSheet> Sheets { get; init; }

    /// <summary>What it asks of a student; null: nothing that could be handed in or ticked off.</summary>
    public required AsksForm? Asks { get; init; }

    /// <summary>How it is marked; null: in words only.</summary>
    public required MarkedForm? Marked { get; init; }

    /// <summary>What a choice offers; null: it is none.</summary>
    public required OfferForm? Offers { get; init; }

    /// <summary>Whether it is marked by a rubric.</summary>
    public required bool HasRubric { get; init; }

    /// <summary>Where it leads; of a link only, null: nobody has said yet.</summary>
    public required string? Address { get; init; }

    /// <summary>What was found when that address was last tried; null: it has not been tried.</summary>
    public required LinkAnswer? Link { get; init; }

    /// <summary>Its text speaks of whoever teaches.</summary>
    public required bool AboutTeacher { get; init; }

    /// <summary>Whoever asks is the teacher of whom it speaks.</summary>
    public required bool AboutMe { get; init; }

    /// <summary>What students should be able to do by it: the codes of the school's outcomes.</summary>
    public required IReadOnlyList<string> Outcomes { get; init; }

    public required ItemTiming Opens { get; init; }

    public required ItemTiming Due { get; init; }

    public required ItemTiming Closes { get; init; }

    /// <summary>In the plan file's form; null: none.</summary>
    public required JsonElement? Condition { get; init; }

    public required string? ConditionInWords { get; init; }

    /// <summary>A condition of it, of its lesson or of its unit hides it until it is met, whatever is shown before it opens.</summary>
    public required bool HiddenUntilMet { get; init; }

    /// <summary>Only for students in one of these groups; null: for everyone.</summary>
    public required IReadOnlyList<string>? ForGroups { get; init; }

    public required IReadOnlyList<string> NotForGroups { get; init; }

    /// <summary>The same in words; null: for everyone.</summary>
    public required string? ForWhom { get; init; }

    public required long Version { get; init; }

    public required IReadOnlyList<ItemInSection> Sections { get; init; }
}

/// <summary>A sheet that a section writes in together.</summary>
/// <param name="Writers">How many people have written in it.</param>
public sealed record SectionSheet(Id<Section> Section, string Name, int Blocks, int Writers, Moment LastAt);

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
        var plan = await compiled.Teaching(access, viewpoint);
        var found = plan.Item(new Id<Item>(item)) ?? throw Problem.Unknown();
        var content = await database.Read(connection => ItemFileStore.WithText(connection, new(item), found.Body), stop);
        return Of(plan, found, content, access);
    }

    private static ItemAnswer Of(EditionPlan plan, Item item, ItemContent content, Access access)
    {
        var row = plan.Row(item.Ref);
        var anchors = new AnchorWords(plan.TitleOf, plan.Edition.Levels);
        return new()
        {
            Id = row.As<Item>(),
            Lineage = item.Ref.Name,
            Code = plan.Schedule.CodeOf[item.Ref],
            Kind = EnumNames.Of(item.Kind),
            Purpose = EnumNames.Of(item.Purpose),
            Title = item.Title,
            Published = item.Published,
            Before = BeforeWords.Of(item.Before),
            Html = Pictures.Shown(content.Html, $"/api/editions/{plan.Id}/items/{row.Id}")!,
            Writing = content.Writing is { } draft ? new(draft.By, Moment.Of(draft.At, plan.Term.Zone)) : null,
            Files = ItemFileAnswer.All(plan, content.Files, content.Copies),
            Sheets =
            [
                .. content
                    .Sheets.Where(sheet => access.IsLead || access.Teaches.Contains(sheet.Section))
                    .SelectMany(sheet => plan.Following(sheet.Section) is { } section ? new[] { (section, sheet) } : [])
                    .Select(one => new SectionSheet(
                        one.section.Id,
                        one.section.Name,
                        one.sheet.Blocks,
                        one.sheet.Writers,
                        Moment.Of(one.sheet.LastAt, plan.Term.Zone)
                    )),
            ],
            Asks = AsksForm.OfTeam(item.Asked),
            Marked = MarkedForm.Of(item.Marked),
            Offers = OfferForm.Of(item, $"/api/editions/{plan.Id}/items/{row.Id}"),
            HasRubric = item.Rubric is not null,
            Address = item.Address,
            Link = LinkAnswer.Of(content.Link, plan.Term.Zone),
            AboutTeacher = item.AboutTeacher,
            AboutMe = row.AboutWhom == access.Person.Id,
            Outcomes = item.Outcomes,
            Opens = Timing(item.Opens),
            Due = Timing(item.Due),
            Closes = Timing(item.Closes),
            Condition = item.Gate.Stored(),
            ConditionInWords = item.Gate is null ? null : plan.GateWords().Sentence(item.Gate),
            HiddenUntilMet = GatesOf(plan, row, item).Any(gate => gate?.IsHidden == true),
            ForGroups = item.For?.Groups,
            NotForGroups = item.For?.Except ?? [],
            ForWhom = WhomWords.Of(item.For),
            Version = row.Version,
            Sections = [.. plan.Sections.Select(section => InSection(plan, section, item))],
        };

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
