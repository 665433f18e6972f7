using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Sheets;

/// <summary>Whose sheet of an item it is, and whether it is open, for whoever asks.</summary>
/// <param name="IsOpen">Whether something can be written in it at that moment.</param>
/// <param name="Closes">When it freezes; null: never.</param>
internal sealed record SheetPlace(Id<Section> Section, string SectionName, bool IsOpen, Instant? Closes, DateTimeZone Zone)
{
    /// <exception cref="ProblemException">The item is not there for them, or cannot be read now.</exception>
    public static async Task<SheetPlace> Of(
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        Id<Item> item,
        CancellationToken stop
    ) =>
        viewpoint.Eyes is Eyes.OfTeam
            ? OfTeacher(await compiled.Edition(access), access, viewpoint, item)
            : OfStudent(await StudentCourse.Read(access, viewpoint, compiled, database, stop), item);

    /// <summary>The same on the connection of a command.</summary>
    public static async Task<SheetPlace> Of(
        NpgsqlConnection connection,
        EditionPlan plan,
        Access access,
        Viewpoint viewpoint,
        Id<Item> item
    ) =>
        viewpoint.Eyes is Eyes.OfTeam
            ? OfTeacher(plan, access, viewpoint, item)
            : OfStudent(await StudentCourse.Of(connection, plan, access, viewpoint), item);

    private static SheetPlace OfTeacher(EditionPlan plan, Access access, Viewpoint viewpoint, Id<Item> item)
    {
        var section = access.Section ?? throw Problem.Unknown();
        var following = plan.Following(section) ?? throw Problem.Unknown();
        var found = plan.Item(item) ?? throw Problem.Unknown("item");
        var dates = plan.Schedule.Section(following.Section.Ref).Item(found.Ref)?.Dates;
        var closes = dates?.Closes.At;
        return new(section, following.Name, found.IsWrittenTogether && !(closes <= viewpoint.At), closes, plan.Term.Zone);
    }

    private static SheetPlace OfStudent(StudentCourse course, Id<Item> item)
    {
        var sight = course.See(item);
        if (!sight.MayRead)
            throw Problem.NotOpen("It is not open to you now.");
        return new(
            course.Section,
            course.SectionName,
            sight.State is ReleaseState.Open or ReleaseState.Overdue && course.IsWrittenTogether(item),
            sight.Closes,
            course.Zone
        );
    }
}
