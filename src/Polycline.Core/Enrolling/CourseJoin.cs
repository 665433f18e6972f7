using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;

namespace Polycline.Core.Enrolling;

/// <summary>How much work hangs on something.</summary>
public readonly record struct WorkCount(int HandedIn, int Scores, int Posts, int Feedback)
{
    public static WorkCount operator +(WorkCount one, WorkCount other) =>
        new(one.HandedIn + other.HandedIn, one.Scores + other.Scores, one.Posts + other.Posts, one.Feedback + other.Feedback);
}

/// <summary>A unit, lesson or item that a section has of its own. Its id is unique among the section's own things.</summary>
/// <param name="On">Of a lesson its unit; of an item its lesson, or else its unit.</param>
/// <param name="Kind">Of an item.</param>
/// <param name="Code">Of an item; null: none.</param>
/// <param name="Lineage">What it is called in every edition; null: not known.</param>
public sealed record OwnThing(
    string Id,
    Level Level,
    string Title,
    string? On = null,
    ItemKind? Kind = null,
    string? Code = null,
    string? Lineage = null,
    WorkCount Work = default
);

/// <summary>The term that a section is in, where it is not that of the course.</summary>
public sealed record OtherTerm(string Zone, LocalDate First, LocalDate Last);

/// <summary>How something of a section was recognised in the course; in this order.</summary>
public enum MatchedBy
{
    Lineage,
    Code,
    Title,
}

/// <param name="Own">The section's, by id.</param>
/// <param name="Edition">The course's, by name.</param>
public sealed record MatchedPair(string Own, string Edition, MatchedBy By);

/// <summary>Things that may or may not be the same. A wrong match mixes two pieces of work; a missed one costs a click.</summary>
public sealed record AmbiguousMatch(ImmutableArray<string> Own, ImmutableArray<string> Edition, MatchedBy By);

/// <summary>Something that stays the section's own.</summary>
/// <param name="On">Where it hangs: the course's unit or lesson where its own is matched, else its own; of a unit null.</param>
public sealed record StayingThing(string Own, string? On);

public enum HindranceCode
{
    DoubleEnrolment,
    TermDiffers,
    TooFewClasses,
}

/// <summary>Something to be settled before a section follows; none forbids the answer.</summary>
/// <param name="By">By how many classes or minutes it has too few.</param>
public sealed record Hindrance(HindranceCode Code, ImmutableArray<string> Targets, int? By = null);

/// <summary>What happens when a section follows a course from a date on: a proposal. Source: the computation, chapter 11.</summary>
/// <param name="NotCounted">Items that were due before that date: overdue for nobody there. In reading order.</param>
/// <param name="Matched">The work on what is matched; with <paramref name="Own"/> it is <paramref name="Before"/>.</param>
public sealed record CourseJoin(
    ImmutableArray<MatchedPair> Pairs,
    ImmutableArray<AmbiguousMatch> Ambiguous,
    ImmutableArray<StayingThing> Stays,
    WorkCount Before,
    WorkCount Matched,
    WorkCount Own,
    ImmutableArray<Ref<Item>> NotCounted,
    ImmutableArray<Hindrance> Hindrances
)
{
    /// <param name="from">The local date from which the section follows.</param>
    /// <param name="holds">What it has of its own: a unit, its lessons, its items, then the next unit.</param>
    public static CourseJoin Of(
        PlanSchedule plan,
        Plan people,
        Ref<Section> section,
        LocalDate from,
        OtherTerm? term,
        IReadOnlyList<OwnThing> holds
    )
    {
        var schedule = plan.Section(section);
        var (pairs, ambiguous) = new Matching(plan, holds).Made();
        var matched = pairs.ToDictionary(pair => pair.Own, pair => pair.Edition, StringComparer.Ordinal);
        var (of, own) = (default(WorkCount), default(WorkCount));
        foreach (var thing in holds)
            if (matched.ContainsKey(thing.Id))
                of += thing.Work;
            else
                own += thing.Work;
        return new(
            pairs,
            ambiguous,
            [
                .. holds
                    .Where(thing => !matched.ContainsKey(thing.Id))
                    .Select(thing => new StayingThing(thing.Id, thing.On is { } on ? matched.GetValueOrDefault(on, on) : null)),
            ],
            of + own,
            of,
            own,
            [
                .. schedule
                    .Items.Where(item => item.Dates?.Due.At is { } due && plan.Term.Local(due).Date < from)
                    .Select(item => item.Item.Ref),
            ],
            [.. DoubleEnrolments(people, section, from), .. TermDiffers(plan.Term.Term, term), .. TooFewClasses(schedule)]
        );
    }

    private static IEnumerable<Hindrance> DoubleEnrolments(Plan people, Ref<Section> section, LocalDate from)
    {
        var own = people.Sections.Single(one => one.Ref == section).Students;
        foreach (var student in own.Select(entry => entry.Student).Distinct().Where(student => !people.Home.ContainsKey(student)))
        {
            var entries = own.Where(entry => entry.Student == student).ToList();
            var others = people
                .Sections.Where(other =>
                    other.Ref != section
                    && other.Students.Any(entry => entry.Student == student && entries.Any(one => Share(one, entry, from)))
                )
                .Select(other => other.Ref)
                .ToHashSet();
            if (others.Count > 0)
                yield return new(
                    HindranceCode.DoubleEnrolment,
                    [
                        student.Name,
                        .. people.Sections.Where(one => one.Ref == section || others.Contains(one.Ref)).Select(one => one.Ref.Name),
                    ]
                );
        }
    }

    // Whether some date from that day on lies in both.
    private static bool Share(Enrolment one, Enrolment other, LocalDate from) => one.Meets(other) && !(one.To < from) && !(other.To < from);

    private static IEnumerable<Hindrance> TermDiffers(Term term, OtherTerm? other)
    {
        if (other is null)
            yield break;
        var differing = new[]
        {
            ("zone", other.Zone == term.Zone.Id),
            ("first", other.First == term.First),
            ("last", other.Last == term.Last),
        };
        if (differing.Any(part => !part.Item2))
            yield return new(HindranceCode.TermDiffers, [.. differing.Where(part => !part.Item2).Select(part => part.Item1)]);
    }

    private static IEnumerable<Hindrance> TooFewClasses(SectionSchedule schedule)
    {
        if (schedule.Planned.Lacking > 0)
            yield return new(HindranceCode.TooFewClasses, [schedule.Section.Ref.Name], schedule.Planned.Lacking);
    }

    // Three rounds, each over what no round before has taken; what is ambiguous once is never matched later.
    private sealed class Matching(PlanSchedule plan, IReadOnlyList<OwnThing> holds)
    {
        private readonly IReadOnlyList<OwnThing> course =
        [
            .. plan.Edition.Units.SelectMany(unit =>
                (IEnumerable<OwnThing>)
                    [
                        new(unit.Ref.Name, Level.Unit, unit.Title, Lineage: unit.Lineage),
                        .. unit.Lessons.Select(lesson => new OwnThing(
                            lesson.Ref.Name,
                            Level.Lesson,
                            lesson.Title,
                            Lineage: lesson.Lineage
                        )),
                        .. unit.InReadingOrder()
                            .Select(item => new OwnThing(
                                item.Ref.Name,
                                Level.Item,
                                item.Title,
                                Kind: item.Kind,
                                Code: plan.CodeOf[item.Ref],
                                Lineage: item.Lineage
                            )),
                    ]
            ),
        ];

        private readonly HashSet<OwnThing> taken = new(ReferenceEqualityComparer.Instance);

        public (ImmutableArray<MatchedPair>, ImmutableArray<AmbiguousMatch>) Made()
        {
            var (pairs, ambiguous) = (new List<MatchedPair>(), new List<AmbiguousMatch>());
            foreach (var by in Enum.GetValues<MatchedBy>())
                Round(by, pairs, ambiguous);
            var place = holds.Index().ToDictionary(entry => entry.Item.Id, entry => entry.Index, StringComparer.Ordinal);
            return ([.. pairs.OrderBy(pair => place[pair.Own])], [.. ambiguous.OrderBy(match => place[match.Own[0]])]);
        }

        private void Round(MatchedBy by, List<MatchedPair> pairs, List<AmbiguousMatch> ambiguous)
        {
            var theirs = Keyed(course, by);
            foreach (var (key, own) in Keyed(holds, by))
            {
                if (!theirs.TryGetValue(key, out var known))
                    continue;
                taken.UnionWith([.. own, .. known]);
                if (own.Count == 1 && known.Count == 1)
                    pairs.Add(new(own[0].Id, known[0].Id, by));
                else
                    ambiguous.Add(new([.. own.Select(thing => thing.Id)], [.. known.Select(thing => thing.Id)], by));
            }
        }

        private Dictionary<(Level, ItemKind?, string), List<OwnThing>> Keyed(IEnumerable<OwnThing> things, MatchedBy by)
        {
            var keyed = new Dictionary<(Level, ItemKind?, string), List<OwnThing>>();
            foreach (var thing in things.Where(thing => !taken.Contains(thing)))
            {
                var key = by switch
                {
                    MatchedBy.Lineage => thing.Lineage,
                    MatchedBy.Code => thing.Code,
                    _ => TitleFolding.Key(thing.Title),
                };
                if (string.IsNullOrEmpty(key))
                    continue;
                if (!keyed.TryGetValue((thing.Level, thing.Kind, key), out var same))
                    keyed[(thing.Level, thing.Kind, key)] = same = [];
                same.Add(thing);
            }
            return keyed;
        }
    }
}
