namespace Polycline.Core.Wording;

/// <summary>One thing that comes out differently, before and after.</summary>
/// <param name="Target">The unit, lesson or item.</param>
/// <param name="Name">How it is called: code and title of an item, else its title.</param>
/// <param name="Section">The section in which it does; null: in the course itself.</param>
/// <param name="Field">Such as <c>title</c> or <c>due</c>.</param>
/// <param name="Before">In words; null: there was nothing.</param>
/// <param name="After">In words; null: there is nothing any more.</param>
public sealed record ReachRow(string Target, string Name, string? Section, string Field, string? Before, string? After)
{
    /// <summary>It is not published, so that no student has it.</summary>
    public bool TeamOnly { get; init; }

    /// <summary>For a date: the local time it was, such as <c>2026-10-14T10:40</c>; null: never.</summary>
    public string? From { get; init; }

    /// <summary>For a date: the local time it will be.</summary>
    public string? To { get; init; }

    /// <summary>For a date: the kind of its item.</summary>
    public string? Kind { get; init; }
}
