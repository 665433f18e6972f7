using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking.Plans;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Mail;
using Polycline.Data.Scores;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Mail;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Work;

/// <param name="CanRemind">Whether letters go out from here.</param>
/// <param name="Items">Those that somebody could hand in now and has not; what is overdue for most comes first.</param>
public sealed record MissingAnswer(bool CanRemind, IReadOnlyList<MissingItem> Items);

/// <param name="Of">How many could have handed it in.</param>
/// <param name="Students">Those who have not, in order of name.</param>
public sealed record MissingItem(Id<Item> Item, string Code, string Title, int Of, IReadOnlyList<MissingStudent> Students);

/// <param name="Due">Their own; null: never.</param>
/// <param name="Again">They have handed it in, and are to try again.</param>
/// <param name="Begun">They have opened it or written something.</param>
/// <param name="Reminded">They have been reminded within the last day.</param>
public sealed record MissingStudent(Id<Person> Student, string Name, Moment? Due, bool IsOverdue, bool Again, bool Begun, bool Reminded);

/// <summary>Who of a section has not handed in what they could.</summary>
public static class ReadMissing
{
    public static async Task<MissingAnswer> Handle(
        long section,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        IMailRoute mail,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("Students’ work");
        var plan = await compiled.Edition(access);
        var here = new Id<Section>(section);
        var (scores, reminded) = await database.Read(
            async connection =>
                (
                    await ScoreStore.Read(connection, plan, access.Person.Id, access.IsLead, viewpoint.At),
                    await MailStore.SinceYesterday(connection, here)
                ),
            stop
        );
        var students = scores.Students.Where(student => student.Section == here).ToList();
        var items = plan
            .Schedule.Section(here.InPlan())
            .Items.Select(item => item.Item.Item)
            .Where(IsHandedIn)
            .Select(item => ItemOf(plan, scores.Marks, item, students, reminded, viewpoint.At))
            .Where(item => item.Students.Count > 0)
            .OrderByDescending(item => item.Students.Count(student => student.IsOverdue))
            .ToList();
        return new(mail.Server is not null && viewpoint.TakesCommands, items);
    }

    /// <summary>Whether there is anything to hand in.</summary>
    public static bool IsHandedIn(Item item) =>
        item.Kind == ItemKind.Quiz ? item.Quiz is not null : item.Asked is { Way: not AskedWay.Tick };

    /// <summary>Whether it is still to be handed in.</summary>
    public static bool IsMissing(ReleaseState state, Progress progress) =>
        state is ReleaseState.Open or ReleaseState.Overdue && progress is Progress.None or Progress.Begun or Progress.TryAgain;

    private static MissingItem ItemOf(
        EditionPlan plan,
        CourseMarks marks,
        Item item,
        IReadOnlyList<(Id<Section> Section, Id<Person> Student, string Name)> students,
        ILookup<Id<Person>, string> reminded,
        Instant at
    )
    {
        var standing = students
            .Select(student => (student.Student, student.Name, Standing: marks.Of(student.Student.InPlan(), item.Ref)))
            .Where(student => student.Standing is { IsSkipped: false, Verdict.State: ReleaseState.Open or ReleaseState.Overdue })
            .Select(student =>
                (
                    student.Student,
                    student.Name,
                    student.Standing,
                    Progress: ProgressOf.Of(item, marks.Record(student.Student.InPlan()).Facts, at)
                )
            )
            .ToList();
        var subject = Reminder.Subject(item);
        return new(
            new(plan.Row(item.Ref).Id),
            plan.Schedule.CodeOf[item.Ref],
            item.Title,
            standing.Count,
            [
                .. standing
                    .Where(student => IsMissing(student.Standing.Verdict.State, student.Progress))
                    .Select(student => new MissingStudent(
                        student.Student,
                        student.Name,
                        Moment.Of(student.Standing.Dates?.Due.At, plan.Term.Zone),
                        student.Standing.Verdict.State == ReleaseState.Overdue,
                        student.Progress == Progress.TryAgain,
                        student.Progress == Progress.Begun,
                        reminded[student.Student].Contains(subject)
                    )),
            ]
        );
    }
}
