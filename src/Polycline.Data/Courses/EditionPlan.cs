using System.Collections.Concurrent;
using System.Collections.Immutable;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Changes;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Sections;

namespace Polycline.Data.Courses;

/// <summary>What an edition says of itself.</summary>
/// <param name="Version">Raised when its own settings are changed.</param>
/// <param name="CodesFixed">Every item has its code for good.</param>
/// <param name="RetiredCodes">Codes of what was removed: they are given to nothing else.</param>
public sealed record EditionSettings(long Version, bool CodesFixed, IReadOnlySet<string> RetiredCodes);

/// <summary>What a course is called, in all its editions.</summary>
/// <param name="Subject">Empty: none is said.</param>
/// <param name="Version">Raised when either is changed.</param>
public sealed record CourseName(string Title, string Subject, long Version);

/// <summary>An edition, without what is in it.</summary>
/// <param name="Version">Its counter.</param>
public sealed record EditionHead(
    Id<Edition> Id,
    Id<Master> Master,
    EditionState State,
    long Version,
    CourseName Name,
    EditionSettings Settings
);

/// <summary>The term that an edition is taught in.</summary>
/// <param name="Version">Its counter.</param>
public sealed record EditionTerm(Id<Term> Id, Term Term, long Version);

/// <summary>The sections that follow an edition, in order of name, and what they do differently, row by row.</summary>
public sealed record FollowingSections(ImmutableArray<FollowingSection> Sections, SectionRows Rows)
{
    /// <summary>Some of them, with what those do differently.</summary>
    public FollowingSections Only(ImmutableArray<FollowingSection> kept)
    {
        var here = kept.Select(section => section.Id).ToHashSet();
        return new(
            kept,
            Rows with
            {
                Adjustments = [.. Rows.Adjustments.Where(row => here.Contains(row.Section))],
                Orders = [.. Rows.Orders.Where(row => here.Contains(row.Section))],
                Taught = [.. Rows.Taught.Where(row => here.Contains(row.Section))],
                MeetingChanges = [.. Rows.MeetingChanges.Where(row => here.Contains(row.Section))],
                Opened = [.. Rows.Opened.Where(row => here.Contains(row.Section))],
            }
        );
    }
}

/// <summary>
/// An edition as it stood at one counter, with what a change of it needs: its tree, its sections and its groups, each of
/// which changes by itself. What hangs on items and is no part of planning is read where it is asked for, not here.
/// </summary>
public sealed class EditionPlan(EditionHead head, EditionTerm term, CourseTree tree, FollowingSections following, EditionPeople people)
{
    private readonly Lazy<PlanSchedule> schedule = new(() =>
        PlanSchedule.Of(TermDays.Of(term.Term), tree.Edition, [.. following.Sections.Select(section => section.Section)], [.. tree.Kept])
    );

    // Without some sections, by those that are left: seldom asked for, and worked out once.
    private readonly ConcurrentDictionary<string, EditionPlan> partly = new();

    public Id<Edition> Id => head.Id;

    public Id<Master> Master => head.Master;

    public EditionState State => head.State;

    public long Version => head.Version;

    public EditionSettings Settings => head.Settings;

    public string CourseTitle => head.Name.Title;

    /// <inheritdoc cref="CourseName"/>
    public CourseName Name => head.Name;

    public Id<Term> TermId => term.Id;

    public Term Term => term.Term;

    public long TermVersion => term.Version;

    public Edition Edition => tree.Edition;

    public IReadOnlyList<TreeRow> Rows => tree.Rows;

    /// <summary>What is known of single students.</summary>
    public EditionPeople People { get; } = people;

    /// <summary>In order of name.</summary>
    public IReadOnlyList<GroupRow> Groups => People.Groups;

    public ImmutableArray<FollowingSection> Sections => following.Sections;

    public IReadOnlyList<AdjustmentRow> Adjustments => following.Rows.Adjustments;

    public IReadOnlyList<OrderChangeRow> Orders => following.Rows.Orders;

    public IReadOnlyList<TaughtRow> Taught => following.Rows.Taught;

    public IReadOnlyList<MeetingChangeRow> MeetingChanges => following.Rows.MeetingChanges;

    /// <summary>The course on its sections' calendars.</summary>
    public PlanSchedule Schedule => schedule.Value;

    /// <summary>The sections as the computation knows them, with their class lists.</summary>
    public IEnumerable<Section> SectionsWithStudents =>
        Sections.Select(section =>
            section.Section with
            {
                Students = [.. section.Listed.Select(place => new Enrolment(place.Person.InPlan(), place.From, place.To))],
            }
        );

    /// <summary>Roughly how much memory it takes, in bytes, with its schedules.</summary>
    public long Weight => 10_000 + (Rows.Count * (1_500L + (800L * Sections.Length)));

    /// <inheritdoc cref="CourseTree.Row{T}(Id{T})"/>
    public TreeRow? Row<T>(Id<T> id) => tree.Row(id);

    /// <inheritdoc cref="CourseTree.Row{T}(Ref{T})"/>
    public TreeRow Row<T>(Ref<T> name) => tree.Row(name);

    /// <inheritdoc cref="CourseTree.IdOf{T}"/>
    public Id<T> IdOf<T>(Ref<T> name) => tree.IdOf(name);

    /// <inheritdoc cref="CourseTree.Find"/>
    public TreeRow? Find(string lineage) => tree.Find(lineage);

    /// <inheritdoc cref="CourseTree.UnitOf"/>
    public Unit UnitOf(TreeRow row) => tree.UnitOf(row);

    /// <inheritdoc cref="CourseTree.LessonOf"/>
    public Lesson LessonOf(TreeRow row) => tree.LessonOf(row);

    /// <summary>The sections as reach counts them, without pretend ones, with their students as of a moment.</summary>
    public ImmutableArray<SectionSize> SizesAt(Instant at) =>
        [
            .. Counted.Sections.Select(section => new SectionSize(
                section.Section.Ref,
                section.Name,
                [.. section.PeopleOn(Term.Local(at).Date).Select(person => person.InPlan())]
            )),
        ];

    /// <summary>The same without the sections that had ended before a date: those that something is still to be planned for.</summary>
    public EditionPlan On(LocalDate date) => Only(section => section.EndedOn is not { } last || last >= date);

    /// <summary>The same without pretend sections: those that count.</summary>
    public EditionPlan Counted => Only(section => section.Pretend is null);

    /// <summary>The same with some of its sections only.</summary>
    public EditionPlan Only(Func<FollowingSection, bool> which)
    {
        var kept = Sections.Where(which).ToImmutableArray();
        return kept.Length == Sections.Length
            ? this
            : partly.GetOrAdd(string.Join(' ', kept.Select(section => section.Id)), _ =>
                new(head, term, tree, following.Only(kept), People)
            );
    }

    /// <summary>What an option of a choice is called.</summary>
    public string OptionOf(Ref<Item> choice, string option) => Schedule.Knows(choice) ? Schedule.Item(choice).TitleOf(option) : option;

    /// <summary>The title of a unit, lesson or item.</summary>
    public string TitleOf(string lineage) =>
        Find(lineage) switch
        {
            { Level: Level.Unit } unit => UnitOf(unit).Title,
            { Level: Level.Lesson } lesson => LessonOf(lesson).Title,
            { } item => Schedule.Item(new(item.Lineage)).Title,
            null => "something removed",
        };

    /// <summary>Whether a row is to be seen: of the course, or of a section that follows it.</summary>
    public bool IsHere(TreeRow row) => !row.Removed && (row.Section is null || Sections.Any(section => section.Id == row.Section));

    /// <summary>The units as they stand, those of one section among them, each with its items in reading order.</summary>
    public IEnumerable<(TreeRow Unit, IReadOnlyList<TreeRow> Items)> ItemsByUnit()
    {
        var here = Rows.Where(IsHere).ToList();
        var lessonsOf = here.Where(row => row.Level == Level.Lesson).ToLookup(row => row.Unit);
        var itemsOf = here.Where(row => row.Level == Level.Item).ToLookup(row => (row.Unit, row.Lesson));
        return here.Where(row => row.Level == Level.Unit)
            .Select(unit =>
                (
                    unit,
                    (IReadOnlyList<TreeRow>)
                        [.. lessonsOf[unit.Unit].SelectMany(lesson => itemsOf[(unit.Unit, lesson.Lesson)]), .. itemsOf[(unit.Unit, null)]]
                )
            );
    }

    /// <summary>How many units, lessons and items mention a group, including those of one section only.</summary>
    public int UsesOf(string group) =>
        Rows.Where(IsHere)
            .Count(row =>
                row.Level switch
                {
                    Level.Unit => Names(UnitOf(row).Gate, group),
                    Level.Lesson => Names(LessonOf(row).Gate, group),
                    _ => Schedule.Item(new(row.Lineage)) is var item
                        && (
                            item.For?.Groups?.Contains(group) == true
                            || item.For?.Except.Contains(group) == true
                            || item.Asks?.Together.Contains(group) == true
                            || Names(item.Gate, group)
                        ),
                }
            );

    private static bool Names(Gate? gate, string group) =>
        gate?.Root.Leaves().Any(leaf => leaf is GateNode.InGroup named && named.Group == group) == true;

    /// <summary>The groups whose members hand in one piece of an item together, in the order in which they are named there.</summary>
    public IEnumerable<GroupRow> GroupsTogether(Id<Item> item) =>
        (Item(item)?.Asks?.Together ?? []).SelectMany(name => Groups.Where(group => group.Name == name));

    /// <summary>
    /// Those with whom a student hands in an item on a date, in order of id: of the same section, and of a group that does so.
    /// </summary>
    public IReadOnlyList<Id<Person>> HandsInWith(Id<Item> item, Id<Person> student, Id<Section> section, LocalDate on) =>
        GroupsTogether(item)
            .Where(group => group.Members.Contains(student))
            .Take(1)
            .SelectMany(group => group.Members)
            .Where(other =>
                other != student && Following(section)?.Lists(other, on) == true && (People.HomeOf(other)?.Section ?? section) == section
            )
            .OrderBy(other => other.Value)
            .ToList();

    public Item? Item(Id<Item> id) => Row(id) is { } row && IsHere(row) ? Schedule.Item(new(row.Lineage)) : null;

    public FollowingSection? Following(Id<Section> section) => Sections.FirstOrDefault(following => following.Id == section);

    /// <summary>
    /// The latest moment at which something is recorded to have opened in a section; the least there is where nothing has.
    /// </summary>
    public Instant OpenedUntil(Id<Section> section) =>
        Following(section)?.Section.Opened.Select(opened => opened.At).DefaultIfEmpty(Instant.MinValue).Max() ?? Instant.MinValue;
}
