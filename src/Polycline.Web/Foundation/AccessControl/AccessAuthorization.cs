using Microsoft.AspNetCore.Authorization;
using NodaTime;

namespace Polycline.Web.Foundation.AccessControl;

/// <summary>What a caller must be to use an endpoint. Every endpoint has one, and a test goes through them all.</summary>
public sealed record AccessRule(May May) : IAuthorizationRequirement, IAuthorizationRequirementData
{
    public IEnumerable<IAuthorizationRequirement> GetRequirements() => [this];
}

/// <summary>Marks a POST that only asks, because its question is too long for an address: it too can be asked at another moment.</summary>
public sealed record OnlyAsks;

/// <summary>Holds who asks against the endpoint's <see cref="AccessRule"/>.</summary>
public sealed class AccessAuthorization(IClock clock) : AuthorizationHandler<AccessRule>
{
    protected override Task HandleRequirementAsync(AuthorizationHandlerContext context, AccessRule requirement)
    {
        var access = (context.Resource as HttpContext)?.Features.Get<Access>();
        if (requirement.May.HasFlag(May.Anyone) || access?.Allows(requirement.May, clock.GetCurrentInstant()) == true)
            context.Succeed(requirement);
        return Task.CompletedTask;
    }
}
