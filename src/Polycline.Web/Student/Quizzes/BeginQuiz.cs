using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Quizzes;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student.Quizzes;

public sealed record BeginQuizRequest(Id<Item> Item);

/// <param name="Applied">False if this was only a preview.</param>
/// <param name="N">Which attempt it is.</param>
public sealed record AttemptAnswer(bool Applied, int N) : IAnswer<AttemptAnswer>
{
    public AttemptAnswer AsPreview() => this with { Applied = false };
}

/// <summary>Begins an attempt at a quiz: from now on its clock runs.</summary>
public sealed class BeginQuiz : IWorkCommand<BeginQuizRequest, CourseOfStudents, AttemptAnswer>
{
    public static string Name => "begin-quiz";

    public static May May => May.SectionStudent;

    public static WorkPlace Place => WorkPlace.Section;

    public static Task<CourseOfStudents> Prepare(Access access, PlanCache plans, BeginQuizRequest request) =>
        CourseOfStudents.Of(access, plans);

    public static async Task<AttemptAnswer> Do(WorkContext work, CourseOfStudents students, BeginQuizRequest request)
    {
        var (course, sight, quiz) = await QuizInHand.Of(work, students, request.Item);
        if (!ReadQuiz.MayBegin(quiz, sight))
            throw quiz.Left == 0
                ? Problem.NotOpen("You have used all your attempts.")
                : Problem.NotOpen(quiz.Running is null ? "Nothing was begun." : "You have already begun. Carry on where you were.");
        var n = quiz.Attempts.Count + 1;
        await QuizStore.Begin(work.Connection, course.Oneself, request.Item, course.Section, n, sight.Quiz!, work.Viewpoint.At, work.Key);
        return new(true, n);
    }
}
