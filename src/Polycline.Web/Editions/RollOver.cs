using System.Data;
using System.Text.Json;
using Microsoft.AspNetCore.Mvc;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Rollover;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Editions;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Editions;

/// <param name="Title">Of the new edition, 1 to 200 characters.</param>
/// <param name="FixedDates"><c>week</c>: the same teaching week and weekday; <c>clear</c>: cleared.</param>
/// <param name="Sections">Sections to come, each with a name of its own in that term.</param>
public sealed record RollOverRequest(string Title, Id<Term> Term, string FixedDates, IReadOnlyList<RollOverSection> Sections);

/// <param name="Letter">What its line is marked with, A to Z.</param>
/// <param name="Succeeds">The section whose timetable and teachers it takes.</param>
public sealed record RollOverSection(string Name, string Letter, Id<Section> Succeeds);

/// <param name="Applied">False if this was only a preview and nothing was written.</param>
/// <param name="Edition">The new one; null in a preview.</param>
public sealed record RollOverAnswer(
    bool Applied,
    long? Edition,
    string Sentence,
    int Units,
    int Lessons,
    int Items,
    IReadOnlyList<RolledSection> Sections,
    IReadOnlyList<RedatedItem> Redated
);

/// <param name="Lacking">By how many classes the course does not fit.</param>
/// <param name="DoesNotFit">The lessons that do not, in words.</param>
public sealed record RolledSection(
    string Name,
    int Classes,
    int Lacking,
    Moment? FirstClass,
    Moment? LastLessonEnds,
    IReadOnlyList<string> DoesNotFit
);

/// <param name="After">Null: cleared, to be looked at.</param>
public sealed record RedatedItem(string Code, string Title, string Field, string Before, string? After);

/// <summary>Makes the next edition out of this one, whole or not at all. Nothing of the students carries.</summary>
public static class RollOver
{
    public static async Task<RollOverAnswer> Handle(
        long edition,
        [FromBody] RollOverRequest request,
        [FromQuery] bool? preview,
        [FromHeader(Name = "Idempotency-Key")] Guid? key,
        Access access,
        Viewpoint viewpoint,
        Database database,
        CancellationToken stop
    )
    {
        if (!viewpoint.TakesCommands)
            throw Problem.NotNow();
        if (!access.IsLead)
            throw Problem.Forbidden("Only the lead can roll a course over.", "Ask whoever leads this course to do it.");
        Check(request);
        var given = preview == true ? Guid.Empty : Idempotency.Key(key);
        await using var connection = await database.Source.OpenConnectionAsync(stop);
        await using var transaction = await connection.BeginTransactionAsync(IsolationLevel.ReadCommitted, stop);
        // A preview goes the same way and gives the transaction up.
        if (preview == true)
            return await Do(connection, access, viewpoint, request) with { Applied = false, Edition = null };
        var answer = await Idempotency.Run(connection, viewpoint, given, Idempotency.Digest($"{edition} roll-over", request), () =>
            Do(connection, access, viewpoint, request)
        );
        await transaction.CommitAsync(stop);
        return answer;
    }

    private static void Check(RollOverRequest request)
    {
        if (request.Title.Trim().Length is 0 or > 200)
            throw Problem.Field("title", "A title has 1 to 200 characters.");
        if (request.FixedDates is not ("week" or "clear"))
            throw Problem.Field("fixedDates", "Choose 'week' or 'clear'.");
        foreach (var section in request.Sections)
        {
            if (section.Name.Trim().Length is 0 or > 100)
                throw Problem.Field("sections", "A section's name has 1 to 100 characters.");
            if (section.Letter is not [>= 'A' and <= 'Z'])
                throw Problem.Field("sections", $"{section.Name} needs a letter from A to Z.");
        }
        if (request.Sections.DistinctBy(section => section.Name.Trim()).Count() < request.Sections.Count)
            throw Problem.Field("sections", "Two sections of one term cannot have the same name.");
    }

    private static async Task<RollOverAnswer> Do(NpgsqlConnection connection, Access access, Viewpoint viewpoint, RollOverRequest request)
    {
        var id = access.Edition!.Value;
        await EditionStore.Lock(connection, id);
        var old = await EditionStore.Read(connection, id) ?? throw Problem.Unknown();
        if (old.State != EditionState.Current)
            throw Problem.AtRest();
        var (editions, terms) = await RolloverStore.Read(connection, id);
        if (editions.FirstOrDefault(one => one.State == "draft") is { } coming)
            throw Problem.InUse(
                $"{coming.Title} is being prepared already.",
                "Nothing was changed. Take that roll-over back first, or end this edition so that it becomes the current one."
            );
        if (terms.All(term => term.Id != request.Term.Value))
            throw Problem.Unknown("term");
        if (request.Sections.FirstOrDefault(section => old.Following(section.Succeeds) is null) is not null)
            throw Problem.Unknown("sections");
        var made = await RolloverStore.Carry(connection, id, request.Title.Trim(), request.Term);
        foreach (var section in request.Sections)
            await AddSection(connection, made, request.Term, section);
        var redated = await Redate(connection, old, made, request);
        var next = await EditionStore.Read(connection, made) ?? throw Problem.Unknown();
        await AccessStore.Audit(
            connection,
            viewpoint.At,
            access.Person.Id,
            "rolled-over",
            JsonSerializer.Serialize(new { from = id.Value, to = made.Value })
        );
        return Of(old, next, made, redated);
    }

    private static async Task AddSection(NpgsqlConnection connection, Id<Edition> edition, Id<Term> term, RollOverSection section)
    {
        try
        {
            await RolloverStore.AddSection(connection, edition, term, new(section.Name.Trim(), section.Letter, section.Succeeds));
        }
        catch (PostgresException fault) when (fault.SqlState == PostgresErrorCodes.UniqueViolation)
        {
            throw Problem.Field("sections", $"There is a section called {section.Name.Trim()} in that term already: choose another name.");
        }
    }

    private static async Task<List<RedatedItem>> Redate(
        NpgsqlConnection connection,
        EditionPlan old,
        Id<Edition> made,
        RollOverRequest request
    )
    {
        var next = await EditionStore.Read(connection, made) ?? throw Problem.Unknown();
        var redating = new Redating(
            TermDays.Of(old.Term),
            TermDays.Of(next.Term),
            request.FixedDates == "week" ? FixedDates.Week : FixedDates.Clear
        );
        var anchors = new AnchorWords(next.TitleOf, next.Edition.Levels);
        var redated = new List<RedatedItem>();
        foreach (var item in next.Edition.InReadingOrder())
        foreach (var (field, anchor) in new[] { ("opens", item.Opens), ("due", item.Due), ("closes", item.Closes) })
            if (anchor is { At: AnchorBase.Fixed })
            {
                var then = redating.Of(anchor);
                await RolloverStore.SetDate(connection, made, item.Ref, field, then is null ? null : PlanParts.Json(then));
                redated.Add(
                    new(next.Schedule.CodeOf[item.Ref], item.Title, field, anchors.Of(anchor), then is null ? null : anchors.Of(then))
                );
            }
        return redated;
    }

    private static RollOverAnswer Of(EditionPlan old, EditionPlan next, Id<Edition> made, List<RedatedItem> redated)
    {
        var lessons = next.Edition.Units.Sum(unit => unit.Lessons.Length);
        var items = next.Edition.InReadingOrder().Count();
        var sections = next.Sections.Select(section => SectionOf(next, section)).ToList();
        var fits = sections.All(section => section.Lacking == 0);
        return new(
            true,
            made.Value,
            $"Carries {next.Edition.Levels.Unit.Counted(next.Edition.Units.Length)}, {next.Edition.Levels.Lesson.Counted(lessons)} "
                + $"and {next.Edition.Levels.Item.Counted(items)}; nothing of the students. {old.Edition.Title} goes on as it is."
                + (
                    sections.Count == 0 ? ""
                    : fits ? " Everything fits."
                    : " Not everything fits."
                ),
            next.Edition.Units.Length,
            lessons,
            items,
            sections,
            redated
        );
    }

    private static RolledSection SectionOf(EditionPlan next, FollowingSection section)
    {
        var schedule = next.Schedule.Section(section.Section.Ref);
        var meetings = schedule.Meetings.Meetings;
        var lastEnd = schedule.Forecast.Lessons.Where(lesson => lesson.IsPlaced).Select(lesson => lesson.EndsAt).Max();
        return new(
            section.Name,
            meetings.Length,
            schedule.Forecast.Lacking,
            Moment.Of(meetings.IsEmpty ? null : meetings[0].StartsAt, next.Term.Zone),
            Moment.Of(lastEnd, next.Term.Zone),
            [
                .. schedule
                    .Findings.Where(finding => finding.Code == FindingCode.Overflow)
                    .Select(finding => new FindingWords(next.TitleOf, next.Edition.Basis, next.Edition.Levels).Of(finding)),
            ]
        );
    }
}
