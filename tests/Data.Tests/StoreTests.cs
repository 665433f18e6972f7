using System.Data;
using System.Net;
using System.Security.Cryptography;
using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Feeds;
using Polycline.Data.Files;
using Polycline.Data.People;
using Polycline.Data.Requests;
using Polycline.Data.Sections;
using Polycline.Data.Students;
using Polycline.Data.Work;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Data;

/// <summary>Stores by themselves, on the demo school: what they keep, what they let wait, and what they let go.</summary>
public sealed class StoreTests : IAsyncLifetime
{
    private static readonly Instant At = Instant.FromUtc(2026, 10, 8, 9, 15);
    private TestDatabase test = null!;
    private Database database = null!;
    private Id<Person> student;
    private Id<Person> teacher;
    private Id<Section> section;
    private Id<Item> item;

    public async ValueTask InitializeAsync()
    {
        test = await TestServer.Clone();
        database = Database.Open(test.App);
        // A task that is nobody's yet, a section, one of its students, and one of its teachers.
        (student, section, teacher, item) = await Ask(connection =>
            connection.QuerySingleAsync<(Id<Person>, Id<Section>, Id<Person>, Id<Item>)>(
                """
                SELECT n.person, n.section, st.person, (SELECT min(i.id) FROM item i
                    WHERE i.edition = c.edition AND i.kind = 'task' AND NOT EXISTS (SELECT 1 FROM fact f WHERE f.item = i.id)
                      AND NOT EXISTS (SELECT 1 FROM draft d WHERE d.item = i.id)
                      AND NOT EXISTS (SELECT 1 FROM opened o WHERE o.item = i.id))
                FROM enrolment n JOIN section c ON c.id = n.section JOIN edition e ON e.id = c.edition AND e.state = 'current'
                JOIN section_teacher st ON st.section = c.id
                ORDER BY n.id LIMIT 1
                """
            )
        );
    }

    private static Written Text(string text) => new(text, [], [], [], new Dictionary<Id<WorkFileRow>, string>());

    public async ValueTask DisposeAsync()
    {
        await database.DisposeAsync();
        await test.DisposeAsync();
    }

    [Fact]
    public async Task Two_hand_ins_of_one_piece_at_once_are_numbered_one_after_the_other_and_the_draft_is_gone()
    {
        (await Ask(connection => WorkStore.SaveDraft(connection, student, item, Text("So far"), 0, At))).ShouldBe(1);
        var numbers = await Task.WhenAll(
            Enumerable
                .Range(0, 4)
                .Select(n =>
                    Within(connection =>
                        HandInStore.HandIn(connection, student, item, section, Text($"Piece {n}"), At, null, Guid.NewGuid())
                    )
                )
        );
        numbers.Order().ShouldBe([1, 2, 3, 4]);
        var own = await Ask(connection => WorkStore.Of(connection, student, item, At));
        own.Draft.ShouldBeNull();
        own.Versions.Select(version => version.N).ShouldBe([4, 3, 2, 1]);
        (
            await Ask(connection =>
                connection.ExecuteScalarAsync<int>(
                    "SELECT count(*)::int FROM fact WHERE person = @student AND item = @item AND event = 'submitted'",
                    new { student, item }
                )
            )
        ).ShouldBe(4);
        // Seen from before, there was nothing.
        (await Ask(connection => WorkStore.Of(connection, student, item, At - Duration.FromSeconds(1)))).Versions.ShouldBeEmpty();
    }

    [Fact]
    public async Task Of_two_pages_that_write_one_draft_the_later_reader_wins_and_what_came_too_late_is_kept_as_one()
    {
        (await Ask(connection => WorkStore.SaveDraft(connection, student, item, Text("One"), 0, At))).ShouldBe(1);
        (await Ask(connection => WorkStore.SaveDraft(connection, student, item, Text("One and two"), 1, At))).ShouldBe(2);
        (await Ask(connection => WorkStore.SaveDraft(connection, student, item, Text("Lost"), 1, At))).ShouldBeNull();
        var claimed = At - Duration.FromMinutes(5);
        await Ask(async connection =>
        {
            await WorkStore.KeepMissed(connection, student, item, Text("All of it"), At, claimed);
            return true;
        });
        var draft = (await Ask(connection => WorkStore.Of(connection, student, item, At))).Draft!;
        (draft.Text, draft.MissedAt, draft.ClaimedAt).ShouldBe(("All of it", At, claimed));
    }

    [Fact]
    public async Task Whoever_sends_a_key_that_is_taken_waits_for_its_answer_and_has_it_to_themselves_where_that_was_given_up()
    {
        var asked = SHA256.HashData("asked"u8);
        foreach (var through in new[] { true, false })
        {
            var key = Guid.NewGuid();
            await using var first = await database.Source.OpenConnectionAsync(TestContext.Current.CancellationToken);
            await using var transaction = await first.BeginTransactionAsync(TestContext.Current.CancellationToken);
            (await RequestStore.Claim(first, student, key, asked, At)).ShouldBeNull();
            var second = Within(connection => RequestStore.Claim(connection, student, key, asked, At));
            await RequestStore.Keep(first, student, key, 200, """{"n":1}""");
            second.IsCompleted.ShouldBeFalse();
            if (through)
                await transaction.CommitAsync(TestContext.Current.CancellationToken);
            else
                await transaction.RollbackAsync(TestContext.Current.CancellationToken);
            var kept = await second;
            if (through)
                (kept!.Answer!.Replace(" ", "", StringComparison.Ordinal), kept.Asked.SequenceEqual(asked)).ShouldBe(("""{"n":1}""", true));
            else
                kept.ShouldBeNull();
        }
        // Somebody else's key of the same number is theirs.
        var shared = Guid.NewGuid();
        (await Within(connection => RequestStore.Claim(connection, student, shared, asked, At))).ShouldBeNull();
        (await Within(connection => RequestStore.Claim(connection, teacher, shared, asked, At))).ShouldBeNull();
    }

    [Fact]
    public async Task An_opening_is_recorded_once_and_the_first_record_stands()
    {
        (Id<Section>, Id<Item>, Instant, Instant?) Opening(Instant due) => (section, item, At, due);
        (await Ask(connection => OpenedStore.Add(connection, [Opening(At)], At))).ShouldBe(1);
        (await Ask(connection => OpenedStore.Add(connection, [Opening(At + Duration.FromDays(1))], At))).ShouldBe(0);
        (
            await Ask(connection =>
                connection.ExecuteScalarAsync<Instant>(
                    "SELECT due FROM opened WHERE section = @section AND item = @item",
                    new { section, item }
                )
            )
        ).ShouldBe(At);
        (await Ask(connection => OpenedStore.Add(connection, [], At))).ShouldBe(0);
    }

    [Fact]
    public async Task A_link_leads_nowhere_once_it_is_withdrawn_or_its_owner_no_longer_teaches_the_section()
    {
        var (one, other) = (SHA256.HashData("one"u8), SHA256.HashData("other"u8));
        foreach (var hash in new[] { one, other })
        {
            await Ask(async connection =>
            {
                await LinkStore.Withdraw(connection, teacher, "section-calendar", section, At);
                await LinkStore.Add(connection, hash, teacher, "section-calendar", section, At);
                return true;
            });
            (await Ask(connection => LinkStore.Find(connection, hash)))!.Section.ShouldBe(section);
        }
        (await Ask(connection => LinkStore.Find(connection, one))).ShouldBeNull();
        (await Ask(connection => LinkStore.Of(connection, teacher))).Count(choice => choice.MadeAt is not null).ShouldBe(1);
        await using var owner = new NpgsqlConnection(test.Owner);
        await owner.ExecuteAsync(
            "DELETE FROM section_teacher WHERE section = @section AND person = @teacher",
            new { section = section.Value, teacher = teacher.Value }
        );
        (await Ask(connection => LinkStore.Find(connection, other))).ShouldBeNull();
    }

    [Fact]
    public async Task Sessions_tries_and_answers_are_kept_as_long_as_they_count()
    {
        byte[] Token(string of) => SHA256.HashData(System.Text.Encoding.ASCII.GetBytes(of));
        var address = IPAddress.Parse("::1");
        async Task Start(string of, Instant now) =>
            await Within(async connection =>
            {
                await SessionStore.CountTry(connection, "orla", address, null, now, now - Duration.FromMinutes(15));
                await SessionStore.Start(
                    connection,
                    teacher,
                    "orla",
                    address,
                    Token(of),
                    Token("browser"),
                    now,
                    now + Duration.FromDays(14)
                );
                return true;
            });
        await Start("old", At - Duration.FromDays(15));
        await Start("new", At);
        await Within(async connection =>
        {
            await RequestStore.Claim(connection, teacher, Guid.NewGuid(), [1], At - Duration.FromDays(8));
            return true;
        });
        (await Ask(connection => SessionStore.Sweep(connection, At))).ShouldBeGreaterThan(0);
        (
            await Ask(connection =>
                connection.ExecuteScalarAsync<int>(
                    "SELECT count(*)::int FROM session WHERE token_hash = ANY(@tokens)",
                    new { tokens = new[] { Token("old"), Token("new") } }
                )
            )
        ).ShouldBe(1);
        (await Ask(connection => connection.ExecuteScalarAsync<int>("SELECT count(*)::int FROM request"))).ShouldBe(0);
    }

    [Fact]
    public async Task A_student_is_known_as_they_were_at_a_moment()
    {
        var edition = await Ask(connection =>
            connection.ExecuteScalarAsync<long>("SELECT edition FROM section WHERE id = @section", new { section })
        );
        var plan = (await EditionStore.Read(database, new(edition), CancellationToken.None))!;
        await Within(connection => HandInStore.HandIn(connection, student, item, section, Text("All of it"), At, null, Guid.NewGuid()));
        async Task<int> Known(Instant at)
        {
            var (records, _) = await Ask(connection => StudentStore.Read(connection, plan, [student], at));
            return records[student].Facts.All.Count(fact => fact.Item.Name == plan.Row(item)!.Lineage);
        }
        (await Known(At - Duration.FromSeconds(1))).ShouldBe(0);
        (await Known(At)).ShouldBe(1);
        // Whoever is in no section of the course has a record all the same, with nothing in it.
        var (nobody, _) = await Ask(connection => StudentStore.Read(connection, plan, [teacher], At));
        nobody[teacher].Enrolments.ShouldBeEmpty();
    }

    private Task<T> Ask<T>(Func<NpgsqlConnection, Task<T>> ask) => database.Read(ask, CancellationToken.None);

    private Task<T> Within<T>(Func<NpgsqlConnection, Task<T>> work) =>
        database.Within(IsolationLevel.ReadCommitted, work, CancellationToken.None);
}
