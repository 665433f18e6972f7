using System.Text.Json;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Findings;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.WhatIf;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Outline;

namespace Polycline.Web.Conditions;

/// <param name="Place">The id of the unit, lesson or item it would stand on.</param>
/// <param name="Gate">In the plan file's form, set or not.</param>
public sealed record WouldAdmitRequest(Level Of, long Place, JsonElement Gate);

/// <param name="InWords">The condition as it would read.</param>
/// <param name="Sections">Those whose students the viewer may see.</param>
/// <param name="AtFault">What would be wrong with it that is not wrong now, each as a sentence.</param>
public sealed record AdmittedAnswer(string InWords, IReadOnlyList<AdmittedInSection> Sections, IReadOnlyList<string> AtFault);

/// <param name="Others">Those who would still wait.</param>
public sealed record AdmittedInSection(
    Id<Section> Section,
    string Name,
    string Letter,
    IReadOnlyList<NamedStudent> Admitted,
    IReadOnlyList<NamedStudent> Others
);

public sealed record NamedStudent(Id<Person> Student, string Name);

/// <summary>Whom a condition would let in at the moment in view, if it were set. Nothing is written.</summary>
public static class WouldAdmit
{
    public static async Task<AdmittedAnswer> Handle(
        long edition,
        WouldAdmitRequest request,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("Whom a condition lets in");
        var plan = await compiled.Edition(access);
        var row = plan.PlaceOf(request.Of, request.Place) ?? throw Problem.Unknown("place");
        var gate = plan.ConditionOf(row, request.Gate, "gate")
            ?? throw Problem.Field("gate", "Say what must be so. Without a condition it lets everybody in.");
        var taught = await TaughtSection.Read(database, plan, access, viewpoint.At, stop);
        return new(
            plan.GateWords().Sentence(gate),
            [
                .. taught
                    .Where(one => row.Section is null || row.Section == one.Section.Id)
                    .Select(one => Of(plan, row, gate, one, viewpoint)),
            ],
            [.. AtFault(plan, row, gate)]
        );
    }

    // Of those whom the place is for at all.
    private static AdmittedInSection Of(EditionPlan plan, TreeRow row, Gate gate, TaughtSection taught, Viewpoint viewpoint)
    {
        var schedule = plan.Schedule.Section(taught.Section.Section.Ref);
        var met = taught
            .Students.Where(student => row.Level != Level.Item || student.Record.IsFor(schedule, new(row.Lineage)))
            .ToLookup(student => new GateEvaluation(schedule, student.Record).Trace(gate, viewpoint.At).Outcome != Outcome.NotMet);
        return new(taught.Section.Id, taught.Section.Name, taught.Section.Letter, Named(met[true]), Named(met[false]));
    }

    private static List<NamedStudent> Named(IEnumerable<TaughtStudent> students) =>
        [.. students.Select(student => new NamedStudent(student.Id, student.Name))];

    private static IEnumerable<string> AtFault(EditionPlan plan, TreeRow row, Gate gate) =>
        AtFault(plan, plan.Schedule.With(new Dictionary<string, Gate?> { [row.Lineage] = gate }));

    /// <summary>What would be wrong with conditions that is not wrong now, each as a sentence.</summary>
    public static IEnumerable<string> AtFault(EditionPlan plan, PlanSchedule then)
    {
        var words = new FindingWords(new PlanNames(then).Of, plan.Edition.Basis, plan.Edition.Levels);
        var now = Sentences(plan.Schedule, words).ToHashSet();
        return Sentences(then, words).Where(sentence => !now.Contains(sentence)).Distinct();
    }

    private static IEnumerable<string> Sentences(PlanSchedule plan, FindingWords words) =>
        ConditionChecks.Everywhere(plan).Select(finding => words.Of(finding));
}
