using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Sections;
using Polycline.Data.Rosters;
using Polycline.Data.Sections;
using Polycline.Web.Calendar;

namespace Polycline.Web.Rosters;

/// <summary>Writes what came of comparing a roster with a term: a statement for each kind of thing, whatever its number.</summary>
internal static class RosterWriter
{
    /// <param name="letters">Those that the term's sections have.</param>
    /// <returns>What it wrote, by which it is taken back.</returns>
    public static async Task<WrittenByImport> Write(
        NpgsqlConnection connection,
        Id<Term> term,
        string source,
        RosterComparison compared,
        List<string> letters
    )
    {
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
}
