using System.Collections.Immutable;
using Polycline.Core.Courses;

namespace Polycline.Core.Planning;

/// <summary>A section as reach counts it: its name and how many students it has.</summary>
public sealed record SectionSize(string Name, int Students);

/// <summary>One field of one item that a change touches, before and after.</summary>
public sealed record ReachRow(Id<Item> Item, string Code, string Field, string Before, string After);

/// <summary>What a change to an edition does, computed from the edition before it and after it.</summary>
/// <param name="Rows">Every field of every item that comes out differently, in reading order.</param>
/// <param name="Sections">The sections in which it does.</param>
/// <param name="Sentence">The same in words, for the team.</param>
public sealed record Reach(ImmutableArray<ReachRow> Rows, ImmutableArray<SectionSize> Sections, string Sentence)
{
    /// <summary>Compares two states of one edition, which <paramref name="sections"/> follow.</summary>
    public static Reach Between(Edition before, Edition after, ImmutableArray<SectionSize> sections)
    {
        var codesBefore = Codes.Of(before);
        var codesAfter = Codes.Of(after);
        var was = before.InReadingOrder().ToDictionary(item => item.Id);
        var rows = ImmutableArray.CreateBuilder<ReachRow>();
        foreach (var item in after.InReadingOrder())
        {
            if (!was.TryGetValue(item.Id, out var old))
                continue;
            Compare("title", old.Title, item.Title);
            Compare("code", codesBefore[item.Id], codesAfter[item.Id]);

            void Compare(string field, string from, string to)
            {
                if (from != to)
                    rows.Add(new(item.Id, codesAfter[item.Id], field, from, to));
            }
        }
        return new(rows.ToImmutable(), sections, InWords(rows.Count, sections));
    }

    private static string InWords(int rows, ImmutableArray<SectionSize> sections)
    {
        if (rows == 0)
            return "Nothing changes for anyone.";
        if (sections.IsEmpty)
            return "No section follows this edition yet: only the team sees it.";
        var students = sections.Sum(section => section.Students);
        var where = sections.Length == 1 ? sections[0].Name : $"all {sections.Length} sections";
        return $"Changes in {where} at once, for {students} {(students == 1 ? "student" : "students")}.";
    }
}
