using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Dapper;
using Npgsql;
using Polycline.Core.MarkFiles;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Release;
using Polycline.Core.Wording;

namespace Polycline.Data.Courses;

/// <summary>What is written once and kept under what it says.</summary>
public enum BodyKind
{
    /// <summary>A text, as canonical sanitised HTML.</summary>
    Text,

    /// <summary>A text that is being written: it stands in no item yet, and goes once nobody writes on it.</summary>
    Draft,

    /// <summary>The questions of a quiz with their keys (<see cref="Core.MarkFiles.QuizPaperFile"/>).</summary>
    Quiz,

    /// <summary>A rubric (<see cref="Core.MarkFiles.RubricFile"/>).</summary>
    Rubric,
}

/// <summary>Something written once.</summary>
public sealed record Body(string Content, BodyKind Kind = BodyKind.Text)
{
    /// <summary>How the database names what it is.</summary>
    public string Word => EnumNames.Of(Kind);

    /// <summary>What it is kept under: the hash of what it is and says, in hexadecimal digits.</summary>
    public string Hash { get; } = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes($"{EnumNames.Of(Kind)}\n{Content}")));
}

/// <summary>Reads and keeps bodies. What a student reads is read only with a <see cref="Sight"/>.</summary>
public static class BodyStore
{
    internal const string Statement = "SELECT data ->> 'Html' FROM body WHERE hash = @hash";

    // What a student may be sent and what not have names of their own: a quiz is never read as a text.
    private static string DataOf(Body body) =>
        body.Kind switch
        {
            BodyKind.Quiz => JsonSerializer.Serialize(new { Quiz = body.Content }),
            BodyKind.Rubric => JsonSerializer.Serialize(new { Rubric = body.Content }),
            _ => JsonSerializer.Serialize(new { Html = body.Content }),
        };

    /// <summary>Keeps a body, unless it is there already.</summary>
    public static Task Keep(NpgsqlConnection connection, Body body) =>
        connection.ExecuteAsync(
            """
            INSERT INTO body (hash, kind, data) VALUES (@hash, @kind, @data::jsonb) ON CONFLICT DO NOTHING;
            INSERT INTO body_file (body, file) SELECT @hash, unnest(@pictures) ON CONFLICT DO NOTHING
            """,
            new
            {
                hash = Convert.FromHexString(body.Hash),
                kind = body.Word,
                data = DataOf(body),
                pictures = Pictures.In(body.Content).Select(Convert.FromHexString).ToArray(),
            }
        );

    /// <summary>The text that a student may read; null: there is none, or it is not for them to read now.</summary>
    public static Task<string?> Read(NpgsqlConnection connection, Sight sight) => Read(connection, sight.Body);

    /// <summary>The text of an item, for its team.</summary>
    public static async Task<string?> Read(NpgsqlConnection connection, string? hash) =>
        hash is null ? null : await connection.ExecuteScalarAsync<string?>(Statement, new { hash = Convert.FromHexString(hash) });

    /// <summary>A quiz's questions and keys, for its team and for marking; null: there are none.</summary>
    public static async Task<QuizPaper?> Quiz(NpgsqlConnection connection, string? hash) =>
        hash is not null
        && await connection.ExecuteScalarAsync<string?>(
            "SELECT data ->> 'Quiz' FROM body WHERE hash = @hash",
            new { hash = Convert.FromHexString(hash) }
        )
            is { } json
            ? QuizPaperFile.Read(json)
            : null;

    /// <summary>A rubric; null: there is none.</summary>
    public static async Task<WrittenRubric?> Rubric(NpgsqlConnection connection, string? hash) =>
        hash is null ? null : (await Rubrics(connection, [hash])).GetValueOrDefault(hash);

    /// <summary>Rubrics by what they are kept under.</summary>
    public static async Task<IReadOnlyDictionary<string, WrittenRubric>> Rubrics(
        NpgsqlConnection connection,
        IReadOnlyCollection<string> hashes
    ) =>
        hashes.Count == 0
            ? new Dictionary<string, WrittenRubric>()
            : (
                await connection.QueryAsync<(string Hash, string Content)>(
                    "SELECT encode(hash, 'hex'), data ->> 'Rubric' FROM body WHERE kind = 'rubric' AND hash = ANY(@hashes)",
                    new { hashes = hashes.Select(Convert.FromHexString).ToArray() }
                )
            ).ToDictionary(row => row.Hash, row => RubricFile.Read(row.Content));
}
