using System.Collections.Concurrent;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Data;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>A section takes a timed quiz at once while the servers are killed: every answer that was given is there, once.</summary>
[Collection(nameof(LossTests))]
public sealed class QuizLossTests
{
    private const int Students = 24;
    private const int Questions = 12;

    [Fact]
    public async Task Twenty_four_answer_a_timed_quiz_while_servers_are_killed_and_lose_nothing()
    {
        await using var school = new TwoInstances();
        await school.InitializeAsync();
        await using var database = Database.Open(school.Database.Owner);
        var (section, item) = await Rows<(long Section, long Item)>(
            database,
            "SELECT c.id, i.id FROM section c JOIN item i ON i.edition = c.edition WHERE c.name = '9 Alder' AND i.title = 'Reading scales'"
        )
            is [var only]
            ? only
            : throw new InvalidOperationException("There is one such quiz.");
        await Write(school, item);
        var emails = await Rows<string>(
            database,
            "SELECT p.email::text FROM enrolment n JOIN person p ON p.id = n.person WHERE n.section = @section AND upper_inf(n.period) "
                + "ORDER BY p.id",
            new { section }
        );
        emails.Count.ShouldBe(Students);

        var given = new ConcurrentDictionary<(string Student, string Question), bool>();
        using var finished = new CancellationTokenSource();
        var killing = Kill(school, given, finished.Token);
        var scores = await Task.WhenAll(emails.Select((email, n) => Take(school, n % 2, email, n, section, item, given)));
        await finished.CancelAsync();
        (await killing).ShouldBeGreaterThan(1);

        given.Count.ShouldBe(Students * Questions);
        var kept = await Rows<(string Email, string Question, string Answer)>(
            database,
            """
            SELECT p.email::text, r.question, r.answer::text
            FROM quiz_attempt a JOIN quiz_answer r ON r.attempt = a.id JOIN person p ON p.id = a.person
            WHERE a.item = @item AND p.email::text = ANY(@emails)
              AND a.n = (SELECT max(l.n) FROM quiz_attempt l WHERE l.item = a.item AND l.person = a.person)
            """,
            new { item, emails = emails.ToArray() }
        );
        // Sent again after a kill, an answer is kept once all the same.
        kept.Count.ShouldBe(given.Count);
        kept.ShouldAllBe(row => given[new(row.Email, row.Question)] == (row.Answer == "true"));
        // And each is marked by just these.
        scores.ShouldBe(
            Enumerable.Range(0, Students).Select(n => $"{Enumerable.Range(1, Questions).Count(q => Says(n, q))} of {Questions}")
        );
        (await Verifier.Run(school.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
    }

    // Every statement is true; who says so is another pattern for each student.
    private static bool Says(int student, int question) => ((student * 7) + (question * question)) % 5 < 3;

    private static async Task Write(PublishedSchool school, long item)
    {
        using var lead = await LossTests.SignedIn(school, 0, DemoPeople.Email(DemoPeople.Lead));
        var quiz = (await lead.Get($"/api/editions/2/items/{item}/quiz")).Json;
        var written = await lead.Post(
            "/api/editions/2/write-quiz",
            new
            {
                item,
                text = string.Join("\n\n", Enumerable.Range(1, Questions).Select(n => $"{n} is less than {n + 1}.\ntrue")),
                rules = new
                {
                    limit = 20,
                    attempts = (int?)null,
                    @using = "latest",
                    shown = "at-once",
                    outOf = (decimal?)null,
                },
                version = quiz["version"]!.GetValue<long>(),
            },
            Guid.NewGuid()
        );
        written.Status.ShouldBe(System.Net.HttpStatusCode.OK, written.Text);
    }

    // Begins, answers one question after another, each until it is acknowledged, hands in, and reads the score.
    private static async Task<string> Take(
        PublishedSchool school,
        int instance,
        string email,
        int student,
        long section,
        long item,
        ConcurrentDictionary<(string, string), bool> given
    )
    {
        using var caller = await LossTests.SignedIn(school, instance, email);
        var n = (await Do("begin-quiz", new { item }))["n"]!.GetValue<int>();
        var questions = (await Read())["running"]!["questions"]!.AsArray().Select(one => one!["id"]!.GetValue<string>()).ToList();
        for (var at = 0; at < questions.Count; at++)
        {
            var answer = Says(student, at + 1);
            await Do(
                "answer-quiz",
                new
                {
                    item,
                    n,
                    question = questions[at],
                    answer,
                }
            );
            given.TryAdd((email, questions[at]), answer).ShouldBeTrue();
        }
        await Do("end-quiz", new { item, n });
        return (await Read())["score"]!.GetValue<string>();

        async Task<JsonNode> Do(string command, object body)
        {
            var key = Guid.NewGuid();
            return (await LossTests.Until(school, instance, () => caller.Post($"/api/sections/{section}/{command}", body, key))).Json;
        }

        async Task<JsonNode> Read() =>
            (await LossTests.Until(school, instance, () => caller.Get($"/api/sections/{section}/items/{item}/quiz"))).Json;
    }

    // One instance, then the other, each time some dozens more answers have been acknowledged.
    private static async Task<int> Kill<T>(PublishedSchool school, ConcurrentDictionary<T, bool> given, CancellationToken finished)
        where T : notnull
    {
        var kills = 0;
        using var timer = new PeriodicTimer(TimeSpan.FromMilliseconds(10));
        while (kills < 3 && !finished.IsCancellationRequested && await timer.WaitForNextTickAsync(CancellationToken.None))
        {
            if (given.Count < 30 + (kills * 60))
                continue;
            await school.KillAndStart(kills % 2);
            kills++;
        }
        return kills;
    }

    private static async Task<List<T>> Rows<T>(Database database, string sql, object? values = null) =>
        [.. await database.Read(connection => connection.QueryAsync<T>(sql, values), CancellationToken.None)];
}
