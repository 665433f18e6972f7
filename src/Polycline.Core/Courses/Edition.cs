using System.Collections.Immutable;

namespace Polycline.Core.Courses;

/// <summary>A course kept once by a team: the thing of which editions are made.</summary>
public sealed record Master(Id<Master> Id, string Title);

/// <summary>A master as taught in one year or term: what a team writes. Source: the computation, chapters 3 and 7.</summary>
/// <param name="Basis">What lessons are measured in.</param>
/// <param name="MinStart">Where lessons are measured in minutes: with fewer left in a meeting none is begun.</param>
/// <param name="Codes">How its items are numbered.</param>
/// <param name="Before">What students see of an item before it opens, where neither it nor its unit says otherwise.</param>
/// <param name="Units">In the team's order.</param>
public sealed record Edition(string Title, Basis Basis, int MinStart, CodeStyle Codes, BeforeOpening Before, ImmutableArray<Unit> Units)
{
    /// <summary>What the team calls its levels.</summary>
    public LevelNames Levels { get; init; } = LevelNames.Plain;

    /// <summary>How it adds scores up. The computation of dates and openings does not read it.</summary>
    public AddingUp AddingUp { get; init; } = AddingUp.Plain;

    /// <summary>Every item once, in reading order: a unit's lessons, each followed by its items, then the unit's own.</summary>
    public IEnumerable<Item> InReadingOrder() => Units.SelectMany(unit => unit.InReadingOrder());
}

/// <summary>A unit and what it holds.</summary>
/// <param name="Gate">What must be met before anything in it opens; null: nothing.</param>
/// <param name="Before">As the edition's, for this unit; null: as the edition says.</param>
/// <param name="Lessons">In order.</param>
/// <param name="Items">The items that hang on the unit itself, in order.</param>
public sealed record Unit(
    Ref<Unit> Ref,
    string Title,
    ImmutableArray<Lesson> Lessons,
    ImmutableArray<Item> Items,
    bool Published = true,
    Gate? Gate = null,
    BeforeOpening? Before = null
)
{
    /// <summary>What it is called in every edition of the course; null: not said.</summary>
    public string? Lineage { get; init; }

    /// <summary>The welcome unit: open from the first day, for everyone. The computation does not read it: nothing in it has an opening, an
    /// end or a condition.</summary>
    public bool Welcome { get; init; }

    public IEnumerable<Item> InReadingOrder() => Lessons.SelectMany(lesson => lesson.Items).Concat(Items);
}

/// <summary>A piece of the plan that lasts so many meetings.</summary>
/// <param name="Length">In meetings or minutes of class time, as the edition measures; 0 or more.</param>
/// <param name="Optional">It may be dropped where time runs out.</param>
public sealed record Lesson(
    Ref<Lesson> Ref,
    string Title,
    int Length,
    ImmutableArray<Item> Items,
    bool Optional = false,
    bool Published = true,
    Gate? Gate = null
)
{
    /// <summary>What it is called in every edition of the course; null: not said.</summary>
    public string? Lineage { get; init; }
}

/// <summary>Something students read or do.</summary>
public sealed record Item
{
    public required Ref<Item> Ref { get; init; }

    public required ItemKind Kind { get; init; }

    public required string Title { get; init; }

    public Purpose Purpose { get; init; } = Purpose.Practice;

    /// <summary>What it is called in every edition of the course; null: not said.</summary>
    public string? Lineage { get; init; }

    public bool Published { get; init; } = true;

    /// <summary>The code fixed for it; null: numbered by its place (chapter 7).</summary>
    public string? Code { get; init; }

    /// <summary>For whom it is; null: for everyone.</summary>
    public ForWhom? For { get; init; }

    /// <summary>Null: open as soon as it is published.</summary>
    public Anchor? Opens { get; init; }

    /// <summary>Null: never due.</summary>
    public Anchor? Due { get; init; }

    /// <summary>Null: it stays open.</summary>
    public Anchor? Closes { get; init; }

    public Gate? Gate { get; init; }

    public BeforeOpening? Before { get; init; }

    /// <summary>What can be picked; of a choice only.</summary>
    public ImmutableArray<string> Options { get; init; }

    /// <summary>How many of them at once; of a choice only.</summary>
    public int Picks { get; init; } = 1;

    /// <summary>What is said of its options; of a choice only, null: their names are all there is.</summary>
    public Offered? Offered { get; init; }

    /// <summary>What an option is called.</summary>
    public string TitleOf(string option) => Offered?.Options.FirstOrDefault(one => one.Option == option)?.Title ?? option;

    /// <summary>What its text is kept under; the computation does not read it.</summary>
    public string? Body { get; init; }

    /// <summary>What it asks of a student; null: what its kind usually asks.</summary>
    public Asks? Asks { get; init; }

    /// <inheritdoc cref="Asks"/>
    public Asks? Asked => Asks ?? Courses.Asks.Usual(Kind);

    /// <summary>Where it leads; of a link only. The computation does not read it.</summary>
    public string? Address { get; init; }

    /// <summary>Its text speaks of whoever teaches. The computation does not read it.</summary>
    public bool AboutTeacher { get; init; }

    /// <summary>What the questions of a quiz are kept under; null: there are none yet. The computation does not read it.</summary>
    public string? Quiz { get; init; }

    /// <summary>What the rubric is kept under that it is marked by; null: by none.</summary>
    public string? Rubric { get; init; }

    /// <summary>How it is marked; null: in words only. The computation does not read it.</summary>
    public MarkedAs? Marked { get; init; }

    /// <summary>Whether it can give a score.</summary>
    public bool HasScore => Marked is not null || Quiz is not null;

    /// <summary>What students should be able to do by it: the codes of the school's outcomes. The computation does not read them.</summary>
    public ImmutableArray<string> Outcomes { get; init; } = [];

    /// <summary>The files given with it, in their order; the computation does not read them.</summary>
    public ImmutableArray<GivenFile> Files { get; init; } = [];

    /// <summary>Whether a section writes in a sheet of it together.</summary>
    public bool IsWrittenTogether => Files.Any(file => file.Way == FileWay.Together);
}

/// <summary>A file given with an item.</summary>
/// <param name="Hash">What its bytes are kept under.</param>
/// <param name="CopyName">How each student's copy is named (<see cref="CopyNames"/>); null: in the usual way.</param>
public sealed record GivenFile(string Name, string Hash, FileWay Way = FileWay.Read, string? CopyName = null);

/// <summary>How a file is given to students.</summary>
public enum FileWay
{
    /// <summary>It is there to be read.</summary>
    Read,

    /// <summary>Each student gets a copy, which they work in and hand in.</summary>
    Copy,

    /// <summary>It begins a sheet in which a section writes together.</summary>
    Together,
}

/// <summary>For whom an item is. Source: the computation, chapter 5, <i>Not for this student</i>.</summary>
/// <param name="Students">With <see cref="Groups"/>: those named, and those in a named group; both null: everyone.</param>
/// <param name="Except">Less those in these groups.</param>
public sealed record ForWhom(ImmutableArray<Ref<Student>>? Students, ImmutableArray<string>? Groups, ImmutableArray<string> Except)
{
    /// <summary>Whether it is for a student who is in <paramref name="groups"/>.</summary>
    public bool Includes(Ref<Student> student, IReadOnlySet<string> groups) =>
        ((Students is null && Groups is null) || Students?.Contains(student) == true || Groups?.Any(groups.Contains) == true)
        && !Except.Any(groups.Contains);
}

/// <summary>Somebody who is taught.</summary>
public sealed record Student(Ref<Student> Ref);

/// <summary>What an edition's lessons are measured in.</summary>
public enum Basis
{
    Meetings,

    /// <summary>Minutes of class time.</summary>
    Minutes,
}

/// <summary>What students see of an item before it opens.</summary>
public enum BeforeOpening
{
    /// <summary>Its title and date.</summary>
    Listed,

    /// <summary>Nothing.</summary>
    Unseen,
}

/// <summary>What an item is.</summary>
public enum ItemKind
{
    Page,
    Link,
    Handout,
    Task,
    Quiz,
    Choice,
    Discussion,
}

public static class ItemRules
{
    /// <summary>To how many outcomes an item can be tied.</summary>
    public const int MostOutcomes = 20;

    /// <summary>How long an outcome's code can be, in characters.</summary>
    public const int LongestOutcomeCode = 40;

    /// <summary>What an item is for where nobody has said: what can only be opened is to read.</summary>
    public static Purpose UsualPurpose(ItemKind kind) => kind is ItemKind.Page or ItemKind.Link ? Purpose.ToRead : Purpose.Practice;
}

/// <summary>What an item is for.</summary>
public enum Purpose
{
    ToRead,
    Practice,
    ForMarks,
}

/// <summary>Where an edition stands in its life; one of a master is current at most.</summary>
public enum EditionState
{
    Draft,
    Current,

    /// <summary>Readable, searchable, unchangeable.</summary>
    Resting,
}

/// <summary>How an edition numbers its items. Source: the computation, chapter 7.</summary>
public enum CodeStyle
{
    /// <summary>Unit number, dot, running number within the unit: <c>3.07</c>.</summary>
    ByUnit,

    /// <summary>Straight through the edition: <c>#041</c>.</summary>
    Straight,
}
