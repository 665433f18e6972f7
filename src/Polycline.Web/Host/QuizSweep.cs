using System.Data;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Release;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Quizzes;
using Polycline.Data.Sections;
using Polycline.Data.Students;
using Polycline.Web.Foundation;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Host;

/// <summary>
/// Ends attempts at quizzes whose time is up, by the server's clock, whether or not their student is there. Several instances may
/// sweep at once: an attempt is locked while its end is recorded, and recorded once.
/// </summary>
public sealed class QuizSweep(Database database, PlanCache compiled, IClock clock, ILogger<QuizSweep> log)
    : Recurring("Ending quizzes whose time is up", TimeSpan.FromSeconds(5), log)
{
    /// <summary>Looks once through every attempt that runs.</summary>
    /// <returns>How many it ended.</returns>
    public async Task<int> Sweep(CancellationToken stop)
    {
        using var measured = Measured.Sweep();
        var at = clock.GetCurrentInstant();
        var ended = 0;
        foreach (
            var (edition, version, termVersion) in await database.Read(connection => OpenedStore.Taught(connection, at.InUtc().Date), stop)
        )
        {
            var running = await database.Read(connection => QuizStore.Running(connection, edition), stop);
            if (running.Count == 0)
                continue;
            var plan = await compiled.Edition(edition, version, termVersion);
            foreach (var attempt in running)
                ended += await End(plan, attempt, at, stop);
        }
        return ended;
    }

    protected override Task Once(CancellationToken stop) => Sweep(stop);

    private Task<int> End(EditionPlan plan, AttemptRow attempt, Instant at, CancellationToken stop) =>
        database.Within(
            IsolationLevel.ReadCommitted,
            async connection =>
            {
                var (records, _) = await StudentStore.Read(connection, plan, [attempt.Person], at);
                var record = records[attempt.Person];
                var sight = plan.Row(attempt.Item) is { } row
                    ? new Sights(plan.Schedule, record).At(at).FirstOrDefault(one => one.Item == new Ref<Item>(row.Lineage))
                    : null;
                var extra = new ExtraTime(record.Always?.QuizTime ?? 0, 0);
                var quiz = await StudentQuiz.Read(connection, sight, attempt.Item, attempt.Person, extra, at, locked: true);
                return await quiz.Settle(connection);
            },
            stop
        );
}
