using System.Text.Json;
using Dapper;
using Npgsql;

namespace Polycline.Data.Live;

/// <summary>Says that a counter was raised. It carries no content: whoever cares reads again.</summary>
/// <param name="Scope"><c>edition:5</c>; <c>person:7</c> where somebody's sessions ended; <c>text:9</c> where a text is being written;
/// <c>*</c> where one may have missed some; <c>clock</c> where the demo's clock was moved.</param>
public sealed record ScopeChanged(string Scope, long Version)
{
    /// <summary>Where it is told, and every instance listens.</summary>
    public const string Channel = "polycline";

    /// <summary>The scope of the demo's clock.</summary>
    public const string Clock = "clock";

    private static readonly JsonSerializerOptions Web = new(JsonSerializerDefaults.Web);

    /// <summary>Tells every instance, once the transaction is through.</summary>
    public Task Tell(NpgsqlConnection connection) =>
        connection.ExecuteAsync("SELECT pg_notify(@Channel, @message)", new { Channel, message = ToJson() });

    public string ToJson() => JsonSerializer.Serialize(this, Web);

    public static ScopeChanged FromJson(string json) => JsonSerializer.Deserialize<ScopeChanged>(json, Web)!;
}
