using NodaTime;
using Polycline.Data.Rosters;
using Polycline.Formats.Rosters;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Rosters;

// Who is in which section, and who teaches it.
public sealed partial class RosterComparison
{
    private void Places(Roster roster, RosterNow now)
    {
        var here = now.Places.ToLookup(place => (place.Section, place.Person));
        foreach (var place in roster.Places)
        {
            if (unusable.Contains(place.Person) || !sections.TryGetValue(place.Section, out var section))
                continue;
            if (place.Teacher)
                Teach(place, section);
            else
                Enrol(
                    place,
                    section,
                    section is not null && people.TryGetValue(place.Person, out var person) ? [.. here[(section.Section, person)]] : []
                );
        }
    }

    private void Teach(RosterPlace place, RosterSectionRow? section)
    {
        if (section is not null && people.TryGetValue(place.Person, out var person) && section.Teachers.Contains(person))
            return;
        NewTeachings.Add((place.Section, place.Person));
        Say(RosterOutcome.New, place.Row, $"{names[place.Person]} teaches {NameOf(place.Section)}", "");
    }

    private void Enrol(RosterPlace place, RosterSectionRow? section, IReadOnlyList<PlaceRow> here)
    {
        var who = $"{names[place.Person]} in {NameOf(place.Section)}";
        var current = here.FirstOrDefault(one => one.To is null || one.To >= from);
        if (current is null)
        {
            var last = here.Select(one => one.To).Max();
            var begins = LocalDate.Max(term.First, place.From ?? from);
            if (last is { } ended && begins <= ended)
                begins = LocalDate.Max(from, ended.PlusDays(1));
            if (place.To < begins)
            {
                Say(RosterOutcome.Same, place.Row, who, "It was over by then.");
                return;
            }
            if (section?.EndedOn is { } over && over < begins)
            {
                Say(RosterOutcome.Conflict, place.Row, who, $"{section.Name} ended on {Moment.InWords(over)}, so nobody is added to it.");
                return;
            }
            NewPlaces.Add((place.Section, place.Person, begins, place.To));
            Say(
                RosterOutcome.New,
                place.Row,
                $"{names[place.Person]} {(here.Count > 0 ? "joins" : "is in")} {NameOf(place.Section)}{(here.Count > 0 ? " again" : "")}",
                $"from {Moment.InWords(begins)}{(place.To is { } to ? $" to {Moment.InWords(to)}" : "")}"
            );
            return;
        }
        var since = current.From ?? term.First;
        if (place.From is { } first && LocalDate.Max(first, term.First) != LocalDate.Max(since, term.First))
            Say(
                RosterOutcome.Conflict,
                place.Row,
                who,
                $"The first day is {Moment.InWords(first)} in the file and {Moment.InWords(since)} here; it stays as it is here."
            );
        if (place.To is not { } until || until == current.To)
            return;
        if (current.To is { } ends && ends < until)
            Say(
                RosterOutcome.Conflict,
                place.Row,
                who,
                $"The last day is {Moment.InWords(until)} in the file and {Moment.InWords(ends)} here; it stays as it is here."
            );
        else if (until < current.From)
            Say(RosterOutcome.Conflict, place.Row, who, "In the file it ends before it begins here; it stays as it is here.");
        else
        {
            Ends.Add((current, until));
            Say(RosterOutcome.Ending, place.Row, who, $"The last day is {Moment.InWords(until)}.");
        }
    }

    private void Missing(Roster roster, RosterNow now, bool endMissing)
    {
        var inFile = roster
            .Places.Where(place =>
                !place.Teacher && people.ContainsKey(place.Person) && sections.GetValueOrDefault(place.Section) is not null
            )
            .Select(place => (sections[place.Section]!.Section, people[place.Person]))
            .ToHashSet();
        var meant = sections.Values.OfType<RosterSectionRow>().ToDictionary(section => section.Section);
        // Whoever stands in a row that cannot be read is not missing.
        var ends = endMissing && roster.Faults.IsEmpty;
        foreach (var place in now.Places)
        {
            if (
                !meant.TryGetValue(place.Section, out var section)
                || (place.To is { } to && to < from)
                || inFile.Contains((place.Section, place.Person))
                || doubted.Contains(place.Person)
            )
                continue;
            Lines.Add(
                new(
                    RosterOutcome.Missing,
                    "",
                    0,
                    $"{place.Name} in {section.Name}",
                    ends ? $"The last day is {Moment.InWords(from.PlusDays(-1))}."
                        : endMissing ? "Nobody’s enrolment is ended while rows of the file cannot be read."
                        : "Not in the file: left as it is."
                )
            );
            if (!ends)
                continue;
            if (place.From >= from)
                Removed.Add(place);
            else
                Ends.Add((place, from.PlusDays(-1)));
        }
    }
}
