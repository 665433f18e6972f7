using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline.Files;
using Polycline.Web.Outline.Items;
using Polycline.Web.Outline.Lessons;
using Polycline.Web.Outline.Notes;
using Polycline.Web.Outline.Texts;
using Polycline.Web.Outline.Units;

namespace Polycline.Web.Outline;

/// <summary>Outline: what is the course?</summary>
public static class OutlineRoutes
{
    public static void MapOutline(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/editions/{edition:long}/outline", ReadOutline.Handle).WithName("outline").For(May.Team);
        routes.MapGet("/api/editions/{edition:long}/units/{unit:long}", ReadUnit.Handle).WithName("unit").For(May.Team);
        routes.MapGet("/api/editions/{edition:long}/items/{item:long}", ReadItem.Handle).WithName("item").For(May.Team);
        routes
            .MapGet("/api/editions/{edition:long}/items/{item:long}/files/{file:long}", ReadFiles.HandleFile)
            .WithName("item-file")
            .SendsBytes()
            .For(May.Team);
        routes
            .MapGet("/api/editions/{edition:long}/items/{item:long}/pictures/{picture:length(64)}", ReadFiles.HandlePicture)
            .WithName("item-picture")
            .SendsBytes()
            .For(May.Team);
        routes
            .MapPost("/api/editions/{edition:long}/items/{item:long}/check-link", CheckLink.Handle)
            .WithName("check-link")
            .For(May.Team)
            .ProducesProblems(404, 409);
        routes.MapEditionCommand<AddUnit, AddUnitRequest>();
        routes.MapEditionCommand<AddLesson, AddLessonRequest>();
        routes.MapEditionCommand<AddItem, AddItemRequest>();
        routes.MapEditionCommand<ChangeCourse, ChangeCourseRequest>();
        routes.MapEditionCommand<ChangeUnit, ChangeUnitRequest>();
        routes.MapEditionCommand<DescribeItem, DescribeItemRequest>();
        routes.MapEditionCommand<ChangeLesson, ChangeLessonRequest>();
        routes.MapEditionCommand<RenameItem, RenameItemRequest>();
        routes.MapEditionCommand<MoveUnit, MoveUnitRequest>();
        routes.MapEditionCommand<MoveLesson, RemovedItems, MoveLessonRequest>();
        routes.MapEditionCommand<MoveItem, MoveItemRequest>();
        routes.MapEditionCommand<RemoveUnit, RemoveUnitRequest>();
        routes.MapEditionCommand<RemoveLesson, RemoveLessonRequest>();
        routes.MapEditionCommand<RemoveItem, RemoveItemRequest>();
        routes.MapEditionCommand<PublishItem, PublishItemRequest>();
        routes.MapEditionCommand<PublishItems, PublishItemsRequest>();
        routes.MapEditionCommand<ChangeItems, RemovedItems, ChangeItemsRequest>();
        routes.MapEditionCommand<WriteItem, TextPictures, WriteItemRequest>();
        routes.MapGet("/api/editions/{edition:long}/items/{item:long}/text", ReadText.Handle).WithName("text").For(May.Team);
        routes.MapWork<WriteText, WriteTextRequest, EditionPlan, TextSavedAnswer>();
        routes.MapWork<EndText, EndTextRequest, EditionPlan, EndTextAnswer>();
        routes.MapEditionCommand<AttachFiles, ItemFiles, AttachFilesRequest>();
        routes.MapEditionCommand<ReplaceFile, ItemFiles, ReplaceFileRequest>();
        routes.MapEditionCommand<RenameFile, ItemFiles, RenameFileRequest>();
        routes.MapEditionCommand<MoveFile, ItemFiles, MoveFileRequest>();
        routes.MapEditionCommand<RemoveFile, ItemFiles, RemoveFileRequest>();
        routes.MapEditionCommand<GiveFile, ItemFiles, GiveFileRequest>();
        routes.MapWork<RefreshCopies, RefreshCopiesRequest, EditionPlan, RefreshCopiesAnswer>();
        routes.MapEditionCommand<TimeItem, TimeItemRequest>();
        routes.MapEditionCommand<AskItem, AskItemRequest>();
        routes.MapEditionCommand<MarkItemAs, MarkItemAsRequest>();
        routes.MapGet("/api/editions/{edition:long}/items/{item:long}/quiz", Quizzes.ReadQuiz.Handle).WithName("quiz").For(May.Team);
        routes
            .MapPost("/api/editions/{edition:long}/understand-quiz", Quizzes.UnderstandQuiz.Handle)
            .WithName("understand-quiz")
            .For(May.Team)
            .ProducesProblems(422);
        routes
            .MapPost("/api/editions/{edition:long}/try-quiz", Quizzes.TryQuiz.Handle)
            .WithName("try-quiz")
            .For(May.Team)
            .ProducesProblems(422);
        routes
            .MapGet("/api/editions/{edition:long}/items/{item:long}/questions.zip", Quizzes.ReadQuiz.HandlePackage)
            .WithName("questions-package")
            .SendsBytes()
            .For(May.Team);
        routes.MapWork<Quizzes.TakeQuestions, Quizzes.TakeQuestionsRequest, Quizzes.TakenQuestions>();
        routes.MapEditionCommand<Quizzes.WriteQuiz, Quizzes.KnownQuiz, Quizzes.WriteQuizRequest>();
        routes.MapGet("/api/editions/{edition:long}/items/{item:long}/rubric", Rubrics.ReadRubric.Handle).WithName("rubric").For(May.Team);
        routes
            .MapGet("/api/editions/{edition:long}/items/{item:long}/rubric.csv", Rubrics.ReadRubric.HandleCsv)
            .WithName("rubric-csv")
            .For(May.Team)
            .Produces(200, contentType: "text/csv");
        routes.MapGet("/api/editions/{edition:long}/rubrics", Rubrics.ReadRubrics.Handle).WithName("rubrics").For(May.Team);
        routes
            .MapPost("/api/editions/{edition:long}/understand-rubric", Rubrics.UnderstandRubric.Handle)
            .WithName("understand-rubric")
            .For(May.Team)
            .ProducesProblems(422);
        routes.MapWork<Rubrics.KeepRubric, Rubrics.KeepRubricRequest, Rubrics.KeepRubricAnswer>();
        routes.MapWork<Rubrics.TakeOffShelf, Rubrics.TakeOffShelfRequest, DoneAnswer>();
        routes.MapEditionCommand<Rubrics.WriteRubric, Rubrics.RubricInUse, Rubrics.WriteRubricRequest>();
        routes.MapEditionCommand<PointLink, PointLinkRequest>();
        routes.MapEditionCommand<ConditionItem, ConditionItemRequest>();
        routes.MapEditionCommand<SayAboutTeacher, SayAboutTeacherRequest>();
        routes.MapEditionCommand<TieOutcomes, KnownOutcomes, TieOutcomesRequest>();
        routes.MapGet("/api/editions/{edition:long}/notes", ReadNotes.Handle).WithName("notes").For(May.Team);
        routes.MapEditionCommand<AddNote, NotesOfEdition, AddNoteRequest>();
        routes.MapEditionCommand<ChangeNote, NotesOfEdition, ChangeNoteRequest>();
        routes.MapEditionCommand<RemoveNote, NotesOfEdition, RemoveNoteRequest>();
    }
}
