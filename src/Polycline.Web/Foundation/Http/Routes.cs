using Microsoft.AspNetCore.Mvc;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Web.Foundation.Http;

/// <summary>How features put their routes up.</summary>
public static class Routes
{
    /// <summary>The name under which a command stands in the registry of endpoints.</summary>
    public sealed record CommandRow(string Name, Type Request);

    /// <summary>The same for one on a term.</summary>
    public sealed record TermCommandRow(string Name, Type Request);

    /// <summary>Says who may call; an endpoint without it is refused at start.</summary>
    public static RouteHandlerBuilder For(this RouteHandlerBuilder endpoint, May may) => endpoint.WithMetadata(new AccessRule(may));

    /// <summary>
    /// Puts a command up: <c>?preview=true</c> shows its reach, with <c>names=true</c> by name, otherwise it is applied, once for each
    /// <c>Idempotency-Key</c>.
    /// </summary>
    public static void MapCommand<TCommand, TRequest, TPlan>(this IEndpointRouteBuilder routes)
        where TCommand : IEditionCommand<TRequest, TPlan>
        where TRequest : class =>
        routes
            .MapPost(
                $"/api/editions/{{edition:long}}/{TCommand.Name}",
                async (
                    long edition,
                    [FromBody] TRequest request,
                    [FromQuery] bool? preview,
                    [FromQuery] bool? names,
                    [FromHeader(Name = "Idempotency-Key")] Guid? key,
                    Access access,
                    Viewpoint viewpoint,
                    CommandRunner runner,
                    CancellationToken stop
                ) =>
                {
                    return await runner.Run<TCommand, TRequest, TPlan>(
                        access,
                        viewpoint,
                        request,
                        preview == true ? null : Idempotency.Key(key),
                        names == true && preview == true,
                        stop
                    );
                }
            )
            .For(TCommand.May)
            .WithName(TCommand.Name)
            .WithMetadata(new CommandRow(TCommand.Name, typeof(TRequest)))
            .ProducesProblems(409, 422);

    /// <summary>Puts a command on a term up, for the office, alike.</summary>
    public static void MapTermCommand<TCommand, TRequest, TPlan>(this IEndpointRouteBuilder routes)
        where TCommand : ITermCommand<TRequest, TPlan>
        where TRequest : class =>
        routes
            .MapPost(
                $"/api/terms/{{term:long}}/{TCommand.Name}",
                async (
                    long term,
                    [FromBody] TRequest request,
                    [FromQuery] bool? preview,
                    [FromQuery] bool? names,
                    [FromHeader(Name = "Idempotency-Key")] Guid? key,
                    Access access,
                    Viewpoint viewpoint,
                    TermCommandRunner runner,
                    CancellationToken stop
                ) =>
                {
                    return await runner.Run<TCommand, TRequest, TPlan>(
                        access,
                        viewpoint,
                        request,
                        preview == true ? null : Idempotency.Key(key),
                        names == true && preview == true,
                        stop
                    );
                }
            )
            .For(May.Office)
            .WithName($"term-{TCommand.Name}")
            .WithMetadata(new TermCommandRow(TCommand.Name, typeof(TRequest)))
            .ProducesProblems(409, 422);

    /// <summary>Says which problems an endpoint may answer with.</summary>
    public static RouteHandlerBuilder ProducesProblems(this RouteHandlerBuilder endpoint, params int[] statuses)
    {
        foreach (var status in statuses)
            endpoint.Produces<ProblemAnswer>(status, "application/problem+json");
        return endpoint;
    }
}
