using System.Data;
using System.Diagnostics;
using System.Text.Json.Nodes;
using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Data;
using Polycline.Data.Ledger;
using Polycline.Data.Verify;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Data;

/// <summary>Changes applied, logged, taken back; and the checks that the log and the rows agree.</summary>
public sealed class LedgerTests : IAsyncLifetime
{
    private static readonly Instant At = Instant.FromUtc(2026, 10, 8, 9, 15);
    private TestDatabase test = null!;
    private Database database = null!;
    private long edition;
    private long author;

    public async ValueTask InitializeAsync()
    {
        test = await TestServer.Clone();
        database = Database.Open(test.App);
        (edition, author) = await Ask(connection =>
            connection.QuerySingleAsync<(long, long)>(
                "SELECT (SELECT max(id) FROM edition WHERE state = 'current'), (SELECT min(id) FROM person)"
            )
        );
    }

    public async ValueTask DisposeAsync()
    {
        await database.DisposeAsync();
        await test.DisposeAsync();
    }

    [Fact]
    public async Task A_change_writes_the_row_its_log_and_the_counter_and_nothing_else()
    {
        var (id, title) = await Item();
        var before = await Ask(connection =>
            connection.ExecuteScalarAsync<long>("SELECT version FROM edition WHERE id = @edition", new { edition })
        );
        var applied = await Apply(Rename(id, title, "Named anew"));
        applied.Version.ShouldBe(before + 1);
        var logged = await Ask(connection => LedgerStore.Find(connection, Scope, applied.Id));
        logged!.Value.Head.Words.ShouldBe("tested");
        logged.Value.Changes.Single().After!.ToJsonString().ShouldBe("""{"title":"Named anew"}""");
        (
            await Ask(connection =>
                connection.QuerySingleAsync<(string, long)>("SELECT title, version FROM item WHERE id = @id", new { id })
            )
        ).ShouldBe(("Named anew", 2));
        (await Verifier.Run(test.Owner, CancellationToken.None)).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_row_that_was_changed_meanwhile_is_left_alone_and_shown()
    {
        var (id, title) = await Item();
        await Apply(Rename(id, title, "First"));
        var stale = await Should.ThrowAsync<StaleChangeException>(() => Apply(Rename(id, title, "Second")));
        stale.Present!["title"]!.GetValue<string>().ShouldBe("First");
        var later = await Ask(connection => LedgerStore.LastChange(connection, stale.Change));
        later!.Words.ShouldBe("tested");
        (await Verifier.Run(test.Owner, CancellationToken.None)).ShouldBeEmpty();
    }

    [Fact]
    public async Task New_rows_gone_rows_and_tombstones_are_taken_back_and_forth_again()
    {
        var (section, target) = await Ask(connection =>
            connection.QuerySingleAsync<(long, Guid)>(
                "SELECT (SELECT min(id) FROM section), (SELECT lineage FROM item WHERE edition = @edition LIMIT 1)",
                new { edition }
            )
        );
        var before = await Adjustments();
        Change Due(JsonNode? value) =>
            Change.Add(
                Tables.Adjustments.Section.Is(new(section)),
                Tables.Adjustments.Target.Is($"{target}"),
                Tables.Adjustments.Field.Is("due"),
                Tables.Adjustments.Value.Is(value)
            );
        var added = await Apply(Due(new JsonObject { ["at"] = "lesson-end" }));
        await Apply(await Inverse(added.Id));
        (await Adjustments()).ShouldBe(before);
        var again = await Apply(Due(null));
        var gone = await Apply(await Inverse(again.Id));
        await Apply(await Inverse(gone.Id));
        (await Adjustments()).ShouldBe(before + 1);

        var unit = await Ask(connection =>
            connection.ExecuteScalarAsync<long>("SELECT min(id) FROM unit WHERE edition = @edition", new { edition })
        );
        var made = await Apply(
            Change.Add(
                Tables.Items.Edition.Is(new(edition)),
                Tables.Items.Unit.Is(new(unit)),
                Tables.Items.Lineage.Is($"{Guid.NewGuid()}"),
                Tables.Items.Rank.Is("zz"),
                Tables.Items.Kind.Is("page"),
                Tables.Items.Purpose.Is("to-read"),
                Tables.Items.Title.Is("Added")
            )
        );
        var removed = await Apply(await Inverse(made.Id));
        (
            await Ask(connection => connection.ExecuteScalarAsync<bool>("SELECT removed_at IS NOT NULL FROM item WHERE title = 'Added'"))
        ).ShouldBeTrue();
        await Apply(await Inverse(removed.Id));
        (
            await Ask(connection => connection.ExecuteScalarAsync<bool>("SELECT removed_at IS NULL FROM item WHERE title = 'Added'"))
        ).ShouldBeTrue();
        (await Verifier.Run(test.Owner, CancellationToken.None)).ShouldBeEmpty();

        Task<int> Adjustments() => Ask(connection => connection.ExecuteScalarAsync<int>("SELECT count(*)::int FROM adjustment"));
    }

    [Fact]
    public async Task An_edition_at_rest_refuses_changes_to_its_tree()
    {
        var resting = await Ask(connection => connection.ExecuteScalarAsync<long>("SELECT id FROM edition WHERE state = 'resting'"));
        var (id, title) = await Ask(connection =>
            connection.QueryFirstAsync<(long, string)>("SELECT id, title FROM item WHERE edition = @resting", new { resting })
        );
        (await Should.ThrowAsync<PostgresException>(() => Apply(Rename(id, title, "No")))).SqlState.ShouldBe("PC001");
    }

    [Fact]
    public void A_change_is_of_one_table_and_its_columns_are_those_of_the_schema()
    {
        Should.Throw<ArgumentException>(() => Change.Set(Tables.Items.Table, new Id<Item>(1), 1, Tables.Units.Title.Turns("a", "b")));
        Should.Throw<ArgumentException>(() => Change.Add(Tables.Units.Title.Is("a"), Tables.Items.Title.Is("a")));
    }

    [Fact]
    public async Task Every_table_of_the_ledger_is_as_the_schema_has_it()
    {
        foreach (var table in Tables.All)
        {
            var columns = await Ask(connection =>
                connection.QueryAsync<string>(
                    "SELECT column_name FROM information_schema.columns WHERE table_schema = 'public' AND table_name = @Name",
                    new { table.Name }
                )
            );
            table.Fields.Concat(table.Key).Append(table.Version).Except(columns).ShouldBeEmpty(table.Name);
        }
    }

    [Fact]
    public async Task A_batch_of_any_size_is_one_round_trip_and_whole_or_not_at_all()
    {
        var items = await Ask(connection =>
            connection.QueryAsync<(long Id, string Title)>(
                "SELECT i.id, i.title FROM item i JOIN edition e ON e.id = i.edition WHERE e.state <> 'resting' AND i.removed_at IS NULL"
            )
        );
        var changes = items.Select(item => Rename(item.Id, item.Title, item.Title + "!")).ToArray();
        changes.Length.ShouldBeGreaterThan(50);
        var trips = 0;
        using var listener = new ActivityListener
        {
            ShouldListenTo = source => source.Name == "Npgsql",
            Sample = (ref ActivityCreationOptions<ActivityContext> _) => ActivitySamplingResult.AllData,
            ActivityStopped = activity =>
                trips += $"{activity.GetTagItem("db.query.text")}".Contains("INSERT INTO change", StringComparison.Ordinal) ? 1 : 0,
        };
        ActivitySource.AddActivityListener(listener);
        var done = await Apply(changes);
        trips.ShouldBe(1);
        (await Ask(connection => LedgerStore.Find(connection, Scope, done.Id)))!.Value.Changes.Count.ShouldBe(changes.Length);
        // The last of as many is too late: none is written, and which it was is told.
        var again = items.Select(item => Rename(item.Id, item.Title + "!", item.Title, 2)).ToArray();
        again[^1] = again[^1] with { Version = 1 };
        (await Should.ThrowAsync<StaleChangeException>(() => Apply(again))).Change.ShouldBe(again[^1]);
        var standing = await Ask(connection => LedgerStore.Standing(connection, changes, done.Id));
        standing.ShouldEachBe(row => row.Later == null && row.Present!["title"]!.GetValue<string>().EndsWith('!'));
        (await Verifier.Run(test.Owner, CancellationToken.None)).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("LogFolds", "UPDATE item SET title = 'written past the log' WHERE title = 'Named anew'")]
    [InlineData("LogIsUnbroken", "UPDATE change SET before = '{\"title\": \"never was\"}' WHERE batch = (SELECT max(id) FROM batch)")]
    [InlineData("CountersFollowLog", "UPDATE edition SET version = 1")]
    [InlineData("SectionsShareTheTerm", "UPDATE section SET term = (SELECT min(id) FROM term) WHERE name = '9 Birch'")]
    public async Task What_no_constraint_can_see_is_found(string check, string harm)
    {
        var (id, title) = await Item();
        await Apply(Rename(id, title, "In between"));
        await Apply(Rename(id, "In between", "Named anew", 2));
        await using var owner = new NpgsqlConnection(test.Owner);
        await owner.ExecuteAsync(harm);
        var faults = await Verifier.Run(test.Owner, CancellationToken.None);
        faults.Select(fault => fault.Check).Distinct().ShouldBe([check]);
    }

    private Scope Scope => Scope.Of(new Id<Edition>(edition));

    private static Change Rename(long id, string from, string to, long version = 1) =>
        Change.Set(Tables.Items.Table, new Id<Item>(id), version, Tables.Items.Title.Turns(from, to));

    private Task<T> Ask<T>(Func<NpgsqlConnection, Task<T>> ask) => database.Read(ask, CancellationToken.None);

    private Task<(long Id, string Title)> Item() =>
        Ask(connection =>
            connection.QueryFirstAsync<(long, string)>("SELECT id, title FROM item WHERE edition = @edition ORDER BY id", new { edition })
        );

    private Task<AppliedBatch> Apply(params Change[] changes) =>
        database.Within(
            IsolationLevel.ReadCommitted,
            connection => LedgerStore.Apply(connection, new(Scope, "test", "tested", new(author), At, null), changes),
            CancellationToken.None
        );

    private Task<Change> Inverse(Id<Batch> batch) =>
        Ask(async connection =>
        {
            var change = (await LedgerStore.Find(connection, Scope, batch))!.Value.Changes.Single();
            var present = await LedgerStore.Present(connection, change);
            return LedgerStore.Inverse(change, present?["version"]?.GetValue<long>() ?? 0, At);
        });
}
