using System.Collections.Concurrent;
using System.Reflection;

namespace Polycline.Data;

/// <summary>The SQL statements of this project: one a file, beside the store that uses it.</summary>
public static class Sql
{
    private static readonly Assembly Here = typeof(Sql).Assembly;
    private static readonly ConcurrentDictionary<string, string> Texts = new();

    /// <summary>Several texts as one round trip; their results come in that order.</summary>
    public static string Together(params ReadOnlySpan<string> texts) =>
        string.Join(";\n", texts.ToArray().Select(text => text.TrimEnd().TrimEnd(';')));

    /// <summary>The text of <c>folder/name.sql</c>.</summary>
    /// <exception cref="InvalidOperationException">There is no such file.</exception>
    public static string Of(string folder, string name) => Texts.GetOrAdd($"{folder}/{name}.sql", static path =>
        {
            using var stream = Here.GetManifestResourceStream(path) ?? throw new InvalidOperationException($"There is no {path}.");
            using var reader = new StreamReader(stream);
            return reader.ReadToEnd();
        });
}
