using System.Diagnostics;
using System.Net;
using System.Security.Cryptography;
using System.Text;
using Dapper;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Routing;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using Npgsql;
using Polycline.Data;
using Polycline.Demo;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Host;

namespace Polycline.Testing;

/// <summary>Fenwater College in a database of its own, served by as many instances as a test asks for, through the real pipeline.</summary>
public sealed class School : IAsyncDisposable
{
    private readonly List<WebApplication> instances = [];

    private School(TestDatabase database)
    {
        Database = database;
        Owner = Data.Database.Open(database.Owner);
    }

    public TestDatabase Database { get; }

    /// <summary>The schema's owner, for what a test must see or do beside the application.</summary>
    public Database Owner { get; }

    /// <summary>Ids by what they are called: <c>person:Imke Osei</c>, <c>section:9 Alder</c>, <c>edition:Weather Watch 2026</c>.</summary>
    public IReadOnlyDictionary<string, long> Ids { get; private set; } = new Dictionary<string, long>();

    public WebApplication Instance => instances[0];

    public IReadOnlyList<WebApplication> Instances => instances;

    /// <param name="database">One that holds the demo school; null: a clone of its own.</param>
    /// <param name="clock">What time it is there; null: the demo's clock.</param>
    public static async Task<School> Open(int instances = 1, IProfile? profile = null, TestDatabase? database = null, IClock? clock = null)
    {
        var school = new School(database ?? await TestServer.Clone());
        for (var n = 0; n < instances; n++)
            await school.Start(profile ?? new DemoProfile(), clock);
        school.Ids = await school.Sql(async connection =>
            (
                await connection.QueryAsync<(string Name, long Id)>(
                    """
                    SELECT 'person:' || name, id FROM person
                    UNION ALL SELECT 'section:' || name, id FROM section
                    UNION ALL SELECT 'edition:' || m.title || ' ' || right(e.title, 4), e.id FROM edition e JOIN master m ON m.id = e.master
                    """
                )
            ).ToDictionary(row => row.Name, row => row.Id)
        );
        return school;
    }

    /// <summary>One more instance on the same database.</summary>
    public async Task<WebApplication> Start(IProfile profile, IClock? clock = null, params IReadOnlyList<IPAddress> proxies)
    {
        var app = PolyclineHost.Build(new(Database.App, "http://127.0.0.1:0", proxies), profile, clock);
        await PolyclineHost.Prepare(app);
        await app.StartAsync();
        instances.Add(app);
        return app;
    }

    public Uri Address(int instance = 0) => new(PolyclineHost.AddressOf(instances[instance]));

    /// <summary>A browser that belongs to somebody, signed in; null: to nobody.</summary>
    public async Task<Caller> As(string? person, int instance = 0)
    {
        var caller = new Caller(Address(instance));
        if (person is not null)
            caller.Session = await Session(person);
        return caller;
    }

    /// <summary>The token of a new session.</summary>
    public async Task<string> Session(string person)
    {
        var token = WebEncoders.Base64UrlEncode(RandomNumberGenerator.GetBytes(32));
        var hash = SHA256.HashData(Encoding.ASCII.GetBytes(token));
        var now = Clock.GetCurrentInstant();
        await Sql(connection =>
            connection.ExecuteAsync(
                "INSERT INTO session (token_hash, person, started_at, expires_at) VALUES (@hash, @person, @now, @until)",
                new
                {
                    hash,
                    person = Ids["person:" + person],
                    now,
                    until = now + Duration.FromDays(1),
                }
            )
        );
        return token;
    }

    /// <summary>The item of Weather Watch 2026 of that title.</summary>
    public Task<long> Item(string title) =>
        Sql(connection =>
            connection.ExecuteScalarAsync<long>(
                "SELECT id FROM item WHERE edition = @WeatherWatch AND title = @title",
                new { WeatherWatch, title }
            )
        );

    /// <summary>A unit of Weather Watch, by its title.</summary>
    public Task<long> Unit(string title) =>
        Sql(connection =>
            connection.ExecuteScalarAsync<long>(
                "SELECT id FROM unit WHERE edition = @WeatherWatch AND title = @title",
                new { WeatherWatch, title }
            )
        );

    /// <summary>The registry of everything that can be written.</summary>
    public IEnumerable<CommandEntry> Commands =>
        Instance
            .Services.GetServices<EndpointDataSource>()
            .SelectMany(source => source.Endpoints)
            .Select(endpoint => endpoint.Metadata.GetMetadata<CommandEntry>())
            .OfType<CommandEntry>();

    public IClock Clock => Instance.Services.GetRequiredService<IClock>();

    public long WeatherWatch => Ids["edition:Weather Watch 2026"];

    public Task<T> Sql<T>(Func<NpgsqlConnection, Task<T>> ask) => Owner.Read(ask, CancellationToken.None);

    /// <summary>The tables in which a text stands, in any column.</summary>
    public Task<List<string>> TablesWith(string text) =>
        Sql(async connection =>
        {
            var found = new List<string>();
            foreach (var table in await connection.QueryAsync<string>("SELECT tablename FROM pg_tables WHERE schemaname = 'public'"))
                if (
                    await connection.ExecuteScalarAsync<bool>(
                        $"SELECT EXISTS (SELECT FROM {table} t WHERE position(@text in to_jsonb(t)::text) > 0)",
                        new { text = text.Replace("\n", "\\n", StringComparison.Ordinal) }
                    )
                )
                    found.Add(table);
            return found;
        });

    /// <summary>Comes when so many statements wait for a lock in this school.</summary>
    public Task UntilWaiting(int many = 1) =>
        Until(
            async () =>
                await Sql(connection =>
                    connection.ExecuteScalarAsync<long>(
                        """
                        SELECT count(DISTINCT waiting.pid) FROM pg_locks waiting JOIN pg_locks other ON other.pid = waiting.pid
                        WHERE NOT waiting.granted AND other.database = (SELECT oid FROM pg_database WHERE datname = current_database())
                        """
                    )
                ) == many,
            $"never {many} that wait for a lock"
        );

    /// <summary>Comes when something has come to be so.</summary>
    public static async Task Until(Func<Task<bool>> isSo, string otherwise)
    {
        for (var waited = Stopwatch.StartNew(); waited.Elapsed < TimeSpan.FromSeconds(10); await Task.Yield())
            if (await isSo())
                return;
        throw new TimeoutException(otherwise);
    }

    /// <summary>How many rows each table has: two counts that are equal show that nothing was written between them.</summary>
    public Task<string> RowCounts(params string[] except) =>
        Sql(async connection =>
        {
            var tables = await connection.QueryAsync<string>("SELECT tablename FROM pg_tables WHERE schemaname = 'public' ORDER BY 1");
            // What is read of files, found of links, and who has a text open, is written whenever there is time for it.
            string[] unasked = ["file_text", "link_check", "text_writer"];
            // In one statement: it is asked before and after each command of every walk.
            var counts = tables
                .Except([.. except, .. unasked])
                .Select(table =>
                    $"SELECT '{table} ' || count(*) || ' ' || coalesce(sum(hashtextextended(t::text, 0)::numeric), 0) FROM {table} t"
                );
            // Parts of it may be counted side by side, and come in any order.
            var counted = await connection.QueryAsync<string>(string.Join(" UNION ALL ", counts));
            return string.Join('\n', counted.Order(StringComparer.Ordinal));
        });

    public async ValueTask DisposeAsync()
    {
        foreach (var instance in instances)
        {
            await instance.StopAsync();
            await instance.DisposeAsync();
        }
        await Owner.DisposeAsync();
        await Database.DisposeAsync();
    }
}

/// <summary>One school for all tests of a class, which leave it as they found it.</summary>
public sealed class SchoolOfClass : IAsyncDisposable
{
    private readonly Lazy<Task<School>> school = new(() => School.Open());

    public Task<School> Open() => school.Value;

    public async ValueTask DisposeAsync()
    {
        if (school.IsValueCreated)
            await (await school.Value).DisposeAsync();
    }
}
