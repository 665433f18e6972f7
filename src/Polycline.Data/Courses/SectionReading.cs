using System.Data;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;
using Polycline.Core.Wording;

namespace Polycline.Data.Courses;

/// <summary>Makes a section that follows an edition of its rows.</summary>
internal static class SectionReading
{
    internal sealed record SectionRow
    {
        public required Id<Section> Id { get; init; }

        public required string Name { get; init; }

        public required string Letter { get; init; }

        public required string Slots { get; init; }

        public required long Version { get; init; }

        public required LocalDate? FollowsFrom { get; init; }

        public required LocalDate? EndedOn { get; init; }

        public required string? Pretend { get; init; }

        public required string[] Teachers { get; init; }
    }

    public static FollowingSection Of(
        SectionRow row,
        IReadOnlyList<ListedStudent> listed,
        SectionRows all,
        IReadOnlyList<TreeRow> rows,
        SectionOnlyContent parts
    )
    {
        var here = rows.Where(other => other.Section is null || other.Section == row.Id).ToList();
        var levels = here.ToDictionary(other => other.Lineage, other => other.Level);
        // A difference in something that was removed from the course has no effect.
        var own = all
            .Adjustments.Where(adjustment => adjustment.Section == row.Id && levels.ContainsKey(adjustment.Target))
            .GroupBy(adjustment => adjustment.Target)
            .Select(target =>
                PlanParts.Adjustment(
                    levels[target.Key],
                    target.Key,
                    target.Select(adjustment => (EnumNames.Of(adjustment.Field), adjustment.Value))
                )
            );
        var units = levels.Values.Count(level => level == Level.Unit);
        var orders = all
            .Orders.Where(order => order.Section == row.Id && levels.ContainsKey(order.Target))
            .Select(order => PlanParts.Adjustment(levels[order.Target], order.Target, order.Change))
            .Where(order => order is not Adjustment.OfLesson { After: { } after } || levels.ContainsKey(after.Name))
            // The course may have fewer units by now: last is then last.
            .Select(order => order is Adjustment.OfUnit { Order: { } place } unit ? unit with { Order = Math.Min(place, units) } : order);
        return new()
        {
            Id = row.Id,
            Name = row.Name,
            Letter = row.Letter,
            Listed = listed,
            Version = row.Version,
            FollowsFrom = row.FollowsFrom,
            EndedOn = row.EndedOn,
            Pretend = PretendStudent.Read(row.Pretend),
            Slots = row.Slots,
            Teachers = row.Teachers,
            Section = new(
                row.Id.InPlan(),
                row.Name,
                PlanParts.Slots(row.Slots),
                [.. all.MeetingChanges.Where(change => change.Section == row.Id).Select(change => PlanParts.MeetingChange(change.Change))],
                [.. SectionOnlyContent.Added(here, parts), .. orders, .. own],
                [
                    .. all
                        .Taught.Where(record => record.Section == row.Id && levels.ContainsKey(record.Lesson))
                        .Select(record => new Taught(new(record.Lesson), record.Took, record.Done, record.Left, record.At)),
                ],
                [
                    .. all
                        .Opened.Where(record => record.Section == row.Id && levels.ContainsKey(record.Item))
                        .Select(record => new OpeningRecord(new(record.Item), record.At, record.Due)),
                ],
                []
            ),
        };
    }
}
