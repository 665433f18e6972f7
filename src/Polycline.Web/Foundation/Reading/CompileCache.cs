using System.Collections.Concurrent;

namespace Polycline.Web.Foundation.Reading;

/// <summary>What a compiled thing is kept under: a change of its counter makes another key, so nothing stale is ever found.</summary>
/// <param name="Beside">A second counter it hangs on; 0: none.</param>
/// <param name="Zones">The version of the time-zone data, on which every compiled date hangs.</param>
public readonly record struct CompileKey(string Kind, long Id, long Version, long Beside, string Zones)
{
    public static CompileKey Of(string kind, long id, long version, long beside = 0) =>
        new(kind, id, version, beside, NodaTime.DateTimeZoneProviders.Tzdb.VersionId);
}

/// <summary>
/// Keeps what was compiled, under the counters it was compiled from. Of several who want the same at once one compiles
/// and the others wait. Bounded in bytes; the longest unasked goes first.
/// </summary>
/// <param name="bytes">How much it may keep, roughly.</param>
public sealed class CompileCache(long bytes)
{
    private sealed record Entry(Lazy<Task<object>> Value)
    {
        public long Weight { get; set; }
        public long Asked { get; set; }
    }

    private readonly ConcurrentDictionary<CompileKey, Entry> entries = new();
    private readonly Lock shrinking = new();
    private long asked;

    /// <summary>How many things it keeps.</summary>
    public int Count => entries.Count;

    /// <summary>Gives what stands under <paramref name="key"/>, compiling it where nothing does.</summary>
    /// <param name="compile">
    /// Compiles, and says which version it saw and roughly how many bytes the result takes. Where it saw a later version
    /// than was asked for, the result is given but kept under the version seen.
    /// </param>
    public async Task<T> Get<T>(CompileKey key, Func<Task<(T Value, long Version, long Weight)>> compile)
        where T : class
    {
        var entry = entries.GetOrAdd(key, static (_, compile) => new(new(async () => (object)await Task.Run(compile))), compile);
        entry.Asked = Interlocked.Increment(ref asked);
        try
        {
            var (value, version, weight) = ((T, long, long))await entry.Value.Value;
            entry.Weight = weight;
            if (version != key.Version)
            {
                entries.TryRemove(KeyValuePair.Create(key, entry));
                entries.TryAdd(key with { Version = version }, entry);
            }
            Shrink();
            return value;
        }
        catch
        {
            // A failure is nobody's answer but theirs who waited for it.
            entries.TryRemove(KeyValuePair.Create(key, entry));
            throw;
        }
    }

    private void Shrink()
    {
        lock (shrinking)
        {
            var over = entries.Values.Sum(entry => entry.Weight) - bytes;
            foreach (var (key, entry) in over > 0 ? entries.OrderBy(pair => pair.Value.Asked).ToArray() : [])
            {
                if (over <= 0)
                    break;
                if (entries.TryRemove(KeyValuePair.Create(key, entry)))
                    over -= entry.Weight;
            }
        }
    }
}
