using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Changes;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Sections;

namespace Polycline.Core.Wording;

/// <summary>What a change to a course does, computed from the course before it and after it.</summary>
/// <param name="Rows">What comes out differently: the course in reading order, then dates section by section.</param>
/// <param name="Sections">The sections that it touches.</param>
/// <param name="Sentence">The same in words, for the team.</param>
/// <param name="Students">What it does for each student; empty where that was not asked.</param>
public sealed record Reach(
    ImmutableArray<ReachRow> Rows,
    ImmutableArray<SectionSize> Sections,
    string Sentence,
    Effect Effect,
    ImmutableArray<SightChange> Students
)
{
    /// <summary>Of items that are no longer for some: for whom they stay.</summary>
    public ImmutableArray<(Ref<Student> Student, Ref<Section> Section, Ref<Item> Item)> Keep { get; init; } = [];

    /// <summary>
    /// How many classes a section has, by how much the course does not fit it, how many items fall out of the term, and how
    /// many changes of its classes name none: fields of a <see cref="ReachRow"/>.
    /// </summary>
    public const string Classes = "classes",
        Lacking = "does not fit by",
        Outside = "out of the term",
        Sleeping = "changes asleep";

    /// <summary>A due that comes to stand on a day without classes: a field of a <see cref="ReachRow"/>.</summary>
    public const string OffDay = "due on a day without classes";

    private static readonly string[] Dates = ["opens", "due", "closes"];
    private static readonly string[] Fits = [Classes, Lacking, Outside, Sleeping];

    /// <summary>Nothing comes out differently.</summary>
    public static Reach Nothing { get; } = new([], [], "Nothing changes for anyone.", Effect.None, []);

    /// <summary>Compares two states of one course.</summary>
    /// <param name="sizes">The sections that follow it before or after, in order.</param>
    /// <param name="students">What it does for each student at <paramref name="at"/>; null when only the change of the plan is asked
    /// for.</param>
    /// <param name="at">The moment of the change, to tell what opens now from what opens later.</param>
    public static Reach Between(
        PlanSchedule before,
        PlanSchedule after,
        ImmutableArray<SectionSize> sizes,
        SightReach? students = null,
        Instant? at = null
    )
    {
        if (ReferenceEquals(before, after) && students is null or { Changes.IsEmpty: true })
            return Nothing;
        var course = CourseRows(before, after).ToList();
        var joined = sizes.Where(size => !before.Follows(size.Section)).ToImmutableArray();
        var left = sizes.Where(size => !after.Follows(size.Section)).ToImmutableArray();
        var staying = sizes.Except(joined).Except(left).ToImmutableArray();
        List<ReachRow> dates =
        [
            .. staying.SelectMany(size => DateRows(before, after, size)),
            .. staying.SelectMany(size => OffDayRows(before, after, size)),
        ];
        var seen = dates.Where(row => !row.TeamOnly).ToList();
        var terms = staying.SelectMany(size => FitRows(before, after, size)).ToList();
        var follows = left.Select(size => new ReachRow(size.Section.Name, size.Name, size.Name, "follows", "until now", null))
            .Concat(joined.Select(size => new ReachRow(size.Section.Name, size.Name, size.Name, "follows", null, "from now on")))
            .ToList();
        var sights = students?.Changes ?? [];
        var named = sights.Select(change => change.Section).ToHashSet();
        var touched =
            follows.Count > 0
                ? [.. left, .. joined]
                : sizes
                    .Where(size =>
                        (students is null && course.Count > 0)
                        || named.Contains(size.Section)
                        || dates.Concat(terms).Any(row => row.Section == size.Name)
                    )
                    .ToImmutableArray();
        var effect =
            left.Length > 0 || sights.Any(change => change.Takes) ? Effect.Takes
            : sights.Length + follows.Count > 0
            || seen.Concat(terms).Any(row => sizes.Any(size => size.Name == row.Section && size.Students > 0))
            || (students is null && course.Count > 0)
                ? Effect.Some
            : Effect.None;
        var words = new ReachWords(before, after, sizes, sights);
        List<string> told = [];
        if (left.Length > 0)
            told.Add(ReachWords.Follow(left, "stops following", "stop following"));
        if (joined.Length > 0)
            told.Add(ReachWords.Follow(joined, "follows from now on", "follow from now on"));
        told.AddRange(words.Sights());
        told.AddRange(words.Narrower(students?.Keep ?? []));
        if (at is { } now)
            told.AddRange(words.Later(now));
        if (follows.Count == 0)
            told.AddRange(
                words.Course(
                    students is null
                        ? course.Count > 0
                            ? touched
                            : []
                        : words.Reading(),
                    seen
                )
            );
        told.AddRange(words.Fits(terms, touched.Length == 1));
        told.AddRange(words.Work());
        var sentence =
            told.Count > 0 ? string.Join(' ', told)
            : course.Count + dates.Count + terms.Count == 0 ? Nothing.Sentence
            : sizes.IsEmpty ? "No section follows this edition yet: only the team sees it."
            : "Students see nothing of this yet: only the team does.";
        return new(
            [.. course, .. follows, .. terms, .. dates],
            touched,
            sizes.IsEmpty && course.Count > 0 ? "No section follows this edition yet: only the team sees it." : sentence,
            effect,
            sights
        )
        {
            Keep = students?.Keep ?? [],
        };
    }

    /// <summary>Whether a row is a date that moves.</summary>
    internal static bool IsDate(ReachRow row) => Dates.Contains(row.Field);

    private static IEnumerable<ReachRow> FitRows(PlanSchedule before, PlanSchedule after, SectionSize size)
    {
        var (was, will) = (before.Section(size.Section), after.Section(size.Section));
        foreach (
            var (field, then, now) in new[]
            {
                (Classes, was.Meetings.Meetings.Length, will.Meetings.Meetings.Length),
                (Lacking, was.Forecast.Lacking, will.Forecast.Lacking),
                (Outside, Fallen(was, will), Fallen(will, was)),
                (Sleeping, Sleepers(was), Sleepers(will)),
            }
        )
            if (then != now)
                yield return new(size.Section.Name, size.Name, size.Name, field, $"{then}", $"{now}");

        // Items of both that have a date with no place in the term.
        static int Fallen(SectionSchedule schedule, SectionSchedule other) =>
            schedule.Items.Count(item =>
                item.Dates is { } dates
                && (dates.BeyondTerm || dates.Opens.IsUnresolved || dates.Due.IsUnresolved)
                && other.Item(item.Item.Ref)?.Dates is not null
            );

        static int Sleepers(SectionSchedule schedule) => schedule.Findings.Count(finding => finding.Code == FindingCode.ChangeIdle);
    }

    private static IEnumerable<ReachRow> CourseRows(PlanSchedule before, PlanSchedule after)
    {
        var named = after.Edition.Levels;
        foreach (
            var (level, then, now) in new[]
            {
                ("unit", before.Edition.Levels.Unit, named.Unit),
                ("lesson", before.Edition.Levels.Lesson, named.Lesson),
                ("item", before.Edition.Levels.Item, named.Item),
            }
        )
            if (then != now)
                yield return new(level, now.One.Capital(), null, "is called", $"{then.One}, {then.Many}", $"{now.One}, {now.Many}");
        // Both in the same words: what is called otherwise is not timed otherwise.
        var (was, will) = (Told(before, named), Told(after, named));
        foreach (var (target, now) in will)
        {
            if (!was.TryGetValue(target, out var old))
                yield return new(target, now.Name, null, "added", null, now.Name);
            else
                foreach (var (field, value) in now.Fields)
                    if (old.Fields.GetValueOrDefault(field) != value)
                        yield return new(target, now.Name, null, field, old.Fields.GetValueOrDefault(field), value);
        }
        foreach (var (target, old) in was)
            if (!will.ContainsKey(target))
                yield return new(target, old.Name, null, "removed", old.Name, null);
    }

    // What a team would say of every unit, lesson and item, in reading order.
    private static Dictionary<string, (string Name, Dictionary<string, string?> Fields)> Told(PlanSchedule plan, LevelNames levels)
    {
        var told = new Dictionary<string, (string, Dictionary<string, string?>)>();
        var gates = new GateWords(item => $"{plan.CodeOf[item]} {plan.Item(item).Title}", _ => levels.Lesson.A, levels);
        told[""] = ("the course", new() { ["before it opens"] = $"{plan.Edition.Before}" });
        foreach (var (unit, place) in plan.Edition.Units.Select((unit, place) => (unit, place)))
        {
            told[unit.Ref.Name] = (
                unit.Title,
                new()
                {
                    ["title"] = unit.Title,
                    ["place"] = $"{place + 1}",
                    ["published"] = $"{unit.Published}",
                    ["before it opens"] = $"{unit.Before}",
                    ["condition"] = Sentence(unit.Gate),
                }
            );
            foreach (var (lesson, at) in unit.Lessons.Select((lesson, at) => (lesson, at)))
            {
                told[lesson.Ref.Name] = (
                    lesson.Title,
                    new()
                    {
                        ["title"] = lesson.Title,
                        ["place"] = $"{unit.Ref.Name} {at + 1}",
                        ["length"] = $"{lesson.Length}",
                        ["optional"] = $"{lesson.Optional}",
                        ["published"] = $"{lesson.Published}",
                        ["condition"] = Sentence(lesson.Gate),
                    }
                );
                Items(lesson.Items, lesson.Ref.Name);
            }
            Items(unit.Items, unit.Ref.Name);
        }
        return told;

        void Items(ImmutableArray<Item> items, string home)
        {
            foreach (var item in items)
                told[item.Ref.Name] = (
                    $"{plan.CodeOf[item.Ref]} {item.Title}",
                    new()
                    {
                        ["title"] = item.Title,
                        ["code"] = plan.CodeOf[item.Ref],
                        ["place"] = home,
                        ["published"] = $"{item.Published}",
                        ["for"] = WhomWords.Of(item.For),
                        ["purpose"] = EnumNames.Of(item.Purpose),
                        ["before it opens"] = $"{item.Before}",
                        ["text"] = item.Body,
                        ["opens"] = Said(item.Opens),
                        ["due"] = Said(item.Due),
                        ["closes"] = Said(item.Closes),
                        ["condition"] = Sentence(item.Gate),
                    }
                );
        }

        string? Sentence(Gate? gate) => gate is null ? null : gates.Sentence(gate);

        string? Said(Anchor? anchor) => anchor is null ? null : new AnchorWords(_ => levels.Lesson.A, levels).Of(anchor);
    }

    private static IEnumerable<ReachRow> DateRows(PlanSchedule before, PlanSchedule after, SectionSize size)
    {
        var (first, then) = (before.Section(size.Section), after.Section(size.Section));
        var zone = after.Term.Term.Zone;
        foreach (var row in OwnRows(before, after, size))
            yield return row;
        foreach (var (item, dates) in then.Items)
        {
            if (first.Item(item.Ref) is not { } old)
                continue;
            var name = $"{after.CodeOf[item.Ref]} {item.Item.Title}";
            var teamOnly = !old.Item.Published || !item.Published;
            // What is dropped, or no longer, has no date to move.
            foreach (
                var (field, earlier, later) in old.Dates is { } was && dates is { } will
                    ? new[]
                    {
                        ("opens", was.Opens.At, will.Opens.At),
                        ("due", was.Due.At, will.Due.At),
                        ("closes", was.Closes.At, will.Closes.At),
                    }
                    : []
            )
                if (earlier != later)
                    yield return new(
                        item.Ref.Name,
                        name,
                        size.Name,
                        field,
                        MomentWords.InWords(earlier, zone),
                        MomentWords.InWords(later, zone),
                        teamOnly,
                        MomentWords.Sortable(earlier, zone),
                        MomentWords.Sortable(later, zone),
                        EnumNames.Of(item.Item.Kind)
                    );
            if (old.Item.Held != item.Held)
                yield return new(item.Ref.Name, name, size.Name, "kept back", $"{old.Item.Held}", $"{item.Held}", teamOnly);
            if (old.Item.Skipped != item.Skipped)
                yield return new(item.Ref.Name, name, size.Name, "dropped here", $"{old.Item.Skipped}", $"{item.Skipped}", teamOnly);
        }
    }

    // A due that was on a class day, or on another day, and now stands on one without classes.
    private static IEnumerable<ReachRow> OffDayRows(PlanSchedule before, PlanSchedule after, SectionSize size)
    {
        var (was, will) = (before.Section(size.Section), after.Section(size.Section));
        foreach (var (item, dates) in will.Items)
            if (
                dates?.Due.At is { } due
                && !will.Term.IsClassDay(due)
                && was.Item(item.Ref)?.Dates?.Due.At is { } old
                && (was.Term.IsClassDay(old) || old != due)
            )
                yield return new(
                    item.Ref.Name,
                    $"{after.CodeOf[item.Ref]} {item.Item.Title}",
                    size.Name,
                    OffDay,
                    MomentWords.InWords(old, after.Term.Term.Zone),
                    MomentWords.InWords(due, after.Term.Term.Zone)
                );
    }

    // What is of this section only: there, gone, or called otherwise.
    private static IEnumerable<ReachRow> OwnRows(PlanSchedule before, PlanSchedule after, SectionSize size)
    {
        var (was, will) = (Own(before), Own(after));
        foreach (var (target, name) in will)
            if (was.GetValueOrDefault(target) is var old && old != name)
                yield return new(target, name, size.Name, old is null ? "added" : "title", old, name);
        foreach (var (target, name) in was.Where(pair => !will.ContainsKey(pair.Key)))
            yield return new(target, name, size.Name, "removed", name, null);

        Dictionary<string, string> Own(PlanSchedule plan) =>
            plan.Section(size.Section)
                .Section.Adjustments.Select(adjustment =>
                    adjustment switch
                    {
                        Adjustment.AddUnit unit => (unit.Unit.Name, unit.Title),
                        Adjustment.AddLesson lesson => (lesson.Lesson.Name, $"{lesson.Title}, {lesson.Length}"),
                        Adjustment.AddItem { Item: var item } => (
                            item.Ref.Name,
                            $"{plan.CodeOf[item.Ref]} {item.Title}{(item.Published ? "" : ", unpublished")}"
                        ),
                        _ => ("", ""),
                    }
                )
                .Where(own => own.Item1.Length > 0)
                .ToDictionary(own => own.Item1, own => own.Item2, StringComparer.Ordinal);
    }
}
