using System.Text.Json;
using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Sections;
using static Polycline.Core.PlanFiles.Checking.JsonMembers;

namespace Polycline.Core.PlanFiles.Writing;

/// <summary>Writes the sections of a plan file. Source: the plan file; the computation, chapters 2 to 4.</summary>
internal static class SectionWriter
{
    public static void Write(Section section, Utf8JsonWriter json)
    {
        json.WriteStartObject();
        json.WriteString("id", section.Ref.Name);
        json.WriteString("title", section.Title);
        List(json, "slots", section.Slots, Write);
        List(json, "changes", section.Changes, Write);
        List(json, "adjustments", section.Adjustments, Write);
        List(json, "taught", section.Taught, (record, _) => Object(json, null, () =>
            {
                json.WriteString("lesson", record.Lesson.Name);
                json.WriteNumber("took", record.Took);
                json.WriteBoolean("done", record.Done);
                if (record.Left is { } left)
                    json.WriteNumber("left", left);
                Moment(json, "at", record.At);
            }));
        List(json, "opened", section.Opened, (record, _) => Object(json, null, () =>
            {
                json.WriteString("item", record.Item.Name);
                Moment(json, "at", record.At);
                Moment(json, "due", record.Due);
            }));
        List(json, "students", section.Students, (entry, _) =>
        {
            if (entry is { From: null, To: null })
                json.WriteStringValue(entry.Student.Name);
            else
                Object(json, null, () =>
                {
                    json.WriteString("id", entry.Student.Name);
                    Date(json, "from", entry.From);
                    Date(json, "to", entry.To);
                });
        });
        json.WriteEndObject();
    }

    private static void Write(Slot slot, Utf8JsonWriter json) => Object(json, null, () =>
        {
            json.WriteString("day", slot.Day);
            if (slot is Slot.InPeriods named)
                Texts(json, "periods", named.Periods);
            if (slot is Slot.AtTimes times)
            {
                Time(json, "start", times.Start);
                Time(json, "end", times.End);
            }
            Date(json, "from", slot.From);
            Date(json, "until", slot.Until);
            if (slot.Counts != 1)
                json.WriteNumber("counts", slot.Counts);
        });

    private static void Write(MeetingChange change, Utf8JsonWriter json) => Object(json, null, () =>
        {
            switch (change)
            {
                case MeetingChange.Cancel cancel:
                    Object(json, "cancel", () => Which(cancel.Date, cancel.Start));
                    break;
                case MeetingChange.Move move:
                    Object(json, "move", () =>
                    {
                        Which(move.Date, move.Start);
                        Object(json, "to", () => When(move.ToDate, move.ToStart, move.ToEnd));
                    });
                    break;
                case MeetingChange.Extra add:
                    Object(json, "add", () =>
                    {
                        When(add.Date, add.Start, add.End);
                        if (add.Counts != 1)
                            json.WriteNumber("counts", add.Counts);
                    });
                    break;
            }

            void Which(LocalDate date, LocalTime? start)
            {
                Date(json, "date", date);
                if (start is { } time)
                    Time(json, "start", time);
            }

            void When(LocalDate date, LocalTime start, LocalTime end)
            {
                Date(json, "date", date);
                Time(json, "start", start);
                Time(json, "end", end);
            }
        });

    private static void Write(Adjustment adjustment, Utf8JsonWriter json) => Object(json, null, () =>
        {
            switch (adjustment)
            {
                case Adjustment.AddUnit add:
                    Object(json, "addUnit", () =>
                    {
                        json.WriteString("id", add.Unit.Name);
                        json.WriteString("title", add.Title);
                        json.WriteString("after", add.After?.Name);
                    });
                    break;
                case Adjustment.AddLesson insert:
                    Object(json, "insert", () =>
                    {
                        json.WriteString("id", insert.Lesson.Name);
                        json.WriteString("title", insert.Title);
                        json.WriteNumber("length", insert.Length);
                        Text(json, "after", insert.After?.Name);
                        Text(json, "unit", insert.In?.Name);
                    });
                    break;
                case Adjustment.AddItem add:
                    json.WritePropertyName("add");
                    PlanWriter.Write(add.Item, add.Lesson?.Name, add.Unit?.Name, json);
                    break;
                case Adjustment.OfUnit of:
                    json.WriteString("unit", of.Unit.Name);
                    if (of.Order is { } order)
                        json.WriteNumber("order", order);
                    Flags(("skip", of.Skip), ("hold", of.Hold), ("published", of.Published));
                    break;
                case Adjustment.OfLesson of:
                    json.WriteString("lesson", of.Lesson.Name);
                    Text(json, "after", of.After?.Name);
                    if (of.Length is { } length)
                        json.WriteNumber("length", length);
                    Date(json, "pin", of.Pin);
                    Flags(("skip", of.Skip), ("hold", of.Hold), ("published", of.Published));
                    break;
                case Adjustment.OfItem of:
                    json.WriteString("item", of.Item.Name);
                    Given(json, "opens", of.Opens);
                    Given(json, "due", of.Due);
                    Given(json, "closes", of.Closes);
                    if (of.For is { Is: true, Value: { } whom })
                        Object(json, "for", () => PlanWriter.Members(whom, json));
                    else if (of.For.Is)
                        json.WriteNull("for");
                    Flags(("skip", of.Skip), ("hold", of.Hold), ("published", of.Published));
                    Text(json, "lesson", of.Lesson?.Name);
                    break;
            }

            void Flags(params ReadOnlySpan<(string Name, bool? Is)> flags)
            {
                foreach (var (name, flag) in flags)
                    Flag(json, name, flag);
            }
        });
}
