using System.Collections.Immutable;
using Polycline.Core.Calendars;
using Polycline.Core.Changes;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Sections;

namespace Polycline.Core.Wording;

/// <summary>The rows of a reach: what comes out differently between two states of a course.</summary>
internal static class ReachRows
{
    /// <summary>Sections that stop following, and that begin to.</summary>
    public static IEnumerable<ReachRow> OfFollowing(ImmutableArray<SectionSize> left, ImmutableArray<SectionSize> joined) =>
        left.Select(size => new ReachRow(size.Section.Name, size.Name, size.Name, "follows", "until now", null))
            .Concat(joined.Select(size => new ReachRow(size.Section.Name, size.Name, size.Name, "follows", null, "from now on")));

    /// <summary>How many classes a section has, and how the course fits them.</summary>
    public static IEnumerable<ReachRow> OfFit(PlanSchedule before, PlanSchedule after, SectionSize size)
    {
        var (was, will) = (before.Section(size.Section), after.Section(size.Section));
        foreach (
            var (field, then, now) in new[]
            {
                (Reach.Classes, was.Meetings.Meetings.Length, will.Meetings.Meetings.Length),
                (Reach.Lacking, was.Forecast.Lacking, will.Forecast.Lacking),
                (Reach.Outside, Fallen(was, will), Fallen(will, was)),
                (Reach.Sleeping, Sleepers(was), Sleepers(will)),
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

    /// <summary>What a team would say otherwise of the course itself.</summary>
    public static IEnumerable<ReachRow> OfCourse(PlanSchedule before, PlanSchedule after)
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
        if (before.Edition.AddingUp != after.Edition.AddingUp)
            yield return new("scores", "Scores", null, Reach.Totals, AddedUp(before.Edition), AddedUp(after.Edition));
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

    private static string AddedUp(Edition edition)
    {
        var adding = edition.AddingUp;
        var weights = edition
            .Units.Select(unit => (unit.Title, Key: unit.Ref.Name))
            .Concat(new[] { (Title: "for marks", Key: "marks"), (Title: "practice", Key: "practice"), (Title: "to read", Key: "read") })
            .Where(one => adding.WeightOf.ContainsKey(one.Key))
            .Select(one => $"{one.Title} {MarkWords.Number(adding.WeightOf[one.Key])}")
            .ToList();
        var dropped = edition
            .Units.Where(unit => adding.Drop.ContainsKey(unit.Ref.Name))
            .Select(unit => $"{unit.Title} without its lowest {adding.Drop[unit.Ref.Name]}");
        return string.Join(
            "; ",
            [
                weights.Count == 0 ? "all points together" : string.Join(", ", weights),
                adding.MissingAsZero ? "what is missing counts as 0" : "what is missing is left out",
                .. dropped,
            ]
        );
    }

    // What a team would say of every unit, lesson and item, in reading order.
    private static Dictionary<string, (string Name, Dictionary<string, string?> Fields)> Told(PlanSchedule plan, LevelNames levels)
    {
        var told = new Dictionary<string, (string, Dictionary<string, string?>)>();
        var gates = new GateWords(
            item => $"{plan.CodeOf[item]} {plan.Item(item).Title}",
            _ => levels.Lesson.A,
            levels,
            (choice, option) => plan.Item(choice).TitleOf(option)
        );
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
                    ["always open"] = $"{unit.Welcome}",
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
                        ["files"] = item.Files.IsEmpty ? null : string.Join(", ", item.Files.Select(file => $"{file.Name} {file.Hash}")),
                        ["asks for"] = item.Asks is null ? null : AsksWords.InFull(item.Asks),
                        ["to choose from"] = item.Kind == ItemKind.Choice ? OfferWords.InFull(item) : null,
                        ["questions"] = item.Quiz,
                        ["rubric"] = item.Rubric,
                        ["is marked"] = item.Marked is null ? null : MarkWords.InFull(item.Marked),
                        ["leads to"] = item.Address,
                        ["outcomes"] = item.Outcomes.IsEmpty ? null : string.Join(", ", item.Outcomes),
                        ["about the teacher"] = $"{item.AboutTeacher}",
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

    /// <summary>What is of this section only, and dates that move in it.</summary>
    public static IEnumerable<ReachRow> OfDates(PlanSchedule before, PlanSchedule after, SectionSize size)
    {
        var (first, then) = (before.Section(size.Section), after.Section(size.Section));
        var zone = after.Term.Term.Zone;
        foreach (var row in OfOwn(before, after, size))
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
                        MomentWords.InWords(later, zone)
                    )
                    {
                        TeamOnly = teamOnly,
                        From = MomentWords.Sortable(earlier, zone),
                        To = MomentWords.Sortable(later, zone),
                        Kind = EnumNames.Of(item.Item.Kind),
                    };
            if (old.Item.Held != item.Held)
                yield return new(item.Ref.Name, name, size.Name, "kept back", $"{old.Item.Held}", $"{item.Held}") { TeamOnly = teamOnly };
            if (old.Item.Skipped != item.Skipped)
                yield return new(item.Ref.Name, name, size.Name, "dropped here", $"{old.Item.Skipped}", $"{item.Skipped}")
                {
                    TeamOnly = teamOnly,
                };
        }
    }

    /// <summary>A due that was on a class day, or on another day, and now stands on one without classes.</summary>
    public static IEnumerable<ReachRow> OfOffDays(PlanSchedule before, PlanSchedule after, SectionSize size)
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
                    Reach.OffDay,
                    MomentWords.InWords(old, after.Term.Term.Zone),
                    MomentWords.InWords(due, after.Term.Term.Zone)
                );
    }

    // What is of this section only: there, gone, or called otherwise.
    private static IEnumerable<ReachRow> OfOwn(PlanSchedule before, PlanSchedule after, SectionSize size)
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
