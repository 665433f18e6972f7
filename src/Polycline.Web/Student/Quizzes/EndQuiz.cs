using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Quizzes;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student.Quizzes;

/// <param name="N">Which attempt it is.</param>
public sealed record EndQuizRequest(Id<Item> Item, int N);

/// <summary>Hands in an attempt at a quiz. It is marked at once.</summary>
public sealed class EndQuiz : IWorkCommand<EndQuizRequest, CourseOfStudents, AttemptAnswer>
{
    public static string Name => "end-quiz";

    public static May May => May.SectionStudent;

    public static WorkPlace Place => WorkPlace.Section;

    public static Task<CourseOfStudents> Prepare(Access access, PlanCache plans, EndQuizRequest request) =>
        CourseOfStudents.Of(access, plans);

    public static async Task<AttemptAnswer> Do(WorkContext work, CourseOfStudents students, EndQuizRequest request)
    {
        var (course, _, quiz) = await QuizInHand.Of(work, students, request.Item);
        var attempt = quiz.Attempts.FirstOrDefault(one => one.Row.N == request.N) ?? throw Problem.Unknown("n");
        // Its time was up meanwhile, or it was handed in before: it is over all the same.
        if (attempt.Marking.IsFinished(work.Viewpoint.At))
            return new(true, request.N);
        await QuizStore.End(work.Connection, attempt.Row.Id, work.Viewpoint.At);
        var over = await StudentQuiz.Read(work.Connection, quiz.Terms, request.Item, course.Oneself, work.Viewpoint.At);
        await over.Settle(work.Connection);
        return new(true, request.N);
    }
}
