using Polycline.Core.Json;
using Polycline.Core.PlanFiles;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.PlanFiles;

/// <summary>
/// Files made to be large, deep or tangled: read or refused by path, in memory that grows as they do. Time is in the benches.
/// </summary>
public sealed class HostileFileTests
{
    public static TheoryData<string> Shapes => [.. HostileFile.Shapes.Keys];

    [Theory]
    [MemberData(nameof(Shapes))]
    public void Twice_the_file_takes_no_more_than_twice_the_memory(string shape)
    {
        Read(shape, 100);
        var (one, two) = (Read(shape, 4_000), Read(shape, 8_000));
        (two / (double)one).ShouldBeLessThan(2.3);
    }

    private static long Read(string shape, int size)
    {
        var text = HostileFile.Of(shape, size);
        var before = GC.GetAllocatedBytesForCurrentThread();
        try
        {
            PlanFile.Read(text).Plan.Sections.ShouldNotBeEmpty();
        }
        catch (FileRefusedException refused)
        {
            refused.Path.ShouldStartWith("$");
        }
        return GC.GetAllocatedBytesForCurrentThread() - before;
    }
}
