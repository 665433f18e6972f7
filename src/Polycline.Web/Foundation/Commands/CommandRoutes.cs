using FluentValidation;
using Microsoft.AspNetCore.Mvc;
using Npgsql;
using Polycline.Data.Courses;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Mail;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Host;

namespace Polycline.Web.Foundation.Commands;

/// <summary>A command's entry in the registry of endpoints.</summary>
/// <param name="Place">What its address names.</param>
/// <param name="Planning">False: it is work, and is not undone through the ledger.</param>
public sealed record CommandEntry(string Name, string Place, bool Planning, Type Request);

/// <summary>Everything that travels beside a request, the same for every command.</summary>
/// <param name="Names">For a preview of a planning command: whether to name the students it reaches.</param>
internal sealed record Beside(
    [FromQuery(Name = "preview")] bool? Preview,
    [FromQuery(Name = "names")] bool? Names,
    [FromHeader(Name = "Idempotency-Key")] Guid? GivenKey,
    Access Access,
    Viewpoint Viewpoint
)
{
    /// <summary>Null: a preview.</summary>
    public Guid? Key => Preview == true ? null : Idempotency.Key(GivenKey);

    public bool NamesThem => Names == true && Preview == true;
}

/// <summary>
/// How features add their commands: <c>?preview=true</c> shows what one would do, otherwise it is done, once for each
/// <c>Idempotency-Key</c>.
/// </summary>
public static class CommandRoutes
{
    /// <summary>Adds a command that changes an edition: <c>POST /api/editions/{edition}/{Name}</c>.</summary>
    public static void MapEditionCommand<TCommand, TRequest>(this IEndpointRouteBuilder routes)
        where TCommand : IPlanningCommand<EditionPlan, TRequest>
        where TRequest : class =>
        routes.MapEdition(
            Of<TCommand, EditionPlan, TRequest>(
                (_, before, request, viewpoint) => Task.FromResult(TCommand.Decide(before, request, viewpoint))
            )
        );

    /// <summary>The same for a command that needs to know more than the edition.</summary>
    public static void MapEditionCommand<TCommand, TMore, TRequest>(this IEndpointRouteBuilder routes)
        where TCommand : IPlanningCommand<EditionPlan, TMore, TRequest>
        where TRequest : class =>
        routes.MapEdition(
            Of<TCommand, EditionPlan, TRequest>(
                async (connection, before, request, viewpoint) =>
                    TCommand.Decide(before, await TCommand.Read(connection, before, request), request, viewpoint)
            )
        );

    /// <summary>Adds a command that changes a term, for the office: <c>POST /api/terms/{term}/{Name}</c>.</summary>
    public static void MapTermCommand<TCommand, TRequest>(this IEndpointRouteBuilder routes)
        where TCommand : IPlanningCommand<TermPlan, TRequest>
        where TRequest : class =>
        routes.MapTerm(
            Of<TCommand, TaughtTerm, TRequest>(
                (_, before, request, viewpoint) => Task.FromResult(TCommand.Decide(before.Plan, request, viewpoint))
            )
        );

    /// <summary>The same for a command that needs to know more than the term.</summary>
    public static void MapTermCommand<TCommand, TMore, TRequest>(this IEndpointRouteBuilder routes)
        where TCommand : IPlanningCommand<TermPlan, TMore, TRequest>
        where TRequest : class =>
        routes.MapTerm(
            Of<TCommand, TaughtTerm, TRequest>(
                async (connection, before, request, viewpoint) =>
                    TCommand.Decide(before.Plan, await TCommand.Read(connection, before.Plan, request), request, viewpoint)
            )
        );

    /// <summary>
    /// Adds a work command: <c>POST /api/editions/{edition}/{Name}</c>, <c>/api/sections/{section}/…</c>,
    /// <c>/api/school/…</c> or <c>/api/me/…</c>.
    /// </summary>
    public static void MapWork<TCommand, TRequest, TAnswer>(this IEndpointRouteBuilder routes)
        where TCommand : IWorkCommand<TRequest, TAnswer>
        where TRequest : class
        where TAnswer : IAnswer<TAnswer> =>
        routes.MapWork<TCommand, TRequest, bool, TAnswer>(
            TCommand.Place,
            TCommand.HasSecret,
            (_, _, _) => Task.FromResult(true),
            (work, _, request) => TCommand.Do(work, request)
        );

    /// <summary>The same for a command that prepares something first.</summary>
    public static void MapWork<TCommand, TRequest, TReady, TAnswer>(this IEndpointRouteBuilder routes)
        where TCommand : IWorkCommand<TRequest, TReady, TAnswer>
        where TRequest : class
        where TAnswer : IAnswer<TAnswer> =>
        routes.MapWork<TCommand, TRequest, TReady, TAnswer>(TCommand.Place, false, TCommand.Prepare, TCommand.Do);

    private static Planning<TBefore, TRequest> Of<TCommand, TBefore, TRequest>(
        Func<NpgsqlConnection, TBefore, TRequest, Viewpoint, Task<CommandDecision>> decide
    )
        where TCommand : ICommand<TRequest>
        where TRequest : class => new(TCommand.Name, TCommand.May, TCommand.Validator, decide);

    private static void MapEdition<TRequest>(this IEndpointRouteBuilder routes, Planning<EditionPlan, TRequest> command)
        where TRequest : class =>
        routes
            .MapPlanning($"/api/editions/{{edition:long}}/{command.Name}", command, access => new PlannedEdition(
                access.Edition ?? throw Problem.Unknown()
            ))
            .Registered(command.Name, command.May, new(command.Name, "edition", true, typeof(TRequest)));

    private static void MapTerm<TRequest>(this IEndpointRouteBuilder routes, Planning<TaughtTerm, TRequest> command)
        where TRequest : class =>
        routes
            .MapPlanning($"/api/terms/{{term:long}}/{command.Name}", command, access => new PlannedTerm(
                access.Term ?? throw Problem.Unknown()
            ))
            .Registered($"term-{command.Name}", May.Office, new(command.Name, "term", true, typeof(TRequest)));

    /// <param name="planned">What the command changes, of all that the address names.</param>
    private static RouteHandlerBuilder MapPlanning<TBefore, TRequest>(
        this IEndpointRouteBuilder routes,
        string address,
        Planning<TBefore, TRequest> command,
        Func<Access, IPlanned<TBefore>> planned
    )
        where TRequest : class =>
        routes.MapPost(
            address,
            ([FromBody] TRequest request, [AsParameters] Beside beside, PlanningRunner runner, CancellationToken stop) =>
                runner.Run(command, planned(beside.Access), beside.Access, beside.Viewpoint, request, beside.Key, beside.NamesThem, stop)
        );

    private static void MapWork<TCommand, TRequest, TReady, TAnswer>(
        this IEndpointRouteBuilder routes,
        WorkPlace place,
        bool hasSecret,
        Func<Access, PlanCache, TRequest, Task<TReady>> prepare,
        Func<WorkContext, TReady, TRequest, Task<TAnswer>> run
    )
        where TCommand : ICommand<TRequest>
        where TRequest : class
        where TAnswer : IAnswer<TAnswer>
    {
        var (address, name) = place switch
        {
            WorkPlace.Edition => ("/api/editions/{edition:long}", "edition"),
            WorkPlace.Section => ("/api/sections/{section:long}", "section"),
            WorkPlace.School => ("/api/school", "school"),
            _ => ("/api/me", "me"),
        };
        var endpoint = routes
            .MapPost(
                $"{address}/{TCommand.Name}",
                async (
                    [FromBody] TRequest request,
                    [AsParameters] Beside beside,
                    HttpContext http,
                    HostSettings settings,
                    IMailRoute mail,
                    FileRules files,
                    CommandPipeline pipeline,
                    PlanCache plans,
                    CancellationToken stop
                ) =>
                {
                    var sent = new Sent<TRequest>(
                        TCommand.Name,
                        $"{http.Request.Path}",
                        TCommand.May,
                        TCommand.Validator,
                        beside.Access,
                        beside.Viewpoint,
                        request,
                        beside.Key
                    )
                    {
                        HasSecret = hasSecret,
                    };
                    CommandPipeline.Check(sent);
                    var ready = await prepare(beside.Access, plans, request);
                    return await pipeline.Run(
                        sent,
                        (connection, key, _) =>
                            run(
                                new(
                                    connection,
                                    beside.Access,
                                    beside.Viewpoint,
                                    key,
                                    settings.AddressFor(http.Request),
                                    mail.Server is not null
                                )
                                {
                                    Files = files,
                                },
                                ready,
                                request
                            ),
                        stop
                    );
                }
            )
            .Registered(TCommand.Name, TCommand.May, new(TCommand.Name, name, false, typeof(TRequest)));
        if (TCommand.LargestRequest is { } largest)
            endpoint.WithMetadata(new RequestSizeLimitAttribute(largest));
    }

    private static RouteHandlerBuilder Registered(this RouteHandlerBuilder endpoint, string name, May may, CommandEntry entry) =>
        endpoint.For(may).WithName(name).WithMetadata(entry).ProducesProblems(403, 404, 409, 422);
}
