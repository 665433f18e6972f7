using System.Text.Json;
using System.Text.Json.Nodes;
using FluentValidation;
using Polycline.Core.Calendars;
using Polycline.Core.PlanFiles;
using Polycline.Core.Wording;
using Polycline.Data.Ledger;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Calendar;

/// <summary>All but what is marked, in the plan file's form.</summary>
/// <param name="First">A date.</param>
/// <param name="Last">A date, inclusive, at most 400 days later.</param>
/// <param name="Weekdays">On which classes are held: <c>mon</c> … <c>sun</c>.</param>
/// <param name="Periods">Of an ordinary day: at most 40.</param>
/// <param name="OffDays">Where a due of the course goes that falls on no class day: <c>stay</c>, <c>back</c> or <c>forward</c>.</param>
/// <param name="Version">The version of the term's own fields that was read.</param>
public sealed record SetTermRequest(
    string First,
    string Last,
    IReadOnlyList<string> Weekdays,
    JsonElement Rotation,
    JsonElement Periods,
    string OffDays,
    long Version
);

/// <summary>Sets when a term is, on which weekdays there are classes, what the days are called and in which periods they run.</summary>
public sealed class SetTerm : IPlanningCommand<TermPlan, SetTermRequest>
{
    public static string Name => "set-term";

    public static IValidator<SetTermRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(TermPlan plan, SetTermRequest request, Viewpoint viewpoint)
    {
        var settings = new JsonObject
        {
            ["weekdays"] = JsonSerializer.SerializeToNode(request.Weekdays),
            ["rotation"] = JsonNode.Parse(request.Rotation.GetRawText()),
            ["periods"] = JsonNode.Parse(request.Periods.GetRawText()),
            ["offDays"] = request.OffDays,
        };
        var term = TermForm.Read(plan.Term.Name, plan.Term.Zone.Id, request.First, request.Last, settings);
        // Both in one form: what is left out stands for what it stands for.
        var (before, after) = (Canonical(plan.Term), Canonical(term));
        var turns = new List<Turn>
        {
            Tables.Terms.First.Turns(plan.Term.First, term.First),
            Tables.Terms.Last.Turns(plan.Term.Last, term.Last),
        };
        if (!JsonNode.DeepEquals(before, after))
            turns.Add(Tables.Terms.Settings.Turns(JsonNode.Parse(plan.Settings), settings));
        return turns.All(turn => !turn.Changes)
            ? new("left the term as it is", [])
            : new(Said(plan, before, after, term), [Change.Set(Tables.Terms.Table, plan.Id, request.Version, turns)]);
    }

    private static string Said(TermPlan plan, JsonObject before, JsonObject after, Term term)
    {
        var parts = new List<string>();
        if (plan.Term.First != term.First || plan.Term.Last != term.Last)
            parts.Add($"set {plan.Term.Name} from {Moment.InWords(term.First)} to {Moment.InWords(term.Last)}");
        var names = new[]
        {
            ("weekdays", "weekdays"),
            ("rotation", "rotation"),
            ("periods", "periods"),
            ("offDays", "rule for due dates on days without classes"),
        };
        var fields = names.Where(name => !JsonNode.DeepEquals(before[name.Item1], after[name.Item1])).Select(name => name.Item2).ToList();
        if (fields.Count > 0)
            parts.Add($"changed the {Counting.Joined(fields, "and")} of {plan.Term.Name}");
        return Counting.Joined(parts, "and");
    }

    private static JsonObject Canonical(Term term)
    {
        var all = JsonNode.Parse(PlanParts.Json(term))!.AsObject();
        return new(
            new[] { "weekdays", "rotation", "periods", "offDays" }.Select(field => KeyValuePair.Create(field, all[field]?.DeepClone()))
        );
    }

    private sealed class Rules : AbstractValidator<SetTermRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Periods)
                .Must(periods => periods.ValueKind == JsonValueKind.Array && periods.GetArrayLength() <= 40)
                .WithMessage("A term has at most 40 periods.");
            RuleFor(request => request.Rotation)
                .Must(rotation => rotation.ValueKind == JsonValueKind.Object)
                .WithMessage("Name the days of the rotation.");
        }
    }
}
