using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation.Commands;

/// <summary>What holds of the welcome unit whatever a team does: it is open from the first day, for everyone.</summary>
public static class WelcomeRules
{
    /// <exception cref="ProblemException">Something in it would open later, close, wait for a condition or be for some only.</exception>
    public static void Check(EditionPlan plan)
    {
        var welcome = plan.Edition.Units.Where(unit => unit.Welcome).ToList();
        if (welcome.Count == 0)
            return;
        var levels = plan.Edition.Levels;
        if (welcome.Count > 1)
            throw Problem.Field(
                "welcome",
                $"“{welcome[0].Title}” is the welcome {levels.Unit.One} already. Have it open as any other first."
            );
        var unit = welcome[0];
        if (unit.Gate is not null || unit.Lessons.Any(lesson => lesson.Gate is not null))
            throw Refused(unit.Title);
        foreach (var item in unit.InReadingOrder())
            if (item is not { Opens: null, Closes: null, Gate: null, For: null })
                throw Refused(item.Title);
        var items = unit.InReadingOrder().Select(item => item.Ref).ToHashSet();
        var lessons = unit.Lessons.Select(lesson => lesson.Ref).ToHashSet();
        foreach (var section in plan.Sections)
        foreach (var adjustment in section.Section.Adjustments)
            if (
                adjustment switch
                {
                    Adjustment.OfUnit of => of.Unit == unit.Ref && (of.Hold == true || of.Skip == true || of.Published == false),
                    Adjustment.OfLesson of => lessons.Contains(of.Lesson) && (of.Hold == true || of.Skip == true || of.Published == false),
                    Adjustment.OfItem of => items.Contains(of.Item)
                        && (
                            of.Opens.Value is not null
                            || of.Closes.Value is not null
                            || of.For.Value is not null
                            || of.Hold == true
                            || of.Skip == true
                        ),
                    _ => false,
                }
            )
                throw Problem.Field(
                    "welcome",
                    $"“{unit.Title}” is always open, and {section.Name} has something different there. Put that back first."
                );

        ProblemException Refused(string title) =>
            Problem.Field(
                "welcome",
                $"“{unit.Title}” is the welcome {levels.Unit.One}: what is in it is open from the first day, for everyone. "
                    + $"“{title}” would not be. Take its dates and its condition away, or put it in another {levels.Unit.One}."
            );
    }
}
