using Polycline.Core.Changes;
using Polycline.Core.Wording;
using Polycline.Data.Courses;

namespace Polycline.Web.Foundation.Commands;

/// <summary>What a change of groups does, beside what a plan shows of itself.</summary>
public static class GroupReach
{
    private const int MostSaid = 3;

    /// <summary>A reach with what became of the groups.</summary>
    public static Reach With(Reach reach, EditionPlan before, EditionPlan after)
    {
        var was = before.Groups.ToDictionary(group => group.Id);
        var rows = new List<ReachRow>();
        var sentences = new List<string>();
        foreach (var group in after.Groups)
        {
            var old = was.GetValueOrDefault(group.Id);
            if (old is null)
                rows.Add(new(group.Name, group.Name, null, "group", null, group.Name));
            else if (!old.Members.SequenceEqual(group.Members))
            {
                rows.Add(new(group.Name, group.Name, null, "students", $"{old.Members.Length}", $"{group.Members.Length}"));
                var items = after.UsesOf(group.Name);
                var uses = items == 0 ? $"no {after.Edition.Levels.Item.Many}" : after.Edition.Levels.Item.Counted(items);
                var students = Counting.Counted(group.Members.Length, "student", "students");
                sentences.Add(
                    $"“{group.Name}” has {students} instead of {old.Members.Length}; {uses} {(items == 1 ? "depends" : "depend")} on it."
                );
            }
        }
        if (sentences.Count > MostSaid)
            sentences = [.. sentences.Take(MostSaid - 1), $"{sentences.Count - MostSaid + 1} more groups change."];
        rows.AddRange(
            before
                .Groups.Where(group => after.Groups.All(now => now.Id != group.Id))
                .Select(group => new ReachRow($"{group.Id}", group.Name, null, "group", group.Name, null))
        );
        return rows.Count == 0
            ? reach
            : reach with
            {
                Rows = [.. reach.Rows, .. rows],
                Sentence = string.Join(
                    ' ',
                    reach.Effect == Effect.None && sentences.Count > 0 ? sentences : [reach.Sentence, .. sentences]
                ),
            };
    }
}
