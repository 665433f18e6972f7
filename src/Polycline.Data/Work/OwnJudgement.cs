using System.Text.Json;
using Polycline.Core.Courses;

namespace Polycline.Data.Work;

/// <summary>What a student says of their own piece by its rubric.</summary>
/// <param name="Rubric">What the rubric is kept under.</param>
/// <param name="Levels">Of each criterion at most one.</param>
/// <param name="IsWhole">Whether every criterion is judged that is not optional.</param>
public sealed record OwnJudgement(string Rubric, IReadOnlyList<GivenLevel> Levels, bool IsWhole)
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web);

    /// <returns>Null: nothing was judged.</returns>
    public static string? Write(OwnJudgement? judged) => judged is null ? null : JsonSerializer.Serialize(judged, Options);

    public static OwnJudgement? Read(string? json) => json is null ? null : JsonSerializer.Deserialize<OwnJudgement>(json, Options);
}
