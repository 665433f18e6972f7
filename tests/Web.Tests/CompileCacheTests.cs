using Polycline.Testing;
using Polycline.Web.Foundation.Reading;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>What is compiled once and asked often.</summary>
public sealed class CompileCacheTests
{
    private static CompileKey Key(long id, long version = 1) => CompileKey.Of("edition", id, version);

    [Fact]
    public async Task Of_many_who_ask_at_once_one_compiles()
    {
        using var cache = new CompileCache(1_000);
        var compiled = 0;
        var gate = new TaskCompletionSource();
        var asked = Enumerable
            .Range(0, 50)
            .Select(_ => cache.Get(Key(1), async () =>
                {
                    Interlocked.Increment(ref compiled);
                    await gate.Task;
                    return ("course", 1L, 10L);
                }))
            .ToList();
        gate.SetResult();
        (await Task.WhenAll(asked)).ShouldEachBe(value => value == "course");
        compiled.ShouldBe(1);
    }

    [Fact]
    public async Task A_raised_counter_is_another_thing_and_one_compiled_later_is_kept_as_later()
    {
        using var cache = new CompileCache(1_000);
        (await cache.Get(Key(1, 1), () => Task.FromResult(("at 2 already", 2L, 10L)))).ShouldBe("at 2 already");
        (await cache.Get(Key(1, 2), () => Task.FromResult(("compiled again", 2L, 10L)))).ShouldBe("at 2 already");
        (await cache.Get(Key(1, 1), () => Task.FromResult(("old", 1L, 10L)))).ShouldBe("old");
        (await cache.Get(Key(1, 3), () => Task.FromResult(("new", 3L, 10L)))).ShouldBe("new");
    }

    [Fact]
    public async Task It_keeps_no_more_than_its_bytes_and_makes_room_for_what_is_asked_for()
    {
        using var cache = new CompileCache(100);
        for (var id = 1; id <= 10; id++)
            await cache.Get(Key(id), () => Task.FromResult(($"{id}", 1L, 10L)));
        await cache.Get(Key(1), () => Task.FromResult(("never", 1L, 10L)));
        var compiled = 0;
        async Task Ask() => await cache.Get(Key(11), () =>
            {
                compiled++;
                return Task.FromResult(("11", 1L, 10L));
            });
        // Asked while it is full it is compiled and not kept; room is made beside that, and from then on it is kept.
        await Ask();
        SpinWait.SpinUntil(() => cache.Count < 10, TimeSpan.FromSeconds(20)).ShouldBeTrue("room is made");
        for (var before = 0; before != compiled && compiled < 1_000; )
        {
            before = compiled;
            await Ask();
        }
        compiled.ShouldBeInRange(2, 999);
        cache.Count.ShouldBeInRange(1, 10);
    }

    [Fact]
    public async Task A_failure_is_not_kept()
    {
        using var cache = new CompileCache(100);
        await Should.ThrowAsync<InvalidOperationException>(() => cache.Get<string>(Key(1), () => throw new InvalidOperationException()));
        (await cache.Get(Key(1), () => Task.FromResult(("well", 1L, 10L)))).ShouldBe("well");
    }
}
