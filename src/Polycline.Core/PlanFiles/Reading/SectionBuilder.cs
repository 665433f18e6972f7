using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.Sections;
using static Polycline.Core.PlanFiles.Reading.PlanBuilder;

namespace Polycline.Core.PlanFiles.Reading;

/// <summary>Makes the sections of a file whose form and names are as they should be.</summary>
internal static class SectionBuilder
{
    public static Section Of(JsonPiece piece) =>
        new(
            Ref<Section>(piece["id"]!),
            Text(piece, "title"),
            Each(piece, "slots", SlotOf),
            Each(piece, "changes", ChangeOf),
            Each(piece, "adjustments", AdjustmentOf),
            Each(piece, "taught", record => new Taught(
                Ref<Lesson>(record["lesson"]!),
                Number(record, "took")!.Value,
                Flag(record, "done")!.Value,
                Number(record, "left"),
                Moment(record, "at")
            )),
            Each(piece, "opened", record => new OpeningRecord(
                Ref<Item>(record["item"]!),
                Moment(record, "at")!.Value,
                Moment(record, "due")
            )),
            Each(piece, "students", entry =>
                entry.Kind == JsonKind.Object
                    ? new Enrolment(new(StudentId(entry)), Date(entry, "from"), Date(entry, "to"))
                    : new Enrolment(new(StudentId(entry)))
            )
        );

    public static Slot SlotOf(JsonPiece piece) =>
        piece["periods"] is not null
            ? new Slot.InPeriods(
                Text(piece, "day"),
                Each(piece, "periods", name => name.Value!),
                Date(piece, "from"),
                Date(piece, "until"),
                Number(piece, "counts") ?? 1
            )
            : new Slot.AtTimes(
                Text(piece, "day"),
                Time(piece, "start")!.Value,
                Time(piece, "end")!.Value,
                Date(piece, "from"),
                Date(piece, "until"),
                Number(piece, "counts") ?? 1
            );

    public static MeetingChange ChangeOf(JsonPiece piece)
    {
        if (piece["cancel"] is { } cancel)
            return new MeetingChange.Cancel(Date(cancel, "date")!.Value, Time(cancel, "start"));
        if (piece["move"] is { } move)
        {
            var to = move["to"]!;
            return new MeetingChange.Move(
                Date(move, "date")!.Value,
                Time(move, "start"),
                Date(to, "date")!.Value,
                Time(to, "start")!.Value,
                Time(to, "end")!.Value
            );
        }
        var add = piece["add"]!;
        return new MeetingChange.Extra(
            Date(add, "date")!.Value,
            Time(add, "start")!.Value,
            Time(add, "end")!.Value,
            Number(add, "counts") ?? 1
        );
    }

    public static Adjustment AdjustmentOf(JsonPiece piece) =>
        piece switch
        {
            _ when piece["addUnit"] is { } unit => new Adjustment.AddUnit(
                Ref<Unit>(unit["id"]!),
                Text(unit, "title"),
                SomeRef<Unit>(unit["after"])
            ),
            _ when piece["insert"] is { } lesson => new Adjustment.AddLesson(
                Ref<Lesson>(lesson["id"]!),
                Text(lesson, "title"),
                Number(lesson, "length")!.Value,
                SomeRef<Lesson>(lesson["after"]),
                SomeRef<Unit>(lesson["unit"])
            ),
            _ when piece["add"] is { } item => new Adjustment.AddItem(
                ItemOf(item),
                SomeRef<Lesson>(item["lesson"]),
                SomeRef<Unit>(item["unit"])
            ),
            _ when piece["item"] is { } of => new Adjustment.OfItem
            {
                Item = Ref<Item>(of),
                Opens = Given(piece, "opens"),
                Due = Given(piece, "due"),
                Closes = Given(piece, "closes"),
                For = piece["for"] is { } whom ? WhomOf(whom) : default(Given<ForWhom>),
                Published = Flag(piece, "published"),
                Hold = Flag(piece, "hold"),
                Skip = Flag(piece, "skip"),
                Lesson = SomeRef<Lesson>(piece["lesson"]),
            },
            _ when piece["unit"] is { } of => new Adjustment.OfUnit(
                Ref<Unit>(of),
                Number(piece, "order"),
                Flag(piece, "skip"),
                Flag(piece, "hold"),
                Flag(piece, "published")
            ),
            _ => new Adjustment.OfLesson(
                Ref<Lesson>(piece["lesson"]!),
                SomeRef<Lesson>(piece["after"]),
                Flag(piece, "skip"),
                Number(piece, "length"),
                Date(piece, "pin"),
                Flag(piece, "hold"),
                Flag(piece, "published")
            ),
        };
}
