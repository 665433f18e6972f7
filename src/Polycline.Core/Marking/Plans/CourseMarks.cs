using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Release.Compiled;

namespace Polycline.Core.Marking.Plans;

/// <summary>An attempt at a quiz, and what was put to the student.</summary>
public sealed record PutAttempt(QuizAttempt Attempt, QuizPaper Paper);

/// <summary>What was given back.</summary>
/// <param name="Mark">Null: in words only.</param>
public sealed record ReturnedPiece(Ref<Student> Student, Ref<Item> Item, Instant At, bool IsAgain, GivenMark? Mark);

/// <summary>What students of a course answered, handed in and were given back.</summary>
/// <param name="Papers">What quizzes are now, by what they are kept under.</param>
public sealed record StudentsWork(
    IReadOnlyDictionary<string, QuizPaper> Papers,
    IReadOnlyList<PutAttempt> Attempts,
    IReadOnlyList<HandIn> HandedIn,
    IReadOnlyList<ReturnedPiece> Returned
)
{
    public static readonly StudentsWork Nothing = new(new Dictionary<string, QuizPaper>(), [], [], []);

    /// <summary>What was given for answers in quizzes that somebody read.</summary>
    public IReadOnlyList<Mark> Answers { get; init; } = [];
}

/// <summary>How an item stands for a student, beside what was given for it.</summary>
/// <param name="IsSkipped">Their section does not have it, or drops it.</param>
public sealed record ItemStanding(Verdict Verdict, ItemDates? Dates, bool IsSkipped)
{
    public static readonly ItemStanding NotHere = new(Verdict.Of(ReleaseState.NotAssigned, Sees.Nothing), null, true);

    /// <summary>They cannot do it now, so nothing of it is missing.</summary>
    public bool IsShut =>
        (Verdict.Because ?? Verdict.State)
            is ReleaseState.Unpublished
                or ReleaseState.Held
                or ReleaseState.Unscheduled
                or ReleaseState.Upcoming
                or ReleaseState.Locked;
}

/// <summary>
/// A course as planned, with what its students did, as marks are worked out from it: release says what is a student's and by when.
/// Source: the computation, chapters 5 and 13.
/// </summary>
public sealed class CourseMarks
{
    private readonly Dictionary<(Ref<Student>, Ref<Item>), ItemStanding> standings = [];
    private readonly Dictionary<Ref<Student>, StudentRecord> records;
    private readonly Dictionary<Ref<Item>, QuizPaper> papersOf;

    /// <param name="units">Every item that sections of the course have, in reading order.</param>
    /// <param name="students">With their names.</param>
    public CourseMarks(
        PlanSchedule schedule,
        IReadOnlyList<(Unit Unit, IReadOnlyList<Item> Items)> units,
        IReadOnlyList<(StudentRecord Record, string Name)> students,
        StudentsWork work,
        AddingUp adding,
        Instant at
    )
    {
        records = students.ToDictionary(student => student.Record.Student, student => student.Record);
        papersOf = units
            .SelectMany(unit => unit.Items)
            .Where(item => item.Quiz is { } hash && work.Papers.ContainsKey(hash))
            .ToDictionary(item => item.Ref, item => work.Papers[item.Quiz!]);
        var homes = new Dictionary<Ref<Sections.Section>, List<StudentRecord>>();
        foreach (var (record, _) in students)
            if (record.SectionAt(schedule.Term.Term, at) is { } section)
                (homes.TryGetValue(section, out var there) ? there : homes[section] = []).Add(record);
        var items = units.Select(unit => MarkedUnitOf(unit.Unit, unit.Items, work.Papers, adding)).ToImmutableArray();
        var marked = items.SelectMany(unit => unit.Items).ToDictionary(item => item.Item);
        Course = new(
            new()
            {
                Units = items,
                Scales =
                [
                    .. marked
                        .Values.OfType<MarkedItem.MarkedTask>()
                        .Select(task => task.Scale)
                        .OfType<ShortScale>()
                        .DistinctBy(scale => scale.Id),
                ],
                Students =
                [
                    .. students.Select(student => new MarkedStudent(
                        student.Record.Student,
                        student.Name,
                        new(student.Record.Always?.QuizTime ?? 0, 0)
                    )),
                ],
                Sections =
                [
                    .. homes.Select(home => new MarkedSection(
                        home.Key,
                        SkippedIn(schedule.Section(home.Key), marked.Keys),
                        ImmutableDictionary<Ref<Item>, MarkingDates>.Empty,
                        [.. home.Value.Select(record => new SectionStudent(record.Student, Since(schedule.Term.Term, record)))]
                    )),
                ],
                Exceptions = [.. students.SelectMany(student => Exceptions(schedule, student.Record, marked.Keys, at))],
                Attempts =
                [
                    .. work.Attempts.Where(put => marked.ContainsKey(put.Attempt.Item)).Select(put => MarkedBy(put, work.Papers, schedule)),
                ],
                Work = [.. work.HandedIn.Where(piece => marked.GetValueOrDefault(piece.Item) is MarkedItem.MarkedTask)],
                Marks =
                [
                    .. work
                        .Returned.Where(piece => marked.GetValueOrDefault(piece.Item) is MarkedItem.MarkedTask)
                        .Select(piece => MarkOf(piece, (MarkedItem.MarkedTask)marked[piece.Item])),
                    .. work.Answers.Where(mark => marked.GetValueOrDefault(mark.Item) is MarkedItem.MarkedQuiz),
                ],
                Weights = WeightsOf(adding),
                Missing = adding.MissingAsZero ? MissingCounts.AsZero : MissingCounts.LeftOut,
            },
            at
        );
    }

    public MarkedCourse Course { get; }

    /// <summary>What a quiz is now; null: it is none, or has no questions.</summary>
    public QuizPaper? PaperOf(Ref<Item> item) => papersOf.GetValueOrDefault(item);

    public IEnumerable<StudentRecord> Records => records.Values;

    public StudentRecord Record(Ref<Student> student) => records[student];

    public ItemStanding Of(Ref<Student> student, Ref<Item> item) => standings.GetValueOrDefault((student, item)) ?? ItemStanding.NotHere;

    private static MarkedUnit MarkedUnitOf(
        Unit unit,
        IReadOnlyList<Item> items,
        IReadOnlyDictionary<string, QuizPaper> papers,
        AddingUp adding
    ) =>
        new(
            unit.Ref,
            adding.Drop.GetValueOrDefault(unit.Ref.Name),
            [.. items.Select(item => MarkedItemOf(item, papers)).OfType<MarkedItem>()]
        );

    private static Weights WeightsOf(AddingUp adding) =>
        adding.By switch
        {
            WeighedBy.Unit => new(
                WeightsBy.Unit,
                adding.WeightOf.ToImmutableDictionary(weight => weight.Key, weight => (Fraction)weight.Value)
            ),
            WeighedBy.Purpose => new(
                WeightsBy.Purpose,
                Enum.GetValues<Purpose>()
                    .ToImmutableDictionary(Total.NameOf, purpose => (Fraction)adding.WeightOf.GetValueOrDefault(Total.NameOf(purpose)))
            ),
            _ => Weights.None,
        };

    // What is only read, or has no questions yet, is not marked.
    private static MarkedItem? MarkedItemOf(Item item, IReadOnlyDictionary<string, QuizPaper> papers) =>
        item switch
        {
            { Kind: ItemKind.Quiz, Quiz: { } hash } when papers.TryGetValue(hash, out var paper) => paper.AsItem(item.Ref) with
            {
                Purpose = item.Purpose,
            },
            { Asked: { Way: not AskedWay.Tick } } => new MarkedItem.MarkedTask
            {
                Item = item.Ref,
                Purpose = item.Purpose,
                Score = item.Marked?.Form switch
                {
                    MarkForm.Points => TaskScore.Points,
                    MarkForm.Percent => TaskScore.Percent,
                    MarkForm.Scale => TaskScore.Scale,
                    _ => TaskScore.None,
                },
                OutOf = item.Marked?.OutOf ?? 100,
                Scale = item.Marked is { Form: MarkForm.Scale } marked ? ScaleOf(marked) : null,
            },
            _ => null,
        };

    // Scales are the same where they say the same.
    private static ShortScale ScaleOf(MarkedAs marked) =>
        new(
            new(string.Join(" · ", marked.Levels.Select(level => $"{level.Name} {level.Percent}"))),
            [
                .. marked.Levels.Select(level => new ScaleLevel(
                    level.Name,
                    level.Percent is { } percent ? (Fraction)percent / 100 : (Fraction?)null
                )),
            ]
        );

    // A mark is worth what it was worth when it was given, however the item is marked by now.
    private static Mark MarkOf(ReturnedPiece piece, MarkedItem.MarkedTask task) =>
        new(piece.Student, piece.Item, piece.At)
        {
            IsAgain = piece.IsAgain,
            // An item that is given back in words only by now has no score, whatever was given before.
            Share = task.Score != TaskScore.None && piece.Mark is { } mark ? MarkShare.Of(mark) : null,
            Level = task.Score == TaskScore.None ? null : piece.Mark?.Level,
            Scale = piece.Mark is { As.Form: MarkForm.Scale } onScale ? ScaleOf(onScale.As) : null,
        };

    private static QuizAttempt MarkedBy(PutAttempt put, IReadOnlyDictionary<string, QuizPaper> papers, PlanSchedule schedule)
    {
        var now = schedule.Item(put.Attempt.Item).Quiz is { } hash ? papers.GetValueOrDefault(hash) : null;
        return ReferenceEquals(now, put.Paper) ? put.Attempt : put.Attempt with { Keys = [.. PaperMarking.Keys(put.Paper, now)] };
    }

    private static ImmutableHashSet<Ref<Item>> SkippedIn(SectionSchedule section, IEnumerable<Ref<Item>> items) =>
        [.. items.Where(item => section.Item(item) is not { Item.Skipped: false })];

    // What was due on the day they joined, or before, was never asked of them.
    private static Instant? Since(Term term, StudentRecord record) =>
        record.JoinedOn is { } joined ? joined.PlusDays(1).AtStartOfDayInZone(term.Zone).ToInstant() : null;

    // What opens by the other option of a choice is not theirs: begun before they picked another, it stays readable and counts nowhere.
    private static bool IsGivenUp(PlanSchedule schedule, StudentRecord record, CourseItem here, ItemStanding standing, Instant at) =>
        standing.Verdict is { State: ReleaseState.Locked } or { Because: ReleaseState.Locked }
        && new[] { here.Item.Gate, here.Lesson?.Gate, here.Unit.Gate }
            .SelectMany(gate => gate?.Root.Leaves() ?? [])
            .OfType<GateNode.Picked>()
            .Any(leaf =>
                schedule.Knows(leaf.Choice) && !record.Facts.Picked(leaf.Choice, schedule.Item(leaf.Choice).Picks, at).Contains(leaf.Option)
            );

    private IEnumerable<DifferentFor> Exceptions(PlanSchedule schedule, StudentRecord record, IEnumerable<Ref<Item>> items, Instant at)
    {
        if (new StudentRelease(schedule, record).At(at) is not { } replay)
            yield break;
        foreach (var item in items)
        {
            if (replay.Table.Section.NumberOf(item) is not { } number)
                continue;
            var here = replay.Table.Section.Schedule.Items[number].Item;
            var standing = new ItemStanding(replay.Decide(number), replay.Table.Dates[number], here.Skipped);
            standings[(record.Student, item)] = standing;
            var exception = record.Exceptions.GetValueOrDefault(item);
            yield return new(record.Student, item)
            {
                Excused = exception?.Excused,
                Include = exception?.Include,
                Exclude =
                    !here.Skipped
                    && exception is not { Excused: true }
                    && (!record.IsFor(here) || IsGivenUp(schedule, record, here, standing, at))
                        ? true
                        : null,
                // Of what they could not do nothing is missing, whatever its date.
                Due = new(true, standing.IsShut ? null : standing.Dates?.Due.At),
                Closes = new(true, standing.Dates?.Closes.At),
            };
        }
    }
}
