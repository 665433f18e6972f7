using Polycline.Data;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Health;

/// <summary>For a load balancer: is this instance alive, and should it be sent requests?</summary>
public static class HealthRoutes
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(2);

    public static void MapHealth(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/health/live", () => "alive").WithName("alive").For(May.Anyone).ExcludeFromDescription();
        routes.MapGet("/health/ready", Ready).WithName("ready").For(May.Anyone).ExcludeFromDescription();
    }

    private static async Task<IResult> Ready(Database database, IHostApplicationLifetime life, CancellationToken stop)
    {
        if (life.ApplicationStopping.IsCancellationRequested)
            return Results.Text("stopping", statusCode: 503);
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(stop);
        limit.CancelAfter(Patience);
        try
        {
            await using var command = database.Source.CreateCommand("SELECT 1");
            await command.ExecuteScalarAsync(limit.Token);
            return Results.Text("ready");
        }
        catch (Exception fault) when (fault is OperationCanceledException || Problem.From(fault) is not null)
        {
            return Results.Text("the database does not answer", statusCode: 503);
        }
    }
}
