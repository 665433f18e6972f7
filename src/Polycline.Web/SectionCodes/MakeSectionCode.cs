using FluentValidation;
using NodaTime.Text;
using Polycline.Core;
using Polycline.Data.SectionCodes;
using Polycline.Data.Sections;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.SectionCodes;

/// <param name="Until">The last day on which it can be used: from today to the last day of the term.</param>
/// <param name="Most">How many people can use it: 1 to 500.</param>
/// <param name="Approve">Those who use it wait for a teacher to let them in.</param>
public sealed record MakeSectionCodeRequest(string Until, int Most, bool Approve);

/// <param name="SectionCode">Such as <c>KTRW-9MPA</c>; null in a preview.</param>
public sealed record MadeCodeAnswer(bool Applied, string? SectionCode) : IAnswer<MadeCodeAnswer>
{
    public MadeCodeAnswer AsPreview() => new(false, null);
}

/// <summary>Makes a code by which people join the section.</summary>
public sealed class MakeSectionCode : IWorkCommand<MakeSectionCodeRequest, MadeCodeAnswer>
{
    private const int MostCodes = 20;

    public static string Name => "make-section-code";

    public static May May => May.SectionTeacher;

    public static WorkPlace Place => WorkPlace.Section;

    public static IValidator<MakeSectionCodeRequest> Validator { get; } = new Rules();

    public static async Task<MadeCodeAnswer> Do(WorkContext work, MakeSectionCodeRequest request)
    {
        // Nobody is ever in a section that is made up.
        if (await SectionStore.Read(work.Connection, work.Section) is not { Pretend: false })
            throw Problem.Unknown();
        var term =
            work.Access.Term is { } id && await Data.Terms.TermStore.Read(work.Connection, id) is { } known
                ? known.Term
                : throw Problem.Unknown();
        if (LocalDatePattern.Iso.Parse(request.Until) is not { Success: true, Value: var until })
            throw Problem.Field("until", "That is not a date. Write one such as 2026-10-12.");
        if (until < work.Viewpoint.Now.InZone(term.Zone).Date || until > term.Last)
            throw Problem.Field("until", "Choose a day from today to the end of the term.");
        if ((await SectionCodeStore.Of(work.Connection, work.Section)).Count >= MostCodes)
            throw Problem.Field("until", $"A section has at most {MostCodes} codes. Withdraw one first.");
        var code = CodeLetters.New();
        await SectionCodeStore.Add(
            work.Connection,
            work.Section,
            code,
            (until, request.Most, request.Approve),
            work.Access.Person.Id,
            work.Viewpoint.At
        );
        await work.Audit("section-code-made", new { section = work.Section.Value });
        return new(true, CodeLetters.Shown(code));
    }

    private sealed class Rules : AbstractValidator<MakeSectionCodeRequest>
    {
        public Rules() => RuleFor(request => request.Most).InclusiveBetween(1, 500).WithMessage("A code lets in from 1 to 500 people.");
    }
}

public sealed record WithdrawSectionCodeRequest(Id<SectionCodeRow> Code);

/// <summary>Withdraws a code: nobody joins by it any more. Whoever is in, or waits, stays so.</summary>
public sealed class WithdrawSectionCode : IWorkCommand<WithdrawSectionCodeRequest, DoneAnswer>
{
    public static string Name => "withdraw-section-code";

    public static May May => May.SectionTeacher;

    public static WorkPlace Place => WorkPlace.Section;

    public static async Task<DoneAnswer> Do(WorkContext work, WithdrawSectionCodeRequest request)
    {
        if (!await SectionCodeStore.Withdraw(work.Connection, work.Section, request.Code, work.Viewpoint.At))
            throw Problem.Unknown("code");
        await work.Audit("section-code-withdrawn", new { section = work.Section.Value });
        return new();
    }
}

/// <param name="Waiting">1 to 500, each once.</param>
/// <param name="LetIn">False: they are turned away.</param>
public sealed record AnswerJoinsRequest(IReadOnlyList<Id<WaitingRow>> Waiting, bool LetIn);

/// <param name="Sentence">What was done, such as <c>2 people are in 9 Birch from today</c>.</param>
public sealed record AnsweredJoins(bool Applied, string Sentence) : IAnswer<AnsweredJoins>
{
    public AnsweredJoins AsPreview() => this with { Applied = false };
}

/// <summary>Lets people in who wait at a section, from today, or turns them away.</summary>
public sealed class AnswerJoins : IWorkCommand<AnswerJoinsRequest, AnsweredJoins>
{
    public static string Name => "answer-joins";

    public static May May => May.SectionTeacher;

    public static WorkPlace Place => WorkPlace.Section;

    public static IValidator<AnswerJoinsRequest> Validator { get; } = new Rules();

    public static async Task<AnsweredJoins> Do(WorkContext work, AnswerJoinsRequest request)
    {
        var section = await SectionStore.Read(work.Connection, work.Section) ?? throw Problem.Unknown();
        var now = work.Viewpoint.At;
        var people = await SectionCodeStore.Answer(
            work.Connection,
            work.Section,
            request.Waiting,
            request.LetIn ? "in" : "refused",
            work.Access.Person.Id,
            now
        );
        if (people.Count == 0)
            throw Problem.Unknown("waiting");
        if (request.LetIn)
            await JoinByCode.PlaceThem(work.Connection, work.Section, people, now.InZone(work.Access.Zone).Date);
        await work.Audit(
            "joins-answered",
            new
            {
                section = work.Section.Value,
                people = people.Count,
                request.LetIn,
            }
        );
        var who = Core.Wording.Counting.Counted(people.Count, "person", "people");
        return new(
            true,
            request.LetIn
                ? $"{who} {(people.Count == 1 ? "is" : "are")} in {section.Name} from today"
                : $"{who} {(people.Count == 1 ? "was" : "were")} turned away"
        );
    }

    private sealed class Rules : AbstractValidator<AnswerJoinsRequest>
    {
        public Rules() =>
            RuleFor(request => request.Waiting)
                .Must(waiting => waiting.Count is > 0 and <= 500 && waiting.Distinct().Count() == waiting.Count)
                .WithMessage("Choose from 1 to 500 people, each once.");
    }
}
