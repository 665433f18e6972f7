using System.Text.Json;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Sections;
using Polycline.Data.Terms;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline;

namespace Polycline.Web.Calendar;

/// <param name="Sections">1 to 200.</param>
public sealed record MakeSectionsRequest(Id<Term> Term, IReadOnlyList<SectionToMake> Sections);

/// <param name="Name">1 to 200 characters; no other section of the term has it.</param>
/// <param name="Subject">At most 120 characters; it may be empty.</param>
/// <param name="Year">The year or grade, at most 40 characters; it may be empty.</param>
/// <param name="Teachers">At most 20 people whose accounts are in use.</param>
/// <param name="Slots">When it meets, in the plan file's form: at most 60. None: that is said later.</param>
public sealed record SectionToMake(string Name, string Subject, string Year, IReadOnlyList<Id<Person>> Teachers, JsonElement Slots);

/// <param name="Sections">None in a preview.</param>
public sealed record MakeSectionsAnswer(bool Applied, string Sentence, IReadOnlyList<MadeSection> Sections) : IAnswer<MakeSectionsAnswer>
{
    public MakeSectionsAnswer AsPreview() => this with { Applied = false, Sections = [] };
}

public sealed record MadeSection(Id<Section> Section, string Name, string Letter);

/// <summary>Makes sections of a term, with their teachers and when they meet; their teachers let them follow a course.</summary>
public sealed class MakeSections : IWorkCommand<MakeSectionsRequest, MakeSectionsAnswer>
{
    private const int Most = 200;

    public static string Name => "make-sections";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static IValidator<MakeSectionsRequest> Validator { get; } = new Rules();

    public static async Task<MakeSectionsAnswer> Do(WorkContext work, MakeSectionsRequest request)
    {
        // Two at once would take one name, or one letter.
        await TermStore.Lock(work.Connection, request.Term);
        var plan = await TermStore.Read(work.Connection, request.Term) ?? throw Problem.Unknown("term");
        var there = plan
            .Sections.Where(section => !section.Pretend)
            .Select(section => section.Name)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        var letters = plan.Sections.Select(section => section.Letter).ToList();
        var made = new List<MadeSection>();
        for (var n = 0; n < request.Sections.Count; n++)
        {
            var asked = request.Sections[n];
            var name = asked.Name.Trim();
            if (!there.Add(name))
                throw Problem.Field($"sections[{n}].name", $"There is a section {name} in this term already. Choose another name.");
            if (!await SectionStore.AreInUse(work.Connection, asked.Teachers))
                throw Problem.Unknown($"sections[{n}].teachers");
            SlotForm.Read(asked.Slots, plan.Term, $"sections[{n}].slots");
            var letter = SectionLetters.Free(letters);
            letters.Add(letter);
            var section = await SectionStore.Add(
                work.Connection,
                request.Term,
                new(name, letter, asked.Subject.Trim(), asked.Year.Trim(), asked.Slots.GetRawText()),
                asked.Teachers
            );
            made.Add(new(section, name, letter));
        }
        await work.Audit("sections-made", new { sections = made.Select(section => section.Section.Value) });
        return new(true, $"{Counting.Counted(made.Count, "section is", "sections are")} added to {plan.Term.Name}", made);
    }

    private sealed class Rules : AbstractValidator<MakeSectionsRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Sections)
                .Must(sections => sections.Count is > 0 and <= Most)
                .WithMessage($"Add from 1 to {Most} sections at once.");
            RuleForEach(request => request.Sections)
                .ChildRules(section =>
                {
                    section.RuleFor(one => one.Name).IsTitle();
                    section.RuleFor(one => one.Subject).IsSubject();
                    section.RuleFor(one => one.Year).IsYear();
                    section
                        .RuleFor(one => one.Teachers)
                        .Must(teachers => teachers.Count <= 20 && teachers.Distinct().Count() == teachers.Count)
                        .WithMessage("A section has at most 20 teachers, each of them once.");
                    section.RuleFor(one => one.Slots).IsTimetable();
                });
        }
    }
}
