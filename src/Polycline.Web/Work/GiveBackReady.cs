using System.Text.Json;
using FluentValidation;
using Polycline.Core;
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
public sealed record GiveBackReadyRequest(IReadOnlyList<Id<PieceRow>> Works, bool Wait = false);

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

    public static string Name => "give-back-ready";

    public static May May => May.SectionTeacher;

    public static WorkPlace Place => WorkPlace.Section;

    public static IValidator<GiveBackReadyRequest> Validator { get; } = new Rules();

    public static Task<EditionPlan> Prepare(Access access, PlanCache plans, GiveBackReadyRequest request) => plans.Edition(access);

    public static async Task<GivenBackReady> Do(WorkContext work, EditionPlan plan, GiveBackReadyRequest request)
    {
        var known = (await ReadyStore.Of(work.Connection, work.Section)).ToDictionary(row => row.Work);
        var ready = request.Works.Select((one, n) => known.GetValueOrDefault(one) ?? throw Problem.Unknown($"works[{n}]")).ToList();
        if (request.Wait)
        {
            foreach (var row in ready)
                await ReadyStore.End(work.Connection, work.Section, row.Work);
            return new(0, $"{Counting.Counted(ready.Count, "piece waits", "pieces wait")} to be read again.");
        }
        var (given, later) = (0, new List<string>());
        var opens = new List<(string What, string Name)>();
        foreach (var row in ready)
        {
            var piece = JsonSerializer.Deserialize<GiveBackRequest>(row.Request, Json.Options)!;
            if (await WorkStore.Latest(work.Connection, work.Section, row.Work) is not { } latest || latest.N != row.N)
            {
                later.Add(row.Name);
                continue;
            }
            // It went back with another one that was handed in together with it.
            if (latest.Returned)
                continue;
            // Each has a key of its own: two pieces may be one student's.
            try
            {
                var back = await GiveBack.Do(work with { Key = Guid.NewGuid() }, plan, piece);
                opens.AddRange(back.Opens.Select(what => (what, row.Name)));
                given++;
            }
            // Refused before anything is written: its rubric was changed since, or its item is there no longer.
            catch (ProblemException refused) when (refused.Field is "mark" or "work")
            {
                later.Add(row.Name);
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
        return new(given, string.Join(' ', sentences));
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
