using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Outline;

namespace Polycline.Web.Sections;

/// <param name="Classes">1 to 60 classes of the section.</param>
/// <param name="How"><c>move-on</c>, <c>spare</c>, <c>drop</c> or <c>shorten</c>.</param>
/// <param name="Drop">The optional lessons to drop for them; null: the next ones, as many as it takes.</param>
public sealed record LoseClassesRequest(
    Id<Section> Section,
    IReadOnlyList<LostClass> Classes,
    string How,
    IReadOnlyList<Id<Lesson>>? Drop = null
);

/// <param name="Date">Such as <c>2026-10-12</c>.</param>
/// <param name="Start">Local, <c>08:40</c>.</param>
public sealed record LostClass(string Date, string Start);

/// <summary>
/// Cancels classes of a section and makes up for them: everything moves on, a spare class is used, or lessons are dropped or shortened.
/// </summary>
public sealed class LoseClasses : IPlanningCommand<EditionPlan, LoseClassesRequest>
{
    public static string Name => "lose-classes";

    public static IValidator<LoseClassesRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, LoseClassesRequest request, Viewpoint viewpoint)
    {
        var section = plan.Following(request.Section) ?? throw Problem.Unknown("section");
        var schedule = plan.Schedule.Section(section.Section.Ref);
        var meetings = request
            .Classes.Select(
                (asked, n) =>
                    schedule.Meetings.Meetings.FirstOrDefault(meeting =>
                        $"{meeting.Date:uuuu-MM-dd}" == asked.Date && $"{meeting.Start:HH:mm}" == asked.Start
                    ) ?? throw Problem.Field($"classes[{n}]", $"{section.Name} has no class on {asked.Date} at {asked.Start}.")
            )
            .ToList();
        var (made, words) = MakeUp(plan, request, new(schedule, plan.Edition.Basis, [.. meetings.Select(meeting => meeting.Ordinal)]));
        var next = plan.MeetingChanges.Where(row => row.Section == section.Id).Select(row => row.Seq).DefaultIfEmpty(0).Max() + 1;
        var cancelled = meetings.Select(
            (meeting, n) =>
                Change.Add(
                    Tables.MeetingChanges.Section.Is(section.Id),
                    Tables.MeetingChanges.Seq.Is(next + n),
                    Tables.MeetingChanges.Change.Is(
                        new JsonObject
                        {
                            ["cancel"] = new JsonObject { ["date"] = $"{meeting.Date:uuuu-MM-dd}", ["start"] = $"{meeting.Start:HH:mm}" },
                        }
                    )
                )
        );
        var dates =
            meetings.Count == 1
                ? $"the class of {section.Name} on {Moment.InWords(meetings[0].Date)}"
                : $"{meetings.Count} classes of {section.Name} from "
                    + $"{Moment.InWords(meetings[0].Date)} to {Moment.InWords(meetings[^1].Date)}";
        return new(
            $"cancelled {dates}: {words}",
            [
                .. cancelled,
                .. Ordering.Moved(plan, section, [.. made.Where(lesson => lesson.After is not null)]),
                .. AdjustSections.ChangesOf(
                    plan,
                    [.. made.Where(lesson => lesson.After is null).Select(lesson => Difference(plan, section, lesson))]
                ),
            ]
        )
        {
            Act = $"Cancel {Counting.Counted(meetings.Count, "class", "classes")} of {section.Name}",
        };
    }

    private static (ImmutableArray<Adjustment.OfLesson> Changes, string Words) MakeUp(
        EditionPlan plan,
        LoseClassesRequest request,
        LostClasses lost
    )
    {
        if (request.How == "spare")
        {
            var uses = lost.UseSpare();
            return (Some([.. uses.Select(use => use.Change)], WaysWords.NoSpare(plan)), WaysWords.Spare(plan, uses));
        }
        if (request.How == "move-on")
            return ([], "everything moves on");
        var made = request switch
        {
            { How: "shorten" } => Some(lost.Shorten(lesson => plan.Row(lesson).Shortest), WaysWords.NoneShorter(plan)),
            { Drop: null } => Some(lost.Drop(), WaysWords.NoneToDrop(plan)),
            { Drop: var chosen } => Chosen(plan, lost, chosen),
        };
        return (made, $"made up for by {(request.How == "drop" ? "dropping" : "shortening")} {WaysWords.Titles(plan, made)}");
    }

    private static ImmutableArray<Adjustment.OfLesson> Chosen(EditionPlan plan, LostClasses lost, IReadOnlyList<Id<Lesson>> chosen)
    {
        var open = lost.Droppable.ToDictionary(lesson => plan.Row(lesson.Ref).Id, lesson => lesson.Ref);
        return
        [
            .. chosen.Select(
                (id, n) =>
                    open.TryGetValue(id.Value, out var lesson)
                        ? new Adjustment.OfLesson(lesson, Skip: true)
                        : throw Problem.Field(
                            $"drop[{n}]",
                            $"Only an optional {plan.Edition.Levels.Lesson.One} after the lost class can be dropped for it."
                        )
            ),
        ];
    }

    private static ImmutableArray<Adjustment.OfLesson> Some(ImmutableArray<Adjustment.OfLesson> made, string none) =>
        made.Length > 0 ? made : throw Problem.Field("how", none);

    private static DifferenceChange Difference(EditionPlan plan, FollowingSection section, Adjustment.OfLesson lesson)
    {
        var (field, value) = lesson.Length is { } length
            ? (AdjustedField.Length, JsonSerializer.SerializeToElement(length))
            : (AdjustedField.Skip, JsonSerializer.SerializeToElement(true));
        var present = plan.Adjustments.FirstOrDefault(row =>
            row.Section == section.Id && row.Target == lesson.Lesson.Name && row.Field == field
        );
        return new(section.Id, Level.Lesson, plan.Row(lesson.Lesson).Id, field, false, value, present?.Version ?? 0);
    }

    private sealed class Rules : AbstractValidator<LoseClassesRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Classes).Must(classes => classes.Count is > 0 and <= 60).WithMessage("Choose from 1 to 60 classes.");
            RuleFor(request => request.Classes)
                .Must(classes => classes.Distinct().Count() == classes.Count)
                .WithMessage("The same class is given twice.");
            RuleFor(request => request.Drop)
                .Must(drop => drop is null or { Count: > 0 and <= 60 })
                .WithMessage("Choose what to drop: at least one, and at most 60.");
            RuleFor(request => request.Drop)
                .Must((request, drop) => drop is null || request.How == "drop")
                .WithMessage("What to drop can be chosen only with “drop”.");
            RuleFor(request => request.Drop)
                .Must(drop => drop is null || drop.Distinct().Count() == drop.Count)
                .WithMessage("One of them is chosen twice.");
            RuleFor(request => request.How)
                .Must(how => how is "move-on" or "spare" or "drop" or "shorten")
                .WithMessage("Say how: move-on, spare, drop or shorten.");
        }
    }
}
