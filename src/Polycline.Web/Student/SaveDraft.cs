using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Data;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

/// <param name="Text">Up to 100,000 characters.</param>
/// <param name="Version">The version that was read or saved last; 0: there was none.</param>
public sealed record SaveDraftRequest(string Text, long Version);

public sealed record SavedAnswer(long Version, Moment At);

/// <summary>Keeps what a student is writing.</summary>
public static class SaveDraft
{
    public const int Longest = 100_000;

    public static async Task<SavedAnswer> Handle(
        long section,
        long item,
        SaveDraftRequest request,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsOneself();
        if (request.Text.Length > Longest)
            throw Problem.Field("text", $"This is too long: {Longest:N0} characters at most. Make it shorter, or hand in part of it.");
        var course = await StudentCourse.Read(access, viewpoint, compiled, database, stop);
        // What has closed or was taken away meanwhile keeps what was being written; what has not opened takes nothing.
        var sight = course.See(new Id<Item>(item));
        if (sight.Kind != ItemKind.Task || !(sight.MayWork || sight.State is ReleaseState.Closed or ReleaseState.Withdrawn))
            throw Problem.NotOpen("Nothing was saved. What you wrote is still on your page.");
        var version = await database.Within(
            System.Data.IsolationLevel.ReadCommitted,
            connection => Keep(connection, course, item, request, viewpoint.At),
            stop
        );
        return new(version, Moment.Of(viewpoint.At, course.Zone));
    }

    private static async Task<long> Keep(
        Npgsql.NpgsqlConnection connection,
        StudentCourse course,
        long item,
        SaveDraftRequest request,
        Instant at
    )
    {
        if (await WorkStore.SaveDraft(connection, course.Oneself, new(item), request.Text, request.Version, at) is { } version)
        {
            // The first thing written is a fact: what someone has begun stays readable to them.
            if (version == 1)
                await WorkStore.Record(connection, course.Oneself, new(item), course.Section, "begun", at, Guid.NewGuid());
            return version;
        }
        var (_, draft) = await WorkStore.Of(connection, course.Oneself, new(item), at);
        throw Problem.Changed(new("text", request.Text, draft?.Text, draft?.Version, null, Moment.Of(draft?.SavedAt, course.Zone)));
    }
}
