using System.Data;
using System.Net;
using Dapper;
using NodaTime;
using Npgsql;
using Npgsql.NameTranslation;
using Polycline.Core;

namespace Polycline.Data;

/// <summary>The one way to PostgreSQL: pooled connections, with the limits that every statement keeps to.</summary>
public sealed class Database : IAsyncDisposable
{
    static Database()
    {
        DefaultTypeMap.MatchNamesWithUnderscores = true;
        SqlMapper.AddTypeHandler(new Bounded<Instant>(Instant.FromUtc(1900, 1, 1, 0, 0), Instant.FromUtc(3000, 1, 1, 0, 0)));
        SqlMapper.AddTypeHandler(new Bounded<LocalDate>(new(1900, 1, 1), new(3000, 1, 1)));
        SqlMapper.AddTypeHandler(new AsIs<LocalDate[]>());
        SqlMapper.AddTypeHandler(new AsIs<string[]>());
        SqlMapper.AddTypeHandler(new AsIs<long[]>());
        SqlMapper.AddTypeHandler(new AsIs<bool[]>());
        SqlMapper.AddTypeHandler(new AsIs<Instant[]>());
        SqlMapper.AddTypeHandler(new AsIs<Instant?[]>());
        SqlMapper.AddTypeHandler(new AsIs<Guid[]>());
        SqlMapper.AddTypeHandler(new AsIs<byte[][]>());
        SqlMapper.AddTypeHandler(new AsIs<IPAddress>());
        Ids<Core.Calendars.Term>();
        Ids<Core.Courses.Master>();
        Ids<Core.Courses.Edition>();
        Ids<Core.Courses.Unit>();
        Ids<Core.Courses.Lesson>();
        Ids<Core.Courses.Item>();
        Ids<Core.Sections.Section>();
        Ids<Core.Sections.Person>();
        Ids<Courses.GroupRow>();
        Ids<Files.ItemFileRow>();
        Ids<Files.WorkFileRow>();
        Ids<Sheets.SheetRow>();
        Ids<Sheets.SheetBlockRow>();
        Ids<Notes.NoteRow>();
        Ids<CannotOpen.CannotOpenRow>();
        Ids<Courses.ListedStudent>();
        Ids<Courses.KeptRubric>();
        Ids<Terms.CalendarDayRow>();
        Ids<Ledger.Batch>();
        Ids<Work.PieceRow>();
        Ids<Quizzes.AttemptRow>();
        Ids<SectionCodes.SectionCodeRow>();
        Ids<SectionCodes.WaitingRow>();
    }

    // An id travels to and from the database as its number.
    private static void Ids<T>()
    {
        SqlMapper.AddTypeHandler(new OfId<T>());
        SqlMapper.AddTypeHandler(new OfIds<T>());
    }

    private readonly string own;

    private Database(NpgsqlDataSource source, string own) => (Source, this.own) = (source, own);

    public NpgsqlDataSource Source { get; }

    /// <summary>Opens a pool. No statement runs over 10 s, none waits for a lock over 5 s, none leaves a transaction idle.</summary>
    /// <param name="connection">An Npgsql connection string.</param>
    public static Database Open(string connection)
    {
        var settings = new NpgsqlConnectionStringBuilder(connection)
        {
            Options = "-c TimeZone=UTC -c statement_timeout=10s -c lock_timeout=5s -c idle_in_transaction_session_timeout=30s",
            Timeout = 5,
            CommandTimeout = 15,
            MaxAutoPrepare = 50,
            AutoPrepareMinUsages = 2,
            ApplicationName = "polycline",
            // Nothing that is done on a connection of the pool outlasts its transaction.
            NoResetOnClose = true,
        };
        var builder = new NpgsqlDataSourceBuilder(settings.ConnectionString);
        builder.UseNodaTime();
        builder.DefaultNameTranslator = new NpgsqlSnakeCaseNameTranslator();
        return new(builder.Build(), new NpgsqlConnectionStringBuilder(settings.ConnectionString) { Pooling = false }.ConnectionString);
    }

    /// <summary>A connection that never goes back to the pool, for whoever listens on it.</summary>
    public async Task<NpgsqlConnection> OpenOwn(CancellationToken stop)
    {
        var connection = new NpgsqlConnection(own);
        try
        {
            await connection.OpenAsync(stop);
            return connection;
        }
        catch
        {
            await connection.DisposeAsync();
            throw;
        }
    }

    /// <summary>Runs <paramref name="work"/> on a connection of its own, outside a transaction.</summary>
    public async Task<T> Read<T>(Func<NpgsqlConnection, Task<T>> work, CancellationToken stop)
    {
        await using var connection = await Source.OpenConnectionAsync(stop);
        return await work(connection);
    }

    /// <summary>Runs <paramref name="work"/> in one transaction and commits it where <paramref name="work"/> returns.</summary>
    public async Task<T> Within<T>(IsolationLevel isolation, Func<NpgsqlConnection, Task<T>> work, CancellationToken stop)
    {
        await using var connection = await Source.OpenConnectionAsync(stop);
        await using var transaction = await connection.BeginTransactionAsync(isolation, stop);
        var result = await work(connection);
        await transaction.CommitAsync(stop);
        return result;
    }

    public ValueTask DisposeAsync() => Source.DisposeAsync();

    // Npgsql's NodaTime plug-in reads and writes these types itself; Dapper only has to let them through.
    private sealed class AsIs<T> : SqlMapper.TypeHandler<T>
    {
        public override void SetValue(IDbDataParameter parameter, T? value) => parameter.Value = value;

        public override T Parse(object value) => (T)value;
    }

    private sealed class OfId<T> : SqlMapper.TypeHandler<Id<T>>
    {
        public override void SetValue(IDbDataParameter parameter, Id<T> value) => parameter.Value = value.Value;

        public override Id<T> Parse(object value) => new((long)value);
    }

    private sealed class OfIds<T> : SqlMapper.TypeHandler<Id<T>[]>
    {
        public override void SetValue(IDbDataParameter parameter, Id<T>[]? value) =>
            parameter.Value = value is null ? DBNull.Value : Array.ConvertAll(value, id => id.Value);

        public override Id<T>[] Parse(object value) => Array.ConvertAll((long[])value, id => new Id<T>(id));
    }

    // No such row is written any more; an old one, endless or beyond all calendars, must not take a screen down
    // with it. The checks find it.
    private sealed class Bounded<T>(T first, T last) : SqlMapper.TypeHandler<T>
        where T : struct, IComparable<T>
    {
        public override void SetValue(IDbDataParameter parameter, T value) => parameter.Value = value;

        public override T Parse(object value) =>
            (T)value is var read && read.CompareTo(first) < 0 ? first
            : read.CompareTo(last) > 0 ? last
            : read;
    }
}
