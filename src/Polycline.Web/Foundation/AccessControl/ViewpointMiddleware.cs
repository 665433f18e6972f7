using NodaTime;
using Polycline.Data;

namespace Polycline.Web.Foundation.AccessControl;

/// <summary>Binds the <see cref="Viewpoint"/> of whoever may call, and says as of which counters the answer is.</summary>
public sealed class ViewpointMiddleware(RequestDelegate next, Database database, IClock clock)
{
    /// <summary>So that a caller who then watches them knows whether anything came in between.</summary>
    public const string CountersHeader = "Polycline-Counters";

    public async Task InvokeAsync(HttpContext http)
    {
        if (http.Features.Get<Access>() is { } access)
        {
            if (access.Counters is { } counters)
                http.Response.Headers[CountersHeader] = counters;
            http.Features.Set(await Viewpoint.Bind(http, access, clock.GetCurrentInstant(), database));
        }
        await next(http);
    }
}
