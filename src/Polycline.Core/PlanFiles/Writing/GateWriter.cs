using System.Text.Json;
using Polycline.Core.Courses;
using Polycline.Core.Wording;

namespace Polycline.Core.PlanFiles.Writing;

/// <summary>Writes gates and anchors as a plan file has them, member for member as they were given.</summary>
public static class GateWriter
{
    /// <summary>A gate with how it latches and what is seen, where that was said.</summary>
    public static void Write(Gate gate, Utf8JsonWriter json)
    {
        json.WriteStartObject();
        Members(gate.Root, json);
        if (gate.Latch is { } latch)
            json.WriteBoolean("latch", latch);
        if (gate.WhenLocked is { } seen)
            json.WriteString("whenLocked", EnumNames.Of(seen));
        json.WriteEndObject();
    }

    public static void Write(GateNode node, Utf8JsonWriter json)
    {
        json.WriteStartObject();
        Members(node, json);
        json.WriteEndObject();
    }

    public static void Write(Anchor anchor, Utf8JsonWriter json)
    {
        json.WriteStartObject();
        json.WriteString("at", EnumNames.Of(anchor.At));
        if (anchor.Of is { } of)
            json.WriteString("of", of);
        Step("meetings", anchor.Meetings);
        Step("weeks", anchor.Weeks);
        Step("days", anchor.Days);
        Step("classDays", anchor.ClassDays);
        if (anchor.Clock is { } clock)
            json.WriteString("clock", clock.Kind == ClockKind.Time ? $"{clock.Time:HH:mm}" : EnumNames.Of(clock.Kind));
        if (anchor.Date is { } date)
            json.WriteString("date", $"{date:uuuu-MM-dd}");
        if (anchor.Time is { } time)
            json.WriteString("time", $"{time:HH:mm}");
        json.WriteEndObject();

        void Step(string name, int? n)
        {
            if (n is { } steps)
                json.WriteNumber(name, steps);
        }
    }

    private static void Members(GateNode node, Utf8JsonWriter json)
    {
        switch (node)
        {
            case GateNode.AllOf or GateNode.AnyOf or GateNode.AtLeast:
                if (node is GateNode.AtLeast some)
                    json.WriteNumber("atLeast", some.Least);
                json.WriteStartArray(
                    node switch
                    {
                        GateNode.AllOf => "all",
                        GateNode.AnyOf => "any",
                        _ => "of",
                    }
                );
                foreach (var child in node.Children)
                    Write(child, json);
                json.WriteEndArray();
                break;
            case GateNode.Not not:
                json.WritePropertyName("not");
                Write(not.Node, json);
                break;
            case GateNode.Done done:
                json.WriteString("item", done.Item.Name);
                json.WriteString("is", EnumNames.Of(done.Deed));
                break;
            case GateNode.Scored scored:
                json.WriteString("item", scored.Item.Name);
                if (scored.Min is { } min)
                    json.WriteNumber("scoreMin", min);
                if (scored.Below is { } below)
                    json.WriteNumber("scoreBelow", below);
                if (scored.Latest is { } latest)
                    json.WriteString("using", latest ? "latest" : "best");
                break;
            case GateNode.Picked picked:
                json.WriteString("choice", picked.Choice.Name);
                json.WriteString("picked", picked.Option);
                break;
            case GateNode.InGroup group:
                json.WriteString("group", group.Group);
                break;
            case GateNode.HasTaught taught:
                json.WriteString("taught", taught.Lesson.Name);
                break;
            case GateNode.From from:
                json.WritePropertyName("from");
                Write(from.Anchor, json);
                break;
        }
    }
}
