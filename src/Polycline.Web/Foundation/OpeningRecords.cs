using NodaTime;
using Npgsql;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Data.Courses;
using Polycline.Data.Sections;

namespace Polycline.Web.Foundation;

/// <summary>
/// Keeps what has opened. The sweep does it as time passes; a command does it before it changes anything, so that what
/// has opened by then stays open whatever the command does.
/// </summary>
public static class OpeningRecords
{
    /// <summary>What has opened in the sections of an edition and is not recorded yet.</summary>
    public static IReadOnlyList<(long Section, long Item, Instant At, Instant? Due)> Missing(EditionPlan plan, Instant at) => [..
        from section in plan.Sections
        from opened in Openings.Unrecorded(plan.Schedule.Section(section.Section.Ref), at)
        select (section.Id, plan.Row(opened.Item).Id, opened.At, opened.Due)];

    /// <summary>Records it. The edition is locked by the caller's transaction.</summary>
    /// <returns>The plan as it is then: the same where nothing was missing.</returns>
    public static async Task<EditionPlan> Keep(NpgsqlConnection connection, EditionPlan plan, Instant at)
    {
        if (plan.State != EditionState.Current || Missing(plan, at) is not { Count: > 0 } missing)
            return plan;
        await OpenedStore.Add(connection, missing, at);
        return (await EditionStore.Read(connection, plan.Id))!;
    }
}
