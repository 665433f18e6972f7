using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.SignIn;

/// <summary>Signing in and out.</summary>
public static class SignInRoutes
{
    public static void MapSignIn(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/sign-in", StartSession.Handle).WithName("sign-in").For(May.Anyone).ProducesProblems(401, 429);
        routes.MapPost("/api/sign-out", EndSession.Handle).WithName("sign-out").For(May.SignedIn);
        routes.MapPost("/api/sign-out-everywhere", EndSession.HandleEverywhere).WithName("sign-out-everywhere").For(May.SignedIn);
    }
}
