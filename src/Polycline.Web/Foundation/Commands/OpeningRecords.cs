using NodaTime;
using Npgsql;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Data.Courses;
using Polycline.Data.Sections;

namespace Polycline.Web.Foundation.Commands;

/// <summary>
/// Keeps what has opened. The sweep does it as time passes; a command does it before it changes anything, so that what
/// has opened by then stays open whatever the command does.
/// </summary>
public static class OpeningRecords
{
    /// <summary>What has opened in the sections of an edition and is not recorded yet.</summary>
    public static IReadOnlyList<(long Section, long Item, Instant At, Instant? Due)> Missing(EditionPlan plan, Instant at) =>
        [
            .. from section in plan.Sections
            from opened in Openings.Unrecorded(plan.Schedule.Section(section.Section.Ref), at)
            select (section.Id, plan.Row(opened.Item).Id, opened.At, opened.Due),
        ];

    /// <summary>
    /// Records it, whatever state the edition is in, and tells who listens. The edition is locked by the caller's transaction.
    /// </summary>
    /// <returns>How many openings; more than 0: the plan is to be read again.</returns>
    public static async Task<int> Keep(NpgsqlConnection connection, EditionPlan plan, Instant at)
    {
        if (Missing(plan, at) is not { Count: > 0 } missing)
            return 0;
        var recorded = await OpenedStore.Add(connection, missing, at);
        // What students have once seen a code of keeps it.
        if (!plan.Settings.CodesFixed && plan.State != EditionState.Resting)
            await EditionStore.FixCodes(connection, plan, at);
        await OpenedStore.Tell(connection, plan.Id);
        return recorded;
    }
}
