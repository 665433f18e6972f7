using Dapper;
using Npgsql;
using Polycline.Data;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Data;

public sealed class SchemaTests
{
    [Fact]
    public async Task Two_that_start_at_once_migrate_once_between_them()
    {
        await using var empty = await TestServer.Empty();
        var applied = await Task.WhenAll(
            Enumerable.Range(0, 4).Select(_ => Task.Run(() => Migrator.Migrate(empty.Owner, CancellationToken.None)))
        );
        applied.Count(list => list.Count > 0).ShouldBe(1);
        Migrator.IsBehind(empty.Owner).ShouldBeFalse();
        await using var connection = new NpgsqlConnection(empty.Owner);
        var journal = await connection.QueryAsync<string>("SELECT scriptname FROM migration");
        journal.Order().ShouldBe(applied.Single(list => list.Count > 0).Order());
    }

    [Theory]
    [InlineData("change")]
    [InlineData("batch")]
    [InlineData("audit")]
    public async Task What_is_never_undone_the_application_can_neither_update_nor_delete(string table)
    {
        await using var database = await TestServer.Clone();
        await using var connection = new NpgsqlConnection(database.App);
        foreach (
            var statement in new[]
            {
                $"UPDATE {table} SET at = at",
                $"DELETE FROM {table}",
                $"TRUNCATE {table}",
                $"ALTER TABLE {table} ADD extra int",
            }
        )
        {
            var refused = await Should.ThrowAsync<PostgresException>(() =>
                connection.ExecuteAsync(statement.Replace("change SET at = at", "change SET n = n", StringComparison.Ordinal))
            );
            refused.SqlState.ShouldBe(PostgresErrorCodes.InsufficientPrivilege, statement);
        }
    }

    [Fact]
    public async Task Nothing_stands_twice_in_two_sections_rosters_at_once()
    {
        await using var database = await TestServer.Clone();
        await using var connection = new NpgsqlConnection(database.Owner);
        var refused = await Should.ThrowAsync<PostgresException>(() =>
            connection.ExecuteAsync(
                "INSERT INTO enrolment (section, person, period) SELECT section, person, "
                    + "'[2026-10-01,2026-10-02]' FROM enrolment WHERE upper_inf(period) LIMIT 1"
            )
        );
        refused.SqlState.ShouldBe(PostgresErrorCodes.ExclusionViolation);
    }

    [Fact]
    public async Task No_statement_of_the_application_runs_or_waits_for_ever()
    {
        await using var test = await TestServer.Clone();
        await using var database = Database.Open(test.App);
        var limits = await database.Read(
            async connection =>
                (
                    await connection.ExecuteScalarAsync<string>("SHOW statement_timeout"),
                    await connection.ExecuteScalarAsync<string>("SHOW lock_timeout"),
                    await connection.ExecuteScalarAsync<string>("SHOW TimeZone")
                ),
            CancellationToken.None
        );
        limits.ShouldBe(("10s", "5s", "UTC"));
    }

    [Fact]
    public void Every_statement_file_is_asked_for_by_the_code()
    {
        var sources = string.Concat(
            Directory
                .EnumerateFiles(Path.Combine(TestServer.Root, "src/Polycline.Data"), "*.cs", SearchOption.AllDirectories)
                .Select(File.ReadAllText)
        );
        var files = typeof(Sql)
            .Assembly.GetManifestResourceNames()
            .Where(name => !name.StartsWith("Migrations/", StringComparison.Ordinal))
            .ToList();
        files.ShouldNotBeEmpty();
        foreach (var file in files)
            sources.ShouldContain($"\"{Path.GetFileNameWithoutExtension(file)}\"");
    }
}
