using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

/// <summary>What students see and do. Whoever looks through a student's eyes gets the very same.</summary>
public static class StudentRoutes
{
    public static void MapStudent(this IEndpointRouteBuilder routes)
    {
        const May Readers = May.SectionStudent | May.SectionTeacher;
        routes.MapGet("/api/sections/{section:long}/now", ReadNow.Handle).WithName("now").For(Readers);
        routes.MapGet("/api/sections/{section:long}/items/{item:long}", ReadItem.Handle).WithName("student-item").For(Readers);
        routes.MapGet("/api/sections/{section:long}/items/{item:long}/why", ReadOwnWhy.Handle).WithName("own-why").For(Readers);
        routes
            .MapGet("/api/sections/{section:long}/items/{item:long}/files/{file:long}", ReadFiles.HandleFile)
            .WithName("student-file")
            .SendsBytes()
            .For(Readers);
        routes
            .MapGet("/api/sections/{section:long}/items/{item:long}/work-files/{file:long}", ReadFiles.HandleOwnFile)
            .WithName("student-work-file")
            .SendsBytes()
            .For(Readers);
        routes
            .MapGet("/api/sections/{section:long}/items/{item:long}/pictures/{picture:length(64)}", ReadFiles.HandlePicture)
            .WithName("student-picture")
            .SendsBytes()
            .For(Readers);
        routes.MapGet("/api/sections/{section:long}/units/{unit:long}", ReadUnit.Handle).WithName("student-unit").For(Readers);
        routes.MapGet("/api/sections/{section:long}/scores", ReadOwnScores.Handle).WithName("own-scores").For(Readers);
        routes.MapGet("/api/sections/{section:long}/items/{item:long}/quiz", Quizzes.ReadQuiz.Handle).WithName("student-quiz").For(Readers);
        routes.MapWork<Quizzes.BeginQuiz, Quizzes.BeginQuizRequest, CourseOfStudents, Quizzes.AttemptAnswer>();
        routes.MapWork<Quizzes.AnswerQuiz, Quizzes.AnswerQuizRequest, CourseOfStudents, Quizzes.AnsweredAnswer>();
        routes.MapWork<Quizzes.EndQuiz, Quizzes.EndQuizRequest, CourseOfStudents, Quizzes.AttemptAnswer>();
        routes.MapWork<RecordOpened, RecordOpenedRequest, CourseOfStudents, OpenedAnswer>();
        routes.MapWork<SaveDraft, SaveDraftRequest, CourseOfStudents, SavedAnswer>();
        routes.MapWork<HandIn, HandInRequest, CourseOfStudents, HandInAnswer>();
        routes.MapWork<TickOff, TickOffRequest, CourseOfStudents, DoneAnswer>();
        routes.MapWork<SayCannotOpen, SayCannotOpenRequest, CourseOfStudents, DoneAnswer>();
        routes.MapWork<TakeBack, TakeBackRequest, CourseOfStudents, DoneAnswer>();
    }
}
