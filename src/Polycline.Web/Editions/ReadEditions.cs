using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Editions;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Editions;

/// <param name="Terms">Where this edition can be rolled over to.</param>
/// <param name="Term">Its own.</param>
/// <param name="CanTakeIn">A course can be taken in from a file.</param>
/// <param name="CanTakeBackCourse">This course was taken in from a file, and nothing came of it yet.</param>
/// <param name="Sections">Those of this edition, which sections to come may succeed.</param>
public sealed record EditionsAnswer(
    bool CanRollOver,
    IReadOnlyList<EditionLife> Editions,
    IReadOnlyList<TermChoice> Terms,
    TermChoice Term,
    IReadOnlyList<SectionChoice> Sections,
    bool CanTakeIn,
    bool CanTakeBackCourse
);

/// <param name="State"><c>draft</c>: coming; <c>current</c>; <c>resting</c>: past.</param>
/// <param name="CanTakeBack">It was rolled over, and no student has worked in it.</param>
/// <param name="CanEnd">It is current, and the viewer may end it.</param>
/// <param name="CanResume">It has ended, and no student has begun in the next one.</param>
/// <param name="EndsOn">The last day on which it is current, in words; null: none is set.</param>
public sealed record EditionLife(
    Id<Edition> Id,
    string Title,
    string State,
    string Term,
    string Dates,
    int Sections,
    bool CanTakeBack,
    bool CanEnd,
    bool CanResume,
    string? EndsOn,
    bool IsThis
);

public sealed record TermChoice(Id<Term> Id, string Name, string Dates);

public sealed record SectionChoice(Id<Section> Id, string Name, string Letter);

/// <summary>Reads the editions of a course.</summary>
public static class ReadEditions
{
    public static async Task<EditionsAnswer> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("The list of editions");
        var plan = await compiled.Edition(access);
        var (editions, terms) = await database.Read(connection => RolloverStore.Read(connection, plan.Id), stop);
        return new(
            access.IsLead
                && plan.State == Core.Courses.EditionState.Current
                && viewpoint.TakesCommands
                && editions.All(row => row.State != "draft"),
            [
                .. editions.Select(row => new EditionLife(
                    row.Id,
                    row.Title,
                    row.State,
                    row.Term,
                    $"{Moment.InWords(row.First)} – {Moment.InWords(row.Last)} {row.Last.Year}",
                    row.Sections,
                    access.IsLead && row is { CarriedFrom: not null, Worked: false, State: not "resting" },
                    access.IsLead && viewpoint.TakesCommands && row is { State: "current" },
                    access.IsLead
                        && viewpoint.TakesCommands
                        && row is { State: "resting", GoneOn: false }
                        && editions.All(other => other.State != "current" || other.CarriedFrom == row.Id),
                    row.EndsOn is { } last ? Moment.InWords(last, last) : null,
                    row.Id == access.Edition
                )),
            ],
            [
                .. terms.Select(row => new TermChoice(
                    row.Id,
                    row.Name,
                    $"{Moment.InWords(row.First)} – {Moment.InWords(row.Last)} {row.Last.Year}"
                )),
            ],
            new(plan.TermId, plan.Term.Name, $"{Moment.InWords(plan.Term.First)} – {Moment.InWords(plan.Term.Last)} {plan.Term.Last.Year}"),
            [.. plan.Sections.Select(section => new SectionChoice(section.Id, section.Name, section.Letter))],
            viewpoint.TakesCommands,
            access.IsLead && viewpoint.TakesCommands && plan.Sections.IsEmpty && editions is [{ TakenIn: true }]
        );
    }
}
