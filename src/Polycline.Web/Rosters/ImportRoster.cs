using System.Text.Json;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Data.Rosters;
using Polycline.Data.Terms;
using Polycline.Formats.Rosters;
using Polycline.Web.Calendar;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Rosters;

/// <param name="FileName">What the file is called.</param>
/// <param name="File">In base64, at most 15 MB: OneRoster CSV in a zip, or a table.</param>
/// <param name="Columns">What each column of a table is; null: as it seems to be.</param>
/// <param name="From">The first day of whoever the file gives no day, and of the lack of whoever it does not have.</param>
/// <param name="EndMissing">Whether places end that the file does not have.</param>
/// <param name="Fetch">Which fetched roster it is; null: it came as a file.</param>
public sealed record ImportRosterRequest(
    Id<Term> Term,
    string FileName,
    string File,
    IReadOnlyList<RosterColumn>? Columns,
    string From,
    bool EndMissing,
    long? Fetch = null
);

/// <param name="Import">By which it is taken back; null in a preview, and where nothing changed.</param>
/// <param name="Counts">How many lines there are of each outcome.</param>
/// <param name="Lines">Of each outcome at most the first 300.</param>
/// <param name="LeftOut">What is in the file and none of this school's business.</param>
public sealed record ImportRosterAnswer(
    bool Applied,
    long? Import,
    string Sentence,
    IReadOnlyList<OutcomeCount> Counts,
    IReadOnlyList<RosterLine> Lines,
    IReadOnlyList<string> LeftOut
) : IAnswer<ImportRosterAnswer>
{
    public ImportRosterAnswer AsPreview() => this with { Applied = false, Import = null };
}

public sealed record OutcomeCount(RosterOutcome Outcome, int Lines);

/// <summary>Takes in who is in which section, from a file. Looked at first, it says of each row what becomes of it.</summary>
public sealed class ImportRoster : IWorkCommand<ImportRosterRequest, Roster, ImportRosterAnswer>
{
    private const int MostLines = 300;

    public static string Name => "import-roster";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static long? LargestRequest => RosterFile.LargestRequest;

    public static IValidator<ImportRosterRequest> Validator { get; } = new Rules();

    public static Task<Roster> Prepare(Access access, PlanCache plans, ImportRosterRequest request) =>
        Task.FromResult(RosterFile.Read(RosterFile.Bytes(request.File), request.Columns));

    public static async Task<ImportRosterAnswer> Do(WorkContext work, Roster roster, ImportRosterRequest request)
    {
        var from = TermForm.DateOf(request.From, "from");
        await TermStore.Lock(work.Connection, request.Term);
        var plan = await TermStore.Read(work.Connection, request.Term) ?? throw Problem.Unknown("term");
        if (from < plan.Term.First || from > plan.Term.Last)
            throw Problem.Field(
                "from",
                $"{plan.Term.Name} runs from {Moment.InWords(plan.Term.First)} to {Moment.InWords(plan.Term.Last)}. Choose a day within it."
            );
        var compared = await RosterComparison.With(work.Connection, plan, roster, from, request.EndMissing);
        var written = await RosterWriter.Write(
            work.Connection,
            request.Term,
            roster.Source,
            compared,
            [.. plan.Sections.Select(section => section.Letter)]
        );
        if (roster.Source == RosterCsv.Source && request.Columns is { } columns)
            await RosterStore.RememberColumns(work.Connection, FindColumns.KeyOf(roster.Headings), FindColumns.Json(columns));
        var sentence = compared.Sentence();
        var isNothing = written.Touched.Count == 0 && compared.NewPeople.Count == 0 && compared.ChangedPeople.Count == 0;
        long? import = isNothing
            ? null
            : await RosterStore.Keep(
                work.Connection,
                request.Term,
                work.Access.Person.Id,
                work.Viewpoint.At,
                request.FileName.Trim(),
                sentence,
                JsonSerializer.Serialize(written)
            );
        if (request.Fetch is { } fetch)
            await RosterFetchStore.Answer(work.Connection, request.Term, fetch, "imported");
        if (import is not null)
            await work.Audit("roster-imported", new { import, sentence });
        return new(
            true,
            import,
            sentence,
            [
                .. Enum.GetValues<RosterOutcome>()
                    .Select(outcome => new OutcomeCount(outcome, compared.Lines.Count(line => line.Outcome == outcome))),
            ],
            [.. compared.Lines.GroupBy(line => line.Outcome).OrderBy(lines => lines.Key).SelectMany(lines => lines.Take(MostLines))],
            compared.OtherTerms == 0 ? roster.LeftOut : [.. roster.LeftOut, $"sections of other terms: {compared.OtherTerms}"]
        );
    }

    private sealed class Rules : AbstractValidator<ImportRosterRequest>
    {
        public Rules()
        {
            RuleFor(request => request.FileName)
                .Must(name => Bounds.IsVisible(name) && name.Length <= 200 && !name.Any(char.IsControl))
                .WithMessage("The file needs a name of at most 200 characters.");
            RuleFor(request => request.Columns)
                .Must(columns => columns is null || columns.Count <= 100)
                .WithMessage("A table has at most 100 columns.");
            RuleFor(request => request.Columns)
                .Must(columns =>
                    columns is null
                    || columns.Where(column => column != RosterColumn.Ignored).ToList() is var named
                        && named.Distinct().Count() == named.Count
                )
                .WithMessage("Two columns are said to be the same.");
        }
    }
}
