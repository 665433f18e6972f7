using System.Data;
using System.Text.Json;
using Microsoft.AspNetCore.Mvc;
using NodaTime;
using NodaTime.Text;
using Npgsql;
using Polycline.Core.Courses;
using Polycline.Core.WhatIf;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Editions;
using Polycline.Data.People;
using Polycline.Data.Students;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Web.Editions;

/// <param name="On">The last day on which it is current, such as <c>2026-12-18</c>; null: it ends now.</param>
public sealed record EndEditionRequest(string? On);

/// <param name="Applied">False if this was only a preview and nothing was written.</param>
/// <param name="Sentence">What becomes of it, and what is still to be done in it.</param>
/// <param name="Act">What the button that does it says.</param>
public sealed record EndEditionAnswer(bool Applied, string Sentence, string Act);

/// <summary>
/// An edition becomes a past one, now or after a day that is set: by an act of its own, never as a side effect. It stays
/// complete with its work; the edition that is coming becomes the current one. Taken back until students have begun there.
/// </summary>
public static class EndEdition
{
    public static async Task<EndEditionAnswer> Handle(
        long edition,
        [FromBody] EndEditionRequest request,
        [FromQuery] bool? preview,
        [FromHeader(Name = "Idempotency-Key")] Guid? key,
        Access access,
        Viewpoint viewpoint,
        Database database,
        CancellationToken stop
    )
    {
        MayEnd(access, viewpoint);
        var given = preview == true ? Guid.Empty : Idempotency.Key(key);
        await using var connection = await database.Source.OpenConnectionAsync(stop);
        await using var transaction = await connection.BeginTransactionAsync(IsolationLevel.ReadCommitted, stop);
        // A preview goes the same way and gives the transaction up.
        if (preview == true)
            return await Do(connection, access, viewpoint, request) with { Applied = false };
        var answer = await Idempotency.Run(connection, viewpoint, given, Idempotency.Digest($"{edition} end", request), () =>
            Do(connection, access, viewpoint, request)
        );
        await transaction.CommitAsync(stop);
        return answer;
    }

    /// <summary>Takes back that it has ended, or that it is to end on a day.</summary>
    public static async Task<IResult> HandleResume(
        long edition,
        [FromHeader(Name = "Idempotency-Key")] Guid? key,
        Access access,
        Viewpoint viewpoint,
        Database database,
        CancellationToken stop
    )
    {
        MayEnd(access, viewpoint);
        var given = Idempotency.Key(key);
        try
        {
            await database.Within(
                IsolationLevel.ReadCommitted,
                connection => Idempotency.Run(connection, viewpoint, given, Idempotency.Digest($"{edition} resume", new { }), async () =>
                    {
                        await EditionStore.Lock(connection, access.Edition!.Value);
                        if (access.EditionState == EditionState.Current)
                            await RolloverStore.EndOn(connection, access.Edition.Value, null);
                        else
                            await RolloverStore.Resume(connection, access.Edition.Value);
                        await AccessStore.Audit(
                            connection,
                            viewpoint.At,
                            access.Person.Id,
                            "edition-resumed",
                            JsonSerializer.Serialize(new { edition })
                        );
                        return true;
                    }),
                stop
            );
            return Results.NoContent();
        }
        catch (PostgresException fault) when (fault.SqlState is "PC003")
        {
            throw Problem.CannotUndo(
                "Students have begun in the next edition.",
                "Nothing was changed. This edition stays open for reading only."
            );
        }
        catch (PostgresException fault) when (fault.SqlState is PostgresErrorCodes.UniqueViolation)
        {
            throw Problem.CannotUndo("Another edition of this course is current.", "Nothing was changed. End that one first.");
        }
    }

    private static void MayEnd(Access access, Viewpoint viewpoint)
    {
        if (!viewpoint.TakesCommands)
            throw Problem.NotNow();
        if (!access.IsLead)
            throw Problem.Forbidden("Only the lead can end an edition.", "Ask whoever leads this course to do it.");
    }

    private static async Task<EndEditionAnswer> Do(
        NpgsqlConnection connection,
        Access access,
        Viewpoint viewpoint,
        EndEditionRequest request
    )
    {
        var id = access.Edition!.Value;
        await EditionStore.Lock(connection, id);
        var plan = await EditionStore.Read(connection, id) ?? throw Problem.Unknown();
        if (plan.State != EditionState.Current)
            throw Problem.AtRest();
        var on = DayOf(request.On, plan.Term.Local(viewpoint.At).Date);
        var (editions, _) = await RolloverStore.Read(connection, id);
        var coming = editions.FirstOrDefault(one => one.State == "draft");
        var sections = plan.Sections.Select(section => section.Id).ToList();
        var students = sections.Count == 0 ? [] : await StudentStore.Beside(connection, plan, plan, sections, viewpoint.At);
        var waiting = Waiting.Of(plan.Schedule, students.Select(pair => pair.After), viewpoint.At).Length;
        var unpublished = plan.Edition.InReadingOrder().Count(item => !item.Published);
        if (on is { } last)
            await RolloverStore.EndOn(connection, id, last);
        else
            await RolloverStore.End(connection, id);
        await AccessStore.Audit(
            connection,
            viewpoint.At,
            access.Person.Id,
            "edition-ended",
            JsonSerializer.Serialize(new { edition = id.Value, on = request.On })
        );
        var when = on is { } day ? $"after {Moment.InWords(day, day)}" : "now";
        List<string> told =
        [
            $"{plan.CourseTitle}, {plan.Edition.Title} becomes a past edition {when}.",
            "It stays complete, with its work, to be read and searched, but is no longer changed.",
            unpublished == 0
                ? "Everything in it was published."
                : $"{plan.Edition.Levels.Item.Counted(unpublished)} in it {(unpublished == 1 ? "was" : "were")} never published.",
            waiting == 0
                ? "All work has been read and given back."
                : $"{Counted(waiting, "piece of work has", "pieces of work have")} not been read and given back; that can still be done.",
            coming is null ? "No next edition is being prepared." : $"{coming.Title.Capital()} becomes the current one.",
        ];
        return new(true, string.Join(' ', told), on is null ? $"End {plan.Edition.Title}" : $"End {plan.Edition.Title} {when}");
    }

    // Null: now.
    private static LocalDate? DayOf(string? on, LocalDate today) =>
        on is null ? null
        : LocalDatePattern.Iso.Parse(on) is { Success: true, Value: var day } && day >= today && day <= today.PlusYears(2) ? day
        : throw Problem.Field("on", "Give the last day it stays current, from today to two years ahead.");
}
