using Microsoft.AspNetCore.Authorization;
using Polycline.Web.Foundation.AccessControl;

namespace Polycline.Web.Foundation.Http;

/// <summary>How features add their routes.</summary>
public static class Routes
{
    /// <summary>Says who may call; an endpoint without it is refused at start.</summary>
    public static TEndpoint For<TEndpoint>(this TEndpoint endpoint, May may)
        where TEndpoint : IEndpointConventionBuilder =>
        may.HasFlag(May.Anyone)
            ? endpoint.WithMetadata(new AccessRule(may), new AllowAnonymousAttribute())
            : endpoint.WithMetadata(new AccessRule(may));

    /// <summary>Says which problems an endpoint may answer with.</summary>
    public static RouteHandlerBuilder ProducesProblems(this RouteHandlerBuilder endpoint, params int[] statuses)
    {
        foreach (var status in statuses)
            endpoint.Produces<ProblemAnswer>(status, "application/problem+json");
        return endpoint;
    }
}
