using System.Collections.Immutable;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Core.Planning;

/// <summary>A course on the calendars of all sections that follow it, with the codes that everyone shares.</summary>
public sealed class PlanSchedule
{
    private readonly ImmutableArray<Lazy<SectionSchedule>> sections;
    private readonly Dictionary<Ref<Section>, Lazy<SectionSchedule>> bySection;
    private readonly Dictionary<Ref<Item>, Item> items;
    private readonly ImmutableArray<Item> removed;

    private PlanSchedule(TermDays term, Edition edition, ImmutableArray<Section> sections, ImmutableArray<Item> removed)
    {
        Term = term;
        Edition = edition;
        this.removed = removed;
        this.sections = [.. sections.Select(section => new Lazy<SectionSchedule>(() => SectionSchedule.Of(term, edition, section)))];
        bySection = sections.Zip(this.sections).ToDictionary(pair => pair.First.Ref, pair => pair.Second);
        var added = sections.ToDictionary(
            section => section.Ref,
            section => section.Adjustments.OfType<Adjustment.AddItem>().Select(add => add.Item).ToList()
        );
        items = edition.InReadingOrder().Concat(added.Values.SelectMany(own => own)).Concat(removed).ToDictionary(item => item.Ref);
        var given = items.Values.Select(item => item.Code).OfType<string>().ToList();
        var codes = Codes.Of(edition, given).ToBuilder();
        foreach (var own in added.Values)
            codes.AddRange(Codes.OfAdded(own, given));
        codes.AddRange(removed.Select(item => KeyValuePair.Create(item.Ref, item.Code ?? "")));
        CodeOf = codes.ToImmutable();
    }

    public TermDays Term { get; }

    public Edition Edition { get; }

    /// <summary>In the order given. A section is computed when it is first asked for.</summary>
    public IEnumerable<SectionSchedule> Sections => sections.Select(section => section.Value);

    public ImmutableDictionary<Ref<Item>, string> CodeOf { get; }

    /// <param name="removed">What is no longer in the course and somebody has begun: no section has it, and what they began stays readable
    /// to them.</param>
    public static PlanSchedule Of(
        TermDays term,
        Edition edition,
        ImmutableArray<Section> sections,
        ImmutableArray<Item> removed = default
    ) => new(term, edition, sections, removed.IsDefault ? [] : removed);

    /// <summary>The same term with another course, or with sections that do other things.</summary>
    /// <param name="change">What becomes of each section.</param>
    public PlanSchedule With(Edition edition, Func<Section, Section> change) =>
        new(Term, edition, [.. Sections.Select(section => change(section.Section))], removed);

    /// <summary>Whether a section follows the course.</summary>
    public bool Follows(Ref<Section> section) => bySection.ContainsKey(section);

    /// <exception cref="MeetingChangeException">Its change of meetings cannot be carried out.</exception>
    /// <exception cref="AdjustmentException">Its adjustment names a place that is not there.</exception>
    public SectionSchedule Section(Ref<Section> section) => bySection[section].Value;

    /// <summary>The items of the edition in reading order, then those that sections added, section by section.</summary>
    public IEnumerable<Ref<Item>> InReadingOrder() =>
        Edition
            .InReadingOrder()
            .Select(item => item.Ref)
            .Concat(Sections.SelectMany(section => section.Section.Adjustments.OfType<Adjustment.AddItem>().Select(add => add.Item.Ref)));

    /// <summary>An item of the edition, one that a section added, or one that was removed and begun.</summary>
    public Item Item(Ref<Item> item) => items[item];

    /// <summary>Whether there is such an item.</summary>
    public bool Knows(Ref<Item> item) => items.ContainsKey(item);
}
