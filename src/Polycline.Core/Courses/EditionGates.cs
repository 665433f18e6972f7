using System.Collections.Immutable;

namespace Polycline.Core.Courses;

/// <summary>An edition with other gates than it has.</summary>
public static class EditionGates
{
    /// <param name="gates">By the name of a unit, lesson or item: its gate from now on; null: none. Others keep their own.</param>
    public static Edition With(this Edition edition, IReadOnlyDictionary<string, Gate?> gates)
    {
        return edition with
        {
            Units =
            [
                .. edition.Units.Select(unit =>
                    unit with
                    {
                        Gate = gates.GetValueOrDefault(unit.Ref.Name, unit.Gate),
                        Lessons =
                        [
                            .. unit.Lessons.Select(lesson =>
                                lesson with
                                {
                                    Gate = gates.GetValueOrDefault(lesson.Ref.Name, lesson.Gate),
                                    Items = Items(lesson.Items),
                                }
                            ),
                        ],
                        Items = Items(unit.Items),
                    }
                ),
            ],
        };

        ImmutableArray<Item> Items(ImmutableArray<Item> items) => [.. items.Select(item => item.With(gates))];
    }

    /// <inheritdoc cref="With(Edition, IReadOnlyDictionary{string, Gate})"/>
    public static Item With(this Item item, IReadOnlyDictionary<string, Gate?> gates) =>
        gates.TryGetValue(item.Ref.Name, out var gate) ? item with { Gate = gate } : item;
}
