using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Rosters;
using Polycline.Data.Terms;
using Polycline.Formats.Rosters;

namespace Polycline.Web.Rosters;

/// <summary>What an import would write, and what is to be said of each row. Nothing in it refers to the database.</summary>
public sealed partial class RosterComparison
{
    private readonly Dictionary<string, Id<Person>> people = [];
    private readonly Dictionary<string, string> names = [];
    private readonly Dictionary<string, RosterSectionRow?> sections = [];
    private readonly HashSet<string> unusable = [];
    private readonly HashSet<Id<Person>> doubted = [];
    private readonly Term term;
    private readonly LocalDate from;

    private RosterComparison(Term term, LocalDate from) => (this.term, this.from) = (term, from);

    public List<RosterLine> Lines { get; } = [];

    public List<RosterPerson> NewPeople { get; } = [];

    /// <summary>With the name and address that they had.</summary>
    public List<(RosterPersonRow Was, string Name, string Email)> ChangedPeople { get; } = [];

    public List<Id<Person>> NewTeachers { get; } = [];

    public List<(string Key, long Person)> PersonKeys { get; } = [];

    public List<RosterSection> NewSections { get; } = [];

    public List<(string Key, long Section)> SectionKeys { get; } = [];

    /// <summary>By the file's keys.</summary>
    public List<(string Section, string Person, LocalDate From, LocalDate? To)> NewPlaces { get; } = [];

    /// <summary>By the file's keys.</summary>
    public List<(string Section, string Person)> NewTeachings { get; } = [];

    public List<(PlaceRow Was, LocalDate To)> Ends { get; } = [];

    /// <summary>Places that would end before they begin.</summary>
    public List<PlaceRow> Removed { get; } = [];

    /// <summary>Sections that belong to another term.</summary>
    public int OtherTerms { get; private set; }

    /// <summary>Those who were here before, by the file's keys.</summary>
    public IReadOnlyDictionary<string, Id<Person>> Known => people;

    /// <summary>What the sentence says where nothing changes.</summary>
    public const string Nothing = "Nothing changes";

    /// <summary>Reads what is here, and compares a roster with it.</summary>
    public static async Task<RosterComparison> With(
        NpgsqlConnection connection,
        TermPlan plan,
        Roster roster,
        LocalDate from,
        bool endMissing
    )
    {
        var now = await RosterStore.Read(
            connection,
            plan.Id,
            roster.Source,
            [.. roster.People.Select(person => person.Key)],
            [.. roster.People.Select(person => person.Email)]
        );
        return Of(roster, now, plan.Term, from, endMissing);
    }

    /// <summary>Compares a roster with a term.</summary>
    /// <param name="from">The first day of whoever the file gives no day, and the day before which whoever it lacks ends.</param>
    /// <param name="endMissing">Whether places end that the file does not have.</param>
    public static RosterComparison Of(Roster roster, RosterNow now, Term term, LocalDate from, bool endMissing)
    {
        var compared = new RosterComparison(term, from);
        foreach (var fault in roster.Faults)
            compared.Say(
                RosterOutcome.Fault,
                fault.Row,
                fault.Column.Length > 0 ? $"{fault.Column}: {fault.Reason}" : fault.Reason,
                "This row is left out."
            );
        compared.People(roster, now);
        compared.Sections(roster, now);
        compared.Places(roster, now);
        compared.Missing(roster, now, endMissing);
        return compared;
    }

    /// <summary>The section that a key of the file stands for; null: one that is new.</summary>
    public RosterSectionRow? SectionOf(string key) => sections[key];

    private void People(Roster roster, RosterNow now)
    {
        var byKey = now.People.Where(person => person.Key is not null).ToLookup(person => person.Key!);
        var byEmail = now.People.ToLookup(person => person.Email, StringComparer.OrdinalIgnoreCase);
        foreach (var person in roster.People)
        {
            names[person.Key] = person.Name;
            var ofAddress = byEmail[person.Email].FirstOrDefault();
            var known = byKey[person.Key].FirstOrDefault() ?? ofAddress;
            if (known is null)
            {
                NewPeople.Add(person);
                Say(RosterOutcome.New, person.Row, $"{person.Name} is added", person.Email);
                continue;
            }
            if (known.Removed)
                Refuse(person, known, $"The account of {known.Name} is deactivated. Reactivate it in People first.");
            else if (known.Key is { } key && key != person.Key)
                Refuse(person, known, $"{person.Email} is the address of {known.Name}, whom earlier files called {key}.");
            else
                Keep(person, known, ofAddress);
        }
    }

    private void Refuse(RosterPerson person, RosterPersonRow known, string reason)
    {
        unusable.Add(person.Key);
        doubted.Add(known.Person);
        Say(RosterOutcome.Conflict, person.Row, person.Name, reason);
    }

    private void Keep(RosterPerson person, RosterPersonRow known, RosterPersonRow? ofAddress)
    {
        people[person.Key] = known.Person;
        if (known.Key is null)
            PersonKeys.Add((person.Key, known.Person.Value));
        if (person.Teacher && !known.Teacher)
            NewTeachers.Add(known.Person);
        var taken = ofAddress is not null && ofAddress.Person != known.Person;
        if (taken)
            Say(
                RosterOutcome.Conflict,
                person.Row,
                known.Name,
                $"{person.Email} is the address of {ofAddress!.Name} here: {known.Name} keeps {known.Email}."
            );
        // Whom a source has named before is called as it says by now; others keep the name they have here.
        if (known.Key is null)
        {
            if (known.Name != person.Name)
                Say(RosterOutcome.Same, person.Row, known.Name, $"the file says {person.Name}");
            return;
        }
        var email = taken ? known.Email : person.Email;
        if (known.Name == person.Name && known.Email.Equals(email, StringComparison.OrdinalIgnoreCase))
            return;
        ChangedPeople.Add((known, person.Name, email));
        Say(
            RosterOutcome.Changed,
            person.Row,
            known.Name == person.Name ? $"{known.Name} has a new address" : $"{known.Name} is now {person.Name}",
            known.Email.Equals(email, StringComparison.OrdinalIgnoreCase) ? "" : $"{email} instead of {known.Email}"
        );
    }

    private void Sections(Roster roster, RosterNow now)
    {
        var byKey = now.Sections.Where(section => section.Key is not null).ToLookup(section => section.Key!);
        var byName = now.Sections.ToLookup(section => section.Name, StringComparer.OrdinalIgnoreCase);
        var added = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        foreach (var section in roster.Sections)
        {
            if (section.To < term.First || section.From > term.Last)
            {
                OtherTerms++;
                continue;
            }
            var named = byName[section.Name].FirstOrDefault();
            var known = byKey[section.Key].FirstOrDefault() ?? (named is { Key: null } ? named : null);
            if (known is not null)
            {
                sections[section.Key] = known;
                if (known.Key is null)
                    SectionKeys.Add((section.Key, known.Section.Value));
                else if (known.Name != section.Name)
                    Say(
                        RosterOutcome.Conflict,
                        section.Row,
                        known.Name,
                        $"The file calls it {section.Name}. If that is right, rename it in the calendar."
                    );
            }
            else if (named is not null || !added.Add(section.Name))
                Say(
                    RosterOutcome.Conflict,
                    section.Row,
                    section.Name,
                    "Another section in this term has this name, so the people in this one are left out."
                );
            else
            {
                sections[section.Key] = null;
                NewSections.Add(section);
                Say(RosterOutcome.New, section.Row, $"Section {section.Name} is added", section.Subject);
            }
        }
    }

    private string NameOf(string section) => sections[section]?.Name ?? NewSections.First(one => one.Key == section).Name;

    private void Say(RosterOutcome outcome, RosterRow row, string words, string reason) =>
        Lines.Add(new(outcome, row.File, row.Number, words, reason));

    /// <summary>What comes of it, in a sentence.</summary>
    public string Sentence()
    {
        var parts = new List<string>();
        void Part(int n, string one, string many)
        {
            if (n > 0)
                parts.Add(Counting.Counted(n, one, many));
        }
        Part(NewPeople.Count, "account is added", "accounts are added");
        Part(ChangedPeople.Count, "person changes name or address", "people change name or address");
        Part(NewSections.Count, "section is added", "sections are added");
        Part(NewPlaces.Count, "enrolment is added", "enrolments are added");
        Part(NewTeachings.Count, "section gets a teacher", "sections get a teacher");
        Part(Ends.Count + Removed.Count, "enrolment ends", "enrolments end");
        return parts.Count == 0 ? Nothing : Counting.Joined(parts, "and");
    }
}
