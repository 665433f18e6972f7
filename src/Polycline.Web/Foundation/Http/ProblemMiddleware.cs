using System.Text.Json;

namespace Polycline.Web.Foundation.Http;

/// <summary>Turns whatever goes wrong into a problem that says what happened, what was kept and what to do.</summary>
public sealed class ProblemMiddleware(RequestDelegate next, ILogger<ProblemMiddleware> log)
{
    private static readonly JsonSerializerOptions Web = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull,
    };

    public async Task InvokeAsync(HttpContext http)
    {
        try
        {
            await next(http);
            // What was refused before any handler has a body that says so, too.
            if (
                http.Response is { StatusCode: >= 400, HasStarted: false, ContentLength: null, ContentType: null }
                && Plain(http.Response.StatusCode) is { } plain
            )
                await Write(http, plain);
        }
        catch (OperationCanceledException) when (http.RequestAborted.IsCancellationRequested)
        {
            // Whoever asked has gone.
        }
        catch (Exception error) when (!http.Response.HasStarted)
        {
            var problem = Problem.From(error);
            if (problem is null)
                log.LogError(error, "{Method} {Path} failed", http.Request.Method, http.Request.Path);
            else if (problem.Status >= 500)
                log.LogWarning(
                    "{Method} {Path}: {Problem} ({Error})",
                    http.Request.Method,
                    http.Request.Path,
                    problem.Message,
                    error.Message
                );
            await Write(
                http,
                problem
                    ?? new(
                        500,
                        "fault",
                        "Something went wrong here.",
                        "Nothing was changed. Try again; if it stays so, tell whoever looks after Polycline."
                    )
            );
        }
    }

    private static ProblemException? Plain(int status) =>
        status switch
        {
            StatusCodes.Status404NotFound => Problem.Unknown(),
            StatusCodes.Status405MethodNotAllowed => new(405, "method", "That is not done here.", "Nothing was changed."),
            StatusCodes.Status413PayloadTooLarge or StatusCodes.Status415UnsupportedMediaType => Problem.From(
                new BadHttpRequestException("", status)
            ),
            _ => null,
        };

    public static Task Write(HttpContext http, ProblemException problem)
    {
        http.Response.StatusCode = problem.Status;
        if (problem.RetryAfter is { } seconds)
            http.Response.Headers.RetryAfter = seconds.ToString(System.Globalization.CultureInfo.InvariantCulture);
        return http.Response.WriteAsJsonAsync(problem.Answer(), Web, "application/problem+json", http.RequestAborted);
    }
}
