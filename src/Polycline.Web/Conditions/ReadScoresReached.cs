using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Core.WhatIf;
using Polycline.Data;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Outline;

namespace Polycline.Web.Conditions;

/// <param name="Scored">The highest score first; of equal ones in order of section and name.</param>
/// <param name="Unscored">How many have no score: they pass at no threshold.</param>
public sealed record ScoresReachedAnswer(Moment At, IReadOnlyList<ScoreReached> Scored, int Unscored);

/// <param name="Section">The letter of the student's section.</param>
/// <param name="Score">In per cent; it may exceed 100.</param>
public sealed record ScoreReached(Id<Person> Student, string Name, string Section, decimal Score);

/// <summary>Who would pass at which threshold of a score, at the moment in view. Source: the computation, chapter 10.</summary>
public static class ReadScoresReached
{
    /// <param name="latest">Whether the latest attempt counts, not the best.</param>
    /// <param name="latched">Whether who passed once has passed for good.</param>
    public static async Task<ScoresReachedAnswer> Handle(
        long edition,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop,
        bool latest = false,
        bool latched = false
    )
    {
        viewpoint.NeedsTeam("Which scores were reached");
        var plan = await compiled.Edition(access);
        var row = plan.PlaceOf(Level.Item, item) ?? throw Problem.Unknown("item");
        var taught = await TaughtSection.Read(database, plan, access, viewpoint.At, stop);
        var known = taught
            .SelectMany(section => section.Students.Select(student => (section.Section.Letter, Student: student)))
            .ToDictionary(one => one.Student.Record.Student);
        var reached = Thresholds.Of(known.Values.Select(one => one.Student.Record), new(row.Lineage), latest, latched, viewpoint.At);
        return new(
            Moment.Of(viewpoint.At, plan.Term.Zone),
            [
                .. reached.Scored.Select(one => new ScoreReached(
                    known[one.Student].Student.Id,
                    known[one.Student].Student.Name,
                    known[one.Student].Letter,
                    one.Score
                )),
            ],
            reached.Unscored.Length
        );
    }
}
