using System.Data;
using Microsoft.AspNetCore.Mvc;
using NodaTime;
using NodaTime.Text;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Data;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

/// <param name="Text">1 to 100,000 characters.</param>
/// <param name="PressedAt">When it was first sent, as the page knows it, in UTC; null: just now. It is shown, and decides nothing.</param>
public sealed record HandInRequest(string Text, string? PressedAt);

/// <param name="HandedIn">False: the item had closed. It is kept as a draft, and the team sees it.</param>
/// <param name="N">Which hand-in of it this is; 0: none.</param>
public sealed record HandInAnswer(bool HandedIn, int N, Moment At);

/// <summary>Hands in. The time at which it arrives counts; sent again under the same key it is done once.</summary>
public static class HandIn
{
    private static readonly Duration Noticeable = Duration.FromMinutes(1);

    public static async Task<HandInAnswer> Handle(
        long section,
        long item,
        [FromBody] HandInRequest request,
        [FromHeader(Name = "Idempotency-Key")] Guid? key,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsOneself();
        var given = Idempotency.Key(key);
        if (!Bounds.IsVisible(request.Text))
            throw Problem.Field("text", "There is nothing to hand in yet: write something first.");
        if (request.Text.Length > SaveDraft.Longest)
            throw Problem.Field("text", $"This is too long: {SaveDraft.Longest:N0} characters at most. Make it shorter.");
        var claimed = Claimed(request.PressedAt, viewpoint.At);
        var course = await StudentCourse.Read(access, viewpoint, compiled, database, stop);
        var sight = course.See(new Id<Item>(item));
        return await database.Within(
            IsolationLevel.ReadCommitted,
            connection =>
                Idempotency.Run(connection, viewpoint, given, Idempotency.Digest($"{section} {item} hand-in", request), async () =>
                {
                    var at = Moment.Of(viewpoint.At, course.Zone);
                    if (sight is { MayWork: true, Kind: ItemKind.Task })
                        return new HandInAnswer(
                            true,
                            await WorkStore.HandIn(
                                connection,
                                course.Oneself,
                                new(item),
                                course.Section,
                                request.Text,
                                viewpoint.At,
                                claimed,
                                given
                            ),
                            at
                        );
                    if (sight.State != ReleaseState.Closed)
                        throw Problem.NotOpen("Nothing was handed in. What you wrote is still on your page.");
                    await WorkStore.KeepMissed(connection, course.Oneself, new(item), request.Text, viewpoint.At, claimed);
                    return new HandInAnswer(false, 0, at);
                }),
            stop
        );
    }

    // Told only where it makes a difference.
    private static Instant? Claimed(string? pressed, Instant now)
    {
        if (pressed is null)
            return null;
        var claimed =
            InstantPattern.ExtendedIso.Parse(pressed) is { Success: true, Value: var moment } && Bounds.Holds(moment)
                ? moment
                : throw Problem.Field("pressedAt", "A moment in UTC is wanted, such as 2026-10-08T09:15:00Z.");
        return now - claimed > Noticeable ? claimed : null;
    }
}
