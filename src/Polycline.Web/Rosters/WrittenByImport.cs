namespace Polycline.Web.Rosters;

/// <summary>What an import wrote.</summary>
/// <param name="Ends">Places that ended, with the last day they had.</param>
/// <param name="Removed">Places that were taken away.</param>
/// <param name="Renamed">People, with the name and address they had.</param>
public sealed record WrittenByImport(
    string Source,
    IReadOnlyList<WrittenSection> Sections,
    IReadOnlyList<long> Places,
    IReadOnlyList<WrittenEnd> Ends,
    IReadOnlyList<WrittenPlace> Removed,
    IReadOnlyList<WrittenName> Renamed,
    IReadOnlyList<WrittenTeaching> Teachings,
    IReadOnlyList<long> Touched
);

public sealed record WrittenSection(long Section, string Key);

public sealed record WrittenEnd(long Place, string? To);

public sealed record WrittenPlace(long Section, long Person, string From, string? To);

public sealed record WrittenName(long Person, string Name, string Email);

public sealed record WrittenTeaching(long Section, long Person);
