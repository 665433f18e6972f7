using Polycline.Web.Foundation.AccessControl;

namespace Polycline.Web.Foundation.Http;

/// <summary>How features put their routes up.</summary>
public static class Routes
{
    /// <summary>Says who may call; an endpoint without it is refused at start.</summary>
    public static RouteHandlerBuilder For(this RouteHandlerBuilder endpoint, May may) => endpoint.WithMetadata(new AccessRule(may));

    /// <summary>Says which problems an endpoint may answer with.</summary>
    public static RouteHandlerBuilder ProducesProblems(this RouteHandlerBuilder endpoint, params int[] statuses)
    {
        foreach (var status in statuses)
            endpoint.Produces<ProblemAnswer>(status, "application/problem+json");
        return endpoint;
    }
}
