using System.Text.Json;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Findings;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.WhatIf;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Outline;

namespace Polycline.Web.Conditions;

/// <summary>Who waits for what in a course, and how far everybody is with it.</summary>
public sealed record ConditionsAnswer
{
    public required Moment At { get; init; }

    public required bool CanChange { get; init; }

    /// <summary>Those whose students the viewer may see.</summary>
    public required IReadOnlyList<ConditionSection> Sections { get; init; }

    /// <summary>Everything that has a condition, or that a condition asks about; in reading order.</summary>
    public required IReadOnlyList<ConditionPlace> Places { get; init; }

    public required IReadOnlyList<ConditionArrow> Arrows { get; init; }

    /// <summary>What is wrong with conditions, each with the places it is about.</summary>
    public required IReadOnlyList<ConditionFault> Faults { get; init; }
}

public sealed record ConditionSection(Id<Section> Section, string Name, string Letter, IReadOnlyList<NamedStudent> Students);

/// <summary>A unit, lesson or item that has a condition, or that a condition asks about.</summary>
public sealed record ConditionPlace
{
    public required string Key { get; init; }

    public required Level Of { get; init; }

    public required long Id { get; init; }

    /// <summary>Empty: it is a unit or a lesson.</summary>
    public required string Code { get; init; }

    public required string Title { get; init; }

    /// <summary>The title of its unit; its own of a unit.</summary>
    public required string Unit { get; init; }

    /// <summary>In words; null: it has none.</summary>
    public required string? Condition { get; init; }

    /// <summary>The same in the plan file's form.</summary>
    public required JsonElement? Gate { get; init; }

    /// <summary>Whether students see nothing of it until its condition is met.</summary>
    public required bool IsHidden { get; init; }

    public required long Version { get; init; }

    /// <summary>By section, in order. Students it is not for are in none of its lists.</summary>
    public required IReadOnlyList<StandingInSection> Standing { get; init; }
}

/// <param name="Before">Not open to them yet.</param>
/// <param name="At">Open to them, and not done.</param>
/// <param name="Past">Done; for a unit or lesson, let in.</param>
/// <param name="Missed">Closed before they had done it.</param>
/// <param name="ForFeedback">Of those before it, who would be let in if a piece they handed in were given back.</param>
public sealed record StandingInSection(
    Id<Section> Section,
    IReadOnlyList<Id<Person>> Before,
    IReadOnlyList<Id<Person>> At,
    IReadOnlyList<Id<Person>> Past,
    IReadOnlyList<Id<Person>> Missed,
    IReadOnlyList<WaitsForFeedback> ForFeedback
);

/// <param name="Piece">The item whose piece is to be given back.</param>
public sealed record WaitsForFeedback(Id<Person> Student, Id<Item> Piece, Moment Since);

/// <param name="Asks">Such as <c>given back</c> or <c>at least 70 %</c>.</param>
public sealed record ConditionArrow(string From, string To, string Asks);

/// <param name="Section">The letter of the section it concerns; null: it concerns the whole course.</param>
/// <param name="Places">The first is what it is about.</param>
public sealed record ConditionFault(string Words, string? Section, IReadOnlyList<string> Places);

/// <summary>Reads a course's conditions, with how many students stand before, at and past each place.</summary>
public static class ReadConditions
{
    public static async Task<ConditionsAnswer> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("Who gets through");
        var plan = await compiled.Edition(access);
        var taught = await TaughtSection.Read(database, plan, access, viewpoint.At, stop);
        return new Picture(plan, taught, viewpoint.At).Answer(plan.State != EditionState.Resting && viewpoint.TakesCommands);
    }

    private sealed class Picture(EditionPlan plan, IReadOnlyList<TaughtSection> taught, Instant at)
    {
        private readonly ConditionGraph graph = ConditionGraph.Of(plan.Schedule);

        // What a section that is not the viewer's added for itself is not shown.
        private readonly HashSet<string> shown =
        [
            .. ConditionGraph
                .Of(plan.Schedule)
                .Nodes.Where(node => node.Only is null || taught.Any(section => section.Section.Section.Ref == node.Only))
                .Select(node => node.Name),
        ];
        private readonly GateWords words = plan.GateWords();
        private readonly ILookup<string, OpeningPiece> freeing = WhoWaits
            .Of(plan.Schedule, [.. taught.SelectMany(section => section.Students).Select(student => student.Record)], at)
            .Pieces.SelectMany(piece => piece.Opens.Select(opened => (opened.Name, Piece: piece)))
            .ToLookup(pair => pair.Name, pair => pair.Piece);

        public ConditionsAnswer Answer(bool canChange)
        {
            var standing = taught
                .Select(section =>
                    section.Students.Select(student => (student.Id, Stands: new GetsThrough(plan.Schedule, student.Record, at))).ToList()
                )
                .ToList();
            return new()
            {
                At = Moment.Of(at, plan.Term.Zone),
                CanChange = canChange,
                Sections =
                [
                    .. taught.Select(one => new ConditionSection(
                        one.Section.Id,
                        one.Section.Name,
                        one.Section.Letter,
                        [.. one.Students.Select(student => new NamedStudent(student.Id, student.Name))]
                    )),
                ],
                Places = [.. graph.Nodes.Where(node => shown.Contains(node.Name)).Select(node => Of(node, standing))],
                Arrows = [.. graph.Links.Where(link => shown.Contains(link.From.Name) && shown.Contains(link.To)).Select(ArrowOf)],
                Faults = [.. Faults()],
            };
        }

        private ConditionPlace Of(ConditionNode node, List<List<(Id<Person> Id, GetsThrough Stands)>> standing)
        {
            var row = plan.Find(node.Name)!;
            return new()
            {
                Key = node.Name,
                Of = node.Level,
                Id = row.Id,
                Code = node.Level == Level.Item ? plan.Schedule.CodeOf[new(node.Name)] : "",
                Title = plan.TitleOf(node.Name),
                Unit = plan.TitleOf(plan.Row(row.Unit)!.Lineage),
                Condition = node.Gate is { } gate ? words.Sentence(gate) : null,
                Gate = node.Gate.Stored(),
                IsHidden = node.Gate?.IsHidden == true,
                Version = row.Version,
                Standing = [.. taught.Zip(standing, (section, students) => InSection(node, section, students))],
            };
        }

        private StandingInSection InSection(ConditionNode node, TaughtSection section, List<(Id<Person> Id, GetsThrough Stands)> students)
        {
            var by = students.ToLookup(student => student.Stands.Of(node), student => student.Id);
            return new(
                section.Section.Id,
                [.. by[Standing.Before]],
                [.. by[Standing.At]],
                [.. by[Standing.Past]],
                [.. by[Standing.Missed]],
                [
                    .. freeing[node.Name]
                        .Where(piece => piece.Section == section.Section.Section.Ref)
                        .Select(piece => (piece.Item, Student: section.Students.First(one => one.Record.Student == piece.Student)))
                        .Select(piece => new WaitsForFeedback(
                            piece.Student.Id,
                            plan.IdOf(piece.Item),
                            Moment.Of(HandedIn(piece.Student.Record, piece.Item), plan.Term.Zone)
                        )),
                ]
            );
        }

        private Instant HandedIn(StudentRecord student, Ref<Item> item) =>
            student.Facts.On(item, at).Last(fact => fact.Event == FactEvent.Submitted).At;

        private ConditionArrow ArrowOf(ConditionLink link) =>
            new(link.From.Name, link.To, Counting.Joined([.. link.Asks.Select(words.Asked)], "or"));

        private IEnumerable<ConditionFault> Faults()
        {
            var sentences = new FindingWords(new PlanNames(plan.Schedule).Of, plan.Edition.Basis, plan.Edition.Levels);
            var letters = taught.ToDictionary(section => section.Section.Section.Ref.Name, section => section.Section.Letter);
            return ConditionChecks
                .Everywhere(plan.Schedule)
                .Where(finding => finding.Targets.Any(shown.Contains))
                .Where(finding => finding.Section is null || letters.ContainsKey(finding.Section))
                .Select(finding => new ConditionFault(
                    sentences.Of(finding),
                    finding.Section is { } section ? letters[section] : null,
                    [.. finding.Targets.Where(shown.Contains)]
                ));
        }
    }
}
