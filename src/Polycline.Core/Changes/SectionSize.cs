using System.Collections.Immutable;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Core.Changes;

/// <summary>A section as reach counts it: its name and its students.</summary>
public sealed record SectionSize(Ref<Section> Section, string Name, ImmutableArray<Ref<Student>> People)
{
    public int Students => People.Length;

    /// <summary>How many people are in these sections together; who is in two of them counts once.</summary>
    public static int Together(IEnumerable<SectionSize> sections) => sections.SelectMany(section => section.People).Distinct().Count();
}
