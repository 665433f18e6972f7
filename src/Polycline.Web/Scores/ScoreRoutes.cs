using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Scores;

/// <summary>Scores: how are they doing?</summary>
public static class ScoreRoutes
{
    public static void MapScores(this IEndpointRouteBuilder routes)
    {
        const string scores = "/api/editions/{edition:long}/scores";
        routes.MapGet(scores, ReadScores.Handle).WithName("scores").For(May.Team);
        routes
            .MapGet("/api/editions/{edition:long}/students/{student:long}/total", ReadTotal.Handle)
            .WithName("student-total")
            .For(May.Team)
            .ProducesProblems(404);
        routes
            .MapGet("/api/editions/{edition:long}/items/{item:long}/questions", ReadQuestions.Handle)
            .WithName("questions")
            .For(May.Team)
            .ProducesProblems(404);
        routes.MapEditionCommand<AddUpScores, AddUpScoresRequest>();
        routes.MapWork<GiveScores, GiveScoresRequest, EditionPlan, GiveScoresAnswer>();
        routes.MapWork<TakeBackScores, TakeBackScoresRequest, EditionPlan, TakeBackScoresAnswer>();
        routes.MapGet($"{scores}.csv", ScoreFiles.HandleCsv).WithName("scores-csv").Produces(200, contentType: "text/csv").For(May.Team);
        routes
            .MapGet($"{scores}.xlsx", ScoreFiles.HandleSpreadsheet)
            .WithName("scores-spreadsheet")
            .Produces(200, contentType: ScoreFiles.SpreadsheetType)
            .For(May.Team);
        routes
            .MapGet("/api/editions/{edition:long}/results.zip", ReadResults.Handle)
            .WithName("results-file")
            .Produces(200, contentType: "application/zip")
            .For(May.Team);
    }
}
