using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student.Quizzes;

/// <summary>The quiz of a request, with the student's attempts locked, and what is over recorded.</summary>
internal static class QuizInHand
{
    public static async Task<(StudentCourse Course, Sight Sight, StudentQuiz Quiz)> Of(
        WorkContext work,
        CourseOfStudents students,
        Id<Item> item
    )
    {
        var course = await students.SeenBy(work.Connection, work.Access, work.Viewpoint);
        var sight = course.See(item);
        if (sight.Kind != ItemKind.Quiz)
            throw Problem.Unknown("item");
        var quiz = await StudentQuiz.Read(work.Connection, course.TermsOf(sight), item, course.Oneself, work.Viewpoint.At, locked: true);
        await quiz.Settle(work.Connection);
        return (course, sight, quiz);
    }
}
