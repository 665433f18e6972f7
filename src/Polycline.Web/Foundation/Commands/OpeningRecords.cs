using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Sections;
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
    public static IReadOnlyList<(Id<Section> Section, Id<Item> Item, Instant At, Instant? Due)> Missing(EditionPlan plan, Instant at) =>
        [
            .. from section in plan.Sections
            where section.Pretend is null
            from opened in Openings.Unrecorded(plan.Schedule.Section(section.Section.Ref), at)
            select (section.Id, plan.IdOf(opened.Item), opened.At, opened.Due),
        ];

    /// <summary>
    /// Records it, whatever state the edition is in, and tells who listens. The edition is locked by the caller's transaction.
    /// </summary>
    /// <returns>How many, and whether items were given their codes for good, so that the plan is to be read again.</returns>
    public static async Task<(int Recorded, bool FixedCodes)> Keep(NpgsqlConnection connection, EditionPlan plan, Instant at)
    {
        if (Missing(plan, at) is not { Count: > 0 } missing)
            return (0, false);
        var recorded = await OpenedStore.Add(connection, missing, at);
        // An item whose code students have seen keeps that code.
        var fixes = !plan.Settings.CodesFixed && plan.State != EditionState.Resting;
        if (fixes)
            await EditionStore.FixCodes(connection, plan, at);
        await OpenedStore.Tell(connection, plan.Id);
        return (recorded, fixes);
    }
}
