using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using NodaTime;

namespace Polycline.Formats.Rosters;

/// <summary>Gathers a roster row by row: what is at fault is noted, and the good rows go on.</summary>
internal sealed class RosterBuilder
{
    private const int MostFaults = 1_000;
    private const int LongestName = 200;

    private readonly Dictionary<string, RosterPerson> people = [];
    private readonly Dictionary<string, string> byEmail = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, RosterSection> sections = [];
    private readonly Dictionary<(string Person, string Section, bool Teacher), RosterPlace> places = [];
    private readonly List<RosterFault> faults = [];
    private readonly Dictionary<string, int> leftOut = [];

    public bool Knows(string person) => people.ContainsKey(person);

    public bool KnowsSection(string section) => sections.ContainsKey(section);

    public void Fault(RosterRow row, string column, string reason)
    {
        if (faults.Count < MostFaults)
            faults.Add(new(row, column, reason));
    }

    /// <summary>Counts something that is not taken in.</summary>
    public void LeaveOut(string what) => leftOut[what] = leftOut.GetValueOrDefault(what) + 1;

    /// <param name="mail">The heading under which the mail address stands.</param>
    /// <returns>Whether it was taken.</returns>
    public bool Add(RosterPerson person, string mail, string name)
    {
        if (person.Key.Length is 0 or > LongestName)
            Fault(person.Row, "", "The number or key of the person is missing, or is longer than 200 characters.");
        else if (!IsName(person.Name))
            Fault(person.Row, name, "There is no name, or it is longer than 200 characters.");
        else if (!IsMailAddress(person.Email))
            Fault(person.Row, mail, person.Email.Length == 0 ? "There is no mail address." : $"“{person.Email}” is not a mail address.");
        else if (byEmail.TryGetValue(person.Email, out var other) && other != person.Key)
            Fault(person.Row, mail, $"{people[other].Name} in row {people[other].Row.Number} has the same mail address.");
        else if (people.TryGetValue(person.Key, out var before))
        {
            // The same person in another section.
            if (person.Teacher && !before.Teacher)
                people[person.Key] = before with { Teacher = true };
            return true;
        }
        else
        {
            people.Add(person.Key, person);
            byEmail.Add(person.Email, person.Key);
            return true;
        }
        return false;
    }

    /// <returns>Whether it was taken.</returns>
    public bool Add(RosterSection section, string name)
    {
        if (section.Key.Length is 0 or > LongestName || !IsName(section.Name))
            Fault(section.Row, name, "The section has no name, or one longer than 200 characters.");
        else
        {
            sections.TryAdd(section.Key, section with { Subject = Cut(section.Subject, 120), Year = Cut(section.Year, 40) });
            return true;
        }
        return false;
    }

    /// <returns>Whether it was taken.</returns>
    public bool Add(RosterPlace place)
    {
        if (place.From is { } from && place.To is { } to && to < from)
            Fault(place.Row, "", "It ends before it begins.");
        else if (!places.TryAdd((place.Person, place.Section, place.Teacher), place))
            Fault(
                place.Row,
                "",
                $"{people[place.Person].Name} stands in {sections[place.Section].Name} twice: "
                    + $"row {places[(place.Person, place.Section, place.Teacher)].Row.Number} is taken."
            );
        else
            return true;
        return false;
    }

    /// <summary>Reads a date of the row; null: the cell is empty.</summary>
    /// <returns>False: it is no date, and that was noted.</returns>
    public bool IsDate(RosterRow row, string column, string cell, out LocalDate? date)
    {
        date = null;
        try
        {
            date = Table.Date(cell);
            return true;
        }
        catch (FormatException fault)
        {
            Fault(row, column, fault.Message);
            return false;
        }
    }

    public Roster Built(string source, ImmutableArray<string> headings) =>
        new(
            source,
            headings,
            [.. people.Values],
            [.. sections.Values],
            [.. places.Values],
            [.. faults],
            [.. leftOut.Select(what => $"{what.Key}: {what.Value}")]
        );

    internal static bool IsMailAddress(string text) =>
        text is { Length: > 2 and <= LongestName }
        && text.Split('@') is [{ Length: > 0 }, { Length: > 0 } host]
        && !text.Any(letter => char.IsWhiteSpace(letter) || letter is '<' or '>' or ',' or ';' or '"')
        && !host.StartsWith('.')
        && !host.EndsWith('.');

    // With something in it that can be seen.
    private static bool IsName(string name) =>
        name.Length is > 0 and <= LongestName
        && name.EnumerateRunes().Any(rune => !Rune.IsWhiteSpace(rune) && Rune.GetUnicodeCategory(rune) != UnicodeCategory.Format);

    private static string Cut(string text, int longest) => text.Length <= longest ? text : text[..longest];
}
