using System.Collections.Immutable;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Core.Planning;

/// <summary>
/// A section's adjustments by what they name; of a field given twice the later stands. Source: the computation, its beginning.
/// </summary>
public sealed class Differences
{
    private readonly Dictionary<Ref<Unit>, Adjustment.OfUnit> units = [];
    private readonly Dictionary<Ref<Lesson>, Adjustment.OfLesson> lessons = [];
    private readonly Dictionary<Ref<Item>, Adjustment.OfItem> items = [];

    public static Differences Of(ImmutableArray<Adjustment> adjustments)
    {
        var found = new Differences();
        foreach (var adjustment in adjustments)
            found.Lay(adjustment);
        return found;
    }

    public Adjustment.OfUnit? OfUnit(Ref<Unit> unit) => units.GetValueOrDefault(unit);

    public Adjustment.OfLesson? OfLesson(Ref<Lesson> lesson) => lessons.GetValueOrDefault(lesson);

    public Adjustment.OfItem? OfItem(Ref<Item> item) => items.GetValueOrDefault(item);

    private void Lay(Adjustment adjustment)
    {
        switch (adjustment)
        {
            case Adjustment.OfUnit late:
                units[late.Unit] = units.GetValueOrDefault(late.Unit) is not { } unit
                    ? late
                    : late with
                    {
                        Skip = late.Skip ?? unit.Skip,
                        Hold = late.Hold ?? unit.Hold,
                        Published = late.Published ?? unit.Published,
                    };
                break;
            case Adjustment.OfLesson late:
                lessons[late.Lesson] = lessons.GetValueOrDefault(late.Lesson) is not { } lesson
                    ? late
                    : late with
                    {
                        Skip = late.Skip ?? lesson.Skip,
                        Length = late.Length ?? lesson.Length,
                        Pin = late.Pin ?? lesson.Pin,
                        Hold = late.Hold ?? lesson.Hold,
                        Published = late.Published ?? lesson.Published,
                    };
                break;
            case Adjustment.OfItem late:
                items[late.Item] = items.GetValueOrDefault(late.Item) is not { } item
                    ? late
                    : late with
                    {
                        Opens = late.Opens.Or(item.Opens),
                        Due = late.Due.Or(item.Due),
                        Closes = late.Closes.Or(item.Closes),
                        For = late.For.Or(item.For),
                        Published = late.Published ?? item.Published,
                        Hold = late.Hold ?? item.Hold,
                        Skip = late.Skip ?? item.Skip,
                        Lesson = late.Lesson ?? item.Lesson,
                    };
                break;
        }
    }
}
