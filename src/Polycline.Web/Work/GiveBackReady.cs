using System.Text.Json;
using FluentValidation;
using NodaTime;
using NodaTime.Text;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Work;

/// <param name="Works">Pieces of the section that are ready, 1 to 200, each once.</param>
/// <param name="Wait">True: they do not go back, and wait to be read again.</param>
/// <param name="On">A moment at which they go back by themselves, such as <c>2026-10-09T08:00</c>; null: now.</param>
/// <param name="WithAll">True: each goes back by itself once everything of its item that waits in the section is ready.</param>
/// <param name="By">Whose mark counts, where two teachers left one each; null: there is only one, or both say the same.</param>
public sealed record GiveBackReadyRequest(
    IReadOnlyList<Id<PieceRow>> Works,
    bool Wait = false,
    string? On = null,
    bool WithAll = false,
    Id<Person>? By = null
);

/// <param name="Pieces">How many go back.</param>
public sealed record GivenBackReady(int Pieces, string Sentence) : IAnswer<GivenBackReady>
{
    public GivenBackReady AsPreview() => this;
}

/// <summary>Gives back together what is ready, as it was left. What was handed in again meanwhile is to be looked at first.</summary>
public sealed class GiveBackReady : IWorkCommand<GiveBackReadyRequest, EditionPlan, GivenBackReady>
{
    private const int Most = 200;
    private const int Named = 4;
    private const int MostDays = 366;
    private static readonly LocalDateTimePattern LocalMoment = LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm");

    public static string Name => "give-back-ready";

    public static May May => May.SectionTeacher;

    public static WorkPlace Place => WorkPlace.Section;

    public static IValidator<GiveBackReadyRequest> Validator { get; } = new Rules();

    public static Task<EditionPlan> Prepare(Access access, PlanCache plans, GiveBackReadyRequest request) => plans.Edition(access);

    public static async Task<GivenBackReady> Do(WorkContext work, EditionPlan plan, GiveBackReadyRequest request)
    {
        var known = (await ReadyStore.Of(work.Connection, work.Section)).ToLookup(row => row.Work);
        var ready = request
            .Works.Select((one, n) => known[one].Any() ? known[one].ToList() : throw Problem.Unknown($"works[{n}]"))
            .ToList();
        if (request.By is { } by && ready.Any(marks => marks.All(mark => mark.By != by)))
            throw Problem.Unknown("by");
        if (request.Wait)
        {
            foreach (var one in request.Works)
                await ReadyStore.End(work.Connection, work.Section, one);
            return new(0, $"{Counting.Counted(ready.Count, "piece waits", "pieces wait")} to be read again.");
        }
        if (request.On is not null || request.WithAll)
            return await Later(work, plan, request);
        var (given, later, disputed) = (0, new List<string>(), new List<string>());
        var opens = new List<(string What, string Name)>();
        foreach (var marks in ready)
        {
            if (TheOne(marks, request.By) is not { } row)
            {
                disputed.Add(marks[0].Name);
                continue;
            }
            switch (await Back(work, plan, row))
            {
                case (true, { } back):
                    opens.AddRange(back.Opens.Select(what => (what, row.Name)));
                    given++;
                    break;
                case (false, _):
                    later.Add(row.Name);
                    break;
            }
        }
        var sentences = new List<string>
        {
            $"{Counting.Counted(given, "piece goes back", "pieces go back")}{(opens.Count == 0 ? "; nothing opens" : "")}.",
        };
        sentences.AddRange(
            opens
                .GroupBy(one => one.What, one => one.Name)
                .Select(one =>
                    $"{one.Key} opens for {(one.Count() > Named ? $"{one.Count()} students" : Counting.Joined([.. one], "and"))}."
                )
        );
        if (later.Count > 0)
            sentences.Add(
                $"What {Counting.Joined(later, "and")} handed in, or how it is marked, has changed since; "
                    + $"look at {(later.Count == 1 ? "that piece" : "those pieces")} first."
            );
        if (disputed.Count > 0)
            sentences.Add(
                $"Two teachers marked the work of {Counting.Joined(disputed, "and")} differently; "
                    + $"open {(disputed.Count == 1 ? "it" : "each piece")} and choose which mark counts."
            );
        return new(given, string.Join(' ', sentences));
    }

    /// <summary>Which of several marks counts: the one by whoever is named, or any where all say the same.</summary>
    /// <returns>Null: it is still to be said.</returns>
    internal static ReadyRow? TheOne(IReadOnlyList<ReadyRow> marks, Id<Person>? by) =>
        by is not null ? marks.First(mark => mark.By == by)
        : marks.All(mark => mark.Words == marks[0].Words) ? marks[0]
        : null;

    /// <summary>Gives back a ready piece as it was left.</summary>
    /// <returns>
    /// Whether it is as it was left; and how it went, or null: it went back already, with another one that was handed in together with it.
    /// </returns>
    internal static async Task<(bool AsLeft, GiveBackAnswer? Back)> Back(WorkContext work, EditionPlan plan, ReadyRow row)
    {
        if (await WorkStore.Latest(work.Connection, work.Section, row.Work) is not { } latest || latest.N != row.N)
            return (false, null);
        if (latest.Returned)
            return (true, null);
        // Each has a key of its own: two pieces may be one student's.
        try
        {
            var piece = JsonSerializer.Deserialize<GiveBackRequest>(row.Request, Json.Options)!;
            return (true, await GiveBack.Do(work with { Key = Guid.NewGuid() }, plan, piece));
        }
        // Refused before anything is written: its rubric was changed since, or its item is there no longer.
        catch (ProblemException refused) when (refused.Field is "mark" or "work")
        {
            return (false, null);
        }
    }

    private static async Task<GivenBackReady> Later(WorkContext work, EditionPlan plan, GiveBackReadyRequest request)
    {
        if (request.On is not null && request.WithAll)
            throw Problem.Field("on", "Choose either a moment, or to wait for the others.");
        Instant? at = null;
        if (request.On is { } on)
        {
            at = LocalMoment.Parse(on) is { Success: true, Value: var local }
                ? plan.Term.Zone.AtLeniently(local).ToInstant()
                : throw Problem.Field("on", "Write a date and a time, such as 2026-10-09T08:00.");
            if (at <= work.Viewpoint.At)
                throw Problem.Field("on", "This moment has passed. Choose a later one, or give them back now.");
            if (at > work.Viewpoint.At + Duration.FromDays(MostDays))
                throw Problem.Field("on", $"Choose a moment within the next {MostDays} days.");
        }
        await ReadyStore.Later(work.Connection, request.Works, at, request.WithAll);
        var pieces = Counting.Counted(request.Works.Count, "piece goes back", "pieces go back");
        return new(
            0,
            at is { } moment
                ? $"{pieces} by {(request.Works.Count == 1 ? "itself" : "themselves")} on {Moment.Of(moment, plan.Term.Zone).Words}. "
                    + "What opens by it opens then."
                : $"{pieces} by {(request.Works.Count == 1 ? "itself" : "themselves")} once every piece of that item waiting in this "
                    + "section is ready. What opens by it opens then."
        );
    }

    private sealed class Rules : AbstractValidator<GiveBackReadyRequest>
    {
        public Rules() =>
            RuleFor(request => request.Works)
                .Must(works => works is { Count: >= 1 and <= Most })
                .WithMessage($"Choose 1 to {Most} pieces.")
                .Must(works => works is null || works.Distinct().Count() == works.Count)
                .WithMessage("The same piece is listed twice.");
    }
}
