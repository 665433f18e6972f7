using System.Text.Json;
using NodaTime;
using NodaTime.Text;
using Polycline.Core.Calendars;
using Polycline.Core.Enrolling;
using Polycline.Core.Explaining;
using Polycline.Core.Findings;
using Polycline.Core.PlanFiles.Writing;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.WhatIf;
using Polycline.Core.Wording;

namespace Polycline.Core.PlanFiles;

/// <summary>Writes what a plan comes to. Source: the plan file, <i>The answer</i>.</summary>
public sealed class PlanAnswer
{
    private readonly Utf8JsonWriter json;
    private readonly PlanSchedule schedule;

    private PlanAnswer(Utf8JsonWriter json, PlanSchedule schedule)
    {
        this.json = json;
        this.schedule = schedule;
    }

    /// <summary>Computes a plan file and writes its answer.</summary>
    public static void Write(PlanFile file, Utf8JsonWriter json)
    {
        var plan = file.Plan;
        var schedule = PlanSchedule.Of(TermDays.Of(plan.Term), plan.Edition, plan.Sections);
        new PlanAnswer(json, schedule).Write(file);
        json.Flush();
    }

    private void Write(PlanFile file)
    {
        json.WriteStartObject();
        json.WriteStartObject("sections");
        foreach (var section in schedule.Sections)
            Section(section);
        json.WriteEndObject();
        Each("findings", PlanFindings.Of(schedule), Finding);
        json.WriteStartArray("decisions");
        var explained = new Dictionary<Ref<Courses.Student>, Explain>();
        foreach (var question in file.Ask)
        {
            if (!explained.TryGetValue(question.Student, out var explain))
                explained[question.Student] = explain = new(schedule, StudentRecord.Of(file.Plan, question.Student));
            Decided(question, explain.Decide(question.Item, question.At));
        }
        json.WriteEndArray();
        if (!file.Further.IsEmpty)
            Answers(file);
        json.WriteEndObject();
    }

    private void Answers(PlanFile file)
    {
        var writer = new AnswerWriter(json, file.Plan.Edition.Basis);
        var why = new WhyWriter(json);
        json.WriteStartArray("answers");
        foreach (var question in file.Further)
            switch (question)
            {
                case FurtherQuestion.OfCatchUp asked:
                    var student = StudentRecord.Of(file.Plan, asked.Student);
                    writer.Write(CatchUp.Of(schedule, student, asked.At, asked.PerClass, asked.Leave));
                    break;
                case FurtherQuestion.OfMove asked:
                    writer.Write(SectionMove.Of(schedule, file.Plan, asked.Student, asked.Move, asked.At, asked.Choices));
                    break;
                case FurtherQuestion.OfWhy { Asked: var asked }:
                    why.Write(Explanation.Of(schedule, StudentRecord.Of(file.Plan, asked.Student), asked.Item, asked.At));
                    break;
                case FurtherQuestion.OfWaiting asked:
                    why.Write(WhoWaits.Of(schedule, Listed, asked.At, asked.Section));
                    break;
                case FurtherQuestion.OfJoin asked:
                    writer.Write(CourseJoin.Of(schedule, file.Plan, asked.Section, asked.From, asked.Term, asked.Holds));
                    break;
            }
        json.WriteEndArray();

        IEnumerable<StudentRecord> Listed(Sections.Section section) =>
            section.Students.Select(enrolment => enrolment.Student).Distinct().Select(student => StudentRecord.Of(file.Plan, student));
    }

    private void Section(SectionSchedule section)
    {
        json.WriteStartObject(section.Section.Ref.Name);
        Each("meetings", section.Meetings.Meetings, Meeting);
        Placement("plan", section.Planned);
        Placement("forecast", section.Forecast);
        json.WriteStartObject("items");
        foreach (var (item, dates) in section.Items)
        {
            if (dates is null)
                continue;
            json.WriteStartObject(item.Ref.Name);
            json.WriteString("code", schedule.CodeOf[item.Ref]);
            Date("opens", dates.Opens);
            Date("due", dates.Due);
            Date("closes", dates.Closes);
            json.WriteEndObject();
        }
        json.WriteEndObject();
        Each("findings", section.Findings, finding =>
        {
            json.WriteStartObject();
            json.WriteString("code", EnumNames.Of(finding.Code));
            json.WriteString("target", finding.Target);
            if (finding.By is { } by)
                json.WriteNumber("by", by);
            json.WriteEndObject();
        });
        json.WriteEndObject();
    }

    private void Meeting(Meeting meeting)
    {
        json.WriteStartObject();
        json.WriteNumber("n", meeting.Ordinal);
        json.WriteString("date", $"{meeting.Date:uuuu-MM-dd}");
        json.WriteString("start", $"{meeting.Start:HH:mm}");
        json.WriteString("end", $"{meeting.End:HH:mm}");
        json.WriteString("label", meeting.Label);
        json.WriteNumber("counts", meeting.Counts);
        json.WriteNumber("minutes", meeting.Minutes);
        Moment("startsAt", meeting.StartsAt);
        Moment("endsAt", meeting.EndsAt);
        json.WriteEndObject();
    }

    private void Placement(string name, Placement placement)
    {
        json.WriteStartObject(name);
        json.WriteStartObject("lessons");
        foreach (var lesson in placement.Lessons)
        {
            json.WriteStartObject(lesson.Lesson.Name);
            Each("meetings", lesson.Ordinals, json.WriteNumberValue);
            Moment("startsAt", lesson.StartsAt);
            Moment("endsAt", lesson.EndsAt);
            json.WriteNumber("overflow", lesson.Overflow);
            json.WriteEndObject();
        }
        json.WriteEndObject();
        Each("spare", placement.Spare, json.WriteNumberValue);
        Each("free", placement.Free, json.WriteNumberValue);
        json.WriteNumber("short", placement.Lacking);
        json.WriteEndObject();
    }

    private void Date(string name, ItemDate date)
    {
        json.WriteStartObject(name);
        Moment("at", date.At);
        json.WriteString("layer", EnumNames.Of(date.Layer));
        json.WriteEndObject();
    }

    private void Finding(PlanFinding finding)
    {
        json.WriteStartObject();
        json.WriteString("code", EnumNames.Of(finding.Code));
        if (finding.Section is { } section)
            json.WriteString("section", section);
        Each("targets", finding.Targets, json.WriteStringValue);
        if (finding.Gaps is { } gaps)
            Each("gaps", gaps, gap =>
            {
                json.WriteStartArray();
                json.WriteNumberValue(gap.From);
                json.WriteNumberValue(gap.To);
                json.WriteEndArray();
            });
        if (finding.Options is { } options)
            Each("options", options, json.WriteStringValue);
        json.WriteEndObject();
    }

    private void Decided(Question question, Decision decision)
    {
        json.WriteStartObject();
        json.WriteString("student", question.Student.Name);
        json.WriteString("item", question.Item.Name);
        Moment("at", question.At);
        json.WriteString("section", decision.Section?.Name);
        json.WriteString("state", EnumNames.Of(decision.State));
        json.WriteString("sees", EnumNames.Of(decision.Sees));
        json.WriteString("because", decision.Because is { } because ? EnumNames.Of(because) : null);
        json.WriteStartArray("missing");
        foreach (var leaf in decision.State == ReleaseState.Locked ? decision.Missing : [])
            GateWriter.Write(leaf, json);
        json.WriteEndArray();
        json.WriteEndObject();
    }

    private void Each<T>(string name, IEnumerable<T> list, Action<T> write)
    {
        json.WriteStartArray(name);
        foreach (var entry in list)
            write(entry);
        json.WriteEndArray();
    }

    private void Moment(string name, Instant? moment)
    {
        if (moment is { } at)
            json.WriteString(name, InstantPattern.General.Format(at));
        else
            json.WriteNull(name);
    }
}
