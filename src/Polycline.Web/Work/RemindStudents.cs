using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Mail;
using Polycline.Data.People;
using Polycline.Data.Students;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Work;

/// <param name="Students">Up to 100, each once.</param>
public sealed record RemindStudentsRequest(Id<Item> Item, IReadOnlyList<Id<Person>> Students);

/// <param name="Sent">To how many a letter goes.</param>
public sealed record RemindedAnswer(int Sent, string Sentence) : IAnswer<RemindedAnswer>
{
    public RemindedAnswer AsPreview() => this;
}

/// <summary>The letter that says what is still to be handed in.</summary>
internal static class Reminder
{
    private const int LongestSubject = 200;

    public static string Subject(Item item)
    {
        var subject = $"Still to hand in: {item.Title}";
        return subject.Length <= LongestSubject ? subject : subject[..LongestSubject];
    }

    public static string Body(EditionPlan plan, Item item, Sight sight, string name, string teacher, string address)
    {
        var again = sight.Progress == Progress.TryAgain ? " again" : "";
        var was = sight.State == ReleaseState.Overdue ? "was" : "is";
        var due = Moment.Of(sight.Due, plan.Term.Zone) is { } moment ? $" It {was} due {moment.Words}." : "";
        return $"""
            Dear {name},

            “{item.Title}” ({sight.Code}) in {plan.CourseTitle} is still to be handed in{again}.{due}

              {address}

            {teacher}
            """;
    }
}

/// <summary>Reminds students by mail of what they have not handed in; each of them of one thing once a day at most.</summary>
public sealed class RemindStudents : IWorkCommand<RemindStudentsRequest, EditionPlan, RemindedAnswer>
{
    private const int Most = 100;

    public static string Name => "remind-students";

    public static May May => May.SectionTeacher;

    public static WorkPlace Place => WorkPlace.Section;

    public static IValidator<RemindStudentsRequest> Validator { get; } = new Rules();

    public static Task<EditionPlan> Prepare(Access access, PlanCache plans, RemindStudentsRequest request) => plans.Edition(access);

    public static async Task<RemindedAnswer> Do(WorkContext work, EditionPlan plan, RemindStudentsRequest request)
    {
        var (connection, at) = (work.Connection, work.Viewpoint.At);
        if (!work.HasMail)
            throw Problem.Field("students", "Mail isn’t set up here, so no reminder can go out. Tell them yourself.");
        var item = plan.Item(request.Item) is { } found && ReadMissing.IsHandedIn(found) ? found : throw Problem.Unknown("item");
        var (records, _) = await StudentStore.Read(connection, plan, request.Students, at);
        var subject = Reminder.Subject(item);
        var already = await MailStore.SinceYesterday(connection, work.Section);
        var (sent, before, done) = (new List<string>(), new List<string>(), new List<string>());
        for (var n = 0; n < request.Students.Count; n++)
        {
            var person = request.Students[n];
            if (!records.TryGetValue(person, out var record) || record.SectionAt(plan.Term, at) != work.Section.InPlan())
                throw Problem.Unknown($"students[{n}]");
            var name = await AccessStore.NameOf(connection, person) ?? "";
            var sight = new Sights(plan.Schedule, record).At(at).FirstOrDefault(one => one.Item == item.Ref);
            if (sight is null || !ReadMissing.IsMissing(sight.State, sight.Progress))
                done.Add(name);
            else if (already[person].Contains(subject))
                before.Add(name);
            else
            {
                await MailStore.Add(
                    connection,
                    person,
                    subject,
                    Reminder.Body(
                        plan,
                        item,
                        sight,
                        name,
                        work.Access.Person.Name,
                        $"{work.Address}/sections/{work.Section}/items/{request.Item}"
                    )
                );
                sent.Add(name);
            }
        }
        return new(sent.Count, Sentence(plan.Schedule.CodeOf[item.Ref], sent, before, done));
    }

    private static string Sentence(string code, List<string> sent, List<string> before, List<string> done)
    {
        var parts = new List<string>
        {
            sent.Count == 0 ? "No letter goes out." : $"A letter about {code} goes to {Counting.Joined(sent, "and")}.",
        };
        if (before.Count > 0)
            parts.Add($"{Counting.Joined(before, "and")} {(before.Count == 1 ? "has" : "have")} had one within the last day.");
        if (done.Count > 0)
            parts.Add($"{Counting.Joined(done, "and")} {(done.Count == 1 ? "has" : "have")} nothing to hand in.");
        return string.Join(' ', parts);
    }

    private sealed class Rules : AbstractValidator<RemindStudentsRequest>
    {
        public Rules() =>
            RuleFor(request => request.Students)
                .Must(students => students.Count is >= 1 and <= Most)
                .WithMessage($"Choose 1 to {Most} students.")
                .Must(students => students.Distinct().Count() == students.Count)
                .WithMessage("The same student is here twice.");
    }
}
