using System.Collections.Concurrent;
using System.Net;
using System.Text;
using Dapper;
using Polycline.Data;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Foundation.AccessControl;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>These take the whole machine, and are run when the others are done.</summary>
[CollectionDefinition(nameof(LossTests), DisableParallelization = true)]
public sealed class Alone;

/// <summary>What a student has written is never lost: not with the database gone, not with the server killed.</summary>
[Collection(nameof(LossTests))]
public sealed class LossTests
{
    [Fact]
    public async Task With_the_database_gone_the_page_says_so_keeps_the_text_and_hands_it_in_once()
    {
        await using var cluster = await OwnCluster.Start();
        await using var school = new PublishedSchool(cluster.Database) { Instances = 2 };
        await school.InitializeAsync();
        using var davit = new Person(school.Addresses[0]);
        davit.Expected.AddRange([503]);
        davit.ComeIn("Davit Lindqvist");
        davit.Press(davit.See("//a[contains(., 'Cloud diary')]"));
        davit.See("#writing").SendKeys("Monday: flat and grey.");
        davit.SeeText("Saved.");
        var sky = Path.Combine(Directory.CreateTempSubdirectory("polycline-").FullName, "sky.csv");
        await File.WriteAllTextAsync(sky, "day,eighths\nMon,6\n");
        davit.All("input[type=file]").Single().SendKeys(sky);
        davit.See("//button[@aria-label = 'Remove sky.csv']");
        await cluster.Stop();
        davit.See("#writing").SendKeys(" Tuesday: heaps.");
        davit.SeeText("What you write is kept on this device until it does.");
        davit.Press(davit.See("//button[normalize-space() = 'Hand in']"));
        davit.SeeText("is sent, once, as soon as it does");
        await cluster.StartAgain();
        davit.SeeText("with your teacher", patience: TimeSpan.FromSeconds(30));
        davit.SeeText("Monday: flat and grey. Tuesday: heaps.");
        await using var database = Database.Open(cluster.Database.Owner);
        var handed = await database.Read(
            connection =>
                connection.QueryAsync<string>(
                    "SELECT v.text || coalesce((SELECT f.name FROM work_file f WHERE v.files = ARRAY[f.id]), '') "
                        + "FROM work_version v JOIN work w ON w.id = v.work JOIN person p ON p.id = "
                        + "w.person JOIN item i ON i.id = w.item WHERE p.name = @name AND i.title = 'Cloud diary'",
                    new { name = DemoPeople.HeldUp }
                ),
            CancellationToken.None
        );
        handed.ShouldBe(["Monday: flat and grey. Tuesday: heaps.sky.csv"]);
    }

    [Fact]
    public async Task A_thousand_hand_ins_with_files_sent_twice_while_servers_are_killed_exist_exactly_once()
    {
        const int Students = 20,
            Each = 50;
        await using var school = new TwoInstances();
        await school.InitializeAsync();
        await using var database = Database.Open(school.Database.Owner);
        var (section, item) = await database.Read(
            connection =>
                connection.QuerySingleAsync<(long, long)>(
                    "SELECT c.id, i.id FROM section c JOIN item i ON i.edition = "
                        + "c.edition WHERE c.name = '9 Alder' AND i.title = 'Cloud diary'"
                ),
            CancellationToken.None
        );
        var emails = (
            await database.Read(
                connection =>
                    connection.QueryAsync<string>(
                        "SELECT p.email::text FROM enrolment n JOIN person p ON p.id = n.person WHERE "
                            + "n.section = @section AND upper_inf(n.period) ORDER BY p.id LIMIT @Students",
                        new { section, Students }
                    ),
                CancellationToken.None
            )
        ).ToList();
        var before = await Count(database, "SELECT count(*) FROM work_version");
        var acknowledged = new ConcurrentDictionary<Guid, byte>();
        using var finished = new CancellationTokenSource();
        var killing = Kill(school, acknowledged, finished.Token);
        await Task.WhenAll(emails.Select((email, n) => HandInAll(school, email, n % 2, section, item, Each, acknowledged)));
        await finished.CancelAsync();
        (await killing).ShouldBeGreaterThan(0);

        acknowledged.Count.ShouldBe(Students * Each);
        (await Count(database, "SELECT count(*) FROM work_version")).ShouldBe(before + (Students * Each));
        (
            await Count(
                database,
                "SELECT count(DISTINCT request) FROM work_version WHERE request = ANY(@keys)",
                new { keys = acknowledged.Keys.ToArray() }
            )
        ).ShouldBe(Students * Each);
        // Each has its file, whole: the bytes are what its text says.
        (
            await Count(
                database,
                """
                SELECT count(*) FROM work_version v
                JOIN work_file f ON v.files = ARRAY[f.id]
                JOIN file_part p ON p.file = f.file AND p.n = 0
                JOIN file_chunk c ON c.hash = p.chunk
                WHERE v.request = ANY(@keys) AND convert_from(c.bytes, 'UTF8') = v.text
                """,
                new { keys = acknowledged.Keys.ToArray() }
            )
        ).ShouldBe(Students * Each);
        // No half rows: each version has its fact, each fact its version, and versions of a piece are numbered without a gap.
        (
            await Count(
                database,
                """
                SELECT count(*) FROM work_version v JOIN work w ON w.id = v.work
                FULL JOIN (SELECT * FROM fact WHERE event = 'submitted' AND request = ANY(@keys)) f
                  ON f.request = v.request AND f.person = w.person
                WHERE (v.request = ANY(@keys) OR f.request IS NOT NULL) AND (v.request IS NULL OR f.request IS NULL)
                """,
                new { keys = acknowledged.Keys.ToArray() }
            )
        ).ShouldBe(0);
        (
            await Count(database, "SELECT count(*) FROM (SELECT work FROM work_version GROUP BY work HAVING max(n) <> count(*)) gaps")
        ).ShouldBe(0);
        (await Verifier.Run(school.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
    }

    private static Task<long> Count(Database database, string sql, object? values = null) =>
        database.Read(connection => connection.ExecuteScalarAsync<long>(sql, values), CancellationToken.None);

    // Kills one instance, then the other, each time some hundred more have been acknowledged.
    private static async Task<int> Kill(PublishedSchool school, ConcurrentDictionary<Guid, byte> acknowledged, CancellationToken finished)
    {
        var chance = new Random(20261008);
        var kills = 0;
        var next = chance.Next(60, 260);
        using var timer = new PeriodicTimer(TimeSpan.FromMilliseconds(20));
        while (kills < 4 && !finished.IsCancellationRequested && await timer.WaitForNextTickAsync(CancellationToken.None))
        {
            if (acknowledged.Count < next)
                continue;
            await school.KillAndStart(kills % 2);
            kills++;
            next = acknowledged.Count + chance.Next(60, 260);
        }
        return kills;
    }

    // Sends each hand-in until it is acknowledged, and then once more.
    private static async Task HandInAll(
        PublishedSchool school,
        string email,
        int instance,
        long section,
        long item,
        int count,
        ConcurrentDictionary<Guid, byte> acknowledged
    )
    {
        using var caller = await SignedIn(school, instance, email);
        for (var n = 0; n < count; n++)
        {
            var (key, text) = (Guid.NewGuid(), $"Piece {n} of {email}");
            var body = new
            {
                item,
                text,
                pressedAt = (string?)null,
                files = new[] { new { id = (long?)null, upload = await SendFile(school, instance, caller, $"{n}.txt", text) } },
            };
            var first = await Until(school, instance, () => caller.Post($"/api/sections/{section}/hand-in", body, key));
            var again = await Until(school, instance, () => caller.Post($"/api/sections/{section}/hand-in", body, key));
            again.Text.ShouldBe(first.Text);
            acknowledged.TryAdd(key, 0).ShouldBeTrue();
        }
    }

    /// <summary>Somebody at one of the instances, who tries until they are in.</summary>
    internal static async Task<Caller> SignedIn(PublishedSchool school, int instance, string email)
    {
        var caller = new Caller(school.Addresses[instance]);
        var signedIn = await Until(school, instance, () => caller.Post("/api/sign-in", new { email, password = DemoPeople.Password }));
        caller.Session = signedIn
            .Message.Headers.GetValues("Set-Cookie")
            .Single(cookie => cookie.StartsWith($"{SessionCookie.Name}=", StringComparison.Ordinal))
            .Split('=', 2)[1]
            .Split(';')[0];
        return caller;
    }

    // Each step until it is answered, as a page does.
    private static async Task<Guid> SendFile(PublishedSchool school, int instance, Caller caller, string name, string text)
    {
        var bytes = Encoding.UTF8.GetBytes(text);
        var (begin, finish) = (Guid.NewGuid(), Guid.NewGuid());
        var begun = await Until(school, instance, () => caller.Post("/api/me/begin-upload", new { name, size = bytes.Length }, begin));
        var upload = begun.Json["upload"]!.GetValue<Guid>();
        await Until(school, instance, () =>
            caller.Send(HttpMethod.Put, $"/api/me/uploads/{upload}?from=0", null, request => request.Content = new ByteArrayContent(bytes))
        );
        await Until(school, instance, () => caller.Post("/api/me/finish-upload", new { upload }, finish));
        return upload;
    }

    /// <summary>Sends something until it is answered.</summary>
    internal static async Task<Reply> Until(PublishedSchool school, int instance, Func<Task<Reply>> send)
    {
        for (var tries = 0; ; tries++)
        {
            try
            {
                var reply = await send();
                if (reply.Status == HttpStatusCode.OK)
                    return reply;
                reply.Status.ShouldBe(HttpStatusCode.ServiceUnavailable, reply.Text);
            }
            catch (HttpRequestException) when (tries < 1_000)
            {
                // Killed; it comes back at the same address.
                await school.Serving(instance);
            }
        }
    }
}
