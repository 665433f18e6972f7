namespace Polycline.Core.Wording;

/// <summary>One thing that comes out differently, before and after.</summary>
/// <param name="Target">The unit, lesson or item.</param>
/// <param name="Name">How it is called: code and title of an item, else its title.</param>
/// <param name="Section">The section in which it does; null: in the course itself.</param>
/// <param name="Field">Such as <c>title</c> or <c>due</c>.</param>
/// <param name="Before">In words; null: there was nothing.</param>
/// <param name="After">In words; null: there is nothing any more.</param>
/// <param name="TeamOnly">It is not published, so that no student has it.</param>
/// <param name="From">Of a date: when it was, local, as <c>2026-10-14T10:40</c>; null: never.</param>
/// <param name="To">Of a date: when it comes to be.</param>
/// <param name="Kind">Of a date: the kind of its item.</param>
public sealed record ReachRow(
    string Target,
    string Name,
    string? Section,
    string Field,
    string? Before,
    string? After,
    bool TeamOnly = false,
    string? From = null,
    string? To = null,
    string? Kind = null
);
