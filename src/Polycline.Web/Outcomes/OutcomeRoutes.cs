using Polycline.Data;
using Polycline.Data.Outcomes;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outcomes;

/// <summary>The school's outcomes, for its office.</summary>
/// <param name="Imported">The last import, which can be undone; null: none.</param>
public sealed record OutcomesAnswer(IReadOnlyList<SchoolOutcome> Outcomes, OutcomesImported? Imported);

/// <param name="Subject">Empty: none is given.</param>
/// <param name="Items">How many items of present courses are tied to it.</param>
public sealed record SchoolOutcome(string Code, string Words, string Subject, int Items);

public sealed record OutcomesImported(string By, Moment At);

/// <summary>An outcome, and what of a course is tied to it.</summary>
/// <param name="Removed">It is no longer in the school's list, and offered no more.</param>
/// <param name="Items">By code, in reading order.</param>
public sealed record CourseOutcome(string Code, string Words, string Subject, bool Removed, IReadOnlyList<string> Items);

/// <summary>What students should be able to do: the school's list, and what courses make of it.</summary>
public static class OutcomeRoutes
{
    public static void MapOutcomes(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/school/outcomes", HandleSchool).WithName("outcomes").For(May.School);
        routes.MapGet("/api/editions/{edition:long}/outcomes", HandleCourse).WithName("course-outcomes").For(May.Team);
        routes.MapWork<ImportOutcomes, ImportOutcomesRequest, IReadOnlyList<Formats.OutcomeLine>, ImportedAnswer>();
        routes.MapWork<UndoOutcomes, UndoOutcomesRequest, DoneAnswer>();
    }

    public static Task<OutcomesAnswer> HandleSchool(Access access, Viewpoint viewpoint, Database database, CancellationToken stop) =>
        database.Read(
            async connection =>
            {
                var uses = await OutcomeStore.Uses(connection);
                return new OutcomesAnswer(
                    [
                        .. (await OutcomeStore.All(connection))
                            .Where(outcome => !outcome.Removed)
                            .Select(outcome => new SchoolOutcome(
                                outcome.Code,
                                outcome.Words,
                                outcome.Subject,
                                uses.GetValueOrDefault(outcome.Code)
                            )),
                    ],
                    await OutcomeStore.Latest(connection) is { } import ? new(import.By, Moment.Of(import.At, access.Zone)) : null
                );
            },
            stop
        );

    /// <summary>Those a course can tie its items to, and those it has tied some to.</summary>
    public static async Task<IReadOnlyList<CourseOutcome>> HandleCourse(
        long edition,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("Outcomes");
        var plan = await compiled.Teaching(access, viewpoint);
        var tied = plan
            .Edition.InReadingOrder()
            .SelectMany(item => item.Outcomes.Select(code => (code, Item: plan.Schedule.CodeOf[item.Ref])))
            .ToLookup(pair => pair.code, pair => pair.Item);
        return
        [
            .. (await database.Read(OutcomeStore.All, stop))
                .Where(outcome => !outcome.Removed || tied.Contains(outcome.Code))
                .Select(outcome => new CourseOutcome(
                    outcome.Code,
                    outcome.Words,
                    outcome.Subject,
                    outcome.Removed,
                    [.. tied[outcome.Code]]
                )),
        ];
    }
}
