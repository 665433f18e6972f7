using System.Data;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Quizzes;
using Polycline.Data.Sections;
using Polycline.Data.Students;
using Polycline.Web.Foundation;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Host;

/// <summary>
/// Ends attempts at quizzes whose time is up, by the server's clock, whether or not their student is there, and scores anew what a key
/// put right marks otherwise. Several instances may sweep at once: a student's attempts are locked meanwhile, and each is recorded once.
/// </summary>
public sealed class QuizSweep(Database database, PlanCache compiled, IClock clock, ILogger<QuizSweep> log)
    : Recurring("Ending quizzes whose time is up", TimeSpan.FromSeconds(5), log)
{
    /// <summary>Looks once through every attempt that runs, or was scored by other keys than its quiz has now.</summary>
    public async Task Sweep(CancellationToken stop)
    {
        using var measured = Measured.Sweep();
        var at = clock.GetCurrentInstant();
        foreach (
            var (edition, version, termVersion) in await database.Read(connection => OpenedStore.Taught(connection, at.InUtc().Date), stop)
        )
        {
            var unsettled = await database.Read(connection => QuizStore.Unsettled(connection, edition), stop);
            if (unsettled.Count == 0)
                continue;
            var plan = await compiled.Edition(edition, version, termVersion);
            foreach (var (person, item) in unsettled.Select(attempt => (attempt.Person, attempt.Item)).Distinct())
                await Settle(plan, person, item, at, stop);
        }
    }

    protected override Task Once(CancellationToken stop) => Sweep(stop);

    private Task Settle(EditionPlan plan, Id<Person> person, Id<Item> item, Instant at, CancellationToken stop) =>
        database.Within(
            IsolationLevel.ReadCommitted,
            async connection =>
            {
                var (records, _) = await StudentStore.Read(connection, plan, [person], at);
                var sight = plan.Row(item) is { } row
                    ? new Sights(plan.Schedule, records[person]).At(at).FirstOrDefault(one => one.Item == new Ref<Item>(row.Lineage))
                    : null;
                // Whether or not they see it by now, what they answered is marked by the keys of today.
                var terms = new QuizTerms(plan.Item(item)?.Quiz, sight?.Closes, new(records[person].Always?.QuizTime ?? 0, 0));
                var quiz = await StudentQuiz.Read(connection, terms, item, person, at, locked: true);
                await quiz.Settle(connection);
                return true;
            },
            stop
        );
}
