using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.Http;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Web.Outline;

/// <summary>What the commands of the outline have in common.</summary>
public static class OutlineRules
{
    /// <summary>So many parts a condition has at most, its <i>all</i>, <i>any</i> and <i>not</i> among them.</summary>
    public const int MostParts = 200;

    /// <summary>1 to 200 characters of one line.</summary>
    public static void IsTitle<T>(this IRuleBuilder<T, string> rule) =>
        rule.Must(Bounds.IsVisible)
            .WithMessage("A title needs at least one letter.")
            .Must(title => title.Trim().Length <= 200)
            .WithMessage("A title has at most 200 characters.")
            .Must(title => !title.Any(char.IsControl))
            .WithMessage("A title is one line of text.");

    /// <summary>Each level has a name for one and for several; null: nothing is said.</summary>
    public static void AreLevelNames<T>(this IRuleBuilderInitial<T, LevelNames?> rule) =>
        rule.Custom(
            (levels, context) =>
            {
                foreach (var (at, message) in levels?.Faults() ?? [])
                    context.AddFailure($"levels.{at}", message);
            }
        );

    /// <exception cref="ProblemException">The edition has none of that id.</exception>
    public static TreeRow Needed<T>(this EditionPlan plan, Id<T> id, string field) =>
        plan.Row(id) is { } row && plan.IsHere(row) ? row : throw Problem.Unknown(field);

    /// <summary>Whose something new is: the section asked for, or that of what it is to stand in; null: the course's.</summary>
    /// <exception cref="ProblemException">No such section follows the course, or it is to stand in what is another section's.</exception>
    public static Id<Section>? OwnerOf(this EditionPlan plan, Id<Section>? asked, params IEnumerable<TreeRow?> homes)
    {
        if (asked is { } section && plan.Following(section) is null)
            throw Problem.Unknown("section");
        var owner = asked ?? homes.Select(home => home?.Section).FirstOrDefault(home => home is not null);
        foreach (var home in homes)
            MayStandIn(plan, owner, home);
        return owner;
    }

    /// <summary>In which section alone, to be read on; empty: in all.</summary>
    public static string OnlyIn(this EditionPlan plan, Id<Section>? owner) =>
        owner is { } section ? $", in {plan.Following(section)!.Name} only" : "";

    /// <summary>
    /// The sections something is in, for a button: <c>9 Birch</c>, <c>4 sections</c>, or <c>the course</c> if no section follows it.
    /// </summary>
    public static string Where(this EditionPlan plan, Id<Section>? owner) =>
        owner is { } only
            ? plan.Following(only)!.Name
            : plan.Counted.Sections switch
            {
                [] => "the course",
                [var alone] => alone.Name,
                { Length: var count } => $"{count} sections",
            };

    /// <inheritdoc cref="Where(EditionPlan, Id{Section}?)"/>
    public static string Where(this EditionPlan plan, IReadOnlyList<TreeRow> rows) =>
        plan.Where(rows.Select(row => row.Section).Distinct().ToList() is [var only] ? only : null);

    /// <summary>So many of each in the course's own words, such as <c>1 lesson and 3 items</c>; empty where there is none.</summary>
    public static string CountedRows(this EditionPlan plan, int units, int lessons, int items)
    {
        var levels = plan.Edition.Levels;
        var parts = new[] { (levels.Unit, units), (levels.Lesson, lessons), (levels.Item, items) };
        return Joined([.. parts.Where(part => part.Item2 > 0).Select(part => part.Item1.Counted(part.Item2))], "and");
    }

    /// <exception cref="ProblemException">What is of one section only cannot hold what is of the course, or of another.</exception>
    public static void MayStandIn(this EditionPlan plan, Id<Section>? owner, TreeRow? home)
    {
        if (home?.Section is { } only && only != owner)
            throw Problem.Field(
                EnumNames.Of(home.Level),
                $"“{plan.TitleOf(home.Lineage)}” belongs to {plan.Following(only)?.Name} only. Choose a place in the course."
            );
    }

    /// <summary>A name for something new: the same in a preview and when it is done.</summary>
    public static string NewLineage(this EditionPlan plan, string what) =>
        new Guid(SHA256.HashData(Encoding.UTF8.GetBytes($"{plan.Id} {plan.Version} {what}")).AsSpan(0, 16)).ToString();

    /// <summary>A rank directly after one of <paramref name="siblings"/>; null: before them all.</summary>
    /// <exception cref="ProblemException">It is none of them.</exception>
    public static string RankAfter(IReadOnlyList<TreeRow> siblings, long? after, long? moved)
    {
        var others = siblings.Where(row => row.Id != moved).ToList();
        var place = after is null ? -1 : others.FindIndex(row => row.Id == after);
        if (after is not null && place < 0)
            throw Problem.Unknown("after");
        return Rank.Between(place < 0 ? null : others[place].Rank, place + 1 < others.Count ? others[place + 1].Rank : null);
    }

    /// <summary>The units of the edition, or the lessons of a unit, or the items of a lesson or unit, in order.</summary>
    public static IReadOnlyList<TreeRow> Siblings(this EditionPlan plan, Level level, Id<Unit>? unit, Id<Lesson>? lesson) =>
        [
            .. plan.Rows.Where(row =>
                row.Level == level && (level == Level.Unit || (row.Unit == unit && (level == Level.Lesson || row.Lesson == lesson)))
            ),
        ];

    /// <summary>Reads an anchor and holds what it names against the edition.</summary>
    /// <exception cref="ProblemException">It has not the form of one, or names nothing here.</exception>
    /// <param name="of">Whose anchor it is; null: the course's, or something new of it.</param>
    public static Anchor? AnchorOf(this EditionPlan plan, JsonElement? json, string field, TreeRow? of = null)
    {
        if (json is not { ValueKind: not JsonValueKind.Null } given)
            return null;
        var anchor = Read(() => PlanParts.Anchor(given.GetRawText()), field);
        Named(plan, anchor, field, of);
        return anchor;
    }

    /// <summary>Reads a condition and holds what it names against the edition.</summary>
    /// <param name="of">The item it is to be the condition of.</param>
    public static Gate? GateOf(this EditionPlan plan, JsonElement? json, string field, TreeRow of)
    {
        if (json is not { ValueKind: not JsonValueKind.Null } given)
            return null;
        var gate = Read(() => PlanParts.Gate(given.GetRawText()), field);
        if (gate.Root.WithAllBelow().Take(MostParts + 1).Count() > MostParts)
            throw Problem.Field(field, $"A condition has at most {MostParts} parts. Use fewer.");
        foreach (var leaf in gate.Root.Leaves())
        {
            if (leaf.ItemOf is { } item)
                Named(plan, item.Name, Level.Item, field, of);
            if (leaf.ItemOf is { } asked && plan.Schedule.Knows(asked) && !plan.Schedule.Item(asked).CanCome(leaf))
                throw Problem.Field(
                    field,
                    $"“{plan.Schedule.Item(asked).Title}” never has {OutcomeWords.Of(leaf)}, so nobody could meet this. "
                        + "Ask for something else, or choose another item."
                );
            if (leaf is GateNode.HasTaught taught)
                Named(plan, taught.Lesson.Name, Level.Lesson, field, of);
            if (leaf is GateNode.Picked picked && !plan.Schedule.Item(picked.Choice).Options.Contains(picked.Option))
                throw Problem.Field(field, "That is not one of the choice’s options. Choose one that is.");
            if (leaf is GateNode.InGroup group && plan.Groups.All(known => known.Name != group.Group))
                throw Problem.Field(field, $"There is no group “{group.Group}” yet. Add it first.");
            if (leaf is GateNode.From from)
                Named(plan, from.Anchor, field, of);
        }
        return gate;
    }

    private static void Named(EditionPlan plan, Anchor anchor, string field, TreeRow? of)
    {
        if (anchor.Of is { } name)
            Named(plan, name, anchor.IsOfLesson ? Level.Lesson : Level.Unit, field, of);
    }

    // What is of one section only is named by that section's own things alone, an item by those made after it.
    private static void Named(EditionPlan plan, string name, Level level, string field, TreeRow? of)
    {
        if (plan.Find(name) is not { } named || named.Level != level || !plan.IsHere(named))
            throw Problem.Unknown(field);
        if (named.Section is not null && (named.Section != of?.Section || (level == Level.Item && named.Id >= of?.Id)))
            throw Problem.Field(
                field,
                $"“{plan.TitleOf(name)}” belongs to one section, so nothing outside it can depend on it. Choose something of the course."
            );
    }

    private static T Read<T>(Func<T> read, string field)
    {
        try
        {
            return read();
        }
        catch (FileRefusedException refusal)
        {
            throw Problem.Field(field, $"{refusal.Path.Replace("$", field, StringComparison.Ordinal)}: {refusal.Message}.");
        }
    }
}
