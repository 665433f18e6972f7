using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Dapper;
using Npgsql;
using Polycline.Core.Release;

namespace Polycline.Data.Courses;

/// <summary>Something written once: a text, as canonical sanitised HTML.</summary>
/// <param name="IsDraft">It is being written, stands in no item yet, and goes once nobody writes on it.</param>
public sealed record Body(string Html, bool IsDraft = false)
{
    /// <summary>How the database names what it is.</summary>
    public string Kind => IsDraft ? "draft" : "text";

    /// <summary>What it is kept under: the hash of what it is and says, in hexadecimal digits.</summary>
    public string Hash { get; } =
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes((IsDraft ? "draft\n" : "text\n") + Html)));
}

/// <summary>Reads and keeps bodies. What a student reads is read only with a <see cref="Sight"/>.</summary>
public static class BodyStore
{
    internal const string Statement = "SELECT data ->> 'Html' FROM body WHERE hash = @hash";

    private sealed record Data(string Html);

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
                kind = body.Kind,
                data = JsonSerializer.Serialize(new Data(body.Html)),
                pictures = Pictures.In(body.Html).Select(Convert.FromHexString).ToArray(),
            }
        );

    /// <summary>The text that a student may read; null: there is none, or it is not for them to read now.</summary>
    public static Task<string?> Read(NpgsqlConnection connection, Sight sight) => Read(connection, sight.Body);

    /// <summary>The text of an item, for its team.</summary>
    public static async Task<string?> Read(NpgsqlConnection connection, string? hash) =>
        hash is null ? null : await connection.ExecuteScalarAsync<string?>(Statement, new { hash = Convert.FromHexString(hash) });
}
