using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Release.Compiled;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Release;

/// <summary>What a fact costs: the conditions that name its item are judged again, and no others.</summary>
public sealed class JudgementsTests
{
    private static readonly Instant Noon = Instant.FromUtc(2026, 9, 8, 12, 0);

    [Theory]
    [InlineData(10)]
    [InlineData(400)]
    public void A_fact_has_those_conditions_judged_that_name_its_item(int conditions)
    {
        // Every fifth waits for the first item, the others for the second; one in ten names both.
        Ref<Item> first = new("a"),
            second = new("b");
        var waiting = Enumerable
            .Range(0, conditions)
            .Select(n =>
                Plans.Task(
                    $"i{n}",
                    gate: n % 10 == 0 ? new GateNode.AnyOf([Done(first), Done(second)])
                        : n % 5 == 0 ? Done(first)
                        : Done(second)
                )
            )
            .ToArray();
        var plan = Plans.Schedule(
            Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", 1, [Plans.Task("a"), Plans.Task("b"), Plans.Task("c"), .. waiting]))),
            Plans.Section("s1")
        );
        var facts = new[]
        {
            (first, Noon, conditions / 5),
            (second, Noon + Duration.FromHours(1), (conditions * 4 / 5) + (conditions / 10)),
            (new Ref<Item>("c"), Noon + Duration.FromHours(2), 0),
        };
        var record = Plans.Student("s1", [.. facts.Select(fact => new Fact(new("p1"), fact.Item1, FactEvent.Returned, fact.Item2))]);
        var release = new StudentRelease(plan, record);
        foreach (var (item, at, named) in facts)
        {
            var before = release.At(at - Duration.FromSeconds(1))!.Judgements;
            release.At(at)!.Judgements.ShouldBe(before + named, $"{item.Name} of {conditions}");
        }
    }

    private static GateNode.Done Done(Ref<Item> item) => new(item, Deed.Returned);
}
