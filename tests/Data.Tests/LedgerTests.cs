using System.Data;
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
        var later = await Ask(connection => LedgerStore.LaterChange(connection, stale.Change, null));
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
        JsonObject Key() =>
            new()
            {
                ["section"] = section,
                ["target"] = target,
                ["field"] = "due",
            };
        var added = await Apply(
            new Change("adjustment", Key(), null, new() { ["value"] = new JsonObject { ["at"] = "lesson-end" } }, null)
        );
        await Apply(await Inverse(added.Id));
        (await Adjustments()).ShouldBe(before);
        var again = await Apply(new Change("adjustment", Key(), null, new() { ["value"] = null }, null));
        var gone = await Apply(await Inverse(again.Id));
        await Apply(await Inverse(gone.Id));
        (await Adjustments()).ShouldBe(before + 1);

        var unit = await Ask(connection =>
            connection.ExecuteScalarAsync<long>("SELECT min(id) FROM unit WHERE edition = @edition", new { edition })
        );
        var made = await Apply(
            new Change(
                "item",
                [],
                null,
                new()
                {
                    ["edition"] = edition,
                    ["unit"] = unit,
                    ["lineage"] = Guid.NewGuid(),
                    ["rank"] = "zz",
                    ["kind"] = "page",
                    ["purpose"] = "to-read",
                    ["title"] = "Added",
                },
                null
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

    [Theory]
    [InlineData("password_hash")]
    [InlineData("id")]
    [InlineData("title = title; DROP TABLE item; --")]
    public async Task Only_the_columns_of_the_ledger_are_ever_set(string column)
    {
        var (id, title) = await Item();
        await Should.ThrowAsync<ArgumentException>(() =>
            Apply(Change.Of("item", new Id<Item>(id), 1, new() { ["title"] = title }, new() { [column] = "x" }))
        );
        await Should.ThrowAsync<ArgumentException>(() =>
            Apply(Change.Of("person", new Id<Item>(id), 1, new() { ["name"] = title }, new() { ["name"] = "x" }))
        );
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
        await Apply(Change.Of("item", new Id<Item>(id), 2, new() { ["title"] = "In between" }, new() { ["title"] = "Named anew" }));
        await using var owner = new NpgsqlConnection(test.Owner);
        await owner.ExecuteAsync(harm);
        var faults = await Verifier.Run(test.Owner, CancellationToken.None);
        faults.Select(fault => fault.Check).Distinct().ShouldBe([check]);
    }

    private Scope Scope => Scope.Of(new Id<Edition>(edition));

    private static Change Rename(long id, string from, string to) =>
        Change.Of("item", new Id<Item>(id), 1, new() { ["title"] = from }, new() { ["title"] = to });

    private Task<T> Ask<T>(Func<NpgsqlConnection, Task<T>> ask) => database.Read(ask, CancellationToken.None);

    private Task<(long Id, string Title)> Item() =>
        Ask(connection =>
            connection.QueryFirstAsync<(long, string)>("SELECT id, title FROM item WHERE edition = @edition ORDER BY id", new { edition })
        );

    private Task<AppliedBatch> Apply(params Change[] changes) =>
        database.Within(
            IsolationLevel.ReadCommitted,
            connection => LedgerStore.Apply(connection, new(Scope, "test", "tested", author, At, null), changes),
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
