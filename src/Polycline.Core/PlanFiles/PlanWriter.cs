using System.Collections.Immutable;
using System.Text.Encodings.Web;
using System.Text.Json;
using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;

namespace Polycline.Core.PlanFiles;

/// <summary>Writes a plan as a plan file, which read again is the same plan. Source: the plan file.</summary>
public static class PlanWriter
{
    private static readonly JsonWriterOptions Readable = new() { Indented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping, NewLine = "\n" };

    private static readonly string[] Weekdays = ["", "mon", "tue", "wed", "thu", "fri", "sat", "sun"];

    /// <returns>JSON in UTF-8, ending with a line break.</returns>
    public static byte[] Write(Plan plan) => Written(json =>
    {
        json.WriteString("format", "polycline-plan");
        json.WriteNumber("version", 1);
        json.WritePropertyName("term");
        Write(plan.Term, json);
        json.WritePropertyName("edition");
        Write(plan.Edition, json);
        List(json, "sections", plan.Sections, Write);
        if (!plan.Groups.IsEmpty)
            Object(json, "groups", () =>
            {
                foreach (var (group, students) in plan.Groups.OrderBy(group => group.Key, StringComparer.Ordinal))
                    Texts(json, group, students.Select(student => student.Name));
            });
        if (!plan.Home.IsEmpty)
            Object(json, "home", () =>
            {
                foreach (var (student, section) in plan.Home.OrderBy(home => home.Key.Name, StringComparer.Ordinal))
                    json.WriteString(student.Name, section.Name);
            });
        List(json, "exceptions", plan.Exceptions, Write);
        List(json, "facts", plan.Facts, Write);
    });

    /// <summary>An object as JSON in UTF-8, readable, ending with a line break.</summary>
    internal static byte[] Written(Action<Utf8JsonWriter> members)
    {
        using var stream = new MemoryStream();
        using (var json = new Utf8JsonWriter(stream, Readable))
        {
            json.WriteStartObject();
            members(json);
            json.WriteEndObject();
        }
        stream.WriteByte((byte)'\n');
        return stream.ToArray();
    }

    internal static void Write(Edition edition, Utf8JsonWriter json)
    {
        json.WriteStartObject();
        json.WriteString("title", edition.Title);
        json.WriteString("basis", Words.Of(edition.Basis));
        json.WriteNumber("minStart", edition.MinStart);
        json.WriteString("codes", Words.Of(edition.Codes));
        json.WriteString("before", Words.Of(edition.Before));
        List(json, "units", edition.Units, Write);
        json.WriteEndObject();
    }

    private static void Write(Unit unit, Utf8JsonWriter json)
    {
        json.WriteStartObject();
        json.WriteString("id", unit.Ref.Name);
        json.WriteString("title", unit.Title);
        json.WriteBoolean("published", unit.Published);
        Gate(json, unit.Gate);
        Before(json, unit.Before);
        List(json, "lessons", unit.Lessons, Write);
        List(json, "items", [.. unit.Lessons.SelectMany(lesson => lesson.Items.Select(item => (item, lesson.Ref.Name))), .. unit.Items.Select(item => (item, (string?)null))], (pair, _) => Write(pair.Item1, pair.Item2, null, json));
        json.WriteEndObject();
    }

    private static void Write(Lesson lesson, Utf8JsonWriter json)
    {
        json.WriteStartObject();
        json.WriteString("id", lesson.Ref.Name);
        json.WriteString("title", lesson.Title);
        json.WriteNumber("length", lesson.Length);
        if (lesson.Optional)
            json.WriteBoolean("optional", true);
        json.WriteBoolean("published", lesson.Published);
        Gate(json, lesson.Gate);
        json.WriteEndObject();
    }

    private static void Write(Item item, string? lesson, string? unit, Utf8JsonWriter json)
    {
        json.WriteStartObject();
        json.WriteString("id", item.Ref.Name);
        json.WriteString("kind", Words.Of(item.Kind));
        json.WriteString("title", item.Title);
        Text(json, "lesson", lesson);
        Text(json, "unit", unit);
        json.WriteBoolean("published", item.Published);
        Text(json, "code", item.Code);
        if (item.For is { } whom)
            Object(json, "for", () => Members(whom, json));
        Before(json, item.Before);
        foreach (var (name, anchor) in new[] { ("opens", item.Opens), ("due", item.Due), ("closes", item.Closes) })
            if (anchor is not null)
                Anchor(json, name, anchor);
        Gate(json, item.Gate);
        if (item.Kind == ItemKind.Choice)
        {
            Texts(json, "options", item.Options);
            json.WriteNumber("picks", item.Picks);
        }
        json.WriteEndObject();
    }

    internal static void Members(ForWhom whom, Utf8JsonWriter json)
    {
        if (whom.Students is { } students)
            Texts(json, "students", students.Select(student => student.Name));
        if (whom.Groups is { } groups)
            Texts(json, "groups", groups);
        if (!whom.Except.IsDefaultOrEmpty)
            Texts(json, "except", whom.Except);
    }

    private static void Write(Term term, Utf8JsonWriter json)
    {
        var calendar = term.Calendar;
        json.WriteStartObject();
        json.WriteString("name", term.Name);
        json.WriteString("zone", term.Zone.Id);
        Date(json, "first", term.First);
        Date(json, "last", term.Last);
        Texts(json, "weekdays", calendar.Weekdays.Select(day => Weekdays[(int)day]));
        List(json, "closures", calendar.Closures, (closure, _) => Object(json, null, () =>
        {
            Date(json, "from", closure.From);
            Date(json, "to", closure.To);
            json.WriteString("name", closure.Name);
        }));
        List(json, "extraDays", calendar.ExtraDays, (extra, _) => Object(json, null, () =>
        {
            Date(json, "date", extra.Date);
            json.WriteString("name", extra.Name);
        }));
        Write(calendar.Rotation, json);
        List(json, "periods", calendar.Periods, Write);
        List(json, "specialDays", calendar.SpecialDays, (day, _) => Object(json, null, () =>
        {
            Date(json, "date", day.Date);
            Text(json, "runs", day.Runs);
            if (day.Periods is { } periods)
            {
                json.WriteStartArray("periods");
                foreach (var period in periods)
                    Write(period, json);
                json.WriteEndArray();
            }
            Text(json, "name", day.Name);
        }));
        json.WriteString("offDays", Words.Of(calendar.OffDays));
        json.WriteEndObject();
    }

    private static void Write(Rotation rotation, Utf8JsonWriter json) => Object(json, "rotation", () =>
    {
        json.WriteString("kind", rotation switch { Rotation.Weeks => "weeks", Rotation.Days => "days", _ => "weekly" });
        if (rotation is Rotation.Weeks weeks)
        {
            Texts(json, "labels", weeks.Labels);
            json.WriteString("count", weeks.TeachingOnly ? "teaching" : "calendar");
        }
        if (rotation is Rotation.Days days)
        {
            Texts(json, "labels", days.Labels);
            json.WriteString("closures", days.ClosuresCount ? "count" : "pause");
        }
    });

    private static void Write(Calendars.Period period, Utf8JsonWriter json) => Object(json, null, () =>
    {
        json.WriteString("name", period.Name);
        Time(json, "start", period.Start);
        Time(json, "end", period.End);
    });

    private static void Write(Section section, Utf8JsonWriter json)
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
            case MeetingChange.Add add:
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
            case Adjustment.Insert insert:
                Object(json, "insert", () =>
                {
                    json.WriteString("id", insert.Lesson.Name);
                    json.WriteString("title", insert.Title);
                    json.WriteNumber("length", insert.Length);
                    Text(json, "after", insert.After?.Name);
                    Text(json, "unit", insert.In?.Name);
                });
                break;
            case Adjustment.Add add:
                json.WritePropertyName("add");
                Write(add.Item, add.Lesson?.Name, add.Unit?.Name, json);
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
                    Object(json, "for", () => Members(whom, json));
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

    private static void Write(ForOneStudent exception, Utf8JsonWriter json) => Object(json, null, () =>
    {
        json.WriteString("student", exception.Student.Name);
        json.WriteString("item", exception.Item.Name);
        Given(json, "opens", exception.Opens);
        Given(json, "due", exception.Due);
        Given(json, "closes", exception.Closes);
        Flag(json, "excused", exception.Excused);
        Flag(json, "include", exception.Include);
        Flag(json, "exclude", exception.Exclude);
        Flag(json, "unlocked", exception.Unlocked);
    });

    private static void Write(Fact fact, Utf8JsonWriter json) => Object(json, null, () =>
    {
        json.WriteString("student", fact.Student.Name);
        json.WriteString("item", fact.Item.Name);
        json.WriteString("event", Words.Of(fact.Event));
        Moment(json, "at", fact.At);
        if (fact.Score is { } score)
            json.WriteNumber("score", score);
        if (fact.Event == FactEvent.Scored)
            json.WriteNumber("attempt", fact.Attempt);
        Text(json, "option", fact.Option);
        if (fact.Again)
            json.WriteBoolean("again", true);
    });

    private static void Object(Utf8JsonWriter json, string? name, Action members)
    {
        if (name is not null)
            json.WritePropertyName(name);
        json.WriteStartObject();
        members();
        json.WriteEndObject();
    }

    // An empty list is left out.
    private static void List<T>(Utf8JsonWriter json, string name, ImmutableArray<T> entries, Action<T, Utf8JsonWriter> write)
    {
        if (entries.IsDefaultOrEmpty)
            return;
        json.WriteStartArray(name);
        foreach (var entry in entries)
            write(entry, json);
        json.WriteEndArray();
    }

    private static void Texts(Utf8JsonWriter json, string name, IEnumerable<string> texts)
    {
        json.WriteStartArray(name);
        foreach (var text in texts)
            json.WriteStringValue(text);
        json.WriteEndArray();
    }

    private static void Text(Utf8JsonWriter json, string name, string? text)
    {
        if (text is not null)
            json.WriteString(name, text);
    }

    private static void Flag(Utf8JsonWriter json, string name, bool? flag)
    {
        if (flag is { } given)
            json.WriteBoolean(name, given);
    }

    private static void Given(Utf8JsonWriter json, string name, Given<Anchor> given)
    {
        if (given is { Is: true, Value: { } anchor })
            Anchor(json, name, anchor);
        else if (given.Is)
            json.WriteNull(name);
    }

    private static void Anchor(Utf8JsonWriter json, string name, Anchor anchor)
    {
        json.WritePropertyName(name);
        GateWriter.Write(anchor, json);
    }

    private static void Gate(Utf8JsonWriter json, Gate? gate)
    {
        if (gate is null)
            return;
        json.WritePropertyName("gate");
        GateWriter.Write(gate, json);
    }

    private static void Before(Utf8JsonWriter json, BeforeOpening? before)
    {
        if (before is { } seen)
            json.WriteString("before", Words.Of(seen));
    }

    private static void Date(Utf8JsonWriter json, string name, LocalDate? date)
    {
        if (date is { } day)
            json.WriteString(name, $"{day:uuuu-MM-dd}");
    }

    private static void Time(Utf8JsonWriter json, string name, LocalTime time) => json.WriteString(name, $"{time:HH:mm}");

    private static void Moment(Utf8JsonWriter json, string name, Instant? moment)
    {
        if (moment is { } at)
            json.WriteString(name, $"{at:uuuu-MM-dd'T'HH:mm:ss'Z'}");
    }
}
