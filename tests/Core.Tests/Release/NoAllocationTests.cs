using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Release.Compiled;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Release;

/// <summary>Deciding on arrays, and replaying facts, costs no memory. The architecture, <i>Speed</i>.</summary>
public sealed class NoAllocationTests
{
    private static readonly Instant Begin = Instant.FromUtc(2026, 9, 7, 6, 0);

    [Fact]
    public void Facts_are_replayed_and_all_items_decided_without_a_byte_allocated()
    {
        var tasks = Enumerable
            .Range(0, 60)
            .Select(n =>
                Plans.Task(
                    $"i{n:00}",
                    new Anchor { At = AnchorBase.TermStart },
                    new Anchor { At = AnchorBase.TermEnd },
                    n < 3 ? null
                        : n % 3 == 0 ? Waiting(n)
                        : null
                )
            )
            .ToArray();
        var schedule = Plans.Schedule(Plans.Edition(Plans.Unit("u1", Plans.Lesson("l1", 1, tasks))), Plans.Section("s1"));
        var facts = Enumerable
            .Range(0, 500)
            .Select(n => new Fact(
                new("p1"),
                new($"i{n * 7 % 60:00}"),
                (FactEvent)(n % 9),
                Begin + Duration.FromMinutes(n),
                50 + (n % 50),
                1 + (n % 3),
                "a"
            ))
            .ToArray();
        var student = Plans.Student("s1", facts);
        var section = SectionTable.Of(schedule.Section(new("s1")));
        var replay = new Replay(section.For(student), FactTable.Of(section, student));
        var verdicts = new byte[section.Count];
        var states = new HashSet<ReleaseState>();
        Run(Duration.FromMinutes(50));

        var before = GC.GetAllocatedBytesForCurrentThread();
        var decided = 0;
        for (var round = 0; round < 20; round++)
        {
            replay.Restart();
            for (var at = Begin; at < Begin + Duration.FromMinutes(600); at += Duration.FromMinutes(50))
            {
                replay.MoveTo(at);
                replay.DecideAll(verdicts);
                decided += verdicts.Length;
            }
        }
        (GC.GetAllocatedBytesForCurrentThread() - before).ShouldBe(0);
        decided.ShouldBe(20 * 12 * 60);
        states.ShouldBe([ReleaseState.Open, ReleaseState.Locked, ReleaseState.Withdrawn], ignoreOrder: true);

        void Run(Duration step)
        {
            for (var at = Begin; at < Begin + Duration.FromMinutes(600); at += step)
            {
                replay.MoveTo(at);
                replay.DecideAll(verdicts);
                states.UnionWith(verdicts.Select(code => Verdict.Of(code).State));
            }
        }
    }

    private static GateNode Waiting(int n) =>
        new GateNode.AllOf([
            new GateNode.Done(new($"i{n - 3:00}"), Deed.Returned),
            new GateNode.Scored(new($"i{n - 2:00}"), 60, 90),
            new GateNode.AnyOf([
                new GateNode.Done(new($"i{n - 1:00}"), Deed.Submitted),
                new GateNode.Not(new GateNode.Done(new($"i{n - 3:00}"), Deed.Opened)),
            ]),
        ]);
}
