using System.Text.Json;
using Dapper;
using NodaTime;
using Npgsql;

namespace Polycline.Demo.School;

/// <content>What the school is written with.</content>
public static partial class DemoSchool
{
    private sealed partial class Writer(NpgsqlConnection connection, string passwordHash)
    {
        // When the course was put together.
        private static readonly Instant Begun = Start - Duration.FromDays(45);

        private int students;
        private long writer;

        public async Task Write()
        {
            var lastAutumn = await Term(
                "Autumn term 2025",
                "2025-09-01",
                "2025-12-19",
                new Mark("closure", "2025-10-27", "2025-10-31", "Mid-term break")
            );
            var autumn = await Term(
                "Autumn term 2026",
                "2026-08-31",
                "2026-12-18",
                new("closure", "2026-09-18", "2026-09-18", "Staff day"),
                new("closure", "2026-10-26", "2026-10-30", "Mid-term break"),
                new("extra", "2026-11-14", "2026-11-14", "Open day"),
                new("special", "2026-10-09", "2026-10-09", "Late start", LateStart)
            );
            await Term("Spring term 2027", "2027-01-11", "2027-04-23");

            var lead = await Person(DemoPeople.Lead);
            var coTeacher = await Person(DemoPeople.CoTeacher);
            var colleague = await Person(DemoPeople.Colleague);
            var office = await Person(DemoPeople.Office, office: true);

            writer = lead;
            var weather = await Master("Weather Watch", "Geography", (lead, "lead"), (coTeacher, "co"));
            var before = await Edition(weather, 1, "edition 2025", lastAutumn, "resting", "weather-watch");
            var current = await Edition(weather, 2, "edition 2026", autumn, "current", "weather-watch");
            var tides = await Master("Tides and Channels", "Geography", (colleague, "lead"));
            var tides2026 = await Edition(tides, 1, "edition 2026", autumn, "current", "tides-and-channels");
            // The adults have a course of their own, which no other section follows.
            var watch = await Edition(
                await Master("Evening watch", "Evening courses", (lead, "lead")),
                1,
                "autumn 2026",
                autumn,
                "current",
                "evening-watch"
            );

            var alder = await Section("9 Alder", "A", autumn, current, [Meets("mon", "P1"), Meets("wed", "P3"), Meets("fri", "P2")], lead);
            var birch = await Section(
                "9 Birch",
                "B",
                autumn,
                current,
                [Meets("tue", "P4"), Meets("thu", "P1"), Meets("A-fri", "P5")],
                lead
            );
            var cedar = await Section(
                "9 Cedar",
                "C",
                autumn,
                current,
                [Double("A-mon", "P2", "P3"), Double("A-thu", "P2", "P3"), Double("B-wed", "P4", "P5")],
                lead
            );
            var dogwood = await Section("9 Dogwood", "D", autumn, current, [Meets("mon", "P6"), Meets("thu", "P6")], lead, coTeacher);
            var evening = await Section(
                "Evening watch",
                "E",
                autumn,
                watch,
                [
                    new
                    {
                        day = "thu",
                        start = "18:30",
                        end = "20:00",
                    },
                ],
                lead
            );
            await Differs(birch, "i45", "hold", "true");
            // The diary does not wait for its lesson there: it was given out two classes before.
            await Differs(birch, "i42", "opens", $$"""{"at":"lesson-start","of":"{{DemoCourse.Lineage("weather-watch", "l2.5")}}"}""");
            await connection.ExecuteAsync(
                "INSERT INTO order_change (section, seq, target, change) VALUES (@cedar, 1, @unit, '{\"order\":3}')",
                new { cedar, unit = DemoCourse.Lineage("weather-watch", "u4") }
            );
            await DemoFiles.Give(connection, current, lead, Begun);
            await DemoNotes.Leave(connection, current, before, lead, Start);
            await DemoOutcomes.Tie(connection, current, office, Start);
            await Differs(dogwood, "i42", "due", """{"at":"lesson-end","meetings":3,"clock":"meeting-start"}""");

            await Enrol(alder, await Person(DemoPeople.OnTrack));
            await Enrol(birch, await Person(DemoPeople.HeldUp));
            await Enrol(cedar, await Person(DemoPeople.JoinedLate), from: new LocalDate(2026, 10, 1));
            await Enrol(alder, await Person(DemoPeople.Leaver), to: new LocalDate(2026, 9, 25));
            var both = await Person(DemoPeople.InTwoSections);
            await Enrol(alder, both);
            await Enrol(dogwood, both);
            foreach (var (section, count) in new[] { (alder, 22), (birch, 22), (cedar, 24), (dogwood, 21), (evening, 18) })
                for (var n = 0; n < count; n++)
                    await Enrol(section, await Person(DemoPeople.Student(students++)));

            // Last year's two, with how long everything really took.
            var rowan = await Section(
                "9 Rowan",
                "A",
                lastAutumn,
                before,
                [Meets("mon", "P1"), Meets("wed", "P3"), Meets("fri", "P2")],
                lead
            );
            var hazel = await Section(
                "9 Hazel",
                "B",
                lastAutumn,
                before,
                [Meets("tue", "P4"), Meets("thu", "P1"), Meets("A-fri", "P5")],
                lead
            );
            foreach (var (section, count) in new[] { (rowan, 23), (hazel, 21) })
                for (var n = 0; n < count; n++)
                    await Enrol(
                        section,
                        await Person(DemoPeople.Student(students++)),
                        new LocalDate(2025, 9, 1),
                        new LocalDate(2025, 12, 19)
                    );
            await TaughtThrough(new(before), rowan, every: 8);
            await TaughtThrough(new(before), hazel, every: 4);

            await Taught(new(current), birch);
            await Work(new(current), lead);
            await Work(new(watch), lead);
            await DemoSheets.Write(connection, current, alder, Instant.FromUtc(2026, 9, 23, 9, 45));
            foreach (var edition in new[] { current, tides2026, watch })
                await Opened(edition);

#pragma warning disable RS0030 // the demo's clock is set against the machine's, once
            var offset = Start - SystemClock.Instance.GetCurrentInstant();
#pragma warning restore RS0030
            await connection.ExecuteAsync(
                "INSERT INTO setting (key, value) VALUES ('clock-offset-seconds', @seconds), ('school-name', 'Fenwater College')",
                new { seconds = ((long)offset.TotalSeconds).ToString(System.Globalization.CultureInfo.InvariantCulture) }
            );
        }

        private Task<long> Insert(string statement, object values) =>
            connection.ExecuteScalarAsync<long>($"{statement} RETURNING id", values);

        private Task<long> Person(string name, bool office = false) =>
            Insert(
                "INSERT INTO person (name, email, password_hash, office) VALUES (@name, @email, @passwordHash, @office)",
                new
                {
                    name,
                    email = DemoPeople.Email(name),
                    passwordHash,
                    office,
                }
            );

        private async Task<long> Term(string name, string first, string last, params Mark[] marks)
        {
            var term = await Insert(
                "INSERT INTO term (name, zone, first, last, settings) VALUES (@name, @zone, @first::date, @last::date, @settings::jsonb)",
                new
                {
                    name,
                    zone = Zone,
                    first,
                    last,
                    settings = JsonSerializer.Serialize(
                        new
                        {
                            weekdays = new[] { "mon", "tue", "wed", "thu", "fri" },
                            rotation = new
                            {
                                kind = "weeks",
                                labels = new[] { "A", "B" },
                                count = "calendar",
                            },
                            periods = Periods,
                        }
                    ),
                }
            );
            foreach (var (kind, from, to, called, periods) in marks)
                await connection.ExecuteAsync(
                    "INSERT INTO calendar_day (term, kind, first, last, name, periods) "
                        + "VALUES (@term, @kind, @from::date, @to::date, @called, @periods::jsonb)",
                    new
                    {
                        term,
                        kind,
                        from,
                        to,
                        called,
                        periods = periods is null ? null : JsonSerializer.Serialize(periods),
                    }
                );
            return term;
        }

        private async Task<long> Master(string title, string subject, params (long Person, string Role)[] team)
        {
            var master = await Insert("INSERT INTO master (title, subject) VALUES (@title, @subject)", new { title, subject });
            foreach (var (person, role) in team)
                await connection.ExecuteAsync(
                    "INSERT INTO master_member (master, person, role) VALUES (@master, @person, @role)",
                    new
                    {
                        master,
                        person,
                        role,
                    }
                );
            return master;
        }

        private async Task<long> Edition(long master, int ordinal, string title, long term, string state, string course)
        {
            var edition = await Insert(
                "INSERT INTO edition (master, ordinal, title, term) VALUES (@master, @ordinal, @title, @term)",
                new
                {
                    master,
                    ordinal,
                    title,
                    term,
                }
            );
            await new DemoCourse(connection, edition, course, name => DemoFiles.Store(connection, "drawings", name, writer, Begun)).Write();
            await connection.ExecuteAsync("UPDATE edition SET state = @state WHERE id = @edition", new { edition, state });
            return edition;
        }

        private static object Meets(string day, string period) => new { day, periods = new[] { period } };

        private static object Double(string day, params string[] periods) =>
            new
            {
                day,
                periods,
                counts = 2,
            };

        private Task Differs(long section, string of, string field, string value) =>
            connection.ExecuteAsync(
                "INSERT INTO adjustment (section, target, field, value) VALUES (@section, @target, @field, @value::jsonb)",
                new
                {
                    section,
                    target = DemoCourse.Lineage("weather-watch", of),
                    field,
                    value,
                }
            );

        private async Task<long> Section(string name, string letter, long term, long? edition, object[] slots, params long[] teachers)
        {
            var section = await Insert(
                "INSERT INTO section (name, letter, term, edition, slots) VALUES (@name, @letter, @term, @edition, @slots::jsonb)",
                new
                {
                    name,
                    letter,
                    term,
                    edition,
                    slots = JsonSerializer.Serialize(slots),
                }
            );
            foreach (var person in teachers)
                await connection.ExecuteAsync(
                    "INSERT INTO section_teacher (section, person) VALUES (@section, @person)",
                    new { section, person }
                );
            return section;
        }

        // Both dates inclusive; null: from the beginning, or for good.
        private Task Enrol(long section, long person, LocalDate? from = null, LocalDate? to = null) =>
            connection.ExecuteAsync(
                "INSERT INTO enrolment (section, person, period) VALUES (@section, @person, daterange(@from, @to, '[]'))",
                new
                {
                    section,
                    person,
                    from,
                    to,
                }
            );
    }
}
