using System.IO.Compression;
using System.Text;
using NodaTime;

namespace Polycline.Formats.Rosters;

/// <summary>
/// Reads OneRoster 1.1 and 1.2 CSV: a zip of tables that refer to each other by <c>sourcedId</c>. Organisations name nothing here,
/// and demographics are never looked at.
/// </summary>
public static class OneRoster
{
    private const long LargestTable = 100L * 1024 * 1024;
    private const int MostRows = 200_000;
    private const string Gone = "tobedeleted";

    /// <summary>Whether a file is a zip at all.</summary>
    public static bool IsZip(byte[] file) => file is [(byte)'P', (byte)'K', 3, 4, ..];

    /// <exception cref="RosterRefusedException">It is no such zip, or a table that is needed is not in it.</exception>
    public static Roster Read(byte[] file)
    {
        try
        {
            using var zip = new ZipArchive(new MemoryStream(file), ZipArchiveMode.Read);
            return new Reading(zip).Read();
        }
        catch (InvalidDataException)
        {
            throw new RosterRefusedException("This zip cannot be opened: it is damaged, or not a zip.");
        }
    }

    private sealed class Reading(ZipArchive zip)
    {
        private readonly RosterBuilder roster = new();
        private readonly Dictionary<string, (LocalDate? From, LocalDate? To)> sessions = [];
        private readonly Dictionary<string, string> courseSubjects = [];
        private readonly HashSet<string> skippedPeople = [];
        private readonly HashSet<string> skippedSections = [];

        public Roster Read()
        {
            var source = Manifest();
            Sessions();
            Courses();
            var roles = Roles();
            Users(roles);
            Classes();
            Enrolments();
            return roster.Built(source, []);
        }

        private string Manifest()
        {
            var name = "oneroster";
            Each("manifest.csv", false, table =>
            {
                if (table["propertyName"] is "source.systemName" && table["value"] is { Length: > 0 and <= 200 } system)
                    name = system;
            });
            return name;
        }

        private void Sessions() => Each("academicSessions.csv", false, table =>
            {
                if (
                    roster.IsDate(table.Row, "startDate", table["startDate"], out var from)
                    && roster.IsDate(table.Row, "endDate", table["endDate"], out var to)
                )
                    sessions[table["sourcedId"]] = (from, to);
            });

        private void Courses() =>
            Each("courses.csv", false, table =>
                courseSubjects[table["sourcedId"]] = table["subjects"] is { Length: > 0 } subjects ? First(subjects) : table["title"]
            );

        // From 1.2 on the roles stand in a table of their own.
        private Dictionary<string, string> Roles()
        {
            var roles = new Dictionary<string, string>();
            Each("roles.csv", false, table =>
            {
                if (IsStudentOrTeacher(table["role"]) && (table["roleType"] is "primary" || !roles.ContainsKey(table["userSourcedId"])))
                    roles[table["userSourcedId"]] = table["role"];
            });
            return roles;
        }

        private void Users(Dictionary<string, string> roles) => Each("users.csv", true, table =>
            {
                var key = table["sourcedId"];
                var role = table["role"] is { Length: > 0 } own ? own : roles.GetValueOrDefault(key, "");
                if (!IsStudentOrTeacher(role))
                {
                    roster.LeaveOut("people who are neither students nor teachers");
                    skippedPeople.Add(key);
                    return;
                }
                if (table["enabledUser"].Equals("false", StringComparison.OrdinalIgnoreCase))
                {
                    roster.LeaveOut("people whose accounts are disabled there");
                    skippedPeople.Add(key);
                    return;
                }
                var given = table["preferredGivenName"] is { Length: > 0 } preferred ? preferred : table["givenName"];
                var family = table["preferredFamilyName"] is { Length: > 0 } called ? called : table["familyName"];
                var email = table["email"] is { Length: > 0 } mail ? mail : table["username"];
                roster.Add(new RosterPerson(table.Row, key, $"{given} {family}".Trim(), email, IsTeacher(role)), "email", "familyName");
            });

        private void Classes() =>
            Each(
                "classes.csv",
                true,
                table =>
                {
                    var times = table["termSourcedIds"]
                        .Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                        .Where(sessions.ContainsKey)
                        .Select(id => sessions[id])
                        .ToList();
                    var subject = table["subjects"] is { Length: > 0 } subjects
                        ? First(subjects)
                        : courseSubjects.GetValueOrDefault(table["courseSourcedId"], "");
                    roster.Add(
                        new RosterSection(
                            table.Row,
                            table["sourcedId"],
                            table["title"],
                            subject,
                            First(table["grades"]),
                            times.Count == 0 ? null : times.Min(time => time.From),
                            times.Count == 0 ? null : times.Max(time => time.To)
                        ),
                        "title"
                    );
                },
                table => skippedSections.Add(table["sourcedId"])
            );

        private void Enrolments() => Each("enrollments.csv", true, table =>
            {
                var (person, section, role) = (table["userSourcedId"], table["classSourcedId"], table["role"]);
                if (!IsStudentOrTeacher(role))
                    roster.LeaveOut("enrolments that are neither a student’s nor a teacher’s");
                else if (skippedPeople.Contains(person) || skippedSections.Contains(section))
                    roster.LeaveOut("enrolments of people and sections that are left out");
                else if (!roster.Knows(person))
                    roster.Fault(
                        table.Row,
                        "userSourcedId",
                        $"There is no person “{Short(person)}” in users.csv, or that row cannot be read."
                    );
                else if (!roster.KnowsSection(section))
                    roster.Fault(
                        table.Row,
                        "classSourcedId",
                        $"There is no section “{Short(section)}” in classes.csv, or that row cannot be read."
                    );
                else if (
                    roster.IsDate(table.Row, "beginDate", table["beginDate"], out var from)
                    && roster.IsDate(table.Row, "endDate", table["endDate"], out var to)
                )
                    roster.Add(new RosterPlace(table.Row, person, section, IsTeacher(role), from, to));
            });

        // Rows that are marked as deleted are as good as not there.
        private void Each(string name, bool needed, Action<Table> row, Action<Table>? gone = null)
        {
            var entry = zip.Entries.FirstOrDefault(one => one.Name.Equals(name, StringComparison.OrdinalIgnoreCase));
            if (entry is null)
            {
                if (needed)
                    throw new RosterRefusedException($"There is no {name} in this zip.");
                return;
            }
            if (entry.Length > LargestTable)
                throw new RosterRefusedException($"{name} is larger than 100 MB.");
            using var stream = entry.Open();
            using var bounded = new BoundedStream(stream, LargestTable, name);
            using var table = new Table(new StreamReader(bounded, new UTF8Encoding(false), true), name, ",");
            while (table.Next())
            {
                if (table.Row.Number > MostRows)
                    throw new RosterRefusedException($"{name} has more than {MostRows:N0} rows.");
                if (table["status"].Equals(Gone, StringComparison.OrdinalIgnoreCase))
                    gone?.Invoke(table);
                else
                    row(table);
            }
        }

        private static bool IsTeacher(string role) => role.Equals("teacher", StringComparison.OrdinalIgnoreCase);

        private static bool IsStudentOrTeacher(string role) =>
            IsTeacher(role) || role.Equals("student", StringComparison.OrdinalIgnoreCase);

        private static string First(string list) => list.Split(',')[0].Trim();

        private static string Short(string text) => text.Length <= 40 ? text : text[..40] + "…";
    }

    // What a zip says of its length need not be so.
    private sealed class BoundedStream(Stream inner, long most, string name) : Stream
    {
        private long read;

        public override bool CanRead => true;

        public override bool CanSeek => false;

        public override bool CanWrite => false;

        public override long Length => throw new NotSupportedException();

        public override long Position
        {
            get => read;
            set => throw new NotSupportedException();
        }

        public override int Read(byte[] buffer, int offset, int count)
        {
            var got = inner.Read(buffer, offset, count);
            read += got;
            return read <= most ? got : throw new RosterRefusedException($"{name} is larger than 100 MB.");
        }

        public override void Flush() { }

        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

        public override void SetLength(long value) => throw new NotSupportedException();

        public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
    }
}
