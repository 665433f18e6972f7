using CsCheck;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Findings;
using Polycline.Core.PlanFiles;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Tests.Core.Generated;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Wording;

/// <summary>Timing and conditions in words, and their stored form.</summary>
public sealed class WordingTests
{
    [Theory]
    [InlineData("""{"at":"lesson-start"}""", "at the start of the lesson")]
    [InlineData("""{"at":"lesson-end","of":"l1"}""", "at the end of “Reading a barometer”")]
    [InlineData("""{"at":"lesson-end","meetings":1,"clock":"meeting-start"}""", "at the start of the 1st class after the lesson")]
    [InlineData("""{"at":"lesson-end","meetings":2,"clock":"meeting-end"}""", "at the end of the 2nd class after the lesson")]
    [InlineData("""{"at":"lesson-start","meetings":-1}""", "at the start of the 1st class before the lesson starts")]
    [InlineData("""{"at":"lesson-end","days":7,"clock":"18:00"}""", "7 days after the end of the lesson, 18:00")]
    [InlineData("""{"at":"own-opens","weeks":1}""", "1 week after it opens")]
    [InlineData("""{"at":"term-end","days":-3}""", "3 days before the end of the term")]
    [InlineData("""{"at":"fixed","date":"2026-10-08","time":"10:15"}""", "on Thu 8 Oct 2026, 10:15")]
    [InlineData(
        """{"at":"lesson-end","meetings":1,"days":2,"clock":"20:00"}""",
        "at the start of the 1st class after the lesson, 2 days later, 20:00"
    )]
    public void Timing_in_words_and_as_it_is_stored(string json, string words)
    {
        var anchor = PlanParts.Anchor(json);
        new AnchorWords(_ => "Reading a barometer", LevelNames.Plain).Of(anchor).ShouldBe(words);
        PlanParts.Json(anchor).ShouldBe(json);
    }

    [Theory]
    [InlineData("""{"item":"i1","is":"returned"}""", "Opens when feedback on i1 is given back. Students are told.")]
    [InlineData(
        """{"all":[{"item":"i1","is":"returned"},{"item":"i2","scoreMin":70}]}""",
        "Opens when feedback on i1 is given back and the score in i2 is at least 70 %. Students are told."
    )]
    [InlineData(
        """{"any":[{"item":"i1","is":"submitted"},{"all":[{"item":"i2","is":"opened"},{"item":"i3","is":"ticked"}]}]}""",
        "Opens when i1 is handed in or (i2 is opened and i3 is ticked off). Students are told."
    )]
    [InlineData("""{"item":"i2","scoreBelow":70}""", "Opens when the score in i2 is below 70 %. Until then students see nothing of it.")]
    [InlineData(
        """{"choice":"i2","picked":"a"}""",
        "Opens when “a” is picked in i2, as long as that holds. Until then students see nothing of it."
    )]
    [InlineData(
        """{"atLeast":1,"of":[{"item":"i1","is":"opened"},{"group":"support"}],"whenLocked":"show"}""",
        "Opens when at least 1 of these: i1 is opened and the student is in support. Students are told."
    )]
    public void A_condition_is_one_sentence_and_is_stored_as_it_was_given(string json, string sentence)
    {
        var gate = PlanParts.Gate(json);
        new GateWords(item => item.Name, title => title, LevelNames.Plain).Sentence(gate).ShouldBe(sentence);
        PlanParts.Json(gate).ShouldBe(json);
        PlanParts.Gate(PlanParts.Json(gate)).Root.ToString().ShouldBe(gate.Root.ToString());
    }

    [Theory]
    [InlineData(FindingCode.Overflow, "“l1” does not fit, by 2 classes.")]
    [InlineData(FindingCode.PinMissed, "“l1” is fixed to a date that another lesson already has, so it starts 2 classes later.")]
    [InlineData(FindingCode.AfterPin, "“l1” ends only after a lesson fixed to a date has begun that should follow it.")]
    [InlineData(FindingCode.NoMeetings, "There are no classes yet: give this section its timetable.")]
    [InlineData(FindingCode.MeetingOverlap, "Two classes overlap on Mon 7 Sep 2026, 08:40.", "2026-09-07T08:40")]
    [InlineData(FindingCode.ChangeIdle, "The changed class of Mon 7 Sep 2026 no longer exists.", "2026-09-07")]
    [InlineData(FindingCode.DueBeforeOpens, "“l1” is due before it opens.")]
    [InlineData(FindingCode.ClosesBeforeDue, "“l1” closes before it is due.")]
    [InlineData(FindingCode.DueBeforeLesson, "“l1” is due before its lesson starts.")]
    [InlineData(FindingCode.DueOffDay, "“l1” is due on a day without classes.")]
    [InlineData(FindingCode.DueEarlier, "“l1” would now be due earlier than announced, so the announced date stays.")]
    [InlineData(FindingCode.BeyondTerm, "“l1” has a date outside the term.")]
    public void Every_finding_of_a_section_is_a_sentence(FindingCode code, string sentence, string target = "l1") =>
        new FindingWords(name => name, Basis.Meetings, LevelNames.Plain).Of(new Finding(code, target, 2)).ShouldBe(sentence);

    [Fact]
    public void What_does_not_fit_is_told_in_what_lessons_are_measured_in() =>
        new FindingWords(name => name, Basis.Minutes, LevelNames.Plain)
            .Of(new Finding(FindingCode.Overflow, "l1", 1))
            .ShouldBe("“l1” does not fit, by 1 minute.");

    [Theory]
    [InlineData(FindingCode.GateCircle, "a", "“a” waits for itself, so nobody can ever get in.")]
    [InlineData(FindingCode.GateCircle, "a b c", "“a”, “b” and “c” wait for one another, so nobody can ever get in.")]
    [InlineData(FindingCode.GateNever, "a", "Nobody can ever meet the condition of “a”.")]
    [InlineData(FindingCode.GateNever, "a", "In s1 nobody can ever meet the condition of “a”.", "s1")]
    [InlineData(FindingCode.GateBlocked, "a b", "In s1 nobody can meet the condition of “a”: “b” cannot be worked on there.", "s1")]
    [InlineData(FindingCode.GateWaived, "a b c", "In s1 “a” no longer waits for “b” and “c”, dropped there.", "s1")]
    [InlineData(FindingCode.GateLate, "a b", "In s1 “a” is due before “b” opens, which it waits for.", "s1")]
    [InlineData(
        FindingCode.BranchGap,
        "a b c",
        "In “a” a score from 0 % to below 40 % and a score of 100 % lead to none of “b” and “c”; nor does not taking it at all."
    )]
    [InlineData(FindingCode.BranchOverlap, "a b c", "A score in “a” can open both “b” and “c”.")]
    [InlineData(FindingCode.ChoiceGap, "a", "In “a”, nothing depends on “poster”, nor on not picking at all.")]
    [InlineData(FindingCode.ChoiceUntied, "b a", "“b” seems to be for “poster” of “a”, but opens whatever is picked there.")]
    [InlineData(FindingCode.DoubleEnrolment, "p1 s1 s2", "p1 is in s1 and s2 at the same time.")]
    [InlineData(
        FindingCode.SpecialDayIdle,
        "2026-09-12",
        "The special day on Sat 12 Sep 2026 does nothing: there are no classes that day."
    )]
    public void Every_finding_of_a_plan_is_a_sentence(FindingCode code, string targets, string sentence, string? section = null) =>
        new FindingWords(name => name, Basis.Meetings, LevelNames.Plain)
            .Of(new PlanFinding(code, section, [.. targets.Split(' ')], [(0, 40), (100, 100)], ["poster"]))
            .ShouldBe(sentence);

    [Fact]
    public void Why_an_item_stands_as_it_does_is_told_to_the_team_with_every_reason_and_to_a_student_with_what_they_may_know()
    {
        var start = new Anchor { At = AnchorBase.TermStart };
        var edition = Plans.Edition(
            Plans.Unit(
                "u1",
                Plans.Lesson(
                    "l1",
                    1,
                    Plans.Task("a", start, new() { At = AnchorBase.TermStart, Days = 2 }),
                    Plans.Task("b", new() { At = AnchorBase.TermStart, Days = 8 }),
                    Plans.Task(
                        "c",
                        gate: new GateNode.AllOf([
                            new GateNode.Done(new("a"), Deed.Returned),
                            new GateNode.AnyOf([new GateNode.Scored(new("a"), 70, null), new GateNode.Done(new("b"), Deed.Opened)]),
                        ])
                    ),
                    Plans.Task("d") with
                    {
                        Published = false,
                    },
                    Plans.Task("e", closes: new() { At = AnchorBase.TermStart, Days = 3 }),
                    Plans.Task("f", new() { At = AnchorBase.LessonStart, Of = "l9" }),
                    Plans.Task("g") with
                    {
                        For = new(null, ["support"], []),
                    },
                    Plans.Task("h"),
                    Plans.Task("i"),
                    Plans.Task("j", gate: new GateNode.InGroup("support")) with
                    {
                        Gate = new(new GateNode.InGroup("support"), WhenLocked: WhenLocked.Show),
                    }
                )
            ),
            Plans.Unit("u2", Plans.Lesson("l9", 1, Plans.Task("k")))
        );
        var plan = Plans.Schedule(
            edition,
            Plans.Section(
                "s1",
                new Adjustment.OfLesson(new("l9"), Skip: true),
                new Adjustment.OfItem { Item = new("h"), Hold = true },
                new Adjustment.OfItem
                {
                    Item = new("a"),
                    Due = new Anchor { At = AnchorBase.TermStart, Days = 4 },
                }
            )
        );
        var student = Plans.Student("s1", new Fact(new("p1"), new("h"), FactEvent.Begun, Instant.MinValue)) with
        {
            Exceptions = new Dictionary<Ref<Item>, ForOneStudent>
            {
                [new("i")] = new()
                {
                    Student = new("p1"),
                    Item = new("i"),
                    Excused = true,
                },
            },
        };
        var words = new DecisionWords(plan, new(plan));
        var saturday = Instant.FromUtc(2026, 9, 12, 12, 0);
        Reasons Team(string item, Instant? at = null) =>
            words.ForTeam(new Explain(plan, student).Decide(new(item), at ?? saturday), new(item), at ?? saturday, "Ines");
        string? Told(string item)
        {
            var sights = new Sights(plan, student);
            var sight = sights.Of(new(item), saturday);
            return sight is null
                ? null
                : words.ForStudent(
                    sight.State,
                    sight.Sees,
                    plan.Section(new("s1")).Item(new(item))!.Dates,
                    new SightWords(sights).Missing(sight, saturday)
                );
        }

        Team("a").Sentence.ShouldBe("It was due on Fri 11 Sep, 00:00, as changed in this section, and Ines has not done it.");
        Team("a").Dates.ShouldBe(["Opens on Mon 7 Sep, 00:00, as in the course.", "Due on Fri 11 Sep, 00:00, as changed in this section."]);
        Told("a").ShouldBe("Was due on Fri 11 Sep, 00:00; you can still do it.");
        Team("b").Sentence.ShouldBe("It opens only on Tue 15 Sep, 00:00, as in the course.");
        Told("b").ShouldBe("Opens on Tue 15 Sep, 00:00.");
        Team("c")
            .Sentence.ShouldBe(
                "The condition of the item is not met; in the way: feedback on 1.01 Task a is "
                    + "given back, the score in 1.01 Task a is at least 70 % and 1.02 Task b is opened."
            );
        var tree = Team("c").Conditions.ShouldHaveSingleItem();
        (tree.Text, tree.Outcome, tree.Below.Length, tree.Below[1].Text).ShouldBe(("all of these", Outcome.NotMet, 2, "one of these"));
        Told("c")
            .ShouldBe(
                "Opens when feedback on 1.01 Task a is given back and the score in 1.01 Task a is at least 70 % or 1.02 Task b is opened."
            );
        Team("d").Sentence.ShouldBe("The item is not published.");
        Team("e").Sentence.ShouldBe("It closed on Thu 10 Sep, 00:00, as in the course.");
        Told("e").ShouldBe("Closed on Thu 10 Sep, 00:00; you can still read it.");
        Team("f").Sentence.ShouldBe("It would open at a moment that never comes, as in the course.");
        Team("g").Sentence.ShouldBe("It is for some students only, as in the course, and Ines is not one of them.");
        Team("h").Sentence.ShouldBe("Ines has begun it, so it stays readable. The item is kept back in this section.");
        Told("h").ShouldBe("No longer open. You can still read it, and what you have begun.");
        Team("i").Sentence.ShouldBe("Ines is excused from it.");
        Told("i").ShouldBe("You are excused from it.");
        Told("j").ShouldBe("Not open to you yet: ask your teacher.");
        Team("k").Sentence.ShouldBe("The lesson “Lesson l9” is dropped in this section.");
        new[] { Told("d"), Told("f"), Told("g"), Told("k") }.ShouldAllBe(told => told == null);
        Team("a", Instant.FromUtc(2026, 9, 8, 12, 0)).Sentence.ShouldBe("Open since Mon 7 Sep, 00:00, as in the course.");
        words
            .ForTeam(new Explain(plan, student with { Enrolments = [] }).Decide(new("a"), saturday), new("a"), saturday, "Ines")
            .Sentence.ShouldBe("No section lists Ines on Sat 12 Sep 2026.");
    }

    [Fact]
    public void On_whatever_plan_every_reason_is_a_sentence_and_a_student_reads_of_no_group_no_score_below_and_nothing_hidden()
    {
        Gen.Select(SomePlan.Plans, SomePlan.Moments)
            .Sample(
                (plan, at) =>
                {
                    var schedule = PlanSchedule.Of(TermDays.Of(plan.Term), plan.Edition, plan.Sections);
                    var words = new DecisionWords(schedule, new(schedule));
                    var findings = new FindingWords(name => name, plan.Edition.Basis, LevelNames.Plain);
                    schedule
                        .Sections.SelectMany(section => section.Findings)
                        .Select(findings.Of)
                        .Concat(PlanFindings.Of(schedule).Select(findings.Of))
                        .ShouldAllBe(sentence => IsSentence(sentence));
                    foreach (var student in new[] { StudentRecord.Of(plan, new("p1")), StudentRecord.Of(plan, new("p2")) })
                    {
                        var (explain, sights) = (new Explain(schedule, student), new Sights(schedule, student));
                        foreach (var item in schedule.CodeOf.Keys)
                        {
                            var decision = explain.Decide(item, at);
                            var reasons = words.ForTeam(decision, item, at, "Ines");
                            reasons.Dates.Append(reasons.Sentence).ShouldAllBe(sentence => IsSentence(sentence));
                            reasons.Conditions.Length.ShouldBe(decision.Gates.Length);
                            var sight = sights.Of(item, at);
                            var told = words.ForStudent(
                                decision.State,
                                decision.Sees,
                                decision.Dates,
                                sight is null ? [] : new SightWords(sights).Missing(sight, at)
                            );
                            (told is null).ShouldBe(decision.Sees == Sees.Nothing);
                            if (told is null)
                                continue;
                            IsSentence(told).ShouldBeTrue(told);
                            new[] { "support", "early", "below", " not so" }.ShouldAllBe(secret => !told.Contains(secret));
                            foreach (var hidden in schedule.CodeOf.Keys.Where(other => explain.Decide(other, at).Sees == Sees.Nothing))
                                told.ShouldNotContain($"{schedule.CodeOf[hidden]} {schedule.Item(hidden).Title}");
                        }
                    }
                },
                iter: 60
            );
    }

    private static bool IsSentence(string words) =>
        (char.IsUpper(words[0]) || words[0] is '“' or 'p')
        && words[^1] == '.'
        && !words.Contains("  ")
        && !words.Contains("“”")
        && !words.Contains(" .");
}
