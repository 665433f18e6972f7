using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Npgsql;
using Polycline.Data.Requests;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation.Commands;

/// <summary>Does what a request asks once for each key: sent again, it is answered as it was the first time.</summary>
public static class Idempotency
{
    /// <summary>The key that a request must carry.</summary>
    public static Guid Key(Guid? key) =>
        key
        ?? throw Problem.Malformed(
            "Idempotency-Key",
            "A request that changes something needs a key of its own, so that sending it twice does it once."
        );

    /// <summary>
    /// Runs <paramref name="run"/> in the caller's transaction unless the key was used; whoever sends the same key at the same time waits.
    /// </summary>
    public static async Task<TAnswer> Run<TRequest, TAnswer>(
        NpgsqlConnection connection,
        Sent<TRequest> sent,
        Guid key,
        Func<Task<TAnswer>> run
    )
        where TRequest : class
    {
        var asked = Digest($"{sent.About} {sent.Command}", sent.Request);
        var who = sent.Viewpoint.Who.Id;
        if (await RequestStore.Claim(connection, who, key, asked, sent.Viewpoint.At) is { } kept)
            return kept.Asked.AsSpan().SequenceEqual(asked) && kept.Answer is not null
                ? JsonSerializer.Deserialize<TAnswer>(kept.Answer, Json.Options)!
                : throw Problem.KeyReused();
        var answer = await run();
        await RequestStore.Keep(
            connection,
            who,
            key,
            StatusCodes.Status200OK,
            sent.HasSecret ? null : JsonSerializer.Serialize(answer, Json.Options)
        );
        return answer;
    }

    // What a request asks, so that the same key under another request is noticed.
    private static byte[] Digest<TRequest>(string what, TRequest request) =>
        SHA256.HashData([.. Encoding.UTF8.GetBytes(what), .. JsonSerializer.SerializeToUtf8Bytes(request, Json.Options)]);
}
