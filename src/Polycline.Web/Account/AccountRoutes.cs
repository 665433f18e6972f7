using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Account;

/// <summary>One's own account: the password, and where one is signed in.</summary>
public static class AccountRoutes
{
    public static void MapAccount(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/account", ReadAccount.Handle).WithName("account").For(May.SignedIn);
        routes
            .MapPost("/api/account/password", ChangePassword.Handle)
            .WithName("change-password")
            .For(May.SignedIn)
            .ProducesProblems(422, 429);
        routes.MapWork<SignOutElsewhere, SignOutElsewhereRequest, SignedOutAnswer>();
    }
}
