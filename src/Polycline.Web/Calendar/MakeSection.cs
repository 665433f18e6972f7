using FluentValidation;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Sections;
using Polycline.Data.Sections;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline;

namespace Polycline.Web.Calendar;

/// <param name="Term">The term in which it meets.</param>
/// <param name="Name">1 to 200 characters; no other section of the term has it.</param>
/// <param name="Teachers">Who teaches it: at most 20, each once.</param>
public sealed record MakeSectionRequest(Id<Term> Term, string Name, IReadOnlyList<Id<Person>> Teachers);

/// <param name="Section">The new one; null in a preview.</param>
/// <param name="Letter">What its line is marked with.</param>
public sealed record MakeSectionAnswer(bool Applied, Id<Section>? Section, string Letter) : IAnswer<MakeSectionAnswer>
{
    public MakeSectionAnswer AsPreview() => this with { Applied = false, Section = null };
}

/// <summary>Makes a section of a term, with its teachers; they let it follow a course, and say when it meets.</summary>
public sealed class MakeSection : IWorkCommand<MakeSectionRequest, MakeSectionAnswer>
{
    public static string Name => "make-section";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static IValidator<MakeSectionRequest> Validator { get; } = new Rules();

    public static async Task<MakeSectionAnswer> Do(WorkContext work, MakeSectionRequest request)
    {
        // Two at once would take one name, or one letter.
        await TermStore.Lock(work.Connection, request.Term);
        if (await TermStore.Read(work.Connection, request.Term) is null)
            throw Problem.Unknown("term");
        var name = request.Name.Trim();
        var there = await SectionStore.NamesIn(work.Connection, request.Term);
        if (there.Any(section => section.Name == name))
            throw Problem.Field("name", $"There is a section {name} in this term already. Choose another name.");
        if (!await SectionStore.AreInUse(work.Connection, request.Teachers))
            throw Problem.Unknown("teachers");
        var letter = FreeLetter([.. there.Select(section => section.Letter)]);
        var made = await SectionStore.Add(work.Connection, request.Term, name, letter, request.Teachers);
        await work.Audit("section-made", new { section = made.Value });
        return new(true, made, letter);
    }

    // The first that no section of the term has; with more than 26 they come round again.
    private static string FreeLetter(IReadOnlyCollection<string> taken) =>
        Enumerable.Range('A', 26).Select(letter => $"{(char)letter}").MinBy(letter => taken.Count(other => other == letter))!;

    private sealed class Rules : AbstractValidator<MakeSectionRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Name).IsTitle();
            RuleFor(request => request.Teachers)
                .Must(teachers => teachers.Count <= 20 && teachers.Distinct().Count() == teachers.Count)
                .WithMessage("A section has at most 20 teachers, each of them once.");
        }
    }
}
