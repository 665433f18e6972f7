using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using NodaTime;
using NodaTime.Text;
using NodaTime.TimeZones;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Release.Compiled;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Generated;

/// <summary>
/// What the command line answers for 500 plans, written and read again, held against openings worked out a second way and
/// against the evaluator on arrays. Some have exceptions on items of one section only, some clocks that skip an hour.
/// </summary>
public sealed class ComputeTests
{
    private static readonly LocalTime EndOfDay = new(23, 59);

    [Fact]
    public void Its_openings_are_those_of_a_second_reading_of_the_chapter_and_its_decisions_those_of_the_arrays()
    {
        var (resolved, elsewhere, skipped) = (0, 0, 0);
        Gen.Select(SomePlan.Plans, SomePlan.Moments.Array[3])
            .Sample(
                (drawn, moments) =>
                {
                    var plan = AsAFileMayHaveIt(drawn);
                    var schedule = PlanSchedule.Of(TermDays.Of(plan.Term), plan.Edition, plan.Sections);
                    var items = schedule.Sections.SelectMany(section => section.Items).Select(item => item.Item.Ref).Distinct().ToList();
                    var asked = JsonNode.Parse(PlanWriter.Write(plan))!;
                    asked["ask"] = new JsonArray([
                        .. from student in new[] { "p1", "p2" }
                        from item in items
                        from moment in moments
                        select (JsonNode)
                            new JsonObject
                            {
                                ["student"] = student,
                                ["item"] = item.Name,
                                ["at"] = InstantPattern.General.Format(moment),
                            },
                    ]);
                    var answer = Plans.Answer(JsonSerializer.SerializeToUtf8Bytes(asked));
                    answer.TryGetProperty("error", out var refused).ShouldBeFalse($"{refused}");
                    foreach (var section in schedule.Sections)
                    {
                        var told = answer.GetProperty("sections").GetProperty(section.Section.Ref.Name).GetProperty("items");
                        foreach (
                            var (item, _) in section.Items.Where(item =>
                                item
                                    is {
                                        Dates: not null,
                                        Item: { Opened: null, Opens.Anchor: { At: not (AnchorBase.OwnOpens or AnchorBase.OwnDue) } }
                                    }
                            )
                        )
                        {
                            var opens = told.GetProperty(item.Ref.Name).GetProperty("opens").GetProperty("at").GetString();
                            var wanted = SecondReading(item.Opens.Anchor!, section, item, plan.Term, ref skipped);
                            opens.ShouldBe(
                                wanted is { } at ? InstantPattern.General.Format(at) : null,
                                $"{item.Ref.Name} in {section.Section.Ref.Name}: {item.Opens.Anchor}"
                            );
                            resolved += opens is null ? 0 : 1;
                        }
                    }
                    var decisions = answer.GetProperty("decisions").EnumerateArray().GetEnumerator();
                    foreach (var student in new[] { "p1", "p2" })
                    {
                        var record = StudentRecord.Of(plan, new(student));
                        var release = new StudentRelease(schedule, record);
                        foreach (var (item, moment) in items.SelectMany(item => moments.Select(moment => (item, moment))))
                        {
                            decisions.MoveNext();
                            var verdict = release.Decide(item, moment);
                            (
                                decisions.Current.GetProperty("state").GetString(),
                                decisions.Current.GetProperty("sees").GetString()
                            ).ShouldBe((EnumNames.Of(verdict.State), EnumNames.Of(verdict.Sees)), $"{item.Name} for {student} at {moment}");
                            if (
                                record.Exceptions.GetValueOrDefault(item) is { Excused: true }
                                && record.SectionAt(plan.Term, moment) is { } here
                                && schedule.Section(here).Item(item) is null
                            )
                            {
                                (verdict.State, verdict.Sees).ShouldBe((ReleaseState.Excused, Sees.Title));
                                elsewhere++;
                            }
                        }
                    }
                },
                iter: 500,
                threads: 1
            );
        // What this is about did come up.
        resolved.ShouldBeGreaterThan(500);
        elsewhere.ShouldBeGreaterThan(20);
        skipped.ShouldBeGreaterThan(5);
    }

    // Without what a plan file refuses: facts and exceptions about nothing, students named by the course, picks of what is no choice or no
    // option of it.
    private static Plan AsAFileMayHaveIt(Plan plan)
    {
        var items = plan
            .Edition.InReadingOrder()
            .Concat(plan.Sections.SelectMany(section => section.Adjustments.OfType<Adjustment.AddItem>()).Select(add => add.Item))
            .ToDictionary(item => item.Ref);
        Item WithoutNames(Item item) => item.For?.Students is null ? item : item with { For = null };
        return plan with
        {
            Edition = plan.Edition with
            {
                Units =
                [
                    .. plan.Edition.Units.Select(unit =>
                        unit with
                        {
                            Items = [.. unit.Items.Select(WithoutNames)],
                            Lessons = [.. unit.Lessons.Select(lesson => lesson with { Items = [.. lesson.Items.Select(WithoutNames)] })],
                        }
                    ),
                ],
            },
            Exceptions = [.. plan.Exceptions.Where(exception => items.ContainsKey(exception.Item))],
            Facts =
            [
                .. plan.Facts.Where(fact =>
                    items.TryGetValue(fact.Item, out var item)
                    && (
                        fact.Event != FactEvent.Picked
                        || (item.Kind == ItemKind.Choice && (fact.Option is null || item.Options.Contains(fact.Option)))
                    )
                ),
            ],
        };
    }

    // Chapter 4 read once more, step by step, on local dates and times alone.
    private static Instant? SecondReading(Anchor anchor, SectionSchedule section, CourseItem item, Term term, ref int skipped)
    {
        var meetings = section.Meetings.Meetings;
        var placed = section.Forecast.Lessons.Where(lesson => lesson.IsPlaced).ToList();
        Instant? moment = null;
        LocalDateTime? local = null;
        int? ordinal = null;
        switch (anchor.At)
        {
            case AnchorBase.Fixed:
                local = anchor.Date!.Value + anchor.Time!.Value;
                break;
            case AnchorBase.TermStart:
                local = term.First.AtMidnight();
                break;
            case AnchorBase.TermEnd:
                local = term.Last + EndOfDay;
                break;
            default:
                var isStart = anchor.At is AnchorBase.LessonStart or AnchorBase.UnitStart;
                var lessons =
                    anchor.At is AnchorBase.LessonStart or AnchorBase.LessonEnd && item.Lesson is { } on
                        ? placed.Where(lesson => lesson.Lesson == on.Ref)
                        : placed.Where(lesson => section.Lesson(lesson.Lesson)!.Unit.Ref == item.Unit.Ref);
                if (
                    (
                        isStart
                            ? lessons.OrderBy(lesson => lesson.StartsAt).ThenBy(lesson => lesson.Start!.Ordinal).FirstOrDefault()
                            : lessons
                                .OrderByDescending(lesson => lesson.EndsAt)
                                .ThenByDescending(lesson => lesson.End!.Ordinal)
                                .FirstOrDefault()
                    )
                    is not { } lesson
                )
                    return null;
                (moment, ordinal) = isStart ? (lesson.StartsAt, lesson.Start!.Ordinal) : (lesson.EndsAt, lesson.End!.Ordinal);
                break;
        }
        if (local is { } given && term.Zone.MapLocal(given).Count == 0)
            skipped++;
        moment ??= InZone(local!.Value);
        local ??= moment.Value.InZone(term.Zone).LocalDateTime;
        if (anchor.Meetings is { } n && n != 0)
        {
            ordinal = (ordinal ?? meetings.Count(meeting => meeting.StartsAt < moment) + 1) + n;
            if (ordinal < 1 || ordinal > meetings.Length)
                return null;
            moment = meetings[ordinal.Value - 1].StartsAt;
            local = moment.Value.InZone(term.Zone).LocalDateTime;
        }
        if ((anchor.Weeks ?? 0) != 0 || (anchor.Days ?? 0) != 0)
            (moment, ordinal, local) = (null, null, local.Value.PlusDays((7 * (anchor.Weeks ?? 0)) + (anchor.Days ?? 0)));
        for (var steps = anchor.ClassDays ?? 0; steps != 0; steps -= Math.Sign(steps))
        {
            var after = section
                .Term.Days.Select(day => day.Date)
                .Where(date => steps > 0 ? date > local.Value.Date : date < local.Value.Date)
                .Order()
                .ToList();
            if (after.Count == 0)
                return null;
            (moment, ordinal, local) = (null, null, (steps > 0 ? after[0] : after[^1]) + local.Value.TimeOfDay);
        }
        var meets = ordinal is { } carried
            ? meetings[carried - 1]
            : meetings.FirstOrDefault(meeting => meeting.StartsAt.InZone(term.Zone).Date == local.Value.Date);
        switch (anchor.Clock)
        {
            case { Kind: ClockKind.Time }:
                return InZone(local.Value.Date + anchor.Clock.Time!.Value);
            case { Kind: ClockKind.MeetingStart } when meets is not null:
                return meets.StartsAt;
            case { Kind: ClockKind.MeetingEnd } when meets is not null:
                return meets.EndsAt;
            default:
                return moment ?? InZone(local.Value);
        }

        Instant InZone(LocalDateTime time) => term.Zone.ResolveLocal(time, Resolvers.LenientResolver).ToInstant();
    }
}
