using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.Sections;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation.Commands;

/// <summary>Runs every command on a term alike. What it does to each section of each course taught in it is its reach.</summary>
public sealed class TermCommandRunner(Database database)
{
    /// <summary>A term with all that is taught in it.</summary>
    private sealed record Taught(TermPlan Plan, IReadOnlyList<EditionPlan> Courses);

    /// <param name="key">The request's key: sent twice it is done once, and answered the same. Null in a preview.</param>
    /// <param name="names">Whether to name the students whom it reaches.</param>
    /// <exception cref="ProblemException">It cannot be done; nothing was written.</exception>
    public Task<CommandAnswer> Run<TCommand, TRequest, TPlan>(
        Access access,
        Viewpoint viewpoint,
        TRequest request,
        Guid? key,
        bool names,
        CancellationToken stop
    )
        where TCommand : ITermCommand<TRequest, TPlan>
        where TRequest : class
    {
        var term = access.Term ?? throw Problem.Unknown();
        return CommandPipeline.Run<TCommand, TRequest, TPlan>(
            database,
            access,
            viewpoint,
            request,
            key,
            $"term {term} {TCommand.Name}",
            connection => Do<TCommand, TRequest, TPlan>(connection, term, access, viewpoint, request, names),
            stop
        );
    }

    private static async Task<CommandAnswer> Do<TCommand, TRequest, TPlan>(
        NpgsqlConnection connection,
        Id<Term> term,
        Access access,
        Viewpoint viewpoint,
        TRequest request,
        bool names
    )
        where TCommand : ITermCommand<TRequest, TPlan>
        where TRequest : class
    {
        await TermStore.Lock(connection, term);
        var before = await Read(connection, term);
        if (before.Plan.Term.Local(viewpoint.At).Date > before.Plan.Term.Last)
            throw Problem.TermOver();
        var opened = 0;
        foreach (var course in before.Courses)
            opened += await OpeningRecords.Keep(connection, course, viewpoint.At);
        if (opened > 0)
            before = await Read(connection, term);
        var decision = TCommand.Decide(await TCommand.Load(connection, term, request), request, viewpoint);
        if (decision.Changes.Count == 0)
            return new(
                false,
                null,
                before.Plan.Version,
                decision.Words,
                decision.Act,
                Reaching.Answer(TermReach.Between([], viewpoint.At, [], []))
            );
        var applied = await CommandPipeline.Apply(connection, Scope.Of(term), TCommand.Name, decision, viewpoint);
        if (decision.Undoes is { } undone)
            foreach (var course in before.Courses)
                await OpenedStore.Forget(connection, course.Id, undone);
        var after = await Read(connection, term);
        TermRules.Check(after.Plan);
        foreach (var course in after.Courses)
            await LedgerStore.Tell(connection, Scope.Of(course.Id), course.Version);
        var courses = new List<TaughtCourse>();
        foreach (var (then, now) in before.Courses.Zip(after.Courses))
            courses.Add(
                new(then.Schedule, now.Schedule, now.SizesAt(viewpoint.At), await Reaching.Sights(connection, then, now, viewpoint))
            );
        var reach = TermReach.Between(courses, viewpoint.At, ByThemselves(before.Plan), ByThemselves(after.Plan));
        return new(
            true,
            applied.Id.Value,
            applied.Version,
            decision.Words,
            Reaching.Act(decision, reach, LevelNames.Plain),
            names ? await Reaching.WithNames(connection, reach, access, after.Courses) : Reaching.Answer(reach)
        );
    }

    private static async Task<Taught> Read(NpgsqlConnection connection, Id<Term> term)
    {
        var plan = await TermStore.Read(connection, term) ?? throw Problem.Unknown();
        var courses = new List<EditionPlan>();
        foreach (var edition in plan.Editions.Select(known => new Id<Edition>(known.Id)))
            courses.Add(await EditionStore.Read(connection, edition) ?? throw Problem.Unknown());
        return new(plan, courses);
    }

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
