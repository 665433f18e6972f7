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

public sealed record EditionLife
{
    public required Id<Edition> Id { get; init; }

    public required string Title { get; init; }

    /// <summary><c>draft</c>: coming; <c>current</c>; <c>resting</c>: past.</summary>
    public required string State { get; init; }

    public required string Term { get; init; }

    public required string Dates { get; init; }

    public required int Sections { get; init; }

    /// <summary>It was rolled over, and no student has worked in it yet.</summary>
    public required bool CanTakeBack { get; init; }

    /// <summary>It is current, and the viewer may end it.</summary>
    public required bool CanEnd { get; init; }

    /// <summary>It has ended, and no student has begun in the next one yet.</summary>
    public required bool CanResume { get; init; }

    /// <summary>The last day on which it is current, in words; null: none is set.</summary>
    public required string? EndsOn { get; init; }

    public required bool IsThis { get; init; }
}

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
                .. editions.Select(row => new EditionLife
                {
                    Id = row.Id,
                    Title = row.Title,
                    State = row.State,
                    Term = row.Term,
                    Dates = $"{Moment.InWords(row.First)} – {Moment.InWords(row.Last)} {row.Last.Year}",
                    Sections = row.Sections,
                    CanTakeBack = access.IsLead && row is { CarriedFrom: not null, Worked: false, State: not "resting" },
                    CanEnd = access.IsLead && viewpoint.TakesCommands && row is { State: "current" },
                    CanResume =
                        access.IsLead
                        && viewpoint.TakesCommands
                        && row is { State: "resting", GoneOn: false }
                        && editions.All(other => other.State != "current" || other.CarriedFrom == row.Id),
                    EndsOn = row.EndsOn is { } last ? Moment.InWords(last, last) : null,
                    IsThis = row.Id == access.Edition,
                }),
            ],
            [
                .. terms.Select(row => new TermChoice(
                    row.Id,
                    row.Name,
                    $"{Moment.InWords(row.First)} – {Moment.InWords(row.Last)} {row.Last.Year}"
                )),
            ],
            new(plan.TermId, plan.Term.Name, $"{Moment.InWords(plan.Term.First)} – {Moment.InWords(plan.Term.Last)} {plan.Term.Last.Year}"),
            [
                .. plan.On(plan.Term.Local(viewpoint.At).Date)
                    .Counted.Sections.Select(section => new SectionChoice(section.Id, section.Name, section.Letter)),
            ],
            viewpoint.TakesCommands,
            access.IsLead && viewpoint.TakesCommands && plan.Counted.Sections.IsEmpty && editions is [{ TakenIn: true }]
        );
    }
}
