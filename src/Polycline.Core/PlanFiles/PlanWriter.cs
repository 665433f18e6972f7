using System.Text.Encodings.Web;
using System.Text.Json;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles.Writing;
using Polycline.Core.Release;
using Polycline.Core.Wording;
using static Polycline.Core.PlanFiles.Checking.JsonMembers;

namespace Polycline.Core.PlanFiles;

/// <summary>Writes a plan as a plan file, which read again is the same plan. Source: the plan file.</summary>
public static class PlanWriter
{
    private static readonly JsonWriterOptions Readable = new()
    {
        Indented = true,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        NewLine = "\n",
    };

    /// <returns>JSON in UTF-8, ending with a line break.</returns>
    public static byte[] Write(Plan plan) =>
        Written(json =>
        {
            json.WriteString("format", "polycline-plan");
            json.WriteNumber("version", 1);
            json.WritePropertyName("term");
            TermWriter.Write(plan.Term, json);
            json.WritePropertyName("edition");
            Write(plan.Edition, json);
            List(json, "sections", plan.Sections, SectionWriter.Write);
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
            if (!plan.Exceptions.IsEmpty || !plan.Arrangements.IsEmpty)
            {
                json.WriteStartArray("exceptions");
                foreach (var exception in plan.Exceptions)
                    Write(exception, json);
                foreach (var arrangement in plan.Arrangements)
                    Write(arrangement, json);
                json.WriteEndArray();
            }
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
        json.WriteString("basis", EnumNames.Of(edition.Basis));
        json.WriteNumber("minStart", edition.MinStart);
        json.WriteString("codes", EnumNames.Of(edition.Codes));
        json.WriteString("before", EnumNames.Of(edition.Before));
        List(json, "units", edition.Units, Write);
        json.WriteEndObject();
    }

    private static void Write(Unit unit, Utf8JsonWriter json)
    {
        json.WriteStartObject();
        json.WriteString("id", unit.Ref.Name);
        json.WriteString("title", unit.Title);
        Text(json, "lineage", unit.Lineage);
        json.WriteBoolean("published", unit.Published);
        Gate(json, unit.Gate);
        Before(json, unit.Before);
        List(json, "lessons", unit.Lessons, Write);
        List(
            json,
            "items",
            [
                .. unit.Lessons.SelectMany(lesson => lesson.Items.Select(item => (item, lesson.Ref.Name))),
                .. unit.Items.Select(item => (item, (string?)null)),
            ],
            (pair, _) => Write(pair.Item1, pair.Item2, null, json)
        );
        json.WriteEndObject();
    }

    private static void Write(Lesson lesson, Utf8JsonWriter json)
    {
        json.WriteStartObject();
        json.WriteString("id", lesson.Ref.Name);
        json.WriteString("title", lesson.Title);
        Text(json, "lineage", lesson.Lineage);
        json.WriteNumber("length", lesson.Length);
        if (lesson.Optional)
            json.WriteBoolean("optional", true);
        json.WriteBoolean("published", lesson.Published);
        Gate(json, lesson.Gate);
        json.WriteEndObject();
    }

    internal static void Write(Item item, string? lesson, string? unit, Utf8JsonWriter json)
    {
        json.WriteStartObject();
        json.WriteString("id", item.Ref.Name);
        json.WriteString("kind", EnumNames.Of(item.Kind));
        json.WriteString("title", item.Title);
        Text(json, "lineage", item.Lineage);
        if (item.Purpose != ItemRules.UsualPurpose(item.Kind))
            json.WriteString("purpose", PurposeWord(item.Purpose));
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

    private static string PurposeWord(Purpose purpose) =>
        purpose switch
        {
            Purpose.ToRead => "read",
            Purpose.ForMarks => "marks",
            _ => "practice",
        };

    private static void Write(Arrangement arrangement, Utf8JsonWriter json) => Object(json, null, () =>
        {
            json.WriteString("student", arrangement.Student.Name);
            Object(json, "always", () =>
            {
                if (arrangement.DueDays is { } days)
                    json.WriteNumber("dueDays", days);
                if (arrangement.QuizTime is { } percent)
                    json.WriteNumber("quizTime", percent);
            });
        });

    internal static void Write(ForOneStudent exception, Utf8JsonWriter json) => Object(json, null, () =>
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
            if (exception.Move is { } move)
                Object(json, "move", () =>
                {
                    json.WriteString("from", move.From.Name);
                    json.WriteString("to", move.To.Name);
                    json.WriteString("on", $"{move.On:uuuu-MM-dd}");
                });
        });

    private static void Write(Fact fact, Utf8JsonWriter json) => Object(json, null, () =>
        {
            json.WriteString("student", fact.Student.Name);
            json.WriteString("item", fact.Item.Name);
            json.WriteString("event", EnumNames.Of(fact.Event));
            Moment(json, "at", fact.At);
            if (fact.Score is { } score)
                json.WriteNumber("score", score);
            if (fact.Event == FactEvent.Scored)
                json.WriteNumber("attempt", fact.Attempt);
            // A pick always says what was picked; an empty one takes earlier picks back.
            if (fact.Event == FactEvent.Picked)
                json.WriteString("option", fact.Option);
            if (fact.Again)
                json.WriteBoolean("again", true);
        });
}
