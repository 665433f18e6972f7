using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.Merging.Trees;

namespace Polycline.Core.MergeFiles;

/// <summary>The ids of a merge file. Source: the merge file, <i>Refused</i>.</summary>
internal static class MergeNames
{
    public static void Check(JsonPiece root, FaultList faults)
    {
        var levels = new Dictionary<string, Level>(StringComparer.Ordinal);
        foreach (var tree in new[] { root["base"]!, root["mine"]!, root["theirs"]! }.OrderBy(tree => tree.At))
        {
            var seen = new HashSet<string>(StringComparer.Ordinal);
            foreach (
                var (id, level) in MergeFile
                    .Things(tree)
                    .Where(one => one.Level is not null)
                    .Select(one => (one.Thing["id"]!, one.Level!.Value))
                    .OrderBy(one => one.Item1.At)
            )
                if (!seen.Add(id.Value!))
                    faults.Add(id, "this id is used twice in one tree");
                else if (!levels.TryAdd(id.Value!, level) && levels[id.Value!] != level)
                    faults.Add(id, "this id names something of another level in another tree");
            foreach (var (thing, _, _) in MergeFile.Things(tree))
            foreach (var text in thing["texts"]?.Members ?? [])
            {
                var blocks = new HashSet<string>(StringComparer.Ordinal);
                foreach (var block in text.Value.Items.Where(block => !blocks.Add(block["id"]!.Value!)))
                    faults.Add(block["id"]!, "this id is used twice in one text");
            }
        }
        var chosen = new HashSet<MergeSpot>();
        foreach (var choice in root.Each("choices"))
        {
            if (choice["id"]!.Value is { } named && !levels.ContainsKey(named))
                faults.Add(choice["id"]!, "no tree has this id");
            else if (!chosen.Add(MergeFile.SpotOf(choice)))
                faults.Add(choice, "this has been chosen before");
        }
    }
}
