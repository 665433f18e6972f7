namespace Polycline.Web.Host;

/// <summary>What a start of Polycline brings beside the application itself. The demo brings its school and stand-ins.</summary>
public interface IProfile
{
    /// <summary>As the page is told it: <c>school</c> or <c>demo</c>.</summary>
    string Name { get; }

    void MapRoutes(IEndpointRouteBuilder routes);

    /// <summary>What takes the place of something outside the school.</summary>
    void AddServices(IServiceCollection services) { }

    /// <summary>Commands that only this profile has, with the arguments after the name; null where there is none of that name.</summary>
    Task<int>? Command(string name, IReadOnlyList<string> given, string ownerConnection, CancellationToken stop);
}

/// <summary>An ordinary installation: a school, and nothing simulated.</summary>
public sealed class SchoolProfile : IProfile
{
    public string Name => "school";

    public void MapRoutes(IEndpointRouteBuilder routes) { }

    public Task<int>? Command(string name, IReadOnlyList<string> given, string ownerConnection, CancellationToken stop) => null;
}
