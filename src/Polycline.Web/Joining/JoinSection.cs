using System.Text.Json.Nodes;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Enrolling;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.Sections;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.OneStudent;

namespace Polycline.Web.Joining;

/// <param name="Version">The version of the section that was read.</param>
/// <param name="From">From which day of the term it follows; null: from the beginning, or in mid-term from today.</param>
/// <param name="Homes">For students who are then in two sections: which decides.</param>
public sealed record JoinSectionRequest(Id<Section> Section, long Version, string? From, IReadOnlyList<JoiningHome> Homes);

public sealed record JoiningHome(Id<Person> Student, Id<Section> Section);

/// <summary>
/// A section starts to follow an edition. Of what it holds, what is the same goes together with its work, and the rest stays
/// its own; nothing else is copied, however much the course holds. Undo is stopping to follow.
/// </summary>
public sealed class JoinSection : IPlanningCommand<EditionPlan, JoiningSection?, JoinSectionRequest>
{
    public static string Name => "join-section";

    public static Task<JoiningSection?> Read(NpgsqlConnection connection, EditionPlan plan, JoinSectionRequest request) =>
        JoiningSection.Read(connection, plan, request.Section);

    /// <summary>
    /// Before the term's first day it follows from the beginning; later nothing of what was due by then is asked of its students.
    /// </summary>
    public static LocalDate? From(EditionPlan plan, string? from, Instant now) =>
        from is not null && StudentsHere.Day(plan, from, "from") is var day
            ? day == plan.Term.First
                ? null
                : day
            : plan.Term.Local(now).Date is var today && today > plan.Term.First && today <= plan.Term.Last
                ? today
                : null;

    /// <exception cref="ProblemException">Whoever asks does not teach it, or it follows something of others.</exception>
    public static JoiningSection Needed(EditionPlan plan, JoiningSection? joining, Id<Person> who)
    {
        // To someone who does not teach the section, it does not exist.
        if (joining is not { Section: var section } || !section.Teachers.Contains(who))
            throw Problem.Unknown("section");
        if (section.Term != plan.TermId)
            throw Problem.InUse(
                $"{section.Name} is in a different term from this edition.",
                "Nothing was changed. Roll the edition over into that term, or choose a section of this one."
            );
        if (joining.Own is { } own && (own.Counted.Sections.Length > 1 || !joining.Leads.Contains(who)))
            throw Problem.InUse(
                $"{section.Name} follows {own.CourseTitle}.",
                "Nothing was changed. Have it stop following that course first: it keeps everything as its own."
            );
        return joining;
    }

    public static CommandDecision Decide(EditionPlan plan, JoiningSection? joining, JoinSectionRequest request, Viewpoint viewpoint)
    {
        var found = Needed(plan, joining, viewpoint.Who.Id);
        var section = found.Section;
        if (section.Edition == plan.Id)
            return new($"left {section.Name} as it is", []);
        var from = From(plan, request.From, viewpoint.At);
        List<Change> changes =
        [
            Change.Set(
                Tables.Sections.Table,
                request.Section,
                request.Version,
                Tables.Sections.Edition.Turns(section.Edition, plan.Id),
                Tables.Sections.FollowsFrom.Turns(section.FollowsFrom, from)
            ),
        ];
        foreach (var (n, home) in request.Homes.Index())
            changes.Add(HomeOf(plan, section, home, $"homes[{n}]"));
        var move = found.Own is { } own ? MoveOf(plan, found, own, from ?? plan.Term.First) : null;
        if (move is not null)
            changes.AddRange(Renamed(found.Own!, move));
        return new($"added {section.Name}", changes) { Act = $"Add {section.Name}", Moves = move };
    }

    private static Change HomeOf(EditionPlan plan, LoneSection section, JoiningHome home, string field)
    {
        if (section.Listed.All(place => place.Person != home.Student))
            throw Problem.Unknown($"{field}.student");
        if (home.Section != section.Id && plan.Following(home.Section) is null)
            throw Problem.Unknown($"{field}.section");
        Cell[] key = [Tables.Homes.Edition.Is(plan.Id), Tables.Homes.Person.Is(home.Student)];
        return plan.People.HomeOf(home.Student) is { } present
            ? Change.Set(key, present.Version, Tables.Homes.Section.Turns(present.Section, home.Section))
            : Change.Add([.. key, Tables.Homes.Section.Is(home.Section)]);
    }

    private static WorkMove MoveOf(EditionPlan plan, JoiningSection found, EditionPlan own, LocalDate from)
    {
        var join = found.Check(plan, from);
        var pairs = found.ItemPairs(plan, join);
        var together = join.Pairs.Where(pair =>
            !pair.Own.StartsWith('i') || pairs.Any(item => item.From.Value == JoiningSection.RowOf(pair.Own))
        );
        var matched = together.ToDictionary(pair => pair.Own, pair => pair.Edition);
        var keeps = new List<KeptThing>();
        var renamed = new List<(string, string)>();
        foreach (var thing in found.Holds())
        {
            if (matched.TryGetValue(thing.Id, out var here))
            {
                if (here != thing.Lineage)
                    renamed.Add((thing.Lineage!, here));
                continue;
            }
            var old = Guid.Parse(thing.Lineage!);
            var taken = found.Taken.Contains(thing.Lineage!);
            var now = taken ? Guid.NewGuid() : old;
            if (taken)
                renamed.Add(($"{old}", $"{now}"));
            keeps.Add(new(thing.Level, old, now, UnitOf(plan, own, matched, thing), LessonOf(plan, matched, thing)));
        }
        return new(found.Section.Id, own.Id, plan.Id, keeps, pairs, renamed);
    }

    // Where it comes to stand, if that is the course's.
    private static Id<Unit>? UnitOf(EditionPlan plan, EditionPlan own, Dictionary<string, string> matched, OwnThing thing)
    {
        if (thing.Level == Level.Unit)
            return null;
        if (LessonOf(plan, matched, thing) is { } lesson)
            return plan.Row(lesson)!.Unit;
        var unit =
            thing.Level == Level.Lesson
                ? own.Row(new Id<Lesson>(JoiningSection.RowOf(thing.Id)))!.Unit
                : own.Row(new Id<Item>(JoiningSection.RowOf(thing.Id)))!.Unit;
        return matched.TryGetValue($"u{unit}", out var here) ? plan.IdOf(new Ref<Unit>(here)) : null;
    }

    private static Id<Lesson>? LessonOf(EditionPlan plan, Dictionary<string, string> matched, OwnThing thing) =>
        thing is { Level: Level.Item, On: { } on } && on.StartsWith('l') && matched.TryGetValue(on, out var here)
            ? plan.IdOf(new Ref<Lesson>(here))
            : null;

    // What the section does differently, and what it was taught, is said of what things are called in the course.
    private static IEnumerable<Change> Renamed(EditionPlan own, WorkMove move)
    {
        var names = move.Renamed.ToDictionary(pair => pair.Old, pair => pair.New);
        foreach (var row in own.Adjustments.Where(row => row.Section == move.Section && names.ContainsKey(row.Target)))
        {
            Cell[] Key(string target) =>
                [
                    Tables.Adjustments.Section.Is(row.Section),
                    Tables.Adjustments.Target.Is(target),
                    Tables.Adjustments.Field.Is(EnumNames.Of(row.Field)),
                ];
            var value = Tables.Adjustments.Value.Is(row.Value is null ? null : JsonNode.Parse(row.Value));
            yield return Change.Delete(row.Version, [.. Key(row.Target), value]);
            yield return Change.Add([.. Key(names[row.Target]), value]);
        }
        foreach (var row in own.Taught.Where(row => row.Section == move.Section && names.ContainsKey(row.Lesson)))
        {
            Cell[] values =
            [
                Tables.Taught.Took.Is(row.Took),
                Tables.Taught.Done.Is(row.Done),
                Tables.Taught.Left.Is(row.Left),
                Tables.Taught.At.Is(row.At),
            ];
            yield return Change.Delete(
                row.Version,
                [Tables.Taught.Section.Is(row.Section), Tables.Taught.Lesson.Is(row.Lesson), .. values]
            );
            yield return Change.Add([Tables.Taught.Section.Is(row.Section), Tables.Taught.Lesson.Is(names[row.Lesson]), .. values]);
        }
        foreach (var row in own.Orders.Where(row => row.Section == move.Section && names.ContainsKey(row.Target)))
            yield return Change.Set(
                [Tables.OrderChanges.Section.Is(row.Section), Tables.OrderChanges.Seq.Is(row.Seq)],
                row.Version,
                Tables.OrderChanges.Target.Turns(row.Target, names[row.Target])
            );
    }
}
