using System.Collections.Immutable;
using System.Text;
using NodaTime;

namespace Polycline.Formats.Rosters;

/// <summary>What a column of a plain table is.</summary>
public enum RosterColumn
{
    Ignored,
    Name,
    GivenName,
    FamilyName,
    Email,

    /// <summary>The number or key by which the school knows a person; where there is none, the mail address is it.</summary>
    Number,
    Section,
    Subject,
    Year,

    /// <summary>Student or teacher; where there is none, everybody is a student.</summary>
    Role,
    From,
    Until,
}

/// <summary>Reads a plain table: a row for each person in each section, with columns that somebody has named.</summary>
public static class RosterCsv
{
    public const string Source = "csv";
    private const int MostRows = 50_000;

    /// <summary>The headings, and what each seems to be.</summary>
    /// <exception cref="RosterRefusedException">It is no table.</exception>
    public static (IReadOnlyList<string> Headings, ImmutableArray<RosterColumn> Guessed) Headings(byte[] file)
    {
        using var table = Open(file);
        var guessed = ImmutableArray.CreateBuilder<RosterColumn>();
        foreach (var heading in table.Headings)
        {
            var column = Guess(heading);
            guessed.Add(guessed.Contains(column) ? RosterColumn.Ignored : column);
        }
        return (table.Headings, guessed.ToImmutable());
    }

    /// <param name="columns">What each column is, in the order of the file.</param>
    /// <exception cref="RosterRefusedException">It is no table, or a column that is needed is not named.</exception>
    public static Roster Read(byte[] file, ImmutableArray<RosterColumn> columns)
    {
        using var table = Open(file);
        int At(RosterColumn column) => columns.IndexOf(column);
        if (At(RosterColumn.Name) < 0 && At(RosterColumn.FamilyName) < 0)
            throw new RosterRefusedException("Say which column has the names.");
        if (At(RosterColumn.Email) < 0)
            throw new RosterRefusedException("Say which column has the mail addresses.");
        if (At(RosterColumn.Section) < 0)
            throw new RosterRefusedException("Say which column has the sections.");
        var roster = new RosterBuilder();
        string Heading(RosterColumn column) => At(column) is >= 0 and var n && n < table.Headings.Count ? table.Headings[n] : "";
        while (table.Next())
        {
            if (table.Row.Number > MostRows)
                throw new RosterRefusedException($"A table has at most {MostRows:N0} rows. Split it.");
            string Cell(RosterColumn column) => table[At(column)].Trim();
            var (row, email, section) = (table.Row, Cell(RosterColumn.Email), Cell(RosterColumn.Section));
            var name = Cell(RosterColumn.Name) is { Length: > 0 } whole
                ? whole
                : $"{Cell(RosterColumn.GivenName)} {Cell(RosterColumn.FamilyName)}".Trim();
            var teacher = IsTeacher(Cell(RosterColumn.Role));
            var key = Cell(RosterColumn.Number) is { Length: > 0 } number ? number : email.ToLowerInvariant();
            LocalDate? until = null;
            var taken =
                roster.IsDate(row, Heading(RosterColumn.From), Cell(RosterColumn.From), out var from)
                && roster.IsDate(row, Heading(RosterColumn.Until), Cell(RosterColumn.Until), out until)
                && roster.Add(new RosterPerson(row, key, name, email, teacher), Heading(RosterColumn.Email), Heading(RosterColumn.Name))
                && roster.Add(
                    new RosterSection(
                        row,
                        section.ToLowerInvariant(),
                        section,
                        Cell(RosterColumn.Subject),
                        Cell(RosterColumn.Year),
                        null,
                        null
                    ),
                    Heading(RosterColumn.Section)
                );
            if (taken)
                roster.Add(new RosterPlace(row, key, section.ToLowerInvariant(), teacher, from, until));
        }
        return roster.Built(Source, [.. table.Headings]);
    }

    private static Table Open(byte[] file) =>
        new(new StreamReader(new MemoryStream(file), new UTF8Encoding(false), detectEncodingFromByteOrderMarks: true), "The table");

    private static bool IsTeacher(string role) =>
        role.StartsWith("teach", StringComparison.OrdinalIgnoreCase) || role.StartsWith("staff", StringComparison.OrdinalIgnoreCase);

    /// <summary>What a column seems to be, by its heading.</summary>
    public static RosterColumn Guess(string heading)
    {
        var words = heading.ToLowerInvariant().Split([' ', '_', '-', '.', '/'], StringSplitOptions.RemoveEmptyEntries);
        bool Has(params string[] any) => words.Any(any.Contains);
        return heading.ToLowerInvariant() switch
        {
            _ when Has("mail", "email", "e-mail") || heading.Contains('@', StringComparison.Ordinal) => RosterColumn.Email,
            _ when Has("given", "first", "forename", "givenname", "firstname") => RosterColumn.GivenName,
            _ when Has("family", "last", "surname", "familyname", "lastname") => RosterColumn.FamilyName,
            _ when Has("section", "group", "form", "class") => RosterColumn.Section,
            _ when Has("subject", "course") => RosterColumn.Subject,
            _ when Has("year", "grade") => RosterColumn.Year,
            _ when Has("role", "type") => RosterColumn.Role,
            _ when Has("from", "start", "begin", "joined", "begins", "starts") => RosterColumn.From,
            _ when Has("until", "end", "to", "left", "ends") => RosterColumn.Until,
            _ when Has("id", "number", "no", "key", "upn") => RosterColumn.Number,
            _ when Has("name", "student", "pupil", "who") => RosterColumn.Name,
            _ => RosterColumn.Ignored,
        };
    }
}
