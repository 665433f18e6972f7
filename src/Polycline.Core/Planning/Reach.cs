using System.Collections.Immutable;
using System.Globalization;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Core.Planning;

/// <summary>A section as reach counts it: its name and how many students it has.</summary>
public sealed record SectionSize(Ref<Section> Section, string Name, int Students);

/// <summary>One thing that comes out differently, before and after.</summary>
/// <param name="Target">The unit, lesson or item.</param>
/// <param name="Name">How it is called: code and title of an item, else its title.</param>
/// <param name="Section">The section in which it does; null: in the course itself.</param>
/// <param name="Field">Such as <c>title</c> or <c>due</c>.</param>
/// <param name="Before">In words; null: there was nothing.</param>
/// <param name="After">In words; null: there is nothing any more.</param>
public sealed record ReachRow(string Target, string Name, string? Section, string Field, string? Before, string? After);

/// <summary>What a change to a course does, computed from the course before it and after it.</summary>
/// <param name="Rows">What comes out differently: the course in reading order, then dates section by section.</param>
/// <param name="Sections">The sections that it touches.</param>
/// <param name="Sentence">The same in words, for the team.</param>
public sealed record Reach(ImmutableArray<ReachRow> Rows, ImmutableArray<SectionSize> Sections, string Sentence)
{
    /// <summary>How many classes a section has, by how much the course does not fit it, and how many changes of its classes name none: fields of a <see cref="ReachRow"/>.</summary>
    public const string Classes = "classes", Lacking = "does not fit by", Sleeping = "changes asleep";

    /// <summary>Compares two states of one course.</summary>
    /// <param name="sizes">The sections that follow it before or after, in order.</param>
    public static Reach Between(PlanSchedule before, PlanSchedule after, ImmutableArray<SectionSize> sizes)
    {
        if (ReferenceEquals(before, after))
            return new([], [], "Nothing changes for anyone.");
        var course = CourseRows(before, after).ToList();
        var joined = sizes.Where(size => !before.Follows(size.Section)).ToImmutableArray();
        var staying = sizes.Where(size => before.Follows(size.Section) && after.Follows(size.Section)).ToImmutableArray();
        var dates = staying.SelectMany(size => DateRows(before, after, size)).ToList();
        var terms = staying.SelectMany(size => FitRows(before, after, size)).ToList();
        if (sizes.Where(size => !after.Follows(size.Section)).ToImmutableArray() is { IsEmpty: false } left)
            return new([.. course, .. terms, .. left.Select(size => new ReachRow(size.Section.Name, size.Name, size.Name, "follows", "until now", null))], left, Follow(left, "stops following", "stop following"));
        if (!joined.IsEmpty)
            return new([.. course, .. joined.Select(size => new ReachRow(size.Section.Name, size.Name, size.Name, "follows", null, "from now on")), .. terms, .. dates], joined, Follow(joined, "follows from now on", "follow from now on"));
        var touched = sizes.Where(size => course.Count > 0 || dates.Concat(terms).Any(row => row.Section == size.Name)).ToImmutableArray();
        return new([.. course, .. terms, .. dates], touched, InWords(course, dates, terms, touched, sizes, after.Edition.Basis));
    }

    private static string Follow(ImmutableArray<SectionSize> sections, string one, string many) =>
        $"{Joined([.. sections.Select(size => size.Name)], "and")} {(sections.Length == 1 ? one : many)}, with {Counted(sections.Sum(size => size.Students), "student", "students")}.";

    private static string InWords(
        List<ReachRow> course, List<ReachRow> dates, List<ReachRow> fits, ImmutableArray<SectionSize> touched, ImmutableArray<SectionSize> all, Basis basis)
    {
        if (course.Count + dates.Count + fits.Count == 0)
            return "Nothing changes for anyone.";
        if (all.IsEmpty)
            return "No section follows this edition yet: only the team sees it.";
        var where = touched.Length == 1 ? touched[0].Name : touched.Length == all.Length ? $"all {all.Length} sections" : Joined([.. touched.Select(size => size.Name)], "and");
        var students = Counted(touched.Sum(size => size.Students), "student", "students");
        var own = dates.Where(row => row.Field is "added" or "removed" or "title").ToList();
        var moving = dates.Count - own.Count;
        var moved = Counted(moving, "date moves", "dates move");
        var first = course.Count > 0 ? $"Changes in {where} at once, for {students}.{(moving == 0 ? "" : $" {moved}.")}"
            : own.Count > 0 ? $"Changes in {where} only, for {students}.{(moving == 0 ? "" : $" {moved}.")}"
            : dates.Count > 0 ? $"{moved} in {where}, for {students}."
            : $"No date moves in {where}.";
        // Of many sections only what does not fit is told in the sentence; the rows have it all.
        return string.Join(' ', fits.Where(row => row.Field != Classes || touched.Length == 1).Select(row => FitInWords(row, basis)).OfType<string>().Prepend(first));
    }

    // Null: there is nothing to tell of it.
    internal static string? FitInWords(ReachRow row, Basis basis)
    {
        var (was, will) = (int.Parse(row.Before!, CultureInfo.InvariantCulture), int.Parse(row.After!, CultureInfo.InvariantCulture));
        return row.Field switch
        {
            Classes => $"{row.Section} meets {Counted(will, "time", "times")} instead of {was}.",
            Lacking when will == 0 => $"{row.Section} fits now.",
            Lacking => $"{row.Section} {(was == 0 ? "no longer fits" : "does not fit")}, by {(basis == Basis.Meetings ? Counted(will, "class", "classes") : Counted(will, "minute", "minutes"))}{(was == 0 ? "" : $" instead of {was}")}.",
            Sleeping when will > was => $"{Counted(will - was, "changed class", "changed classes")} of {row.Section} {(will - was == 1 ? "sleeps" : "sleep")}.",
            _ => null,
        };
    }

    private static IEnumerable<ReachRow> FitRows(PlanSchedule before, PlanSchedule after, SectionSize size)
    {
        var (was, will) = (before.Section(size.Section), after.Section(size.Section));
        foreach (var (field, then, now) in new[]
        {
            (Classes, was.Meetings.Meetings.Length, will.Meetings.Meetings.Length), (Lacking, was.Forecast.Lacking, will.Forecast.Lacking), (Sleeping, Sleepers(was), Sleepers(will)),
        })
            if (then != now)
                yield return new(size.Section.Name, size.Name, size.Name, field, $"{then}", $"{now}");

        static int Sleepers(SectionSchedule schedule) => schedule.Findings.Count(finding => finding.Code == "change-idle");
    }

    private static IEnumerable<ReachRow> CourseRows(PlanSchedule before, PlanSchedule after)
    {
        var named = after.Edition.Levels;
        foreach (var (level, then, now) in new[] { ("unit", before.Edition.Levels.Unit, named.Unit), ("lesson", before.Edition.Levels.Lesson, named.Lesson), ("item", before.Edition.Levels.Item, named.Item) })
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
            told[unit.Ref.Name] = (unit.Title, new() { ["title"] = unit.Title, ["place"] = $"{place + 1}", ["published"] = $"{unit.Published}", ["before it opens"] = $"{unit.Before}", ["condition"] = Sentence(unit.Gate) });
            foreach (var (lesson, at) in unit.Lessons.Select((lesson, at) => (lesson, at)))
            {
                told[lesson.Ref.Name] = (lesson.Title, new()
                {
                    ["title"] = lesson.Title,
                    ["place"] = $"{unit.Ref.Name} {at + 1}",
                    ["length"] = $"{lesson.Length}",
                    ["optional"] = $"{lesson.Optional}",
                    ["published"] = $"{lesson.Published}",
                    ["condition"] = Sentence(lesson.Gate),
                });
                Items(lesson.Items, lesson.Ref.Name);
            }
            Items(unit.Items, unit.Ref.Name);
        }
        return told;

        void Items(ImmutableArray<Item> items, string home)
        {
            foreach (var item in items)
                told[item.Ref.Name] = ($"{plan.CodeOf[item.Ref]} {item.Title}", new()
                {
                    ["title"] = item.Title,
                    ["code"] = plan.CodeOf[item.Ref],
                    ["place"] = home,
                    ["published"] = $"{item.Published}",
                    ["for"] = WhomWords.Of(item.For),
                    ["purpose"] = Words.Of(item.Purpose),
                    ["before it opens"] = $"{item.Before}",
                    ["text"] = item.Body,
                    ["opens"] = Said(item.Opens),
                    ["due"] = Said(item.Due),
                    ["closes"] = Said(item.Closes),
                    ["condition"] = Sentence(item.Gate),
                });
        }

        string? Sentence(Release.Gate? gate) => gate is null ? null : gates.Sentence(gate);

        string? Said(Anchor? anchor) => anchor is null ? null : new AnchorWords(_ => levels.Lesson.A, levels).Of(anchor);
    }

    private static IEnumerable<ReachRow> DateRows(PlanSchedule before, PlanSchedule after, SectionSize size)
    {
        var (was, will) = (before.Section(size.Section), after.Section(size.Section));
        var zone = after.Term.Term.Zone;
        foreach (var row in OwnRows(before, after, size))
            yield return row;
        foreach (var (item, dates) in will.Items)
        {
            if (was.Item(item.Ref) is not { } old)
                continue;
            var name = $"{after.CodeOf[item.Ref]} {item.Item.Title}";
            foreach (var (field, then, now) in new[]
            {
                ("opens", old.Dates?.Opens.At, dates?.Opens.At), ("due", old.Dates?.Due.At, dates?.Due.At), ("closes", old.Dates?.Closes.At, dates?.Closes.At),
            })
                if (then != now)
                    yield return new(item.Ref.Name, name, size.Name, field, Moments.InWords(then, zone), Moments.InWords(now, zone));
            if (old.Item.Held != item.Held)
                yield return new(item.Ref.Name, name, size.Name, "kept back", $"{old.Item.Held}", $"{item.Held}");
            if (old.Item.Skipped != item.Skipped)
                yield return new(item.Ref.Name, name, size.Name, "dropped here", $"{old.Item.Skipped}", $"{item.Skipped}");
        }
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

        Dictionary<string, string> Own(PlanSchedule plan) => plan.Section(size.Section).Section.Adjustments.Select(adjustment => adjustment switch
        {
            Adjustment.AddUnit unit => (unit.Unit.Name, unit.Title),
            Adjustment.Insert lesson => (lesson.Lesson.Name, $"{lesson.Title}, {lesson.Length}"),
            Adjustment.Add { Item: var item } => (item.Ref.Name, $"{plan.CodeOf[item.Ref]} {item.Title}{(item.Published ? "" : ", unpublished")}"),
            _ => ("", ""),
        }).Where(own => own.Item1.Length > 0).ToDictionary(own => own.Item1, own => own.Item2, StringComparer.Ordinal);
    }
}
