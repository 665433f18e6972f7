using Shouldly;

namespace Polycline.Tests.Core.Generated;

/// <summary>Counts how often drawn plans came to what a test is about: a property of what never comes about is none.</summary>
public sealed class Reached
{
    private int _times;

    /// <summary>It came about once more. Samples are drawn on several threads.</summary>
    public void Now() => Interlocked.Increment(ref _times);

    /// <summary>It came about at least as often as makes it worth asking: twenty times unless said otherwise.</summary>
    /// <param name="least">How often it has to.</param>
    public void ShouldBeOften(int least = 20) => _times.ShouldBeGreaterThanOrEqualTo(least, "what the test is about hardly came about");
}
