using System.Data;
using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Rollover;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Editions;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Outline;
using Polycline.Web.Outline.Items;

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
    Id<Edition>? Edition,
    string Sentence,
    int Units,
    int Lessons,
    int Items,
    IReadOnlyList<RolledSection> Sections,
    IReadOnlyList<RedatedItem> Redated
) : IAnswer<RollOverAnswer>
{
    public RollOverAnswer AsPreview() => this with { Applied = false, Edition = null };
}

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
public sealed record RedatedItem(string Code, string Title, DateField Field, string Before, string? After);

/// <summary>Makes the next edition out of this one, whole or not at all. Nothing of the students carries.</summary>
public sealed class RollOver : IWorkCommand<RollOverRequest, RollOverAnswer>
{
    public static string Name => "roll-over";

    public static May May => May.Lead;

    public static WorkPlace Place => WorkPlace.Edition;

    public static IValidator<RollOverRequest> Validator { get; } = new Rules();

    public static async Task<RollOverAnswer> Do(WorkContext work, RollOverRequest request)
    {
        var (connection, id) = (work.Connection, work.Edition);
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
        if (terms.All(term => term.Id != request.Term))
            throw Problem.Unknown("term");
        if (request.Sections.FirstOrDefault(section => old.Counted.Following(section.Succeeds) is null) is not null)
            throw Problem.Unknown("sections");
        var made = await RolloverStore.Carry(connection, id, request.Title.Trim(), request.Term);
        foreach (var section in request.Sections)
            await AddSection(connection, made, request.Term, section);
        var redated = await Redate(connection, old, made, request);
        var next = await EditionStore.Read(connection, made) ?? throw Problem.Unknown();
        await work.Audit("rolled-over", new { from = id.Value, to = made.Value });
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
        foreach (var field in Enum.GetValues<DateField>())
            if (TimeItem.Of(item, field) is { At: AnchorBase.Fixed } anchor)
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
            made,
            $"Carries {next.Edition.Levels.Unit.Counted(next.Edition.Units.Length)}, {next.Edition.Levels.Lesson.Counted(lessons)} "
                + $"and {next.Edition.Levels.Item.Counted(items)}, and no student work. {old.Edition.Title} goes on as it is."
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

    private sealed class Rules : AbstractValidator<RollOverRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Title).IsTitle();
            RuleFor(request => request.FixedDates).Must(choice => choice is "week" or "clear").WithMessage("Choose 'week' or 'clear'.");
            RuleForEach(request => request.Sections)
                .OverrideIndexer((_, _, _, _) => "")
                .Must(section => section.Name.Trim().Length is > 0 and <= 100)
                .WithMessage("A section's name has 1 to 100 characters.")
                .Must(section => section.Letter is [>= 'A' and <= 'Z'])
                .WithMessage((_, section) => $"{section.Name} needs a letter from A to Z.");
            RuleFor(request => request.Sections)
                .Must(sections => sections.DistinctBy(section => section.Name.Trim()).Count() == sections.Count)
                .WithMessage("Two sections of one term cannot have the same name.");
        }
    }
}
