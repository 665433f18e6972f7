using System.Text.Json;
using FluentValidation;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Sections;
using Polycline.Data.Rosters;
using Polycline.Data.Sections;
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
public sealed record ImportRosterRequest(
    Id<Term> Term,
    string FileName,
    string File,
    IReadOnlyList<RosterColumn>? Columns,
    string From,
    bool EndMissing
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

/// <summary>What an import wrote.</summary>
/// <param name="Ends">Places that ended, with the last day they had.</param>
/// <param name="Removed">Places that were taken away.</param>
/// <param name="Renamed">People, with the name and address they had.</param>
public sealed record WrittenByImport(
    string Source,
    IReadOnlyList<WrittenSection> Sections,
    IReadOnlyList<long> Places,
    IReadOnlyList<WrittenEnd> Ends,
    IReadOnlyList<WrittenPlace> Removed,
    IReadOnlyList<WrittenName> Renamed,
    IReadOnlyList<WrittenTeaching> Teachings,
    IReadOnlyList<long> Touched
);

public sealed record WrittenSection(long Section, string Key);

public sealed record WrittenEnd(long Place, string? To);

public sealed record WrittenPlace(long Section, long Person, string From, string? To);

public sealed record WrittenName(long Person, string Name, string Email);

public sealed record WrittenTeaching(long Section, long Person);

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
        var now = await RosterStore.Read(
            work.Connection,
            request.Term,
            roster.Source,
            [.. roster.People.Select(person => person.Key)],
            [.. roster.People.Select(person => person.Email)]
        );
        var compared = RosterComparison.Of(roster, now, plan.Term, from, request.EndMissing);
        var written = await Write(work, request.Term, roster.Source, compared, [.. now.Sections.Select(section => section.Letter)]);
        if (roster.Source == RosterCsv.Source && request.Columns is { } columns)
            await RosterStore.RememberColumns(
                work.Connection,
                FindColumns.KeyOf(RosterFile.Headings(RosterFile.Bytes(request.File)).Headings),
                FindColumns.Json(columns)
            );
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

    private static async Task<WrittenByImport> Write(
        WorkContext work,
        Id<Term> term,
        string source,
        RosterComparison compared,
        List<string> letters
    )
    {
        var connection = work.Connection;
        var added = await RosterStore.AddPeople(
            connection,
            [.. compared.NewPeople.Select(person => (person.Name, person.Email, person.Teacher))]
        );
        var people = compared.Known.ToDictionary(known => known.Key, known => known.Value);
        foreach (var (person, id) in compared.NewPeople.Zip(added))
            people.Add(person.Key, id);
        await RosterStore.ChangePeople(connection, [.. compared.ChangedPeople.Select(one => (one.Was.Person, one.Name, one.Email))]);
        await RosterStore.MakeTeachers(connection, compared.NewTeachers);
        await RosterStore.Name(
            connection,
            source,
            "person",
            [.. compared.PersonKeys, .. compared.NewPeople.Zip(added).Select(one => (one.First.Key, one.Second.Value))]
        );

        var sections = new Dictionary<string, Id<Section>>();
        foreach (var section in compared.NewSections)
        {
            var letter = SectionLetters.Free(letters);
            letters.Add(letter);
            sections.Add(
                section.Key,
                await SectionStore.Add(connection, term, new(section.Name, letter, section.Subject, section.Year, "[]"), [])
            );
        }
        await RosterStore.Name(
            connection,
            source,
            "section",
            [.. compared.SectionKeys, .. sections.Select(section => (section.Key, section.Value.Value))]
        );
        Id<Section> SectionOf(string key) => sections.TryGetValue(key, out var made) ? made : compared.SectionOf(key)!.Section;

        var teachings = compared.NewTeachings.Select(one => (Section: SectionOf(one.Section), Person: people[one.Person])).ToList();
        await RosterStore.AddTeachers(connection, teachings);
        var places = await RosterStore.AddPlaces(
            connection,
            [.. compared.NewPlaces.Select(place => (SectionOf(place.Section), people[place.Person], place.From, place.To))]
        );
        await RosterStore.EndPlaces(connection, [.. compared.Ends.Select(end => (end.Was.Place, (LocalDate?)end.To))]);
        var removed = (await RosterStore.RemovePlaces(connection, [.. compared.Removed.Select(place => place.Place)])).ToHashSet();
        List<Id<Section>> touched =
        [
            .. compared.NewPlaces.Select(place => SectionOf(place.Section)),
            .. compared.Ends.Select(end => end.Was.Section),
            .. compared.Removed.Select(place => place.Section),
            .. teachings.Select(one => one.Section),
            .. sections.Values,
        ];
        touched = [.. touched.Distinct()];
        await RosterStore.Tell(connection, touched);
        return new(
            source,
            [.. sections.Select(section => new WrittenSection(section.Value.Value, section.Key))],
            places,
            [.. compared.Ends.Select(end => new WrittenEnd(end.Was.Place, Iso(end.Was.To)))],
            [
                .. compared
                    .Removed.Where(place => removed.Contains(place.Place))
                    .Select(place => new WrittenPlace(place.Section.Value, place.Person.Value, Iso(place.From)!, Iso(place.To))),
            ],
            [.. compared.ChangedPeople.Select(one => new WrittenName(one.Was.Person.Value, one.Was.Name, one.Was.Email))],
            [.. teachings.Select(one => new WrittenTeaching(one.Section.Value, one.Person.Value))],
            [.. touched.Select(section => section.Value)]
        );
    }

    private static string? Iso(LocalDate? date) => date is { } day ? NodaTime.Text.LocalDatePattern.Iso.Format(day) : null;

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
