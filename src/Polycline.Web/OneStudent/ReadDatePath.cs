using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Explaining;
using Polycline.Core.Planning;
using Polycline.Core.Sections;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.OneStudent;

/// <summary>Where the dates of an item come from in a section.</summary>
/// <param name="Dates">Those that have a rule.</param>
public sealed record DatePathAnswer(string Title, string Section, IReadOnlyList<WhyDate> Dates);

/// <summary>Why these dates: each of an item's dates in one section, step by step.</summary>
public static class ReadDatePath
{
    public static async Task<DatePathAnswer> Handle(
        long edition,
        long item,
        long section,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled
    )
    {
        viewpoint.NeedsTeam("Where a date comes from");
        var plan = await compiled.Edition(access);
        var found = plan.Item(new Id<Item>(item)) ?? throw Problem.Unknown();
        var here = plan.Following(new Id<Section>(section)) ?? throw Problem.Unknown();
        var schedule = plan.Schedule.Section(here.Section.Ref);
        if (schedule.Item(found.Ref) is not { Item: { Skipped: false } placed })
            throw Problem.Unknown();
        var steps = new DateSteps();
        var dates = ItemDates.Of(placed, schedule.Anchors, schedule.Term, steps: steps);
        return new(
            found.Title,
            here.Name,
            WhyDate.All(
                new ExplanationWords(plan.Schedule, new(plan.Schedule), "the student", plan.OptionOf),
                schedule,
                plan.Term.Zone,
                [
                    ("Opens", dates.Opens.At, dates.Opens.Layer, [.. steps.Opens]),
                    ("Due", dates.Due.At, dates.Due.Layer, [.. steps.Due]),
                    ("Closes", dates.Closes.At, dates.Closes.Layer, [.. steps.Closes]),
                ]
            )
        );
    }
}
