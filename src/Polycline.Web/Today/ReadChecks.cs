using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Today;

/// <summary>Something to check, at the rows it is about.</summary>
/// <param name="Rows">Such as <c>item-12</c>; the first is what it is about above all.</param>
/// <param name="Section">The section in which it is so; null: the words say where.</param>
public sealed record RowCheck(IReadOnlyList<string> Rows, string? Section, string Words, TodayMend Mend);

public sealed record ChecksAnswer(IReadOnlyList<RowCheck> Checks);

/// <summary>
/// Reads what was noticed of units, lessons and items, for the screens on which they stand. Source: the computation, chapter 6.
/// </summary>
public static class ReadChecks
{
    public static async Task<ChecksAnswer> Handle(long edition, Access access, Viewpoint viewpoint, PlanCache compiled)
    {
        viewpoint.NeedsTeam("What is to be checked");
        return new([.. new TodayChecks((await compiled.Teaching(access, viewpoint)).Counted).ByRow()]);
    }
}
