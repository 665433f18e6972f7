using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.PlanFiles.Checking;
using Polycline.Core.PlanFiles.Reading;
using Polycline.Core.PlanFiles.Writing;
using Polycline.Core.Sections;
using Polycline.Core.Wording;

namespace Polycline.Core.PlanFiles;

/// <summary>
/// Parts of a plan in the plan file's own form, as they are stored and as they are asked for: one form everywhere, read in
/// one place. Ids are read for their form only; whoever stores a part checks what it names.
/// </summary>
public static class PlanParts
{
    /// <exception cref="FileRefusedException">It has not the form of a term's calendar; the path starts at the part.</exception>
    public static SchoolCalendar Calendar(string json) => PlanBuilder.CalendarOf(Parse(json));

    /// <summary>A whole term, with what its special days and labels name checked.</summary>
    /// <exception cref="FileRefusedException">It has not the form of a term, or names something it has not.</exception>
    public static Term Term(string json)
    {
        var piece = Checked(json, PlanShapes.Term);
        var faults = new FaultList();
        TermNames.Check(piece, faults);
        faults.Throw();
        return PlanBuilder.TermOf(piece);
    }

    /// <exception cref="FileRefusedException">It has not the form of a list of periods, or two have one name.</exception>
    public static ImmutableArray<Period> Periods(string json)
    {
        var piece = Checked(json, Forms.List(PlanShapes.Period));
        var faults = new FaultList();
        TermNames.CheckPeriods(piece.Items, faults);
        faults.Throw();
        return [.. piece.Items.Select(PlanBuilder.PeriodOf)];
    }

    /// <exception cref="FileRefusedException">It has not the form of an anchor.</exception>
    public static Anchor Anchor(string json) => PlanBuilder.AnchorOf(Checked(json, GateShapes.Anchor))!;

    /// <exception cref="FileRefusedException">It has not the form of a gate.</exception>
    public static Gate Gate(string json) => GateBuilder.Of(Checked(json, GateShapes.Gate))!;

    /// <exception cref="FileRefusedException">It has not the form of a <c>for</c>.</exception>
    public static ForWhom ForWhom(string json) => PlanBuilder.WhomOf(Checked(json, PlanShapes.ForWhom(withStudents: true)))!;

    /// <exception cref="FileRefusedException">It has not the form of what an item asks for.</exception>
    public static Asks Asks(string json) => AsksShapes.Of(Checked(json, AsksShapes.Asks));

    /// <summary>What a choice offers.</summary>
    public static Offered Offered(string json) => OfferedShapes.Of(Checked(json, OfferedShapes.Offer));

    /// <exception cref="FileRefusedException">It has not the form of how an item is marked.</exception>
    public static MarkedAs Marked(string json) => MarkedShapes.Of(Checked(json, MarkedShapes.Marked));

    /// <exception cref="FileRefusedException">It has not the form of a mark.</exception>
    public static GivenMark Mark(string json) => MarkedShapes.GivenOf(Checked(json, MarkedShapes.Given));

    /// <exception cref="FileRefusedException">It has not the form of a list of slots.</exception>
    public static ImmutableArray<Slot> Slots(string json) =>
        [.. Checked(json, Forms.List(SectionShapes.Slot)).Items.Select(SectionBuilder.SlotOf)];

    /// <exception cref="FileRefusedException">It has not the form of a change of meetings.</exception>
    public static MeetingChange MeetingChange(string json) => SectionBuilder.ChangeOf(Checked(json, SectionShapes.Change));

    /// <summary>An adjustment of one unit, lesson or item, from its fields as they are stored.</summary>
    /// <param name="of"><c>unit</c>, <c>lesson</c> or <c>item</c>.</param>
    /// <param name="fields">JSON each; null: cleared.</param>
    /// <exception cref="FileRefusedException">It has not the form of an adjustment.</exception>
    public static Adjustment Adjustment(Level of, string target, IEnumerable<(string MemberShape, string? Value)> fields)
    {
        var members = fields.Select(field => $",{JsonSerializer.Serialize(field.MemberShape)}:{field.Value ?? "null"}");
        return SectionBuilder.AdjustmentOf(
            Checked($"{{\"{EnumNames.Of(of)}\":{JsonSerializer.Serialize(target)}{string.Concat(members)}}}", SectionShapes.Adjustment)
        );
    }

    /// <summary>An adjustment of one unit, lesson or item, from its fields in one object.</summary>
    /// <exception cref="FileRefusedException">It has not the form of an adjustment.</exception>
    public static Adjustment Adjustment(Level of, string target, string fields)
    {
        using var json = JsonDocument.Parse(fields);
        return Adjustment(of, target, json.RootElement.EnumerateObject().Select(field => (field.Name, (string?)field.Value.GetRawText())));
    }

    /// <exception cref="FileRefusedException">They have not the form of level names, or are no good as words.</exception>
    public static LevelNames Levels(string json) => LevelShapes.Checked(Checked(json, LevelShapes.Levels));

    public static string Json(LevelNames levels) => Written(json => LevelShapes.Write(levels, json));

    /// <exception cref="FileRefusedException">It is not in this form.</exception>
    public static AddingUp AddingUp(string json) => AddingUpShapes.Of(Checked(json, AddingUpShapes.AddingUp));

    public static string Json(AddingUp adding) => Written(json => AddingUpShapes.Write(adding, json));

    public static string Json(Calendars.Term term) => Written(json => TermWriter.Write(term, json));

    public static string Json(Anchor anchor) => Written(json => GateWriter.Write(anchor, json));

    public static string Json(Gate gate) => Written(json => GateWriter.Write(gate, json));

    public static string Json(Asks asks) => Written(json => AsksShapes.Write(asks, json));

    public static string Json(Offered offered) => Written(json => OfferedShapes.Write(offered, json));

    public static string Json(MarkedAs marked) => Written(json => MarkedShapes.Write(marked, json));

    public static string Json(GivenMark mark) => Written(json => MarkedShapes.Write(mark, json));

    public static string Json(ForWhom whom) =>
        Written(json =>
        {
            json.WriteStartObject();
            PlanWriter.Members(whom, json);
            json.WriteEndObject();
        });

    private static JsonPiece Parse(string json) =>
        JsonPiece.Parse(Encoding.UTF8.GetBytes(json)) ?? throw new FileRefusedException("$", "this is not JSON");

    private static JsonPiece Checked(string json, JsonShape form)
    {
        var piece = Parse(json);
        var faults = new FaultList();
        form(piece, faults);
        faults.Throw();
        return piece;
    }

    private static string Written(Action<Utf8JsonWriter> write)
    {
        using var stream = new MemoryStream();
        using (var json = new Utf8JsonWriter(stream))
            write(json);
        return Encoding.UTF8.GetString(stream.ToArray());
    }
}
