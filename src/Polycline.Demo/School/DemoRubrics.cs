using System.Text;
using Polycline.Core.Courses;
using Polycline.Core.MarkFiles;
using Polycline.Core.Marking.Papers;
using Polycline.Data.Courses;
using Polycline.Formats.Rubrics;

namespace Polycline.Demo.School;

/// <summary>A demo course's rubrics, from the tables in the text file beside it, and marks that are made with them.</summary>
internal static class DemoRubrics
{
    /// <returns>By the item's id in the course's file; none where there is no such file.</returns>
    public static IReadOnlyDictionary<string, Body> Of(string course)
    {
        using var stream = typeof(DemoRubrics).Assembly.GetManifestResourceStream($"Polycline.Demo.School.{course}-rubrics.txt");
        if (stream is null)
            return new Dictionary<string, Body>();
        using var reader = new StreamReader(stream, Encoding.UTF8);
        return reader
            .ReadToEnd()
            .ReplaceLineEndings("\n")
            .Split("\n# ", StringSplitOptions.None)
            .Select(part => part.TrimStart('#', ' ').Split("\n\n", 2))
            .ToDictionary(part => part[0].Split(' ', 2)[0], part => new Body(Stored(part[0].Split(' ', 2)[1], part[1]), BodyKind.Rubric));
    }

    /// <summary>A mark by a rubric that comes close to a share: a level more here, one less there.</summary>
    /// <param name="hash">What the rubric is kept under.</param>
    /// <param name="turn">Tells one piece from another.</param>
    public static GivenByRubric Near(WrittenRubric rubric, string hash, double share, long turn) =>
        rubric.Of(
            hash,
            [
                .. rubric
                    .Criteria.Where(criterion => !criterion.IsOptional)
                    .Select(
                        (criterion, place) =>
                        {
                            var most = criterion.Levels.Length - 1;
                            var level = criterion.Levels[
                                (int)Math.Clamp(Math.Round((share * most) + (((turn + place) % 3 - 1) * 0.5)), 0, most)
                            ];
                            return new GivenLevel(criterion.Id, level.Id, level.IsRange ? level.To : null);
                        }
                    ),
            ],
            out _
        ) ?? throw new InvalidOperationException($"“{rubric.Name}” does not take its own levels.");

    private static string Stored(string name, string table)
    {
        var read = RubricTable.Read(table);
        return read.Criteria is { } criteria
            ? RubricFile.Write(new WrittenRubric(name, [.. criteria]).KeepingIds(null))
            : throw new InvalidOperationException($"{name}: {string.Join("; ", read.Faults)}");
    }
}
