using System.Text.Json;

namespace Polycline.Core.Merging.Trees;

/// <summary>A JSON value, equal to another one by value: members in any order, numbers by what they come to.</summary>
/// <param name="canonical">The same for all that are equal.</param>
/// <param name="written">As JSON, as it was written.</param>
public sealed class MergeValue(string canonical, string written) : IEquatable<MergeValue>
{
    private readonly string canonical = canonical;

    public string Written { get; } = written;

    public static MergeValue Of(string text) => Plain(JsonSerializer.Serialize(text));

    public static MergeValue Of(IEnumerable<string> texts) => Plain(JsonSerializer.Serialize(texts));

    public bool Equals(MergeValue? other) => other is not null && other.canonical == canonical;

    public override bool Equals(object? obj) => Equals(obj as MergeValue);

    public override int GetHashCode() => canonical.GetHashCode(StringComparison.Ordinal);

    private static MergeValue Plain(string json) => new(json, json);
}
