using System.Security.Cryptography;
using System.Text;
using Npgsql;
using Polycline.Data;
using Polycline.Demo.School;

namespace Polycline.Testing;

/// <summary>
/// The throw-away PostgreSQL that <c>./polycline test</c> starts. A template with the demo school is made once a run;
/// each class clones it.
/// </summary>
public static class TestServer
{
    private const long Lock = 5_031_907_702;
    private static readonly SemaphoreSlim Once = new(1, 1);
    private static string? template;

    private static string Owner => Needed("POLYCLINE_TEST_SERVER");
    private static string App => Needed("POLYCLINE_TEST_APP");

    /// <summary>The checkout that is tested.</summary>
    public static string Root => Needed("POLYCLINE_TEST_ROOT");

    /// <summary>The application as it is started, published.</summary>
    public static string Published => Needed("POLYCLINE_TEST_PUBLISHED");

    /// <summary>A database that holds the demo school and is the caller's alone.</summary>
    public static async Task<TestDatabase> Clone()
    {
        var from = await Template();
        var name = Fresh();
        await using var connection = await Connect(Of(Owner, "postgres"));
        await Run(connection, $"CREATE DATABASE {name} TEMPLATE {from}");
        return new(name, Of(Owner, name), Of(App, name), () => Drop(name));
    }

    /// <summary>An empty database, without a schema.</summary>
    public static async Task<TestDatabase> Empty()
    {
        var name = Fresh();
        await using var connection = await Connect(Of(Owner, "postgres"));
        await Run(connection, $"CREATE DATABASE {name}");
        return new(name, Of(Owner, name), Of(App, name), () => Drop(name));
    }

    private static async Task Drop(string name)
    {
        await using var connection = await Connect(Of(Owner, "postgres"));
        await Run(connection, $"DROP DATABASE IF EXISTS {name} WITH (FORCE)");
    }

    // Made by whichever test project comes first, under a lock that all of them share.
    private static async Task<string> Template()
    {
        await Once.WaitAsync();
        try
        {
            if (template is not null)
                return template;
            var name =
                "template_"
                + Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(string.Join(' ', Builds())))).AsSpan(0, 12).ToString();
            await using var connection = await Connect(Of(Owner, "postgres"));
            await Run(connection, $"SELECT pg_advisory_lock({Lock})");
            if (await Scalar(connection, $"SELECT count(*) FROM pg_database WHERE datname = '{name}'") == 0)
            {
                await Run(connection, $"DROP DATABASE IF EXISTS {name}_raw WITH (FORCE)");
                await Run(connection, $"CREATE DATABASE {name}_raw");
                await Migrator.Migrate(Of(Owner, name + "_raw"), CancellationToken.None);
                await DemoSchool.Load(Of(Owner, name + "_raw"), CancellationToken.None);
                NpgsqlConnection.ClearAllPools();
                await Run(connection, $"ALTER DATABASE {name}_raw RENAME TO {name}");
            }
            await Run(connection, $"SELECT pg_advisory_unlock({Lock})");
            return template = name;
        }
        finally
        {
            Once.Release();
        }
    }

    private static IEnumerable<string> Builds() =>
        new[] { typeof(Migrator), typeof(DemoSchool) }.Select(type => type.Module.ModuleVersionId.ToString());

    private static string Fresh() => "t" + Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(8));

    private static string Of(string server, string database) =>
        new NpgsqlConnectionStringBuilder(server)
        {
            Database = database,
            MaxPoolSize = 30,
            IncludeErrorDetail = true,
        }.ConnectionString;

    private static async Task<NpgsqlConnection> Connect(string connectionString)
    {
        var connection = new NpgsqlConnection(
            new NpgsqlConnectionStringBuilder(connectionString) { Pooling = false, CommandTimeout = 120 }.ConnectionString
        );
        await connection.OpenAsync();
        return connection;
    }

    private static async Task Run(NpgsqlConnection connection, string statement)
    {
        await using var command = new NpgsqlCommand(statement, connection);
        await command.ExecuteNonQueryAsync();
    }

    private static async Task<long> Scalar(NpgsqlConnection connection, string statement)
    {
        await using var command = new NpgsqlCommand(statement, connection);
        return (long)(await command.ExecuteScalarAsync())!;
    }

    private static string Needed(string variable) =>
        Environment.GetEnvironmentVariable(variable)
        ?? throw new InvalidOperationException(
            $"{variable} is not set. Run the tests with ./polycline test, which starts a PostgreSQL of their own."
        );
}

/// <summary>A database of one test.</summary>
/// <param name="Owner">A connection string of the role that owns the schema.</param>
/// <param name="App">A connection string of the application's role.</param>
/// <param name="Drop">Throws it away.</param>
public sealed record TestDatabase(string Name, string Owner, string App, Func<Task> Drop) : IAsyncDisposable
{
    /// <summary>The same, for a second school that leaves it to the first to drop it.</summary>
    public TestDatabase Shared() => this with { Drop = () => Task.CompletedTask };

    public async ValueTask DisposeAsync()
    {
        NpgsqlConnection.ClearAllPools();
        await Drop();
    }
}
