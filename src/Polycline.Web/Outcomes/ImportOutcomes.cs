using FluentValidation;
using Polycline.Core.Wording;
using Polycline.Data.Outcomes;
using Polycline.Formats;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outcomes;

/// <param name="Text">The whole of the file, up to 1,000,000 characters.</param>
public sealed record ImportOutcomesRequest(string Text);

/// <param name="Applied">False: this was only a preview.</param>
/// <param name="Sentence">What comes of it, and what it does to courses.</param>
public sealed record ImportedAnswer(bool Applied, int Added, int Changed, int Removed, string Sentence) : IAnswer<ImportedAnswer>
{
    public ImportedAnswer AsPreview() => this with { Applied = false };
}

/// <summary>Imports the school's outcomes from a file: from now on these are the list. It can be undone.</summary>
public sealed class ImportOutcomes : IWorkCommand<ImportOutcomesRequest, IReadOnlyList<OutcomeLine>, ImportedAnswer>
{
    private const int Longest = 1_000_000;

    public static string Name => "import-outcomes";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static long? LargestRequest => 4_200_000;

    public static IValidator<ImportOutcomesRequest> Validator { get; } = new Rules();

    public static Task<IReadOnlyList<OutcomeLine>> Prepare(Access access, PlanCache plans, ImportOutcomesRequest request)
    {
        try
        {
            return Task.FromResult(OutcomesFile.Read(request.Text));
        }
        catch (OutcomesFileException fault)
        {
            throw Problem.Field("text", fault.Message);
        }
    }

    public static async Task<ImportedAnswer> Do(WorkContext work, IReadOnlyList<OutcomeLine> lines, ImportOutcomesRequest request)
    {
        await OutcomeStore.Lock(work.Connection);
        var before = (await OutcomeStore.All(work.Connection))
            .Where(outcome => !outcome.Removed)
            .ToDictionary(outcome => outcome.Code, StringComparer.Ordinal);
        var added = lines.Count(line => !before.ContainsKey(line.Code));
        var changed = lines.Count(line =>
            before.GetValueOrDefault(line.Code) is { } was && (was.Words, was.Subject) != (line.Words, line.Subject)
        );
        var gone = before.Keys.Except(lines.Select(line => line.Code)).ToList();
        var uses = await OutcomeStore.Uses(work.Connection);
        var tied = gone.Where(uses.ContainsKey).Sum(code => uses[code]);
        await OutcomeStore.Replace(
            work.Connection,
            [.. lines.Select(line => (line.Code, line.Words, line.Subject))],
            work.Access.Person.Id,
            work.Viewpoint.At
        );
        await work.Audit(
            Name,
            new
            {
                added,
                changed,
                removed = gone.Count,
            }
        );
        return new(true, added, changed, gone.Count, Sentence(lines.Count, added, changed, gone.Count, tied));
    }

    private static string Sentence(int all, int added, int changed, int removed, int tied)
    {
        var parts = new List<string>();
        if (added > 0)
            parts.Add($"{added} new");
        if (changed > 0)
            parts.Add($"{changed} reworded");
        if (removed > 0)
            parts.Add($"{removed} removed");
        var list = Counting.Counted(all, "outcome", "outcomes");
        var what = parts.Count == 0 ? "the list stays as it is" : Counting.Joined(parts, "and");
        var ties = Counting.Counted(tied, "item still has", "items still have");
        return tied == 0
            ? $"{list}: {what}."
            : $"{list}: {what}. {ties} outcomes that are removed, and will keep them until somebody chooses others.";
    }

    private sealed class Rules : AbstractValidator<ImportOutcomesRequest>
    {
        public Rules() =>
            RuleFor(request => request.Text)
                .NotEmpty()
                .WithMessage("The file is empty. Choose one that lists the outcomes.")
                .MaximumLength(Longest)
                .WithMessage($"The file is too long: {Longest:N0} characters at most.");
    }
}
