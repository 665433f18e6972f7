using CsCheck;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.WhatIf;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Generated;

/// <summary>Who stands before, at and past conditions, on whatever plan.</summary>
public sealed class GetsThroughTests
{
    [Fact]
    public void Where_a_student_stands_is_what_is_decided_and_what_they_have_done()
    {
        var seen = Enum.GetValues<Standing>().ToDictionary(standing => standing, _ => new Reached());
        Gen.Select(SomePlan.Plans, SomePlan.Moments)
            .Sample(
                (plan, at) =>
                {
                    var schedule = PlanSchedule.Of(TermDays.Of(plan.Term), plan.Edition, plan.Sections);
                    var graph = ConditionGraph.Of(schedule);
                    var named = graph.Nodes.Select(node => node.Name).ToList();
                    named.ShouldBeUnique();
                    foreach (var link in graph.Links)
                    {
                        named.ShouldContain(link.To);
                        graph.Nodes.Single(node => node.Name == link.To).Gate!.Root.Leaves().ShouldContain(link.Asks[0]);
                    }
                    foreach (var name in new[] { "p1", "p2", "nobody" })
                    {
                        var student = StudentRecord.Of(plan, new(name));
                        var (stands, explain) = (new GetsThrough(schedule, student, at), new Explain(schedule, student));
                        foreach (var node in graph.Nodes.Where(node => node.Level == Level.Item))
                        {
                            var item = new Ref<Item>(node.Name);
                            var decided = explain.Decide(item, at);
                            var standing = stands.Of(node);
                            if (standing is { } known)
                                seen[known].Now();
                            standing.ShouldBe(
                                decided.Deciding is ReleaseState.NotAssigned or ReleaseState.Excused or ReleaseState.NotEnrolled ? null
                                : student.Facts.IsDone(schedule.Item(item), at) ? Standing.Past
                                : decided.State is ReleaseState.Open or ReleaseState.Overdue ? Standing.At
                                : decided.Deciding == ReleaseState.Closed ? Standing.Missed
                                : Standing.Before
                            );
                        }
                    }
                },
                iter: 150
            );
        foreach (var standing in seen.Values)
            standing.ShouldBeOften();
    }
}
