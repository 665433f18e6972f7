using Microsoft.Extensions.FileProviders;
using Microsoft.Extensions.Primitives;

namespace Polycline.Web.Host;

/// <summary>
/// Endpoints that are built once. Routing, authorization and the check at start each ask for them, and building all
/// of them takes half a second.
/// </summary>
public sealed class BuiltOnce(EndpointDataSource source) : EndpointDataSource
{
    private readonly Lazy<IReadOnlyList<Endpoint>> endpoints = new(() => source.Endpoints);

    public override IReadOnlyList<Endpoint> Endpoints => endpoints.Value;

    /// <summary>None is added later.</summary>
    public override IChangeToken GetChangeToken() => NullChangeToken.Singleton;

    /// <summary>Makes everything mapped so far be built only once.</summary>
    public static void All(IEndpointRouteBuilder routes)
    {
        var once = routes.DataSources.Select(source => new BuiltOnce(source)).ToList();
        routes.DataSources.Clear();
        foreach (var source in once)
            routes.DataSources.Add(source);
    }
}
