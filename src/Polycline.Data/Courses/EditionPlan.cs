using System.Collections.Immutable;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Changes;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Sections;

namespace Polycline.Data.Courses;

/// <summary>Where a unit, lesson or item stands in the database.</summary>
/// <param name="Table"><c>unit</c>, <c>lesson</c> or <c>item</c>.</param>
/// <param name="Lineage">What the plan calls it.</param>
/// <param name="Rank">Its place among its siblings.</param>
/// <param name="Unit">The row of its unit; its own for a unit.</param>
/// <param name="Lesson">The row of its lesson, where it is on one; its own for a lesson.</param>
/// <param name="Section">The only section it is of; null: of the course.</param>
/// <param name="Shortest">The least a lesson can do with; null: its length.</param>
/// <param name="Removed">It was removed, and is known for the sake of the work on it.</param>
public sealed record TreeRow(
    string Table,
    long Id,
    long Version,
    string Lineage,
    string Rank,
    long Unit,
    long? Lesson,
    long? Section = null,
    int? Shortest = null,
    bool Removed = false
);

/// <summary>A section that follows an edition.</summary>
/// <param name="Letter">What its line is marked with.</param>
/// <param name="Listed">Whom it lists or has listed.</param>
/// <param name="FollowsFrom">Since when it follows the edition; null: from the beginning.</param>
/// <param name="Slots">When it meets, in the plan file's form.</param>
/// <param name="Section">As the computation knows it, without its students.</param>
public sealed record FollowingSection(
    long Id,
    string Name,
    string Letter,
    IReadOnlyList<ListedStudent> Listed,
    long Version,
    LocalDate? FollowsFrom,
    string Slots,
    IReadOnlyList<string> Teachers,
    Section Section
)
{
    /// <summary>Its students as of a date: persons, those who are still to join among them, without those who have left.</summary>
    public IReadOnlyList<long> PeopleOn(LocalDate date) =>
        [.. Listed.Where(one => one.To is null || one.To >= date).Select(one => one.Person).Distinct()];

    /// <summary>How many they are.</summary>
    public int StudentsOn(LocalDate date) => PeopleOn(date).Count;
}

/// <summary>One line of a class list: a person, and the first and last day they belong to the section.</summary>
/// <param name="From">Null: from the beginning.</param>
/// <param name="To">Null: for good.</param>
public sealed record ListedStudent(long Person, LocalDate? From, LocalDate? To);

/// <summary>One row of a section's differences.</summary>
/// <param name="Value">JSON; null: cleared.</param>
public sealed record AdjustmentRow(long Section, string Target, string Field, string? Value, long Version);

/// <summary>What a lesson has really taken in a section.</summary>
/// <param name="Left">How much is left of one that is not done; null: what was planned less what it took.</param>
public sealed record TaughtRow(long Section, string Lesson, int Took, bool Done, int? Left, Instant At, long Version);

/// <summary>One change of a section's classes, in the order in which they apply.</summary>
/// <param name="Change">In the plan file's form.</param>
public sealed record MeetingChangeRow(long Section, int Seq, string Change, long Version);

/// <summary>One change of a section's order, in the order in which they apply.</summary>
/// <param name="Target">The unit or lesson that is put elsewhere.</param>
/// <param name="Change">In the plan file's form, without its target: <c>order</c> or <c>after</c>.</param>
public sealed record OrderChangeRow(long Section, int Seq, string Target, string Change, long Version);

/// <summary>That an item has opened in a section.</summary>
/// <param name="Due">The due then announced.</param>
public sealed record OpenedRow(long Section, string Item, Instant At, Instant? Due);

/// <summary>What sections do differently from the course, and what became of it there, row by row.</summary>
/// <param name="Adjustments">One a field.</param>
/// <param name="Orders">Section by section, in turn.</param>
/// <param name="Taught">What was taught, section by section.</param>
/// <param name="MeetingChanges">What sections change in their classes, in turn.</param>
/// <param name="Opened">What has opened.</param>
public sealed record SectionRows(
    IReadOnlyList<AdjustmentRow> Adjustments,
    IReadOnlyList<OrderChangeRow> Orders,
    IReadOnlyList<TaughtRow> Taught,
    IReadOnlyList<MeetingChangeRow> MeetingChanges,
    IReadOnlyList<OpenedRow> Opened
);

/// <summary>A group of students: named before there are any, filled when they come.</summary>
/// <param name="Members">Persons.</param>
public sealed record GroupRow(long Id, string Name, long Version, long[] Members);

/// <summary>What an edition says of itself.</summary>
/// <param name="Version">Raised when its own settings are changed.</param>
/// <param name="CodesFixed">Every item has its code for good.</param>
/// <param name="RetiredCodes">Codes of what was removed: they are given to nothing else.</param>
public sealed record EditionSettings(long Version, bool CodesFixed, IReadOnlySet<string> RetiredCodes);

/// <summary>An edition as it stood at one counter, with what a change of it needs.</summary>
/// <param name="rows">Every unit, lesson and item of its tree.</param>
/// <param name="sections">The sections that follow it, in order of name.</param>
/// <param name="own">What is of one section only.</param>
/// <param name="kept">What was removed and somebody has begun: in no section, and readable to whom it concerns.</param>
public sealed class EditionPlan(
    Id<Edition> id,
    Id<Master> master,
    EditionState state,
    Edition edition,
    long version,
    string courseTitle,
    Id<Term> termId,
    Term term,
    long termVersion,
    IReadOnlyList<TreeRow> rows,
    ImmutableArray<FollowingSection> sections,
    SectionRows differences,
    SectionOnlyContent own,
    EditionSettings settings,
    IReadOnlyList<GroupRow> groups,
    IReadOnlyList<(TreeRow Row, Item Item)> kept
)
{
    private readonly Dictionary<(string, long), TreeRow> byId = rows.Concat(kept.Select(one => one.Row))
        .ToDictionary(row => (row.Table, row.Id));
    private readonly Dictionary<string, TreeRow> byLineage = rows.Concat(kept.Select(one => one.Row)).ToDictionary(row => row.Lineage);
    private readonly Lazy<PlanSchedule> schedule = new(() =>
        PlanSchedule.Of(TermDays.Of(term), edition, [.. sections.Select(section => section.Section)], [.. kept.Select(one => one.Item)])
    );

    public Id<Edition> Id { get; } = id;

    public Id<Master> Master { get; } = master;

    public EditionState State { get; } = state;

    public Edition Edition { get; } = edition;

    public long Version { get; } = version;

    public EditionSettings Settings { get; } = settings;

    /// <summary>In order of name.</summary>
    public IReadOnlyList<GroupRow> Groups { get; } = groups;

    /// <summary>The names of the groups that somebody is in.</summary>
    public IReadOnlySet<string> GroupsOf(long person) =>
        Groups.Where(group => group.Members.Contains(person)).Select(group => group.Name).ToHashSet(StringComparer.Ordinal);

    public string CourseTitle { get; } = courseTitle;

    public Id<Term> TermId { get; } = termId;

    public Term Term { get; } = term;

    public long TermVersion { get; } = termVersion;

    public IReadOnlyList<TreeRow> Rows { get; } = rows;

    public ImmutableArray<FollowingSection> Sections { get; } = sections;

    public IReadOnlyList<AdjustmentRow> Adjustments => differences.Adjustments;

    public IReadOnlyList<OrderChangeRow> Orders => differences.Orders;

    public IReadOnlyList<TaughtRow> Taught => differences.Taught;

    public IReadOnlyList<MeetingChangeRow> MeetingChanges => differences.MeetingChanges;

    /// <summary>The course on its sections' calendars.</summary>
    public PlanSchedule Schedule => schedule.Value;

    /// <summary>Roughly how much memory it takes, in bytes, with its schedules.</summary>
    public long Weight => 10_000 + (Rows.Count * (1_500L + (800L * Sections.Length)));

    /// <summary>The sections as reach counts them, with their students as of a moment.</summary>
    public ImmutableArray<SectionSize> SizesAt(Instant at) =>
        [
            .. Sections.Select(section => new SectionSize(
                section.Section.Ref,
                section.Name,
                [.. section.PeopleOn(Term.Local(at).Date).Select(person => new Ref<Core.Courses.Student>($"{person}"))]
            )),
        ];

    /// <summary>Null: not in this edition, or removed.</summary>
    public TreeRow? Row<T>(Id<T> id) => byId.GetValueOrDefault((TableOf<T>(), id.Value));

    /// <summary>The row of what the plan calls so.</summary>
    public TreeRow Row<T>(Ref<T> name) => byLineage[name.Name];

    /// <summary>Null: the plan knows nothing of that name.</summary>
    public TreeRow? Find(string lineage) => byLineage.GetValueOrDefault(lineage);

    /// <summary>A unit of the course or of one section only; without what is in it where it is of one section.</summary>
    public Unit UnitOf(TreeRow row) =>
        own.Units.GetValueOrDefault(row.Lineage) ?? Edition.Units.First(unit => unit.Ref.Name == row.Lineage);

    /// <summary>A lesson of the course or of one section only; without what is on it where it is of one section.</summary>
    public Lesson LessonOf(TreeRow row) =>
        own.Lessons.GetValueOrDefault(row.Lineage)
        ?? Edition.Units.SelectMany(unit => unit.Lessons).First(lesson => lesson.Ref.Name == row.Lineage);

    /// <summary>The title of a unit, lesson or item.</summary>
    public string TitleOf(string lineage) =>
        Find(lineage) switch
        {
            { Table: "unit" } unit => UnitOf(unit).Title,
            { Table: "lesson" } lesson => LessonOf(lesson).Title,
            { } item => Schedule.Item(new(item.Lineage)).Title,
            null => "something removed",
        };

    /// <summary>Whether a row is to be seen: of the course, or of a section that follows it.</summary>
    public bool IsHere(TreeRow row) => !row.Removed && (row.Section is null || Sections.Any(section => section.Id == row.Section));

    /// <summary>The units as they stand, those of one section among them, each with its items in reading order.</summary>
    public IEnumerable<(TreeRow Unit, IReadOnlyList<TreeRow> Items)> ItemsByUnit()
    {
        var here = Rows.Where(IsHere).ToList();
        var lessonsOf = here.Where(row => row.Table == "lesson").ToLookup(row => row.Unit);
        var itemsOf = here.Where(row => row.Table == "item").ToLookup(row => (row.Unit, row.Lesson));
        return here.Where(row => row.Table == "unit")
            .Select(unit =>
                (
                    unit,
                    (IReadOnlyList<TreeRow>)
                        [.. lessonsOf[unit.Id].SelectMany(lesson => itemsOf[(unit.Id, lesson.Id)]), .. itemsOf[(unit.Id, null)]]
                )
            );
    }

    /// <summary>How many items of the course, or of a section only, say something of a group.</summary>
    public int UsesOf(string group) =>
        Rows.Where(row => row.Table == "item" && IsHere(row))
            .Select(row => Schedule.Item(new(row.Lineage)))
            .Count(item =>
                item.For?.Groups?.Contains(group) == true
                || item.For?.Except.Contains(group) == true
                || item.Gate?.Root.Leaves().Any(leaf => leaf is Core.Courses.GateNode.InGroup named && named.Group == group) == true
            );

    public Item? Item(Id<Item> id) => Row(id) is { } row && IsHere(row) ? Schedule.Item(new(row.Lineage)) : null;

    public FollowingSection? Following(Id<Section> section) => Sections.FirstOrDefault(following => following.Id == section.Value);

    /// <summary>
    /// The latest moment at which something is recorded to have opened in a section; the least there is where nothing has.
    /// </summary>
    public Instant OpenedUntil(Id<Section> section) =>
        Following(section)?.Section.Opened.Select(opened => opened.At).DefaultIfEmpty(Instant.MinValue).Max() ?? Instant.MinValue;

    private static string TableOf<T>() =>
        typeof(T) == typeof(Unit) ? "unit"
        : typeof(T) == typeof(Lesson) ? "lesson"
        : "item";
}
