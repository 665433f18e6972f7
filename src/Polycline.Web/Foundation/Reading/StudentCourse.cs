using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Marking.Plans;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Data.LinkChecks;
using Polycline.Data.Scores;
using Polycline.Data.Students;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation.Reading;

/// <summary>The course a student's command works in: fetched before its transaction, then seen through that student's eyes.</summary>
public sealed class CourseOfStudents
{
    private readonly EditionPlan plan;

    private CourseOfStudents(EditionPlan plan) => this.plan = plan;

    /// <summary>The course that the section follows.</summary>
    public static async Task<CourseOfStudents> Of(Access access, PlanCache plans) => new(await plans.Edition(access));

    /// <summary>The course as the student who asks may see it.</summary>
    public Task<StudentCourse> SeenBy(NpgsqlConnection connection, Access access, Viewpoint viewpoint) =>
        StudentCourse.Of(connection, plan, access, viewpoint);
}

/// <summary>
/// A course as one student may see it at the viewpoint's moment: sights, and nothing else of it. Features for students have
/// this in hand, never the edition itself.
/// </summary>
public sealed class StudentCourse
{
    private readonly EditionPlan plan;
    private readonly Sights sights;
    private readonly SightWords words;
    private readonly StudentAtItem known;

    private StudentCourse(EditionPlan plan, StudentAtItem known, Id<Person>? student, Id<Section> section, Instant at)
    {
        this.plan = plan;
        this.known = known;
        sights = new(plan.Schedule, known.Record);
        words = new(sights);
        Student = student;
        Section = section;
        At = at;
    }

    /// <summary>Whose eyes; null: a pretend student's, who has written nothing.</summary>
    public Id<Person>? Student { get; }

    /// <exception cref="ProblemException">It is a pretend student, who does nothing.</exception>
    public Id<Person> Oneself => Student ?? throw Problem.NotNow();

    public Id<Section> Section { get; }

    public string SectionName => plan.Following(Section)!.Name;

    public string Title => plan.CourseTitle;

    /// <summary>What the course calls its levels.</summary>
    public LevelNames Levels => plan.Edition.Levels;

    public DateTimeZone Zone => plan.Term.Zone;

    public Instant At { get; }

    /// <summary>What came back to them, the latest first.</summary>
    public IReadOnlyList<FeedbackRow> Feedback => known.Feedback;

    /// <summary>On what terms they take a quiz.</summary>
    public QuizTerms TermsOf(Sight sight) => new(sight.Quiz, sight.Closes, new(known.Record.Always?.QuizTime ?? 0, 0));

    /// <summary>Whether anything they see can give a score.</summary>
    public bool HasScores => All.Any(sight => plan.Schedule.Item(sight.Item).HasScore);

    /// <summary>What their scores come to so far: of what they see, and of a quiz only once its score is shown.</summary>
    public async Task<TotalForm> Total(Database database, CancellationToken stop)
    {
        var marks = Student is { } student
            ? await database.Read(connection => ScoreStore.OfStudent(connection, plan, student, At), stop)
            : ScoreStore.Of(plan, [(known.Record, "")], StudentsWork.Nothing, At);
        var seen = All.ToDictionary(sight => sight.Item);
        return TotalForm.Of(plan, marks.Course, known.Record.Student, own: true, item =>
            seen.TryGetValue(item.Item, out var sight) && (marks.PaperOf(item.Item) is not { } paper || IsScoreShown(paper, sight))
        );
    }

    /// <summary>What a choice offers; null: it is no choice, or they cannot read it now.</summary>
    public Offered? Offered(Sight sight) =>
        sight is { Kind: ItemKind.Choice, MayRead: true } ? plan.Schedule.Item(sight.Item).Offered : null;

    /// <summary>Whether they see by now how a quiz was marked.</summary>
    public bool IsShown(QuizPaper paper, Sight sight) => IsTime(paper.Shown, sight);

    /// <summary>Whether they see by now what their score in a quiz is.</summary>
    public bool IsScoreShown(QuizPaper paper, Sight sight) => IsTime(paper.ScoreIsShown, sight);

    private bool IsTime(AnswersShown shown, Sight sight) =>
        shown switch
        {
            AnswersShown.AtOnce => true,
            AnswersShown.AfterDue => sight.Due is null || sight.Due < At,
            _ => false,
        };

    /// <summary>What they have written for the item they look at.</summary>
    public OwnWork Work => known.Work;

    /// <summary>What is known of the address of the item they look at; null: nothing.</summary>
    public LinkCheckRow? LinkCheck => known.Link;

    /// <summary>When they said that they cannot open the item they look at; null: they have not, or it is settled.</summary>
    public Instant? SaidCannotOpenAt => known.SaidCannotOpenAt;

    /// <summary>The files of the item they look at, which they may read as what is written there.</summary>
    public IReadOnlyList<ItemFileRow> Files(Sight sight) =>
        sight.MayRead ? [.. known.Files.Where(file => !file.Removed && file.Item == IdOf(sight))] : [];

    /// <summary>All the forms of a file of the item they look at, earlier and later.</summary>
    public IReadOnlySet<Id<ItemFileRow>> LineOf(ItemFileRow file) => CopyStore.LineOf(known.Files, file.Id);

    /// <summary>Whether a file of an item is given to write in together.</summary>
    public bool IsWrittenTogether(Id<Item> item) => plan.Item(item)?.IsWrittenTogether == true;

    /// <summary>Whether their section writes, or has written, in a sheet of the item they look at.</summary>
    public bool HasSheet(Id<Item> item) => known.HasSheet || IsWrittenTogether(item);

    /// <summary>Whether it is in the welcome unit.</summary>
    public bool IsInWelcome(Sight sight) => plan.Row(plan.Row(sight.Item).Unit) is { } unit && plan.UnitOf(unit).Welcome;

    /// <summary>Those with whom they hand in an item; nobody: they hand in their own.</summary>
    public IReadOnlyList<Id<Person>> HandsInWith(Id<Item> item) =>
        Student is { } student ? plan.HandsInWith(item, student, Section, plan.Term.Local(At).Date) : [];

    /// <summary>The same for the item they look at, by name.</summary>
    public IReadOnlyList<string> NamesOf(IEnumerable<Id<Person>> others) =>
        [.. others.Where(known.Others.ContainsKey).Select(other => known.Others[other]).Order(StringComparer.CurrentCulture)];

    /// <summary>When their section meets, from the moment they look at to another.</summary>
    public IEnumerable<Instant> ClassesUntil(Instant end) =>
        plan
            .Schedule.Section(Section.InPlan())
            .Meetings.Meetings.Select(meeting => meeting.StartsAt)
            .Where(start => start >= At && start < end);

    /// <summary>Everything that is not hidden from them, in reading order.</summary>
    public IReadOnlyList<Sight> All => sights.At(At);

    /// <exception cref="ProblemException">The section follows no course, or the student of the viewpoint is not in it then.</exception>
    /// <param name="item">The item they look at, whose work is to be read along; null: all of it.</param>
    public static async Task<StudentCourse> Read(
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop,
        Id<Item>? item = null
    )
    {
        var section = access.Section ?? throw Problem.Unknown();
        if (viewpoint.Eyes is Eyes.OfPretend pretend && access.Edition is not null && pretend.Section == section)
            return await compiled.Edition(access) is var course && course.Following(section) is not null
                ? new(
                    course,
                    new(Pretended.RecordOf(course, section, pretend.Facts, viewpoint.At), [])
                    {
                        Files = item is { } looked ? await database.Read(connection => ItemFileStore.Of(connection, looked), stop) : [],
                    },
                    null,
                    section,
                    viewpoint.At
                )
                : throw Problem.Unknown();
        var plan = access.Edition is null ? throw Problem.Unknown() : await compiled.Edition(access);
        return await database.Read(connection => Of(connection, plan, access, viewpoint, item), stop);
    }

    /// <summary>The same of a plan that is at hand, on a connection of the caller's.</summary>
    public static async Task<StudentCourse> Of(
        NpgsqlConnection connection,
        EditionPlan plan,
        Access access,
        Viewpoint viewpoint,
        Id<Item>? item = null
    )
    {
        var section = access.Section ?? throw Problem.Unknown();
        // A teacher sees this through a student's eyes only.
        if (viewpoint.Eyes is not Eyes.OfStudent { Student: var student })
            throw Problem.Unknown();
        // Setting a clock back shuts nothing that has opened and forgets nothing that was done.
        var at = viewpoint.IsNow ? Instant.Max(viewpoint.At, plan.OpenedUntil(section)) : viewpoint.At;
        var known = await Known(connection, plan, student, item, at);
        // Whoever is in two of its sections opens both, and sees one thing: the dates of the one that decides.
        var today = plan.Term.Local(at).Date;
        if (
            !known.Record.Enrolments.Any(pair => pair.Section == section.InPlan() && pair.Enrolment.Holds(today))
            || known.Record.SectionAt(plan.Term, at) is not { } home
        )
            throw Problem.Unknown();
        return new(plan, known, student, PlanIds.IdOf(home), at);
    }

    private static async Task<StudentAtItem> Known(
        NpgsqlConnection connection,
        EditionPlan plan,
        Id<Person> student,
        Id<Item>? item,
        Instant at
    )
    {
        if (item is { } looked)
            return await StudentStore.Read(connection, plan, student, looked, at);
        var (records, feedback) = await StudentStore.Read(connection, plan, [student], at);
        return new(records[student], feedback);
    }

    /// <summary>What they see of one item.</summary>
    /// <exception cref="ProblemException">Nothing: for them it is not there.</exception>
    public Sight See(Id<Item> item) =>
        plan.Row(item) is { } row && sights.Of(new(row.Lineage), At) is { } sight ? sight : throw Problem.Unknown();

    /// <summary>What would open it, in words they may read.</summary>
    public IReadOnlyList<string> Missing(Sight sight) => words.Missing(sight, At);

    /// <summary>How they stand with what would open it.</summary>
    public IReadOnlyList<OwnStep> Steps(Sight sight) => words.Steps(sight, At);

    public Id<Item> IdOf(OwnStep step) => plan.IdOf(step.Item);

    /// <summary>The unit it is in.</summary>
    public Id<Unit> UnitOf(Sight sight) => plan.Row(sight.Item).Unit;

    /// <summary>What they should be able to do by it: the codes of the school's outcomes.</summary>
    public IReadOnlyList<string> OutcomesOf(Sight sight) => plan.Schedule.Item(sight.Item).Outcomes;

    public Id<Item> IdOf(Sight sight) => plan.Row(sight.Item).As<Item>();
}
