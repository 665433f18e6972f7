using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Core.Planning;

/// <summary>A unit as a section has it.</summary>
/// <param name="PublishedBy">Who says whether it is published.</param>
/// <param name="IsOwn">Of this section only.</param>
public sealed record CourseUnit(
    Ref<Unit> Ref,
    string Title,
    bool Published,
    Layer PublishedBy,
    bool Skipped,
    bool Held,
    Gate? Gate,
    BeforeOpening Before,
    bool IsOwn
);

/// <summary>A lesson as a section has it. It counts as skipped, held or unpublished where its unit is.</summary>
/// <param name="Length">As planned here.</param>
/// <param name="Pin">The date it is fixed to here.</param>
public sealed record CourseLesson(
    Ref<Lesson> Ref,
    string Title,
    CourseUnit Unit,
    int Length,
    LocalDate? Pin,
    bool Optional,
    bool Published,
    Layer PublishedBy,
    bool Skipped,
    bool Held,
    Gate? Gate,
    bool IsOwn
);

/// <summary>An item as a section has it. It counts as skipped, held or unpublished where its lesson or its unit is.</summary>
/// <param name="Lesson">Null: directly on the unit.</param>
/// <param name="Opened">That it opened here already; null: it has not.</param>
/// <param name="Before">What students see of it before it opens.</param>
public sealed record CourseItem(
    Item Item,
    CourseLesson? Lesson,
    CourseUnit Unit,
    bool Published,
    Layer PublishedBy,
    bool Skipped,
    bool Held,
    ForWhom? For,
    Layer ForBy,
    DateRule Opens,
    DateRule Due,
    DateRule Closes,
    OpeningRecord? Opened,
    BeforeOpening Before,
    bool IsOwn
)
{
    public Ref<Item> Ref => Item.Ref;
}

/// <summary>Who says when: an anchor, or none, and the layer that gave it.</summary>
public readonly record struct DateRule(Anchor? Anchor, Layer Layer)
{
    /// <summary>This, unless <paramref name="given"/> was given by <paramref name="layer"/>.</summary>
    public DateRule Under(Given<Anchor> given, Layer layer) => given.Is ? new(given.Value, layer) : this;
}

/// <summary>The layers of a value, each before the ones above it. Source: the computation, chapter 4.</summary>
public enum Layer
{
    Master,
    Section,
    Opened,
    Student,
}

/// <summary>An adjustment that cannot be carried out.</summary>
/// <param name="adjustment">Its place among the section's adjustments, from 0.</param>
/// <param name="member">The member at fault.</param>
public sealed class AdjustmentException(int adjustment, string member, string message) : Exception(message)
{
    public int Adjustment { get; } = adjustment;

    public string Member { get; } = member;
}

/// <summary>
/// An edition with a section's adjustments carried out: what the section teaches, in which order. Source: the computation, chapter 3.
/// </summary>
/// <param name="Units">In the section's order.</param>
/// <param name="Lessons">In running order, skipped ones too.</param>
/// <param name="Items">In reading order, then those this section added, in the order added.</param>
public sealed record SectionCourse(ImmutableArray<CourseUnit> Units, ImmutableArray<CourseLesson> Lessons, ImmutableArray<CourseItem> Items)
{
    /// <exception cref="AdjustmentException">An adjustment names a place that is not there.</exception>
    public static SectionCourse Of(Edition edition, Section section)
    {
        var differences = Differences.Of(section.Adjustments);
        var order = RunningOrder.Of(edition, section.Adjustments);
        var units = order.Units.Select(unit => UnitOf(unit, edition, differences)).ToImmutableArray();
        var unitOf = units.ToDictionary(unit => unit.Ref);
        var lessons = order.Lessons.Select(lesson => LessonOf(lesson, unitOf[lesson.Unit], differences)).ToImmutableArray();
        var lessonOf = lessons.ToDictionary(lesson => lesson.Ref);
        var opened = section.Opened.GroupBy(record => record.Item).ToDictionary(records => records.Key, records => records.Last());
        var items = ImmutableArray.CreateBuilder<CourseItem>(
            edition.Units.Sum(unit => unit.Items.Length + unit.Lessons.Sum(lesson => lesson.Items.Length))
        );
        foreach (var unit in edition.Units)
        {
            foreach (var lesson in unit.Lessons)
            {
                var on = lessonOf[lesson.Ref];
                foreach (var item in lesson.Items)
                    items.Add(ItemOf(item, on, on.Unit, false));
            }
            foreach (var item in unit.Items)
                items.Add(ItemOf(item, null, unitOf[unit.Ref], false));
        }
        foreach (var added in section.Adjustments.OfType<Adjustment.AddItem>())
        {
            var lesson = added.Lesson is { } on ? lessonOf[on] : null;
            items.Add(ItemOf(added.Item, lesson, lesson?.Unit ?? unitOf[added.Unit!.Value], true));
        }
        return new(units, lessons, items.ToImmutable());

        CourseItem ItemOf(Item item, CourseLesson? lesson, CourseUnit unit, bool isOwn)
        {
            var own = differences.OfItem(item.Ref);
            if (own?.Lesson is { } elsewhere)
                (lesson, unit) = (lessonOf[elsewhere], lessonOf[elsewhere].Unit);
            var layer = isOwn ? Layer.Section : Layer.Master;
            return new(
                item,
                lesson,
                unit,
                (own?.Published ?? item.Published) && (lesson?.Published ?? unit.Published),
                own?.Published is null ? layer : Layer.Section,
                own?.Skip == true || (lesson?.Skipped ?? unit.Skipped),
                own?.Hold == true || (lesson?.Held ?? unit.Held),
                own is { For.Is: true } ? own.For.Value : item.For,
                own is { For.Is: true } ? Layer.Section : layer,
                new DateRule(item.Opens, layer).Under(own?.Opens ?? default, Layer.Section),
                new DateRule(item.Due, layer).Under(own?.Due ?? default, Layer.Section),
                new DateRule(item.Closes, layer).Under(own?.Closes ?? default, Layer.Section),
                opened.GetValueOrDefault(item.Ref),
                item.Before ?? unit.Before,
                isOwn
            );
        }
    }

    private static CourseUnit UnitOf(RunningOrder.UnitPlace place, Edition edition, Differences differences)
    {
        var own = differences.OfUnit(place.Ref);
        return new(
            place.Ref,
            place.Title,
            own?.Published ?? place.Unit?.Published ?? true,
            Giver(own?.Published),
            own?.Skip == true,
            own?.Hold == true,
            place.Unit?.Gate,
            place.Unit?.Before ?? edition.Before,
            place.Unit is null
        );
    }

    private static CourseLesson LessonOf(RunningOrder.LessonPlace place, CourseUnit unit, Differences differences)
    {
        var own = differences.OfLesson(place.Ref);
        return new(
            place.Ref,
            place.Title,
            unit,
            own?.Length ?? place.Length,
            own?.Pin,
            place.Lesson?.Optional ?? false,
            (own?.Published ?? place.Lesson?.Published ?? true) && unit.Published,
            Giver(own?.Published),
            own?.Skip == true || unit.Skipped,
            own?.Hold == true || unit.Held,
            place.Lesson?.Gate,
            place.Lesson is null
        );
    }

    private static Layer Giver(bool? own) => own is null ? Layer.Master : Layer.Section;
}
