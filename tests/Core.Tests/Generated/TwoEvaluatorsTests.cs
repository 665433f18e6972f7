using CsCheck;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Release.Compiled;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Generated;

/// <summary>
/// The plain evaluator and the one on arrays decide alike, at every moment at which anything can change. The computation, chapter 5.
/// </summary>
public sealed class TwoEvaluatorsTests
{
    private static readonly Ref<Student>[] Students = [new("p1"), new("p2"), new("nobody")];

    [Fact]
    public void They_agree_on_plans_of_every_shape() => SomePlan.Plans.Sample(Agree, iter: 120);

    [Fact]
    public void They_agree_where_conditions_name_whatever_item() => SomePlan.TangledPlans.Sample(Agree, iter: 120);

    [Fact]
    public void They_agree_wherever_one_stands_and_in_whatever_order_one_asks() =>
        Gen.Select(SomePlan.Plans, SomePlan.Moments.Array[5])
            .Sample(
                (plan, moments) =>
                {
                    var schedule = PlanSchedule.Of(TermDays.Of(plan.Term), plan.Edition, plan.Sections);
                    foreach (var student in Students)
                    {
                        var record = StudentRecord.Of(plan, student);
                        var (explain, compiled) = (new Explain(schedule, record), new StudentRelease(schedule, record));
                        foreach (var moment in moments)
                            Agree(schedule, explain, compiled, moment);
                    }
                },
                iter: 100
            );

    private static void Agree(Plan plan)
    {
        var schedule = PlanSchedule.Of(TermDays.Of(plan.Term), plan.Edition, plan.Sections);
        foreach (var student in Students)
        {
            var record = StudentRecord.Of(plan, student);
            var (explain, compiled) = (new Explain(schedule, record), new StudentRelease(schedule, record));
            foreach (var moment in Moments(plan, schedule, record))
                Agree(schedule, explain, compiled, moment);
        }
    }

    private static void Agree(PlanSchedule schedule, Explain explain, StudentRelease compiled, Instant at)
    {
        foreach (var item in schedule.Sections.SelectMany(section => section.Items).Select(item => item.Item.Ref).Distinct())
        {
            var (plain, fast) = (explain.Decide(item, at), compiled.Decide(item, at));
            (fast.State, fast.Sees, fast.Because).ShouldBe((plain.State, plain.Sees, plain.Because), $"{item.Name} at {at}");
        }
    }

    // Just before, at and just after every fact, date, record of what was taught, moment of a condition and change of section.
    private static List<Instant> Moments(Plan plan, PlanSchedule schedule, StudentRecord record)
    {
        var gates = plan.Edition.Units.SelectMany(unit =>
            unit.InReadingOrder().Select(item => item.Gate).Append(unit.Gate).Concat(unit.Lessons.Select(lesson => lesson.Gate))
        );
        var anchors = gates
            .OfType<Gate>()
            .SelectMany(gate => gate.Root.Leaves())
            .OfType<GateNode.From>()
            .Select(leaf => leaf.Anchor)
            .ToList();
        var moments = record
            .Facts.All.Select(fact => (Instant?)fact.At)
            .Concat(
                schedule.Sections.SelectMany(section =>
                    section
                        .Items.Select(item => record.DatesOf(section, item))
                        .OfType<ItemDates>()
                        .SelectMany(dates => new[] { dates.Opens.At, dates.Due.At, dates.Closes.At })
                )
            )
            .Concat(schedule.Sections.SelectMany(section => anchors.Select(section.MomentOf)))
            .Concat(plan.Sections.SelectMany(section => section.Taught.Select(taught => taught.At)))
            .Concat(
                record
                    .Enrolments.SelectMany(pair => new[] { pair.Enrolment.From, pair.Enrolment.To?.PlusDays(1) })
                    .Select(date => date is { } day ? (Instant?)plan.Term.Zone.AtStartOfDay(day).ToInstant() : null)
            );
        return
        [
            .. moments
                .OfType<Instant>()
                .SelectMany(moment => new[] { moment - Duration.FromTicks(1), moment, moment + Duration.FromTicks(1) })
                .Distinct()
                .Order(),
        ];
    }
}
