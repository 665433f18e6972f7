using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using Polycline.Core.Courses;
using Polycline.Core.Planning;

namespace Polycline.Core.Release.Compiled;

/// <summary>
/// A section's schedule made ready for deciding release on arrays: its items by number, the parts into which gates cut the
/// scores of each, and a <see cref="ReleaseTable"/> for every kind of student there is in it.
/// </summary>
public sealed class SectionTable
{
    // So many kinds of students are kept; what a course has beyond that is made anew each time.
    private const int MostKept = 256;
    private static readonly ConditionalWeakTable<SectionSchedule, SectionTable> Made = [];
    private readonly Dictionary<Ref<Item>, int> numberOf = [];
    private readonly decimal[][] cuts;
    private readonly Dictionary<string, int> options = [];
    private readonly List<ForWhom> audiences = [];
    private readonly List<string> groups = [];
    private readonly ConcurrentDictionary<string, ReleaseTable> tables = [];

    /// <summary>The one of a schedule: made when it is first asked for, and kept as long as the schedule is.</summary>
    public static SectionTable Of(SectionSchedule schedule) => Made.GetValue(schedule, section => new(section));

    private SectionTable(SectionSchedule schedule)
    {
        Schedule = schedule;
        foreach (var item in schedule.Items)
            numberOf.Add(item.Item.Ref, numberOf.Count);
        var leaves = schedule
            .Items.Select(item => item.Item.Item.Gate)
            .Concat(schedule.Course.Units.Select(unit => unit.Gate))
            .Concat(schedule.Course.Lessons.Select(lesson => lesson.Gate))
            .OfType<Gate>()
            .SelectMany(gate => gate.Root.Leaves())
            .ToList();
        var scored = leaves.OfType<GateNode.Scored>().ToLookup(leaf => leaf.Item);
        cuts =
        [
            .. schedule.Items.Select(item =>
                scored[item.Item.Ref]
                    .SelectMany(leaf => leaf.Below is { } below ? [leaf.Min ?? 0, below] : new[] { leaf.Min ?? 0 })
                    .Distinct()
                    .Order()
                    .ToArray()
            ),
        ];
        foreach (
            var option in schedule
                .Items.SelectMany(item => item.Item.Item.Options.IsDefault ? [] : item.Item.Item.Options)
                .Concat(leaves.OfType<GateNode.Picked>().Select(leaf => leaf.Option))
        )
            options.TryAdd(option, options.Count);
        audiences.AddRange(schedule.Items.Select(item => item.Item.For).OfType<ForWhom>().Distinct());
        groups.AddRange(leaves.OfType<GateNode.InGroup>().Select(leaf => leaf.Group).Distinct());
    }

    public SectionSchedule Schedule { get; }

    /// <summary>How many items the section has, its own included.</summary>
    public int Count => cuts.Length;

    /// <summary>An item's number, its place in <see cref="SectionSchedule.Items"/>; null: another section's item.</summary>
    public int? NumberOf(Ref<Item> item) => numberOf.TryGetValue(item, out var number) ? number : null;

    /// <summary>What decides release for a student. Students who are alike share one.</summary>
    public ReleaseTable For(StudentRecord student)
    {
        if (student.Exceptions.Count > 0 || student.Always is { DueDays: > 0 })
            return new(this, student);
        var kind = string.Create(audiences.Count + groups.Count, (this, student), static (said, who) =>
        {
            var (table, student) = who;
            for (var n = 0; n < said.Length; n++)
                said[n] =
                    (
                        n < table.audiences.Count
                            ? table.audiences[n].Includes(student.Student, student.Groups)
                            : student.Groups.Contains(table.groups[n - table.audiences.Count])
                    )
                        ? '+'
                        : '-';
        });
        if (tables.TryGetValue(kind, out var known))
            return known;
        var made = new ReleaseTable(this, student);
        return tables.Count < MostKept ? tables.GetOrAdd(kind, made) : made;
    }

    /// <summary>The part in which a score lies, from 1: so many cuts are at or below it.</summary>
    internal int PartOf(int item, decimal score)
    {
        var part = 1;
        foreach (var cut in cuts[item])
            if (cut <= score)
                part++;
        return part;
    }

    /// <summary>The first part at or above a cut.</summary>
    internal int PartFrom(int item, decimal cut) => Array.BinarySearch(cuts[item], cut) + 2;

    /// <summary>An option's number; null: no choice offers it and no gate asks for it.</summary>
    internal int? OptionOf(string option) => options.TryGetValue(option, out var number) ? number : null;
}
