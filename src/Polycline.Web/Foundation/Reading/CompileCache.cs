using System.Collections.Concurrent;
using Microsoft.Extensions.Caching.Memory;

namespace Polycline.Web.Foundation.Reading;

/// <summary>The key of a compiled thing. When its counter changes so does its key, so nothing stale is ever found.</summary>
/// <param name="Beside">A second counter it hangs on; 0: none.</param>
/// <param name="Zones">The version of the time-zone data, on which every compiled date hangs.</param>
public readonly record struct CompileKey(string Kind, long Id, long Version, long Beside, string Zones)
{
    public static CompileKey Of(string kind, long id, long version, long beside = 0) =>
        new(kind, id, version, beside, NodaTime.DateTimeZoneProviders.Tzdb.VersionId);
}

/// <summary>
/// A cache of what was compiled, keyed by the counters it was compiled from. If several want the same thing at once, one compiles
/// and the others wait. It is bounded in bytes, and drops what was least recently used.
/// </summary>
/// <param name="bytes">How much it may keep, roughly.</param>
public sealed class CompileCache(long bytes) : IDisposable
{
    private readonly MemoryCache kept = new(new MemoryCacheOptions { SizeLimit = bytes, CompactionPercentage = 0.1 });
    private readonly ConcurrentDictionary<CompileKey, Lazy<Task<object>>> underWay = new();

    /// <summary>How many things it keeps.</summary>
    public int Count => kept.Count;

    /// <summary>Gives what stands under <paramref name="key"/>, compiling it where nothing does.</summary>
    /// <param name="compile">
    /// Compiles, and says which version it saw and roughly how many bytes the result takes. Where it saw a later version
    /// than was asked for, the result is given but kept under the version seen.
    /// </param>
    public async Task<T> Get<T>(CompileKey key, Func<Task<(T Value, long Version, long Weight)>> compile)
        where T : class
    {
        if (kept.TryGetValue(key, out T? there))
            return there!;
        return (T)await underWay.GetOrAdd(key, key => new(() => Compile(key, compile))).Value;
    }

    public void Dispose() => kept.Dispose();

    // A failure is returned to those who waited for it, and to nobody else.
    private async Task<object> Compile<T>(CompileKey key, Func<Task<(T Value, long Version, long Weight)>> compile)
        where T : class
    {
        try
        {
            // Somebody quicker may have kept it in the meantime.
            if (kept.TryGetValue(key, out T? there))
                return there!;
            var (value, version, weight) = await Task.Run(compile);
            kept.Set(key with { Version = version }, value, new MemoryCacheEntryOptions { Size = weight });
            return value;
        }
        finally
        {
            underWay.TryRemove(key, out _);
        }
    }
}
