using Dapper;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Files;

namespace Polycline.Data.Quizzes;

/// <summary>The files with which questions of a quiz were answered.</summary>
public sealed class AnswerFiles
{
    private sealed record Row(
        Id<AttemptRow> Attempt,
        string Question,
        Id<WorkFileRow> Id,
        string Name,
        string Hash,
        long Size,
        string Type
    );

    public static readonly AnswerFiles None = new([]);

    private readonly ILookup<(Id<AttemptRow>, string), WorkFileRow> files;

    private AnswerFiles(IEnumerable<Row> rows) =>
        files = rows.ToLookup(
            row => (row.Attempt, row.Question),
            row => new WorkFileRow
            {
                Id = row.Id,
                Name = row.Name,
                Hash = row.Hash,
                Size = row.Size,
                Type = row.Type,
            }
        );

    /// <summary>The file that an answer names: of several of one name the latest; null: there is none.</summary>
    public WorkFileRow? Of(Id<AttemptRow> attempt, string question, string? name) =>
        files[(attempt, question)].LastOrDefault(file => file.Name == name);

    public static async Task<AnswerFiles> Read(NpgsqlConnection connection, IEnumerable<Id<AttemptRow>> attempts) =>
        new(
            await connection.QueryAsync<Row>(
                """
                SELECT r.attempt, r.question, f.id, f.name, encode(f.file, 'hex') AS hash, s.size, s.type
                FROM quiz_answer r
                JOIN work_file f ON f.id = r.file
                JOIN stored_file s ON s.hash = f.file
                WHERE r.attempt = ANY(@attempts)
                ORDER BY r.attempt, r.seq
                """,
                new { attempts = attempts.Select(attempt => attempt.Value).ToArray() }
            )
        );

    /// <summary>The file with which a student answered a question; null if it is not one.</summary>
    public static Task<WorkFileRow?> OfStudent(NpgsqlConnection connection, Id<Person> student, Id<Item> item, Id<WorkFileRow> file) =>
        One(
            connection,
            "a.person = @who AND a.item = @item",
            new
            {
                who = student.Value,
                item = item.Value,
                file = file.Value,
            }
        );

    /// <summary>The file with which a student of the section answered a question; null if it is not one.</summary>
    public static Task<WorkFileRow?> OfSection(NpgsqlConnection connection, Id<Section> section, Id<WorkFileRow> file) =>
        One(connection, "a.section = @who", new { who = section.Value, file = file.Value });

    private static Task<WorkFileRow?> One(NpgsqlConnection connection, string whose, object values) =>
        connection.QuerySingleOrDefaultAsync<WorkFileRow?>(
            $"""
            SELECT f.id, f.name, encode(f.file, 'hex') AS hash, s.size, s.type
            FROM work_file f
            JOIN stored_file s ON s.hash = f.file
            WHERE f.id = @file AND EXISTS (
              SELECT 1 FROM quiz_answer r JOIN quiz_attempt a ON a.id = r.attempt WHERE r.file = f.id AND {whose})
            """,
            values
        );
}
