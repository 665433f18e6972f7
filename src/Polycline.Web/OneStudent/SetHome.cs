using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.OneStudent;

/// <param name="Section">Null: the first of them by name decides again.</param>
public sealed record SetHomeRequest(Id<Person> Student, Id<Section>? Section);

/// <summary>Says which section decides the dates of a student who is in several.</summary>
public sealed class SetHome : IPlanningCommand<EditionPlan, SetHomeRequest>
{
    public static string Name => "set-home";

    public static CommandDecision Decide(EditionPlan plan, SetHomeRequest request, Viewpoint viewpoint)
    {
        StudentsHere.Check(plan, request.Student, "student");
        var present = plan.People.HomeOf(request.Student);
        if (present?.Section == request.Section)
            return new("left a home section as it is", []);
        Cell[] key = [Tables.Homes.Edition.Is(plan.Id), Tables.Homes.Person.Is(request.Student)];
        if (request.Section is not { } home)
            return new(
                "took back a student’s home section",
                [Change.Delete(present!.Version, [.. key, Tables.Homes.Section.Is(present.Section)])]
            );
        var section = StudentsHere.Section(plan, home, "section");
        if (section.Listed.All(place => place.Person != request.Student))
            throw Problem.Field("section", $"{section.Name} does not list this student. Choose a section that does.");
        return new(
            $"made {section.Name} the home section of 1 student",
            [
                present is null
                    ? Change.Add([.. key, Tables.Homes.Section.Is(home)])
                    : Change.Set(key, present.Version, Tables.Homes.Section.Turns(present.Section, home)),
            ]
        )
        {
            Act = $"Make {section.Name} the home section",
        };
    }
}
