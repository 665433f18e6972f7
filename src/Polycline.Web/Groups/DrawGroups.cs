using System.Globalization;
using Polycline.Core;
using Polycline.Core.Enrolling;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Groups;

/// <summary>Groups that were drawn by lot; nothing is written.</summary>
/// <param name="Found">False: no way was found to keep all of the pairs apart.</param>
/// <param name="Groups">Persons, group by group.</param>
public sealed record DrawnAnswer(bool Found, IReadOnlyList<IReadOnlyList<Id<Person>>> Groups);

/// <summary>Draws groups of a section's students by lot.</summary>
public static class DrawGroups
{
    private const int MostPairs = 100;

    /// <param name="section">Whose students of today are drawn.</param>
    /// <param name="size">How many there are to be in a group: 2 to 50.</param>
    /// <param name="apart">As <c>12-13,12-15</c>: students who are not to be in one group.</param>
    /// <param name="seed">Which of the draws.</param>
    public static async Task<DrawnAnswer> Handle(
        long edition,
        long section,
        int size,
        string? apart,
        int seed,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("Groups");
        if (size is < 2 or > 50)
            throw Problem.Malformed("size", "A group has from 2 to 50 students.");
        var plan = await compiled.Edition(access);
        var rows = await database.Read(connection => AccessStore.StudentsOf(connection, plan.Id, access.Person.Id, access.IsLead), stop);
        var following = rows.Any(row => row.Section.Value == section) ? plan.Following(new(section)) : null;
        if (following is null)
            throw Problem.Unknown("section");
        var today = plan.Term.Local(viewpoint.At).Date;
        var listed = following.PeopleOn(today).ToHashSet();
        var students = rows.Where(row => row.Section == following.Id && row.Student is { } student && listed.Contains(student))
            .Select(row => row.Student!.Value)
            .ToList();
        var drawn = GroupDraw.Of(
            [.. students.Select(student => student.InPlan())],
            size,
            [.. Pairs(apart ?? "").Select(pair => (pair.One.InPlan(), pair.Other.InPlan()))],
            seed
        );
        var back = students.ToDictionary(student => student.InPlan());
        return drawn is { } groups
            ? new(true, [.. groups.Select(group => (IReadOnlyList<Id<Person>>)[.. group.Select(student => back[student])])])
            : new(false, []);
    }

    private static IEnumerable<(Id<Person> One, Id<Person> Other)> Pairs(string apart)
    {
        var pairs = apart.Split(',', StringSplitOptions.RemoveEmptyEntries);
        if (pairs.Length > MostPairs)
            throw Problem.Malformed("apart", $"At most {MostPairs} pairs are kept apart.");
        foreach (var pair in pairs)
            yield return pair.Split('-') is [var one, var other]
            && Id<Person>.TryParse(one, CultureInfo.InvariantCulture, out var first)
            && Id<Person>.TryParse(other, CultureInfo.InvariantCulture, out var second)
                ? (first, second)
                : throw Problem.Malformed("apart", "'apart' are pairs of students, such as 12-13,12-15.");
    }
}
