using System.Diagnostics;
using Dapper;
using Npgsql;
using Polycline.Data.Files;
using Polycline.Demo.School;
using Polycline.Testing;
using Polycline.Web.Foundation.Files;

namespace Polycline.Bench;

/// <summary>
/// A file is sent as a page sends it, piece by piece, and finished; against writing the same bytes through Npgsql in rows of the same size,
/// as many in a transaction. Half of that is written before the file is sent and half after, so that a machine that slows down slows both.
/// What the process holds meanwhile is told beside it: the application and the sender are in it together.
/// </summary>
internal static class FileBench
{
    private const int Megabyte = 1024 * 1024;

    /// <param name="megabytes">How large the file is.</param>
    public static async Task Run(School school, int megabytes)
    {
        using var lead = await school.As(DemoPeople.Lead);
        await school.Sql(connection =>
            connection.ExecuteAsync(
                "CREATE TABLE bench_bytes (n int, bytes bytea NOT NULL); ALTER TABLE bench_bytes ALTER COLUMN bytes SET STORAGE EXTERNAL"
            )
        );
        var piece = new byte[FileLimits.Piece];
        // Warm: the first bytes pay for everybody's compiling.
        await Rows(school, piece, 64, 1);
        await Send(lead, piece, 64, 2, _ => { });
        var rows = await Rows(school, piece, megabytes / 2, 3);
        long before = 0,
            most = 0;
        var sent = await Send(lead, piece, megabytes, 4, part =>
        {
            var held = Held();
            before = part == 0 ? held : before;
            most = Math.Max(most, held);
        });
        rows += await Rows(school, piece, megabytes - (megabytes / 2), 5);
        Console.WriteLine($"\n{megabytes} MB sent as a file, against the same bytes written through Npgsql");
        Console.WriteLine($"  the rows        {rows.TotalSeconds, 7:F1} s");
        Console.WriteLine($"  the file        {sent.TotalSeconds, 7:F1} s   {sent / rows:F2} times the rows");
        Console.WriteLine($"  working set     {before / Megabyte} MB at its beginning, {most / Megabyte} MB at most");
    }

    private static long Held()
    {
        using var process = Process.GetCurrentProcess();
        return process.WorkingSet64;
    }

    // No two pieces are alike, or they would be stored once.
    private static void Fill(byte[] piece, int seed, int n) => new Random((seed * 100_000) + n).NextBytes(piece);

    private static async Task<TimeSpan> Rows(School school, byte[] piece, int megabytes, int seed)
    {
        await using var connection = await school.Owner.Source.OpenConnectionAsync();
        var watch = Stopwatch.StartNew();
        for (var n = 0; n < megabytes * (long)Megabyte / piece.Length; n++)
        {
            Fill(piece, seed, n);
            await using var transaction = await connection.BeginTransactionAsync();
            await using var command = new NpgsqlCommand(
                "INSERT INTO bench_bytes (n, bytes) SELECT $1, unnest($2)",
                connection,
                transaction
            );
            command.Parameters.AddWithValue(n);
            command.Parameters.AddWithValue(piece.Chunk(Chunks.Size).ToArray());
            await command.ExecuteNonQueryAsync();
            await transaction.CommitAsync();
        }
        return watch.Elapsed;
    }

    private static async Task<TimeSpan> Send(Caller caller, byte[] piece, int megabytes, int seed, Action<int> each)
    {
        var watch = Stopwatch.StartNew();
        var size = megabytes * (long)Megabyte;
        var upload = await caller.Begin("film.bin", size);
        var n = 0;
        for (long from = 0; from < size; n++)
        {
            each(n);
            Fill(piece, seed, n);
            from = await caller.Piece(upload, from, piece);
        }
        each(n);
        var done = await caller.Post("/api/me/finish-upload", new { upload }, Guid.NewGuid());
        each(n);
        return done.Status == System.Net.HttpStatusCode.OK ? watch.Elapsed : throw new InvalidOperationException(done.Text);
    }
}
