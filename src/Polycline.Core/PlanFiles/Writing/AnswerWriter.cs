using System.Text.Json;
using NodaTime;
using NodaTime.Text;
using Polycline.Core.Courses;
using Polycline.Core.Enrolling;
using Polycline.Core.Wording;

namespace Polycline.Core.PlanFiles.Writing;

/// <summary>Writes the answers to a plan file's further questions. Source: the computation, chapter 11.</summary>
internal sealed class AnswerWriter(Utf8JsonWriter json, Basis basis)
{
    public void Write(CatchUp answer)
    {
        Begin("catchUp");
        json.WriteString("section", answer.Section?.Name);
        json.WriteString("joined", answer.Joined is { } joined ? $"{joined:uuuu-MM-dd}" : null);
        Each("lines", answer.Lines, line =>
        {
            json.WriteString("item", line.Item.Name);
            json.WriteString("asked", EnumNames.Of(line.Asked));
            Moment("was", line.Was);
            json.WriteNumber("meeting", line.Meeting.Ordinal);
            Moment("due", line.Due);
            Names("needs", line.Needs);
        });
        Each("closed", answer.Closed, closed =>
        {
            Hanging(closed);
            Texts("remedies", ["reopen", "excuse"]);
        });
        Each("stuck", answer.Stuck, stuck =>
        {
            json.WriteString("item", stuck.Item.Name);
            Names("by", stuck.By);
            Texts("remedies", ["unlock", "excuse"]);
        });
        Names("unplaced", answer.Unplaced);
        Names("over", answer.Over);
        Each("left", answer.Left, Hanging);
        End();
    }

    public void Write(SectionMove answer)
    {
        Begin("move");
        json.WriteBoolean("back", answer.IsBack);
        Each("rows", answer.Rows, row =>
        {
            json.WriteString("item", row.Item.Name);
            json.WriteString("state", EnumNames.Of(row.State));
            json.WriteBoolean("done", row.Done);
            json.WriteBoolean("readable", row.Readable);
            Moment("dueThere", row.DueThere);
            Moment("dueHere", row.DueHere);
            json.WriteBoolean("keptOpen", row.KeptOpen);
            if (row.Choice is not { } choice)
                return;
            json.WriteString("choice", EnumNames.Of(choice));
            Moment("proposed", row.Proposed);
        });
        json.WriteStartArray("exceptions");
        foreach (var exception in answer.Exceptions)
            PlanWriter.Write(exception, json);
        json.WriteEndArray();
        json.WriteNumber("takesBack", answer.TakesBack);
        End();
    }

    public void Write(CourseJoin answer)
    {
        Begin("join");
        Each("pairs", answer.Pairs, pair =>
        {
            json.WriteString("own", pair.Own);
            json.WriteString("edition", pair.Edition);
            json.WriteString("by", EnumNames.Of(pair.By));
        });
        Each("ambiguous", answer.Ambiguous, match =>
        {
            Texts("own", match.Own);
            Texts("edition", match.Edition);
            json.WriteString("by", EnumNames.Of(match.By));
        });
        Each("stays", answer.Stays, thing =>
        {
            json.WriteString("own", thing.Own);
            json.WriteString("on", thing.On);
        });
        json.WriteStartObject("work");
        Work("before", answer.Before);
        Work("matched", answer.Matched);
        Work("own", answer.Own);
        json.WriteEndObject();
        Names("notCounted", answer.NotCounted);
        Each("hindrances", answer.Hindrances, Hindrance);
        End();
    }

    private void Hindrance(Hindrance hindrance)
    {
        json.WriteString("code", EnumNames.Of(hindrance.Code));
        Texts("targets", hindrance.Targets);
        if (hindrance.By is { } by)
        {
            json.WriteNumber("by", by);
            json.WriteString("in", EnumNames.Of(basis));
        }
        Texts(
            "remedies",
            hindrance.Code switch
            {
                HindranceCode.DoubleEnrolment => ["end", "home"],
                HindranceCode.TermDiffers => ["take-term"],
                _ => ["drop", "shorten", "add-classes"],
            }
        );
    }

    private void Hanging(WaitedFor item)
    {
        json.WriteString("item", item.Item.Name);
        Each("hangs", item.Hangs, hanging =>
        {
            json.WriteString("item", hanging.Item.Name);
            json.WriteString("then", EnumNames.Of(hanging.Then));
        });
    }

    private void Work(string name, WorkCount work)
    {
        json.WriteStartObject(name);
        json.WriteNumber("handedIn", work.HandedIn);
        json.WriteNumber("scores", work.Scores);
        json.WriteNumber("posts", work.Posts);
        json.WriteNumber("feedback", work.Feedback);
        json.WriteEndObject();
    }

    private void Begin(string kind)
    {
        json.WriteStartObject();
        json.WriteStartObject(kind);
    }

    private void End()
    {
        json.WriteEndObject();
        json.WriteEndObject();
    }

    private void Each<T>(string name, IEnumerable<T> list, Action<T> members)
    {
        json.WriteStartArray(name);
        foreach (var entry in list)
        {
            json.WriteStartObject();
            members(entry);
            json.WriteEndObject();
        }
        json.WriteEndArray();
    }

    private void Names(string name, IEnumerable<Ref<Item>> items) => Texts(name, items.Select(item => item.Name));

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
