using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Conditions;

/// <summary>Conditions: who gets through?</summary>
public static class ConditionsRoutes
{
    public static void MapConditions(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/editions/{edition:long}/conditions", ReadConditions.Handle).WithName("conditions").For(May.Team);
        routes.MapGet("/api/editions/{edition:long}/askable", ReadAskable.Handle).WithName("askable").For(May.Team);
        routes
            .MapPost("/api/editions/{edition:long}/would-admit", WouldAdmit.Handle)
            .WithName("would-admit")
            .WithMetadata(new OnlyAsks())
            .For(May.Team)
            .ProducesProblems(404, 422);
        routes
            .MapPost("/api/editions/{edition:long}/what-if", WhatIf.Handle)
            .WithName("what-if")
            .WithMetadata(new OnlyAsks())
            .For(May.Team)
            .ProducesProblems(404, 422);
        routes
            .MapGet("/api/editions/{edition:long}/items/{item:long}/scores-reached", ReadScoresReached.Handle)
            .WithName("scores-reached")
            .For(May.Team)
            .ProducesProblems(404);
        routes.MapEditionCommand<SetConditions, SetConditionsRequest>();
    }
}
