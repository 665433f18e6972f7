using System.Text.Json;
using Microsoft.AspNetCore.Diagnostics;

namespace Polycline.Web.Foundation.Http;

/// <summary>Turns whatever goes wrong into a problem that says what happened, what was kept and what to do.</summary>
public sealed class ProblemHandler(ILogger<ProblemHandler> log) : IExceptionHandler
{
    private static readonly JsonSerializerOptions Web = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull,
    };

    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        var problem = Problem.From(exception);
        if (problem is null)
            log.LogError(exception, "{Method} {Path} failed", httpContext.Request.Method, httpContext.Request.Path);
        else if (problem.Status >= 500)
            log.LogWarning(
                "{Method} {Path}: {Problem} ({Error})",
                httpContext.Request.Method,
                httpContext.Request.Path,
                problem.Message,
                exception.Message
            );
        await Write(
            httpContext,
            problem
                ?? new(
                    500,
                    "fault",
                    "Something went wrong here.",
                    "Nothing was changed. Try again. If it happens again, tell the person who looks after Polycline."
                )
        );
        return true;
    }

    /// <summary>Requests refused before any handler also get a body that says so.</summary>
    public static Task OfStatus(StatusCodeContext refused) =>
        Plain(refused.HttpContext.Response.StatusCode) is { } plain ? Write(refused.HttpContext, plain) : Task.CompletedTask;

    public static Task Write(HttpContext http, ProblemException problem)
    {
        http.Response.StatusCode = problem.Status;
        if (problem.RetryAfter is { } seconds)
            http.Response.Headers.RetryAfter = seconds.ToString(System.Globalization.CultureInfo.InvariantCulture);
        return http.Response.WriteAsJsonAsync(problem.Answer(), Web, "application/problem+json", http.RequestAborted);
    }

    private static ProblemException? Plain(int status) =>
        status switch
        {
            StatusCodes.Status404NotFound => Problem.Unknown(),
            StatusCodes.Status405MethodNotAllowed => new(405, "method", "This cannot be done here.", "Nothing was changed."),
            StatusCodes.Status413PayloadTooLarge or StatusCodes.Status415UnsupportedMediaType => Problem.From(
                new BadHttpRequestException("", status)
            ),
            _ => null,
        };
}
