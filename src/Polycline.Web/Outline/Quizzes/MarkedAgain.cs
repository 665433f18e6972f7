using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Quizzes;
using Polycline.Data.Students;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Quizzes;

/// <summary>What was answered in a quiz, and by whom.</summary>
public sealed record TakenPapers(
    AttemptRows Rows,
    IReadOnlyDictionary<string, QuizPaper> Papers,
    IReadOnlyDictionary<Id<Person>, StudentRecord> Records
)
{
    public static async Task<TakenPapers> Read(NpgsqlConnection connection, EditionPlan plan, Id<Item> item)
    {
        var rows = await QuizStore.OfItem(connection, item);
        var students = rows.Attempts.Select(row => row.Person).Distinct().ToList();
        var records =
            students.Count == 0
                ? new Dictionary<Id<Person>, StudentRecord>()
                : (await StudentStore.Read(connection, plan, students, Bounds.Latest)).Records;
        return new(rows, await StudentQuiz.Papers(connection, rows), records);
    }
}

/// <summary>
/// What a quiz that is written anew does to scores there are: whose rise and fall, and what opens and closes by that. In numbers, since
/// not every student is everybody's who may write it.
/// </summary>
internal static class MarkedAgain
{
    private sealed record Change(Fraction? By, IReadOnlyList<Ref<Item>> Opens, IReadOnlyList<Ref<Item>> Closes)
    {
        /// <summary>What stays open only because of the earlier score, and whether they have begun it.</summary>
        public required IReadOnlyList<(Ref<Item> Item, bool IsBegun)> Stays { get; init; }
    }

    /// <returns>Empty: nobody has finished it yet, or every score stays as it is.</returns>
    public static string Told(EditionPlan plan, Item item, TakenPapers taken, QuizPaper? before, QuizPaper after, Instant at)
    {
        var changes = new List<Change>();
        var same = 0;
        foreach (var (student, record) in taken.Records)
        {
            StudentQuiz By(QuizPaper? paper) => StudentQuiz.Of(Terms(plan, item, record, at), paper, student, taken.Rows, taken.Papers, at);
            var (was, becomes) = (By(before), By(after));
            if (!was.Finished.Any())
                continue;
            var facts = Facts(record, item, was, becomes, at).ToList();
            if (facts.Count == 0)
                same++;
            else
                changes.Add(Of(plan, item, record, facts, was.Score?.Share, becomes.Score?.Share, at));
        }
        return changes.Count == 0 ? "" : Sentences(plan, changes, same);
    }

    private static QuizTerms Terms(EditionPlan plan, Item item, StudentRecord record, Instant at) =>
        new(
            item.Quiz,
            new Sights(plan.Schedule, record).At(at).FirstOrDefault(sight => sight.Item == item.Ref)?.Closes,
            new(record.Always?.QuizTime ?? 0, 0)
        );

    private static IEnumerable<Fact> Facts(StudentRecord record, Item item, StudentQuiz was, StudentQuiz becomes, Instant at) =>
        becomes
            .Attempts.Zip(was.Attempts)
            .Where(pair => pair.Second.Marking.IsFinished(at))
            .Select(pair => (pair.First.Row.N, Was: pair.Second.Result(at).Share, Is: pair.First.Result(at).Share))
            .Where(attempt => attempt.Is is not null && attempt.Is != attempt.Was)
            .Select(attempt => new Fact(record.Student, item.Ref, FactEvent.Scored, at, ScoreFact.PercentOf(attempt.Is!.Value), attempt.N));

    private static Change Of(
        EditionPlan plan,
        Item item,
        StudentRecord record,
        IReadOnlyList<Fact> facts,
        Fraction? was,
        Fraction? becomes,
        Instant at
    )
    {
        var attempts = facts.Select(fact => fact.Attempt).ToHashSet();
        var before = Open(record.Facts.All);
        var after = Open([.. record.Facts.All, .. facts]);
        // As if the earlier scores of these attempts had never been.
        var without = Open([
            .. record.Facts.All.Where(fact => fact.Item != item.Ref || fact.Event != FactEvent.Scored || !attempts.Contains(fact.Attempt)),
            .. facts,
        ]);
        return new(becomes - was, [.. after.Except(before)], [.. before.Except(after)])
        {
            Stays = [.. after.Except(without).Select(one => (one, record.Facts.HasBegun(one, at)))],
        };

        List<Ref<Item>> Open(IReadOnlyList<Fact> some) =>
            [
                .. new Sights(plan.Schedule, record with { Facts = new([.. some]) })
                    .At(at)
                    .Where(sight => sight.MayRead)
                    .Select(sight => sight.Item),
            ];
    }

    private static string Sentences(EditionPlan plan, List<Change> changes, int same)
    {
        var (rises, falls) = (changes.Count(one => one.By > 0), changes.Count(one => one.By < 0));
        (int Many, string Words)[] parts =
        [
            (rises, rises == 1 ? "score rises" : "scores rise"),
            (falls, falls == 1 ? "score falls" : "scores fall"),
            (same + changes.Count - rises - falls, "as before"),
        ];
        var sentences = new List<string>
        {
            "Marked again: "
                + Counting.Joined([.. parts.Where(part => part.Many > 0).Select(part => $"{part.Many} {part.Words}")], "and")
                + ".",
        };
        sentences.AddRange(Each(plan, changes.SelectMany(one => one.Opens)).Select(one => $"{one.What} opens for {one.Whom}."));
        sentences.AddRange(Each(plan, changes.SelectMany(one => one.Closes)).Select(one => $"{one.What} closes for {one.Whom}."));
        foreach (var (what, whom, item) in Each(plan, changes.SelectMany(one => one.Stays.Select(kept => kept.Item))))
        {
            var begun = changes.Sum(one => one.Stays.Count(kept => kept.Item == item && kept.IsBegun));
            sentences.Add(
                $"{what} stays open for {whom} whom the earlier score had let in"
                    + (begun == 0 ? "." : $", {Counting.Counted(begun, "of whom has", "of whom have")} begun it.")
            );
        }
        return string.Join(' ', sentences);
    }

    private static IEnumerable<(string What, string Whom, Ref<Item> Item)> Each(EditionPlan plan, IEnumerable<Ref<Item>> items) =>
        items
            .GroupBy(item => item)
            .OrderBy(one => plan.Schedule.CodeOf[one.Key], StringComparer.Ordinal)
            .Select(one =>
                (
                    $"{plan.Schedule.CodeOf[one.Key]} {plan.Schedule.Item(one.Key).Title}",
                    Counting.Counted(one.Count(), "student", "students"),
                    one.Key
                )
            );
}
