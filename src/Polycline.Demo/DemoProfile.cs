using Polycline.Demo.School;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Links;
using Polycline.Web.Foundation.Mail;
using Polycline.Web.Host;
using Polycline.Web.Rosters;
using Polycline.Web.SignIn;

namespace Polycline.Demo;

/// <summary>Somebody the sign-in page of the demo offers.</summary>
/// <param name="About">What they are, in a few words.</param>
public sealed record DemoPerson(string Name, string About, string Email, string Password);

/// <summary>
/// The demo: Fenwater College, with stand-ins for the systems around a school. An ordinary installation has none of this.
/// </summary>
public sealed class DemoProfile : IProfile
{
    public string Name => "demo";

    public void MapRoutes(IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/demo/people", () => DemoPeople.Offered).WithName("demo-people").For(May.Anyone);
        routes.MapGet("/api/demo/clock", DemoClock.Read).WithName("demo-clock").For(May.SignedIn);
        routes.MapPost("/api/demo/clock", DemoClock.Move).WithName("move-demo-clock").For(May.SignedIn).ProducesProblems(422);
        routes.MapGet(RosterStandIn.Path, RosterStandIn.Serve).WithName("demo-roster").For(May.Anyone).ExcludeFromDescription();
        routes.MapGet("/api/demo/mail", MailStandIn.Read).WithName("demo-mail").For(May.Anyone);
    }

    public void AddServices(IServiceCollection services)
    {
        services.AddSingleton<ProviderStandIn>();
        services.AddHostedService(provider => provider.GetRequiredService<ProviderStandIn>());
        services.AddSingleton<ISignInProvider>(provider => provider.GetRequiredService<ProviderStandIn>());
        services.AddSingleton<IRosterFeed, RosterStandIn>();
        services.AddSingleton<IFileChecker, FileCheckStandIn>();
        services.AddSingleton<ILinkChecker, LinkCheckStandIn>();
        services.AddSingleton<MailStandIn>();
        services.AddHostedService(provider => provider.GetRequiredService<MailStandIn>());
        services.AddSingleton<IMailRoute>(provider => provider.GetRequiredService<MailStandIn>());
    }

    public Task<int>? Command(string name, IReadOnlyList<string> given, string ownerConnection, CancellationToken stop) =>
        name switch
        {
            "load-demo" => Load(ownerConnection, stop),
            "demo-people" => List(),
            "demo-clock" => DemoClock.FromCommandLine(given, ownerConnection, stop),
            _ => null,
        };

    private static async Task<int> Load(string ownerConnection, CancellationToken stop)
    {
        Console.WriteLine(
            await DemoSchool.Load(ownerConnection, stop)
                ? "The demo school is loaded."
                : "There is a school in the database already; it was left as it is."
        );
        return 0;
    }

    private static Task<int> List()
    {
        foreach (var person in DemoPeople.Offered)
            Console.WriteLine($"  {person.Email, -40} {person.About}");
        Console.WriteLine($"  The password of all of them is {DemoPeople.Password}");
        return Task.FromResult(0);
    }
}
