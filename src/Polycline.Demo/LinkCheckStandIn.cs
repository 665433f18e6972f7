using Polycline.Web.Foundation.Links;

namespace Polycline.Demo;

/// <summary>Stands in for the internet: it knows some places that demo links lead to, and asks nobody.</summary>
public sealed class LinkCheckStandIn : ILinkChecker
{
    public Task<LinkOutcome> Try(Uri address, CancellationToken stop) =>
        Task.FromResult(
            (address.Host, address.AbsolutePath) switch
            {
                (_, "/gone") => LinkOutcome.Gone,
                ("films.fenwater.example" or "harbour.fenwater.example", _) => LinkOutcome.Open,
                ("library.fenwater.example", _) => LinkOutcome.SignIn,
                ("silent.fenwater.example", _) => LinkOutcome.Silent,
                _ => LinkOutcome.NotTried,
            }
        );
}
