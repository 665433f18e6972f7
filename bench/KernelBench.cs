using System.Globalization;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.PlanFiles;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Core.Release.Compiled;
using Polycline.Core.Sections;
using Polycline.Tests.Core.PlanFiles;

namespace Polycline.Bench;

/// <summary>The computation by itself, against the least that any program would have to do with the same arrays.</summary>
public static class KernelBench
{
    private const int Sections = 200;
    private const int StudentsEach = 30;
    private const int Lessons = 200;
    private const int Items = 400;
    private const int Facts = 2_000_000;
    private static readonly LocalDate First = new(2026, 9, 7);
    private static readonly LocalDate Last = new(2027, 7, 16);

    public static async Task Run()
    {
        await Schedules();
        await Decisions();
        await HostileFiles();
    }

    // Whatever the shape of a file, reading twice as much of it takes about twice as long.
    private static async Task HostileFiles()
    {
        const int size = 20_000;
        Console.WriteLine();
        Console.WriteLine("| a hostile plan file, read five times | kB | ms, median | twice as much | asked |");
        Console.WriteLine("|---|---|---|---|---|");
        foreach (var shape in HostileFile.Shapes.Keys)
        {
            var (one, two) = (HostileFile.Of(shape, size), HostileFile.Of(shape, 2 * size));
            var measured = await Interleaved.Run([
                Kernel(shape, () => Enumerable.Range(0, 5).Sum(_ => Read(one))),
                Kernel("twice as much", () => Enumerable.Range(0, 5).Sum(_ => Read(two))),
            ]);
            Console.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"| {shape} | {one.Length / 1000} | {1000 / measured[0].Median:0} "
                        + $"| {measured[0].Median / measured[1].Median:0.0} | about 2 |"
                )
            );
        }

        static long Read(byte[] text)
        {
            try
            {
                return PlanFile.Read(text).Ask.Length;
            }
            catch (FileRefusedException)
            {
                return 1;
            }
        }
    }

    private static async Task Schedules()
    {
        var (plan, twice) = (SomeSchool(Lessons, Items), SomeSchool(2 * Lessons, 2 * Items));
        var (term, longer) = (TermDays.Of(plan.Term), TermDays.Of(twice.Term));
        var dates =
            plan.Edition.InReadingOrder()
                .Sum(item => (item.Opens is null ? 0 : 1) + (item.Due is null ? 0 : 1) + (item.Closes is null ? 0 : 1)) * Sections;
        long Conversions()
        {
            var local = First.At(new LocalTime(8, 40));
            var sum = 0L;
            for (var n = 0; n < dates; n++)
                sum += plan.Term.Zone.AtLeniently(local.PlusDays(n % 300)).ToInstant().ToUnixTimeTicks();
            return sum;
        }

        static long Made(TermDays days, Plan of) => of.Sections.Sum(section => SectionSchedule.Of(days, of.Edition, section).Items.Length);
        var measured = await Interleaved.Run([
            Kernel("one zone conversion for each date", Conversions),
            Kernel($"schedules of {Sections} sections, {Lessons} lessons, {Items} items", () => Made(term, plan)),
            Kernel("the same of twice the lessons and items", () => Made(longer, twice)),
        ]);
        Print(
            "schedules",
            [(measured[1], measured[0].Median, "≤ 6"), (measured[2], measured[1].Median, "≤ 2.3 of the row above")],
            measured[0]
        );
        var before = GC.GetAllocatedBytesForCurrentThread();
        foreach (var section in plan.Sections)
            GC.KeepAlive(SectionSchedule.Of(term, plan.Edition, section));
        Console.WriteLine();
        Console.WriteLine(
            $"Allocated for one section's schedule: {(GC.GetAllocatedBytesForCurrentThread() - before) / Sections / 1000} kB."
        );
    }

    private static async Task Decisions()
    {
        var plan = SomeSchool(Lessons, Items);
        var schedule = PlanSchedule.Of(TermDays.Of(plan.Term), plan.Edition, plan.Sections);
        var replays = new List<Replay>();
        var facts = new List<FactTable>();
        var chance = new Random(7);
        foreach (var section in plan.Sections)
        {
            var table = SectionTable.Of(schedule.Section(section.Ref));
            foreach (var enrolment in section.Students)
            {
                var student = new StudentRecord(
                    enrolment.Student,
                    new HashSet<string>(),
                    null,
                    [(section.Ref, enrolment)],
                    new Dictionary<Ref<Item>, ForOneStudent>(),
                    new(SomeFacts(plan, enrolment.Student, chance))
                );
                facts.Add(FactTable.Of(table, student));
                replays.Add(new(table.For(student), facts[^1]));
            }
        }
        var at = First.PlusDays(150).At(new(12, 0)).InUtc().ToInstant();
        var verdicts = new byte[Items];
        foreach (var replay in replays)
            replay.MoveTo(at);
        var before = GC.GetAllocatedBytesForCurrentThread();
        foreach (var replay in replays)
        {
            replay.Restart();
            replay.MoveTo(at);
            replay.DecideAll(verdicts);
        }
        var allocated = GC.GetAllocatedBytesForCurrentThread() - before;
        var measured = await Interleaved.Run([
            Kernel("one pass reading the same arrays and writing one byte a decision", () =>
                replays.Sum(replay => replay.ReadThrough(verdicts) & 0xFF)
            ),
            Kernel("one pass over the facts", () => facts.Sum(table => table.ReadThrough() & 0xFF)),
            Kernel("facts replayed, everything decided", () =>
            {
                var sum = 0;
                foreach (var replay in replays)
                {
                    replay.Restart();
                    replay.MoveTo(at);
                    replay.DecideAll(verdicts);
                    sum += verdicts[0];
                }
                return sum;
            }),
            Kernel("everything decided, state kept", () =>
            {
                var sum = 0;
                foreach (var replay in replays)
                {
                    replay.DecideAll(verdicts);
                    sum += verdicts[0];
                }
                return sum;
            }),
        ]);
        var both = 1 / ((1 / measured[0].Median) + (1 / measured[1].Median));
        Print(
            $"{Sections * StudentsEach * Items / 1e6:0.0} million decisions, {facts.Sum(table => table.Count) / 1e6:0.00} million facts",
            [(measured[2], both, "≤ 8 of both passes"), (measured[3], measured[0].Median, "≤ 3 of the first pass")],
            measured[0],
            measured[1]
        );
        Console.WriteLine();
        Console.WriteLine($"Allocated while replaying and deciding all of that: {allocated} bytes.");
    }

    private static Contender Kernel(string name, Func<long> run) => new(name, () =>
        {
            var watch = System.Diagnostics.Stopwatch.StartNew();
            GC.KeepAlive(run());
            return Task.FromResult(1 / watch.Elapsed.TotalSeconds);
        });

    private static void Print(
        string what,
        IReadOnlyList<(Measured Row, double Denominator, string Asked)> rows,
        params Measured[] denominators
    )
    {
        Console.WriteLine();
        Console.WriteLine($"| {what} | ms, median | times its denominator | asked |");
        Console.WriteLine("|---|---|---|---|");
        foreach (var row in denominators)
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"| {row.Name} | {1000 / row.Median:0.0} | | |"));
        foreach (var (row, denominator, asked) in rows)
            Console.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"| {row.Name} | {1000 / row.Median:0.0} | {denominator / row.Median:0.0} | {asked} |"
                )
            );
    }

    // A school year of a course with units of ten lessons, two items a lesson, a third of them gated.
    private static Plan SomeSchool(int lessons, int items)
    {
        var number = 0;
        Lesson LessonOf(int n) =>
            new(
                new($"l{n}"),
                $"Lesson {n}",
                1 + (n % 3 == 0 ? 1 : 0),
                [.. Enumerable.Range(0, items / lessons).Select(_ => ItemOf(number++))]
            );
        Item ItemOf(int n) =>
            new()
            {
                Ref = new($"i{n}"),
                Kind =
                    n % 2 == 0 ? ItemKind.Page
                    : n % 10 == 3 ? ItemKind.Quiz
                    : ItemKind.Task,
                Title = $"Item {n}",
                Opens = new() { At = AnchorBase.LessonStart },
                Due =
                    n % 2 == 0
                        ? null
                        : new()
                        {
                            At = AnchorBase.LessonEnd,
                            Meetings = 1,
                            Clock = new(ClockKind.MeetingStart),
                        },
                Gate = n > 10 && n % 3 == 1 ? new(NodeOf(n)) : null,
            };
        GateNode NodeOf(int n) =>
            (n / 3 % 10) switch
            {
                < 5 => new GateNode.Done(TaskBefore(n), Deed.Returned),
                < 8 => new GateNode.AllOf([
                    new GateNode.Done(TaskBefore(n), Deed.Submitted),
                    new GateNode.Done(new($"i{(n - 2) / 2 * 2}"), Deed.Opened),
                ]),
                _ => new GateNode.Scored(new($"i{((n - 4) / 10 * 10) + 3}"), 60, null),
            };
        Ref<Item> TaskBefore(int n) => new($"i{((n - 3) / 2 * 2) + 1}");
        var edition = new Edition(
            "Weather",
            Basis.Meetings,
            10,
            CodeStyle.ByUnit,
            BeforeOpening.Listed,
            [
                .. Enumerable
                    .Range(0, lessons / 10)
                    .Select(unit => new Unit(new($"u{unit}"), $"Unit {unit}", [.. Enumerable.Range(unit * 10, 10).Select(LessonOf)], [])),
            ]
        );
        var term = new Term(
            "Year",
            DateTimeZoneProviders.Tzdb["Europe/Dublin"],
            First,
            lessons > Lessons ? Last.PlusDays(7 * 44) : Last,
            new(
                [IsoDayOfWeek.Monday, IsoDayOfWeek.Tuesday, IsoDayOfWeek.Wednesday, IsoDayOfWeek.Thursday, IsoDayOfWeek.Friday],
                [new(new(2026, 10, 26), new(2026, 10, 30), "Mid-term"), new(new(2026, 12, 21), new(2027, 1, 1), "Winter")],
                [],
                new Rotation.Weekly(),
                [new("P1", new(8, 40), new(9, 40)), new("P2", new(9, 50), new(10, 50)), new("P3", new(11, 10), new(12, 10))],
                []
            )
        );
        string[] days = ["mon", "tue", "wed", "thu", "fri"];
        return new(
            term,
            edition,
            [
                .. Enumerable
                    .Range(0, Sections)
                    .Select(n => new Section(
                        new($"s{n}"),
                        $"Section {n}",
                        [
                            .. Enumerable
                                .Range(0, 5)
                                .Where(day => day != n % 5 || n % 2 == 0)
                                .Select(day => (Slot)new Slot.InPeriods(days[day], [$"P{1 + ((n + day) % 3)}"])),
                        ],
                        [],
                        [],
                        [],
                        [],
                        [.. Enumerable.Range(0, StudentsEach).Select(student => new Enrolment(new($"p{n}-{student}")))]
                    )),
            ],
            [],
            [],
            [],
            []
        );
    }

    // What a student has done by some moment of the year: opened, handed in, given back or scored, item by item.
    private static IEnumerable<Fact> SomeFacts(Plan plan, Ref<Student> student, Random chance)
    {
        var moment = First.At(new(9, 0)).InUtc().ToInstant();
        var kinds = plan.Edition.InReadingOrder().ToList();
        const int each = Facts / Sections / StudentsEach;
        var made = 0;
        for (var n = 0; made < each; n = (n + 1) % kinds.Count)
        {
            var item = kinds[n].Ref;
            yield return Next(item, FactEvent.Opened);
            if (kinds[n].Kind == ItemKind.Task && chance.Next(10) < 7)
            {
                yield return Next(item, FactEvent.Submitted);
                if (chance.Next(10) < 8)
                    yield return Next(item, FactEvent.Returned);
            }
            else if (kinds[n].Kind == ItemKind.Quiz)
            {
                yield return Next(item, FactEvent.Scored) with
                {
                    Score = chance.Next(30, 101),
                };
            }
        }

        Fact Next(Ref<Item> item, FactEvent happened)
        {
            made++;
            moment += Duration.FromMinutes(chance.Next(1, 1200));
            return new(student, item, happened, moment);
        }
    }
}
