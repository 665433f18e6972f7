using Npgsql;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Foundation.Http;

/// <summary>Both sides of a change that came too late.</summary>
/// <param name="Yours">What was asked for.</param>
/// <param name="Theirs">What stands there now; null: it is gone.</param>
/// <param name="Version">The version to name in order to change it all the same.</param>
/// <param name="By">Who changed it last.</param>
public sealed record Conflict(string Field, string? Yours, string? Theirs, long? Version, string? By, Moment? At);

/// <summary>
/// Something the caller has to know: what happened, what was kept, and what to do. It travels as
/// <c>application/problem+json</c> (RFC 9457) with <c>code</c>, and <c>field</c> or <c>conflict</c> where there is one.
/// </summary>
/// <param name="code">For programs; never changes.</param>
/// <param name="title">What happened, for people.</param>
public sealed class ProblemException(
    int status,
    string code,
    string title,
    string detail,
    string? field = null,
    Conflict? conflict = null,
    int? retryAfter = null
) : Exception(title)
{
    public int Status { get; } = status;
    public string Code { get; } = code;
    public string? Field { get; } = field;
    public int? RetryAfter { get; } = retryAfter;

    public ProblemAnswer Answer() => new($"polycline:{Code}", Message, Status, detail, Code, Field, conflict);
}

/// <summary>A problem as it travels.</summary>
/// <param name="Title">What happened.</param>
/// <param name="Detail">What was kept, and what to do.</param>
/// <param name="Field">The field at fault, where it is one.</param>
public sealed record ProblemAnswer(string Type, string Title, int Status, string Detail, string Code, string? Field, Conflict? Conflict);

/// <summary>The problems there are.</summary>
public static class Problem
{
    public static ProblemException SignedOut() =>
        new(401, "signed-out", "You are signed out.", "Sign in and do it again. Nothing was changed.");

    public static ProblemException Unknown(string? field = null) =>
        new(404, "unknown", "There is nothing here.", "It does not exist, or you may not see it.", field);

    /// <summary>Something that was good once, or for a while.</summary>
    public static ProblemException Gone(string title, string detail) => new(404, "gone", title, detail);

    public static ProblemException Forbidden(string title, string detail) => new(403, "forbidden", title, detail);

    public static ProblemException Field(string field, string message) =>
        new(422, "field", message, "Nothing was changed. Correct the field and try again.", field);

    public static ProblemException Malformed(string? field, string message) =>
        new(400, "malformed", message, "Nothing was changed.", field);

    public static ProblemException CrossSite() =>
        new(403, "cross-site", "This request came from another site.", "Nothing was changed. Open Polycline and try again there.");

    public static ProblemException TooManyTries(int seconds) =>
        new(429, "too-many-tries", "Too many attempts.", $"Wait {Math.Max(1, seconds / 60)} minutes, then try again.", retryAfter: seconds);

    public static ProblemException WrongSignIn() =>
        new(401, "wrong-sign-in", "That address and password do not match.", "Check both and try again.", "password");

    public static ProblemException NotNow() =>
        new(
            409,
            "not-now",
            "Nothing can be changed from here.",
            "You are looking through someone else’s eyes or at another moment. Go back to the team’s view, and to now."
        );

    public static ProblemException ReadsOnly() =>
        Forbidden(
            "You can read this course, but not change it.",
            "Nothing was changed. Ask a lead of the course to make you a co-teacher."
        );

    public static ProblemException AtRest() =>
        new(409, "at-rest", "This is a past edition.", "It can be read and searched, but no longer changed. Nothing was changed.");

    public static ProblemException TermOver() =>
        new(409, "at-rest", "This term is over.", "Its calendar can no longer be changed. Nothing was changed.");

    public static ProblemException KeyReused() =>
        new(
            422,
            "key-reused",
            "This request key was used for something else.",
            "Nothing was changed. Send it with a new key.",
            "Idempotency-Key"
        );

    public static ProblemException Changed(Conflict conflict) =>
        new(
            409,
            "changed-meanwhile",
            conflict.By is null ? "This was changed in the meantime." : $"{conflict.By} changed this in the meantime.",
            "Nothing was overwritten. Keep theirs, or save yours again.",
            conflict.Field,
            conflict
        );

    public static ProblemException CannotUndo(string title, string detail) => new(409, "cannot-undo", title, detail);

    public static ProblemException InUse(string title, string detail) => new(409, "in-use", title, detail);

    public static ProblemException NotOpen(string detail) => new(409, "not-open", "This is not open for work.", detail);

    public static ProblemException NothingToTakeBack() =>
        new(
            409,
            "nothing-to-take-back",
            "There is nothing to take back.",
            "You have not handed this in, or your teacher has given it back already."
        );

    /// <param name="by">Who handed it in for all of them.</param>
    public static ProblemException NotYoursToTakeBack(string by) =>
        new(
            409,
            "nothing-to-take-back",
            $"{by} handed this in for all of you.",
            $"Nothing was taken back. Ask {by} to take it back, or hand in a new version for all of you."
        );

    public static ProblemException UnknownHost() =>
        new(421, "unknown-host", "This is not the school's address.", "Nothing was changed. Use the address your school gave you.");

    public static ProblemException DatabaseFull() =>
        new(
            503,
            "database-full",
            "The database is full.",
            "Nothing was changed. What you wrote is still on your page; tell the person who looks after Polycline.",
            retryAfter: 60
        );

    public static ProblemException DatabaseAway() =>
        new(
            503,
            "database-away",
            "The database does not answer.",
            "Nothing was changed. What you wrote is still on your page; try again in a moment.",
            retryAfter: 5
        );

    public static ProblemException Busy() =>
        new(503, "busy", "Someone else’s change is still being saved.", "Nothing was changed. Try again in a moment.", retryAfter: 1);

    /// <summary>What <paramref name="error"/> means to the caller; null where it is a fault of our own.</summary>
    public static ProblemException? From(Exception error) =>
        error switch
        {
            ProblemException problem => problem,
            BadHttpRequestException { InnerException: System.Text.Json.JsonException json } => Malformed(
                json.Path?.TrimStart('$').TrimStart('.') is { Length: > 0 } path ? path : null,
                json is Json.UnknownWordException ? json.Message : "The request does not have the right form."
            ),
            BadHttpRequestException { StatusCode: StatusCodes.Status413PayloadTooLarge } => new(
                413,
                "too-large",
                "That is too much to send at once.",
                "Nothing was changed. Send less, or send it in parts."
            ),
            BadHttpRequestException { StatusCode: StatusCodes.Status415UnsupportedMediaType } => new(
                415,
                "media-type",
                "This was not sent as JSON.",
                "Nothing was changed. Send it as application/json."
            ),
            BadHttpRequestException bad when bad.Message.Contains("Guid> GivenKey", StringComparison.Ordinal) => Malformed(
                "Idempotency-Key",
                "The request’s key must be a UUID, such as 123e4567-e89b-12d3-a456-426614174000."
            ),
            BadHttpRequestException bad => new(bad.StatusCode, "malformed", "The request does not have the right form.", bad.Message),
            PostgresException { SqlState: "PC001" } => AtRest(),
            PostgresException { SqlState: PostgresErrorCodes.LockNotAvailable or PostgresErrorCodes.QueryCanceled } => Busy(),
            PostgresException
            {
                SqlState: PostgresErrorCodes.AdminShutdown or PostgresErrorCodes.CrashShutdown or PostgresErrorCodes.CannotConnectNow
            } => DatabaseAway(),
            PostgresException
            {
                SqlState: PostgresErrorCodes.DiskFull
                    or PostgresErrorCodes.OutOfMemory
                    or PostgresErrorCodes.InsufficientResources
                    or PostgresErrorCodes.IoError
            } => DatabaseFull(),
            PostgresException { SqlState: PostgresErrorCodes.TooManyConnections } => DatabaseAway(),
            // A command says it in its own words wherever it can foresee it; what was undone or taken back cannot.
            PostgresException { SqlState: PostgresErrorCodes.UniqueViolation or PostgresErrorCodes.ExclusionViolation } => InUse(
                "Something else is there now.",
                "Nothing was changed. Look at what is there now: the same name, address or enrolment."
            ),
            PostgresException { SqlState: PostgresErrorCodes.ForeignKeyViolation } => InUse(
                "Something else depends on it by now.",
                "Nothing was changed. This can no longer be undone; remove it instead."
            ),
            // The request could not be bound: the sender has to correct it, and nothing of it was kept.
            PostgresException { SqlState: ['2', '2', ..] } => new(
                422,
                "not-kept",
                "Part of this cannot be saved.",
                "Nothing was changed. Check for unusual characters or numbers, then try again."
            ),
            PostgresException => null,
            NpgsqlException or TimeoutException or System.Net.Sockets.SocketException => DatabaseAway(),
            _ => null,
        };
}
