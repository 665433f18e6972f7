using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.SignIn;

/// <summary>Signing in and out.</summary>
public static class SignInRoutes
{
    public static void MapSignIn(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/sign-in", StartSession.Handle).WithName("sign-in").For(May.Anyone).ProducesProblems(401, 429);
        routes.MapGet("/api/sign-in/provider", SignInWithProvider.Read).WithName("provider").For(May.Anyone);
        routes
            .MapGet("/api/sign-in/with-provider", SignInWithProvider.Go)
            .WithName("with-provider")
            .For(May.Anyone)
            .ExcludeFromDescription();
        routes.MapGet("/api/sign-in/return", SignInWithProvider.Come).WithName("from-provider").For(May.Anyone).ExcludeFromDescription();
        routes.MapPost("/api/sign-out", EndSession.Handle).WithName("sign-out").For(May.SignedIn);
        routes.MapPost("/api/sign-out-everywhere", EndSession.HandleEverywhere).WithName("sign-out-everywhere").For(May.SignedIn);
    }
}
