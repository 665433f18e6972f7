using System.Text.Json;
using Polycline.Core;
using Polycline.Core.Changes;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.WhatIf;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Outline;

namespace Polycline.Web.Conditions;

/// <summary>What is supposed: exactly one of these.</summary>
/// <param name="Drop">That an item is dropped in every section.</param>
/// <param name="GiveBack">That every piece of an item that waits is given back to go on.</param>
/// <param name="Condition">That another condition stands somewhere.</param>
public sealed record WhatIfRequest(Id<Item>? Drop = null, Id<Item>? GiveBack = null, SupposedCondition? Condition = null);

/// <param name="Place">The id of the unit, lesson or item it would stand on.</param>
/// <param name="Gate">In the plan file's form; null: none.</param>
public sealed record SupposedCondition(Level Of, long Place, JsonElement? Gate);

/// <param name="Sections">Those whose students the viewer may see, also those in which nothing would change.</param>
/// <param name="AtFault">What would be wrong with conditions that is not wrong now, each as a sentence.</param>
public sealed record WhatIfAnswer(Moment At, IReadOnlyList<WhatIfInSection> Sections, IReadOnlyList<string> AtFault);

/// <param name="Changes">In reading order.</param>
public sealed record WhatIfInSection(Id<Section> Section, string Name, string Letter, IReadOnlyList<WhatIfChange> Changes);

/// <summary>For whom an item would open, close or become overdue; each in order of name.</summary>
public sealed record WhatIfChange(
    Id<Item> Item,
    string Code,
    string Title,
    IReadOnlyList<NamedStudent> Opens,
    IReadOnlyList<NamedStudent> Closes,
    IReadOnlyList<NamedStudent> Overdue
);

/// <summary>What would open and close for whom, if something were otherwise at the moment in view. Nothing is written.</summary>
public static class WhatIf
{
    public static async Task<WhatIfAnswer> Handle(
        long edition,
        WhatIfRequest request,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("What would be");
        var plan = await compiled.Edition(access);
        if (new[] { request.Drop is not null, request.GiveBack is not null, request.Condition is not null }.Count(isAsked => isAsked) != 1)
            throw Problem.Field("drop", "Ask about one thing: a step that is dropped, feedback that is given, or another condition.");
        var dropped = Known(plan, request.Drop, "drop");
        var given = Known(plan, request.GiveBack, "giveBack");
        var then = dropped is { } item ? plan.Schedule.Dropped(item) : With(plan, request.Condition);
        var taught = await TaughtSection.Read(database, plan, access, viewpoint.At, stop);
        return new(Moment.Of(viewpoint.At, plan.Term.Zone), [.. taught.Select(InSection)], [.. WouldAdmit.AtFault(plan, then)]);

        WhatIfInSection InSection(TaughtSection section)
        {
            var reach = SightReach.Between(
                plan.Schedule,
                then,
                section.Students.Select(student =>
                    (student.Record, given is { } piece ? student.Record.GivenBack(piece, viewpoint.At) : student.Record)
                ),
                viewpoint.At
            );
            // That what is dropped closes by it goes without saying.
            var changes = reach
                .Changes.Where(change => change.Item != dropped && change.Section == section.Section.Section.Ref)
                .ToLookup(change => change.Item);
            return new(
                section.Section.Id,
                section.Section.Name,
                section.Section.Letter,
                [
                    .. plan
                        .Schedule.InReadingOrder()
                        .Select(one => Change(plan, section, one, [.. changes[one]]))
                        .Where(change => change.Opens.Count + change.Closes.Count + change.Overdue.Count > 0),
                ]
            );
        }
    }

    private static WhatIfChange Change(EditionPlan plan, TaughtSection section, Ref<Item> item, IReadOnlyList<SightChange> changes)
    {
        return new(
            plan.IdOf(item),
            plan.Schedule.CodeOf[item],
            plan.Schedule.Item(item).Title,
            Named(change => !MayRead(change.Before) && MayRead(change.After)),
            Named(change => MayRead(change.Before) && !MayRead(change.After)),
            Named(change => change.BecomesOverdue)
        );

        static bool MayRead(Sees sees) => sees is Sees.Read or Sees.Work;

        List<NamedStudent> Named(Func<SightChange, bool> which)
        {
            var those = changes.Where(which).Select(change => change.Student).ToHashSet();
            return
            [
                .. section
                    .Students.Where(student => those.Contains(student.Record.Student))
                    .Select(student => new NamedStudent(student.Id, student.Name)),
            ];
        }
    }

    private static Ref<Item>? Known(EditionPlan plan, Id<Item>? item, string field) =>
        item is not { } asked ? null
        : plan.PlaceOf(Level.Item, asked.Value) is { } row ? new Ref<Item>(row.Lineage)
        : throw Problem.Unknown(field);

    private static PlanSchedule With(EditionPlan plan, SupposedCondition? condition)
    {
        if (condition is null)
            return plan.Schedule;
        var row = plan.PlaceOf(condition.Of, condition.Place) ?? throw Problem.Unknown("condition.place");
        return plan.Schedule.With(
            new Dictionary<string, Gate?> { [row.Lineage] = plan.ConditionOf(row, condition.Gate, "condition.gate") }
        );
    }
}
