using System.Text.Json;
using System.Text.Json.Nodes;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Json;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Outline;

namespace Polycline.Web.Pace;

/// <param name="Change">In the plan file's form: exactly one of <c>cancel</c>, <c>move</c>, <c>add</c>; null: <paramref name="PutBack"/> is
/// given.</param>
/// <param name="PutBack">The number of a change that is taken away, so that the timetable holds again.</param>
/// <param name="Version">The version of what is put back.</param>
public sealed record ChangeClassesRequest(Id<Section> Section, JsonElement? Change, int? PutBack, long Version);

/// <summary>Cancels, moves or adds a class of a section, or puts such a change back.</summary>
public sealed class ChangeClasses : IPlanningCommand<EditionPlan, ChangeClassesRequest>
{
    public static string Name => "change-classes";

    public static IValidator<ChangeClassesRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, ChangeClassesRequest request, Viewpoint viewpoint)
    {
        var section = plan.Following(request.Section) ?? throw Problem.Unknown("section");
        var own = plan.MeetingChanges.Where(row => row.Section == section.Id).ToList();
        if (request.PutBack is { } seq)
            return PutBack(section, own, seq, request.Version);
        var json = request.Change!.Value.GetRawText();
        var change = Read(json);
        try
        {
            SectionMeetings.Of(plan.Schedule.Term, section.Name, section.Section.Slots, [.. section.Section.Changes, change]);
        }
        catch (MeetingChangeException fault)
        {
            throw Problem.Field(fault.Member is { } member ? $"change.{member}" : "change", fault.Message);
        }
        return new(
            InWords(change, section.Name),
            [
                Change.Add(
                    Tables.MeetingChanges.Section.Is(section.Id),
                    Tables.MeetingChanges.Seq.Is(own.Count == 0 ? 1 : own.Max(row => row.Seq) + 1),
                    Tables.MeetingChanges.Change.Is(JsonNode.Parse(json))
                ),
            ]
        )
        {
            Act = change switch
            {
                MeetingChange.Cancel => $"Cancel 1 class of {section.Name}",
                MeetingChange.Move => $"Move 1 class of {section.Name}",
                _ => $"Add 1 class to {section.Name}",
            },
        };
    }

    private static CommandDecision PutBack(FollowingSection section, List<MeetingChangeRow> own, int seq, long version)
    {
        var row = own.Find(row => row.Seq == seq) ?? throw Problem.Unknown("putBack");
        var change = Change.Delete(
            version,
            Tables.MeetingChanges.Section.Is(section.Id),
            Tables.MeetingChanges.Seq.Is(seq),
            Tables.MeetingChanges.Change.Is(JsonNode.Parse(row.Change))
        );
        return row.Version != version
            ? throw new StaleChangeException(change, new() { ["change"] = row.Change, ["version"] = row.Version })
            : new($"put back a class of {section.Name} that was {PastOf(PlanParts.MeetingChange(row.Change))}", [change])
            {
                Act = $"Put back 1 class of {section.Name}",
            };
    }

    private static MeetingChange Read(string json)
    {
        try
        {
            return PlanParts.MeetingChange(json);
        }
        catch (FileRefusedException refusal)
        {
            throw Problem.Field("change", $"{refusal.Path.Replace("$", "change", StringComparison.Ordinal)}: {refusal.Message}.");
        }
    }

    private static string InWords(MeetingChange change, string section) =>
        change switch
        {
            MeetingChange.Cancel cancel => $"cancelled the class of {section} on {Moment.InWords(cancel.Date)}",
            MeetingChange.Move move => $"moved the class of {section} on {Moment.InWords(move.Date)} to {Moment.InWords(move.ToDate)}",
            _ => $"added a class of {section} on {Moment.InWords(((MeetingChange.Extra)change).Date)}",
        };

    private static string PastOf(MeetingChange change) =>
        change switch
        {
            MeetingChange.Cancel => "cancelled",
            MeetingChange.Move => "moved",
            _ => "added",
        };

    private sealed class Rules : AbstractValidator<ChangeClassesRequest>
    {
        public Rules() =>
            RuleFor(request => request.Change)
                .Must((request, change) => (change is { ValueKind: not JsonValueKind.Null }) != (request.PutBack is not null))
                .WithMessage("Give either a change of a class, or the number of one to put back.");
    }
}
