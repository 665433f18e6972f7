using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.People;
using Polycline.Data.Scores;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Scores;

/// <summary>One student's total, for those who teach them.</summary>
public sealed record StudentTotalAnswer(string Name, TotalForm Total);

/// <summary>Explains what one student's total so far is made of.</summary>
public static class ReadTotal
{
    public static async Task<StudentTotalAnswer> Handle(
        long edition,
        long student,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("Scores");
        var plan = await compiled.Edition(access);
        var who = new Id<Person>(student);
        return await database.Read(
            async connection =>
            {
                var rows = await AccessStore.StudentsOf(connection, plan.Id, access.Person.Id, access.IsLead);
                var name = rows.FirstOrDefault(row => row.Student == who)?.Name ?? throw Problem.Unknown();
                var marks = await ScoreStore.OfStudent(connection, plan, who, viewpoint.At);
                return new StudentTotalAnswer(name, TotalForm.Of(plan, marks.Course, who.InPlan()));
            },
            stop
        );
    }
}
