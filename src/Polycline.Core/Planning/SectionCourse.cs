using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Core.Planning;

/// <summary>A unit as a section has it.</summary>
public sealed record CourseUnit
{
    public required Ref<Unit> Ref { get; init; }

    public required string Title { get; init; }

    public required bool Published { get; init; }

    /// <summary>Who says whether it is published.</summary>
    public required Layer PublishedBy { get; init; }

    public required bool Skipped { get; init; }

    public required bool Held { get; init; }

    public required Gate? Gate { get; init; }

    public required BeforeOpening Before { get; init; }

    /// <summary>Of this section only.</summary>
    public required bool IsOwn { get; init; }
}

/// <summary>A lesson as a section has it. It counts as skipped, held or unpublished where its unit is.</summary>
public sealed record CourseLesson
{
    public required Ref<Lesson> Ref { get; init; }

    public required string Title { get; init; }

    public required CourseUnit Unit { get; init; }

    /// <summary>How long this section plans it to be.</summary>
    public required int Length { get; init; }

    /// <summary>The date it is fixed to here.</summary>
    public required LocalDate? Pin { get; init; }

    public required bool Optional { get; init; }

    public required bool Published { get; init; }

    public required Layer PublishedBy { get; init; }

    public required bool Skipped { get; init; }

    public required bool Held { get; init; }

    /// <summary>What of it stands whatever its unit is.</summary>
    public required Standalone Alone { get; init; }

    public required Gate? Gate { get; init; }

    public required bool IsOwn { get; init; }
}

/// <summary>Whether something is published, skipped or held by itself, whatever what it is in is.</summary>
public readonly record struct Standalone(bool Published, bool Skipped, bool Held);

/// <summary>An item as a section has it. It counts as skipped, held or unpublished where its lesson or its unit is.</summary>
public sealed record CourseItem
{
    public required Item Item { get; init; }

    /// <summary>Null: directly on the unit.</summary>
    public required CourseLesson? Lesson { get; init; }

    public required CourseUnit Unit { get; init; }

    public required bool Published { get; init; }

    public required Layer PublishedBy { get; init; }

    public required bool Skipped { get; init; }

    public required bool Held { get; init; }

    /// <summary>What of it stands whatever its lesson and its unit are.</summary>
    public required Standalone Alone { get; init; }

    public required ForWhom? For { get; init; }

    public required Layer ForBy { get; init; }

    public required DateRule Opens { get; init; }

    public required DateRule Due { get; init; }

    public required DateRule Closes { get; init; }

    /// <summary>That it opened here already; null: it has not.</summary>
    public required OpeningRecord? Opened { get; init; }

    /// <summary>What students see of it before it opens.</summary>
    public required BeforeOpening Before { get; init; }

    public required bool IsOwn { get; init; }

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

    /// <summary>A student's standing arrangement of more time (the computation, chapter 11).</summary>
    Always,
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
            return new()
            {
                Item = item,
                Lesson = lesson,
                Unit = unit,
                Published = (own?.Published ?? item.Published) && (lesson?.Published ?? unit.Published),
                PublishedBy = own?.Published is null ? layer : Layer.Section,
                Skipped = own?.Skip == true || (lesson?.Skipped ?? unit.Skipped),
                Held = own?.Hold == true || (lesson?.Held ?? unit.Held),
                Alone = new(own?.Published ?? item.Published, own?.Skip == true, own?.Hold == true),
                For = own is { For.Is: true } ? own.For.Value : item.For,
                ForBy = own is { For.Is: true } ? Layer.Section : layer,
                Opens = new DateRule(item.Opens, layer).Under(own?.Opens ?? default, Layer.Section),
                Due = new DateRule(item.Due, layer).Under(own?.Due ?? default, Layer.Section),
                Closes = new DateRule(item.Closes, layer).Under(own?.Closes ?? default, Layer.Section),
                Opened = opened.GetValueOrDefault(item.Ref),
                Before = item.Before ?? unit.Before,
                IsOwn = isOwn,
            };
        }
    }

    private static CourseUnit UnitOf(RunningOrder.UnitPlace place, Edition edition, Differences differences)
    {
        var own = differences.OfUnit(place.Ref);
        return new()
        {
            Ref = place.Ref,
            Title = place.Title,
            Published = own?.Published ?? place.Unit?.Published ?? true,
            PublishedBy = Giver(own?.Published),
            Skipped = own?.Skip == true,
            Held = own?.Hold == true,
            Gate = place.Unit?.Gate,
            Before = place.Unit?.Before ?? edition.Before,
            IsOwn = place.Unit is null,
        };
    }

    private static CourseLesson LessonOf(RunningOrder.LessonPlace place, CourseUnit unit, Differences differences)
    {
        var own = differences.OfLesson(place.Ref);
        return new()
        {
            Ref = place.Ref,
            Title = place.Title,
            Unit = unit,
            Length = own?.Length ?? place.Length,
            Pin = own?.Pin,
            Optional = place.Lesson?.Optional ?? false,
            Published = (own?.Published ?? place.Lesson?.Published ?? true) && unit.Published,
            PublishedBy = Giver(own?.Published),
            Skipped = own?.Skip == true || unit.Skipped,
            Held = own?.Hold == true || unit.Held,
            Alone = new(own?.Published ?? place.Lesson?.Published ?? true, own?.Skip == true, own?.Hold == true),
            Gate = place.Lesson?.Gate,
            IsOwn = place.Lesson is null,
        };
    }

    private static Layer Giver(bool? own) => own is null ? Layer.Master : Layer.Section;
}
