using System.Text.Json;
using System.Text.Json.Nodes;
using FluentValidation;
using NodaTime;
using NodaTime.Text;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Json;
using Polycline.Core.PlanFiles;
using Polycline.Core.Wording;
using Polycline.Data.Ledger;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Calendar;

/// <param name="Marks">1 to 400.</param>
public sealed record MarkDaysRequest(IReadOnlyList<DayMark> Marks);

/// <summary>A closure, an extra day or a special day: made, changed or taken away.</summary>
public sealed record DayMark
{
    /// <summary>Of the mark that is changed; null: a new one.</summary>
    public required Id<CalendarDayRow>? Id { get; init; }

    /// <summary>The version of it that was read; 0: a new one.</summary>
    public required long Version { get; init; }

    /// <summary>The mark is removed; the rest of the fields are then ignored.</summary>
    public required bool Gone { get; init; }

    /// <summary><c>closure</c>, <c>extra</c> or <c>special</c>.</summary>
    public required string Kind { get; init; }

    /// <summary>A date.</summary>
    public required string First { get; init; }

    /// <summary>Its last date, inclusive; the same as the first unless it is a closure.</summary>
    public required string Last { get; init; }

    public required string Name { get; init; }

    /// <summary>Of a special day: the label it takes; null: its own.</summary>
    public required string? Runs { get; init; }

    /// <summary>Of a special day, in the plan file's form; null: the term's.</summary>
    public required JsonElement? Periods { get; init; }
}

/// <summary>Marks days in a term's calendar, one or many at once; every section's classes and dates follow.</summary>
public sealed class MarkDays : IPlanningCommand<TermPlan, MarkDaysRequest>
{
    public static string Name => "mark-days";

    public static IValidator<MarkDaysRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(TermPlan plan, MarkDaysRequest request, Viewpoint viewpoint)
    {
        var changes = new List<Change>();
        var words = new List<string>();
        for (var n = 0; n < request.Marks.Count; n++)
            if (Decide(plan, request.Marks[n], $"marks[{n}]") is var (change, said))
            {
                changes.Add(change);
                words.Add(said);
            }
        CommandDecision decision = changes.Count switch
        {
            0 => new("left the calendar as it is", []),
            1 => new(words[0], changes),
            _ => new($"marked {Counting.Counted(changes.Count, "stretch", "stretches")} of days in the calendar", changes),
        };
        var gone = request.Marks.All(mark => mark.Gone);
        return decision with
        {
            Act =
                $"{(gone ? "Take out" : "Mark")} "
                + $"{Counting.Counted(changes.Count, gone ? "mark" : "stretch of days", gone ? "marks" : "stretches of days")}",
        };
    }

    // Null: it is so already.
    private static (Change, string)? Decide(TermPlan plan, DayMark mark, string at)
    {
        var present = mark.Id is { } id ? plan.Days.FirstOrDefault(day => day.Id == id) ?? throw Problem.Unknown($"{at}.id") : null;
        if (mark.Gone)
            return present is null
                ? null
                : (
                    Change.Delete(Tables.CalendarDays.Table, present.Id, mark.Version, Row(plan.Id, present)),
                    $"took {Said(present.Kind, present.Name, present.First, present.Last)} out of the calendar"
                );
        var (first, last) = (Date(mark.First, $"{at}.first"), Date(mark.Last, $"{at}.last"));
        if (last < first)
            throw Problem.Field($"{at}.last", "The last day is before the first day. Choose a later date.");
        if (mark.Kind != "closure" && first != last)
            throw Problem.Field($"{at}.last", "An extra day or a special day is a single day: give the same date for both.");
        if (last < plan.Term.First || first > plan.Term.Last)
            throw Problem.Field(
                $"{at}.first",
                $"{plan.Term.Name} runs from {Moment.InWords(plan.Term.First)} to {Moment.InWords(plan.Term.Last)}. Choose a day within it."
            );
        if (
            mark.Kind != "closure"
            && plan.Days.FirstOrDefault(day => day.Kind == mark.Kind && day.First == first && day.Id != mark.Id) is { } same
        )
            throw Problem.Field($"{at}.first", $"{Moment.InWords(first)} is marked already: {same.Name}. Change that instead.");
        var periods = mark.Periods is { ValueKind: JsonValueKind.Array } given ? PeriodsOf(given, $"{at}.periods") : null;
        if (mark.Runs is { } runs && !SectionMeetings.LabelsOf(plan.Term.Calendar.Rotation).Contains(runs))
            throw Problem.Field(
                $"{at}.runs",
                $"This term has no day “{runs}”: choose one of "
                    + $"{Counting.Joined([.. SectionMeetings.LabelsOf(plan.Term.Calendar.Rotation)], "and")}."
            );
        if (mark.Kind != "special" && (mark.Runs is not null || periods is not null))
            throw Problem.Field($"{at}.kind", "Only a special day can run as another day or have its own periods.");
        var after = Row(plan.Id, new(default, mark.Kind, first, last, mark.Name.Trim(), mark.Runs, periods, 0));
        var said = $"marked {Said(mark.Kind, mark.Name.Trim(), first, last)} in the calendar";
        if (present is null)
            return (Change.Add(after), said);
        var turns = Row(plan.Id, present).Zip(after, (was, will) => new Turn(was, will)).ToList();
        return turns.All(turn => !turn.Changes) ? null : (Change.Set(Tables.CalendarDays.Table, present.Id, mark.Version, turns), said);
    }

    private static Cell[] Row(Id<Term> term, CalendarDayRow day) =>
        [
            Tables.CalendarDays.Name.Is(day.Name),
            Tables.CalendarDays.Term.Is(term),
            Tables.CalendarDays.Kind.Is(day.Kind),
            Tables.CalendarDays.First.Is(day.First),
            Tables.CalendarDays.Last.Is(day.Last),
            Tables.CalendarDays.Runs.Is(day.Runs),
            Tables.CalendarDays.Periods.Is(day.Periods is null ? null : JsonNode.Parse(day.Periods)),
        ];

    private static string Said(string kind, string name, LocalDate first, LocalDate last)
    {
        var days = Moment.InWords(first, last);
        return kind switch
        {
            "closure" => $"{days} as closed ({name})",
            "extra" => $"{days} as an extra day ({name})",
            _ => $"{days} as a special day{(name.Length == 0 ? "" : $" ({name})")}",
        };
    }

    private static LocalDate Date(string text, string field) =>
        LocalDatePattern.Iso.Parse(text) is { Success: true, Value: var date }
            ? date
            : throw Problem.Field(field, "Give a date, such as 2026-10-26.");

    private static string PeriodsOf(JsonElement json, string field)
    {
        try
        {
            PlanParts.Periods(json.GetRawText());
            return json.GetRawText();
        }
        catch (FileRefusedException refusal)
        {
            throw Problem.Field(refusal.Path.Replace("$", field, StringComparison.Ordinal), $"{refusal.Message.Capital()}.");
        }
    }

    private sealed class Rules : AbstractValidator<MarkDaysRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Marks)
                .Must(marks => marks.Count is > 0 and <= 400)
                .WithMessage("Mark from 1 to 400 stretches of days at once.");
            RuleFor(request => request.Marks)
                .Must(marks =>
                    marks.Where(mark => mark.Id is not null).DistinctBy(mark => mark.Id).Count() == marks.Count(mark => mark.Id is not null)
                )
                .WithMessage("The same mark is given twice.");
            RuleFor(request => request.Marks)
                .Must(marks =>
                    marks.Where(mark => !mark.Gone && mark.Kind != "closure") is var days
                    && days.DistinctBy(mark => (mark.Kind, mark.First)).Count() == days.Count()
                )
                .WithMessage("The same day is marked as an extra or special day twice. Mark it once.");
            RuleForEach(request => request.Marks)
                .ChildRules(mark =>
                {
                    mark.RuleFor(one => one.Kind)
                        .Must(kind => kind is "closure" or "extra" or "special")
                        .WithMessage("Say whether it is a closure, an extra day or a special day.");
                    mark.RuleFor(one => one.Name).MaximumLength(120).WithMessage("Use at most 120 letters for its name.");
                    mark.RuleFor(one => one.Name)
                        .Must((one, name) => one.Gone || one.Kind == "special" || name.Trim().Length > 0)
                        .WithMessage("Give it a name, such as “Mid-term break”.");
                });
        }
    }
}
