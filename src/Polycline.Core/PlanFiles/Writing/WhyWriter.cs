using System.Collections.Immutable;
using System.Text.Json;
using NodaTime;
using NodaTime.Text;
using Polycline.Core.Courses;
using Polycline.Core.Explaining;
using Polycline.Core.Planning;
using Polycline.Core.WhatIf;
using Polycline.Core.Wording;

namespace Polycline.Core.PlanFiles.Writing;

/// <summary>Writes the answers <i>why</i> and <i>waiting</i>. Source: the computation, chapter 11.</summary>
internal sealed class WhyWriter(Utf8JsonWriter json)
{
    public void Write(Explanation why)
    {
        json.WriteStartObject();
        json.WriteStartObject("why");
        json.WriteString("section", why.Section?.Name);
        json.WriteString("state", EnumNames.Of(why.State));
        json.WriteString("because", why.Because is { } because ? EnumNames.Of(because) : null);
        Moment("since", why.Since);
        Moment("until", why.Until);
        Each("stands", why.Stands, InTheWay);
        Each("gates", why.Gates, Condition);
        json.WriteStartObject("dates");
        Date("opens", why.Opens);
        Date("due", why.Due);
        Date("closes", why.Closes);
        json.WriteEndObject();
        Each("remedies", why.Remedies, Remedy);
        if (why.Together is { } together)
            Each("together", together, Remedy);
        else
            json.WriteNull("together");
        if (why.QuizTime is { } percent)
            json.WriteNumber("quizTime", percent);
        json.WriteEndObject();
        json.WriteEndObject();
    }

    public void Write(WhoWaits waits)
    {
        json.WriteStartObject();
        json.WriteStartObject("waiting");
        Each("pieces", waits.Pieces, piece =>
        {
            json.WriteString("student", piece.Student.Name);
            json.WriteString("item", piece.Item.Name);
            json.WriteString("section", piece.Section.Name);
            Names("opens", piece.Opens);
        });
        Each("items", waits.Items, item =>
        {
            json.WriteString("item", item.Item.Name);
            json.WriteNumber("pieces", item.Pieces);
            json.WriteNumber("opening", item.Opening);
        });
        Each("nothing", waits.Nothing, student =>
        {
            json.WriteString("student", student.Student.Name);
            json.WriteString("section", student.Section.Name);
            json.WriteNumber("remains", student.Remains);
            json.WriteString("item", student.Item.Name);
            json.WriteString("because", EnumNames.Of(student.Because));
            Names("by", student.By);
        });
        json.WriteEndObject();
        json.WriteEndObject();
    }

    private void InTheWay(InTheWay one)
    {
        json.WriteString("what", EnumNames.Of(one.What));
        json.WriteString("level", one.Level is { } level ? EnumNames.Of(level) : null);
        json.WriteString("id", one.Id);
        json.WriteString("layer", one.Layer is { } layer ? EnumNames.Of(layer) : null);
        Moment("since", one.Since);
        Moment("until", one.Until);
    }

    private void Condition(ExplainedCondition gate)
    {
        json.WriteString("level", EnumNames.Of(gate.Level));
        json.WriteString("id", gate.Id);
        json.WriteString("layer", EnumNames.Of(gate.Layer));
        json.WriteBoolean("met", gate.Met);
        json.WriteBoolean("latched", gate.IsLatched);
        Moment("metAt", gate.MetAt);
        json.WriteBoolean("opened", gate.IsOpened);
        json.WritePropertyName("tree");
        Part(gate.Tree);
    }

    private void Part(ConditionPart part)
    {
        json.WriteStartObject();
        switch (part.Node)
        {
            case GateNode.AllOf or GateNode.AnyOf or GateNode.AtLeast:
                if (part.Node is GateNode.AtLeast some)
                    json.WriteNumber("atLeast", some.Least);
                json.WriteStartArray(
                    part.Node switch
                    {
                        GateNode.AllOf => "all",
                        GateNode.AnyOf => "any",
                        _ => "of",
                    }
                );
                foreach (var below in part.Below)
                    Part(below);
                json.WriteEndArray();
                break;
            case GateNode.Not:
                json.WritePropertyName("not");
                Part(part.Below[0]);
                break;
            default:
                json.WritePropertyName("leaf");
                GateWriter.Write(part.Node, json);
                break;
        }
        json.WriteString("outcome", EnumNames.Of(part.Outcome));
        Moment("since", part.Since);
        if (part.Replaced is { } replaced)
        {
            json.WritePropertyName("replaced");
            Part(replaced);
        }
        json.WriteEndObject();
    }

    private void Date(string name, ExplainedDate date)
    {
        json.WriteStartObject(name);
        Moment("at", date.At);
        json.WriteString("layer", date.Layer is { } layer ? EnumNames.Of(layer) : null);
        Each("steps", date.Steps, Step);
        json.WriteEndObject();
    }

    private void Step(DateStep step)
    {
        json.WriteString("step", EnumNames.Of(step.Kind));
        switch (step.Kind)
        {
            case DateStepKind.Base:
                json.WriteString("at", EnumNames.Of(step.At!.Value));
                json.WriteString("of", step.Of);
                Ordinal(step.Meeting);
                break;
            case DateStepKind.Meetings:
                json.WriteNumber("by", step.By);
                Ordinal(step.Meeting);
                break;
            case DateStepKind.Days:
                json.WriteNumber("weeks", step.Weeks);
                json.WriteNumber("days", step.Days);
                break;
            case DateStepKind.ClassDays:
                json.WriteNumber("by", step.By);
                break;
            case DateStepKind.Clock:
                json.WriteString(
                    "clock",
                    step.Clock is { Kind: ClockKind.Time, Time: { } time } ? $"{time:HH:mm}" : EnumNames.Of(step.Clock!.Kind)
                );
                Ordinal(step.Meeting);
                break;
            case DateStepKind.OffDay:
                json.WriteString("rule", EnumNames.Of(step.Rule!.Value));
                break;
            case DateStepKind.Always:
                json.WriteNumber("days", step.Days);
                break;
        }
        Moment("moment", step.Moment);
    }

    private void Ordinal(int? meeting)
    {
        if (meeting is { } ordinal)
            json.WriteNumber("meeting", ordinal);
        else
            json.WriteNull("meeting");
    }

    private void Remedy(Remedy remedy)
    {
        switch (remedy)
        {
            case Explaining.Remedy.Wait wait:
                Moment("wait", wait.Until);
                break;
            case Explaining.Remedy.GiveBack given:
                Names("giveBack", given.Items);
                break;
            case Explaining.Remedy.OpenForStudent { Opening: var opening }:
                json.WriteStartObject("openForStudent");
                if (opening.Unlocked)
                    json.WriteBoolean("unlocked", true);
                if (opening.Opens)
                    json.WriteNull("opens");
                if (opening.Closes)
                    json.WriteNull("closes");
                if (opening.Include)
                    json.WriteBoolean("include", true);
                if (opening.NotExcused)
                    json.WriteBoolean("excused", false);
                if (opening.NotExcluded)
                    json.WriteBoolean("exclude", false);
                json.WriteEndObject();
                break;
            case Explaining.Remedy.MoveOpening moved:
                json.WriteString("moveOpening", moved.Item.Name);
                break;
            case Explaining.Remedy.PutBackHold put:
                Texts("putBackHold", put.Places);
                break;
            case Explaining.Remedy.Publish published:
                Texts("publish", published.Places);
                break;
            case Explaining.Remedy.DropCondition dropped:
                Texts("dropCondition", dropped.Places);
                break;
        }
    }

    private void Each<T>(string name, IEnumerable<T> values, Action<T> write)
    {
        json.WriteStartArray(name);
        foreach (var value in values)
        {
            json.WriteStartObject();
            write(value);
            json.WriteEndObject();
        }
        json.WriteEndArray();
    }

    private void Names<T>(string name, ImmutableArray<Ref<T>> things) => Texts(name, things.Select(thing => thing.Name));

    private void Texts(string name, IEnumerable<string> texts)
    {
        json.WriteStartArray(name);
        foreach (var text in texts)
            json.WriteStringValue(text);
        json.WriteEndArray();
    }

    private void Moment(string name, Instant? moment) =>
        json.WriteString(name, moment is { } at ? InstantPattern.General.Format(at) : null);
}
