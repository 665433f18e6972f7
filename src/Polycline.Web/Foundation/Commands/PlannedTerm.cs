using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation.Commands;

/// <summary>A term with all that is taught in it.</summary>
public sealed record TaughtTerm(TermPlan Plan, IReadOnlyList<EditionPlan> Editions);

/// <summary>A term, as the office's commands change it. Its reach covers every section of every course taught in it.</summary>
public sealed class PlannedTerm(Id<Term> term) : IPlanned<TaughtTerm>
{
    public Scope Scope => Scope.Of(term);

    /// <summary>Locks the term, and every edition taught in it.</summary>
    public Task Lock(NpgsqlConnection connection, CancellationToken stop) => TermStore.Lock(connection, term, stop);

    public async Task<TaughtTerm> Read(NpgsqlConnection connection)
    {
        var plan = await TermStore.Read(connection, term) ?? throw Problem.Unknown();
        var editions = new List<EditionPlan>();
        foreach (var known in plan.Editions)
            editions.Add(await EditionStore.Read(connection, known.Id) ?? throw Problem.Unknown());
        return new(plan, editions);
    }

    public void NeedsOpen(TaughtTerm before, Viewpoint viewpoint)
    {
        if (before.Plan.Term.Local(viewpoint.At).Date > before.Plan.Term.Last)
            throw Problem.TermOver();
    }

    public IReadOnlyList<EditionPlan> Editions(TaughtTerm state) => state.Editions;

    public long VersionOf(TaughtTerm state) => state.Plan.Version;

    /// <summary>The office changes all of it.</summary>
    public Task Hold(NpgsqlConnection connection, Access access, TaughtTerm before, IReadOnlyList<Change> changes) => Task.CompletedTask;

    public async Task<Reach> Reach(NpgsqlConnection connection, TaughtTerm before, TaughtTerm after, Viewpoint viewpoint)
    {
        TermRules.Check(after.Plan);
        foreach (var edition in after.Editions)
            await LedgerStore.Tell(connection, Scope.Of(edition.Id), edition.Version);
        var courses = new List<TaughtEdition>();
        var today = before.Plan.Term.Local(viewpoint.At).Date;
        foreach (var (then, now) in before.Editions.Zip(after.Editions))
        {
            // Dates move where something is still taught, before the change or after it.
            var taught = then.On(today).Sections.Concat(now.On(today).Sections).Select(section => section.Id).ToHashSet();
            var (was, will) = (then.Only(section => taught.Contains(section.Id)), now.Only(section => taught.Contains(section.Id)));
            courses.Add(
                new(was.Schedule, will.Schedule, will.SizesAt(viewpoint.At), await Reaching.Sights(connection, was, will, viewpoint))
            );
        }
        return EndingReach.With(
            TermReach.Between(courses, viewpoint.At, ByThemselves(before.Plan), ByThemselves(after.Plan)),
            before.Plan,
            after.Plan,
            section => ClassesOf(after.Plan, section)
        );
    }

    private static IEnumerable<LocalDate> ClassesOf(TermPlan plan, TermSection section) =>
        SectionMeetings.Of(TermDays.Of(plan.Term), section.Name, section.Slots, section.Changes).Meetings.Select(meeting => meeting.Date);

    public Reach Nothing(Viewpoint viewpoint) => TermReach.Between([], viewpoint.At, [], []);

    public LevelNames Levels(TaughtTerm state) => LevelNames.Plain;

    // Sections that follow no course have classes all the same.
    private static IReadOnlyList<(string Name, int Classes)> ByThemselves(TermPlan plan)
    {
        var days = TermDays.Of(plan.Term);
        return
        [
            .. plan
                .Sections.Where(section => section.Edition is null)
                .Select(section => (section.Name, SectionMeetings.Of(days, section.Name, section.Slots, section.Changes).Meetings.Length)),
        ];
    }
}
