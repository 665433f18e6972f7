using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation.Commands;

/// <summary>An edition, as a team's commands change it.</summary>
public sealed class PlannedEdition(Id<Edition> edition) : IPlanned<EditionPlan>
{
    public Scope Scope => Scope.Of(edition);

    public Task Lock(NpgsqlConnection connection, CancellationToken stop) => EditionStore.Lock(connection, edition, stop);

    public async Task<EditionPlan> Read(NpgsqlConnection connection) =>
        await EditionStore.Read(connection, edition) ?? throw Problem.Unknown();

    public void NeedsOpen(EditionPlan before, Viewpoint viewpoint)
    {
        if (before.State == EditionState.Resting)
            throw Problem.AtRest();
    }

    public IReadOnlyList<EditionPlan> Editions(EditionPlan state) => [state];

    public long VersionOf(EditionPlan state) => state.Version;

    public Task Hold(NpgsqlConnection connection, Access access, EditionPlan before, IReadOnlyList<Change> changes) =>
        Holding.Against(connection, access, before, changes);

    public Task<Reach> Reach(NpgsqlConnection connection, EditionPlan before, EditionPlan after, Viewpoint viewpoint)
    {
        WelcomeRules.Check(after);
        return Reaching.Of(connection, before, after, viewpoint);
    }

    public Reach Nothing(Viewpoint viewpoint) => Core.Wording.Reach.Nothing;

    public LevelNames Levels(EditionPlan state) => state.Edition.Levels;
}
