using System.Collections.Immutable;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Plans;
using Polycline.Core.Sections;
using Polycline.Core.WhatIf;
using Polycline.Data;
using Polycline.Data.Courses;

namespace Polycline.Web.Work;

/// <summary>The order in which pieces are read, and what each of them opens.</summary>
internal sealed record ReadingQueue(
    IReadOnlyDictionary<(Ref<Core.Courses.Student>, Ref<Item>), int> Places,
    IReadOnlyDictionary<(Ref<Core.Courses.Student>, Ref<Item>), ImmutableArray<Ref<Item>>> Frees,
    WhoWaits Waits,
    Instant At
)
{
    public static ReadingQueue Of(EditionPlan plan, CourseMarks marks, Instant at)
    {
        var waits = WhoWaits.Of(plan.Schedule, [.. marks.Records], at);
        var frees = waits.Pieces.ToDictionary(piece => (piece.Student, piece.Item), piece => piece.Opens);
        var places = new Dictionary<(Ref<Core.Courses.Student>, Ref<Item>), int>();
        foreach (
            var piece in QueuedPiece.Of(marks.Course, (student, item) =>
                frees.TryGetValue((student, item), out var opens) ? opens.Length : 0
            )
        )
            places.TryAdd((piece.Student, piece.Item.Item), places.Count);
        return new(places, frees, waits, at);
    }

    public int PlaceOf(Id<Person> person, TreeRow item) =>
        Places.TryGetValue((person.InPlan(), new(item.Lineage)), out var place) ? place : int.MaxValue - 1;

    public ImmutableArray<Ref<Item>> FreedBy(Id<Person> person, Ref<Item> item) =>
        Frees.TryGetValue((person.InPlan(), item), out var opens) ? opens : [];
}
