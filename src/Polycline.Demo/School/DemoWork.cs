using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.PlanFiles;
using Polycline.Core.Planning;
using Polycline.Data.Courses;
using Polycline.Data.Work;

namespace Polycline.Demo.School;

/// <summary>What the demo's students have done up to the moment at which its clock starts: drawn from a fixed seed.</summary>
public sealed class DemoWork(NpgsqlConnection connection, EditionPlan plan, long lead, Instant now)
{
    private static readonly string[] Beginnings =
    [
        "I read it three times and took the middle one.",
        "We went up on the roof in the break.",
        "The needle moved while I was looking.",
        "It was raining, so the first page is a bit wet.",
        "My neighbour and I did not agree at first.",
        "I began on Tuesday because Monday was fog.",
        "The wind came round from the south in the afternoon.",
        "I did it twice, once before and once after lunch.",
    ];

    private static readonly string[] Endings =
    [
        "I would take the last one again.",
        "The two lines go up together.",
        "I am not sure about the third.",
        "It fell fastest in the night.",
        "After that the sky cleared from the west.",
        "Next time I would stand further from the wall.",
        "That fits with what the chart says.",
        "The dash is where nobody was there to read it.",
    ];

    private static readonly string[] Backs =
    [
        "Clear and complete. Keep writing the time first.",
        "Good looking. Say next time which instrument it was.",
        "I can follow every step. Go on.",
        "The third line is the best one: you noticed something nobody asked for.",
    ];

    private static readonly string[] Seen =
    [
        "11 °C at twenty to seven. Wet grass, no wind.",
        "1008 hPa, two less than yesterday. Low grey cloud from the west.",
        "1013 hPa and rising. Clear over the harbour.",
        "9 °C. Fog to the second bollard.",
        "Rain since four, 6 mm in the gauge.",
        "14 °C. High white streaks, thickening by lunch.",
        "1002 hPa, the lowest so far. The flag stood straight out.",
    ];

    private readonly Random chance = new(20261008),
        skies = new(20260831),
        marks = new(20260901);
    private readonly List<(
        long Person,
        long Item,
        long Section,
        string Event,
        Instant At,
        long By,
        bool Again,
        decimal? Score,
        string? Option
    )> facts = [];
    private readonly List<(
        long Person,
        long Item,
        long Section,
        string Text,
        string? Entries,
        Instant At,
        string? Back,
        bool Again,
        string? Mark,
        Instant? BackAt
    )> pieces = [];

    private readonly DemoAttempts attempts = new();
    private readonly Dictionary<string, QuizPaper> papers = new(StringComparer.Ordinal);
    private IReadOnlyDictionary<string, WrittenRubric> rubrics = new Dictionary<string, WrittenRubric>();

    public async Task Write(IReadOnlyDictionary<long, IReadOnlyList<(long Person, string Name)>> studentsOf)
    {
        foreach (var hash in plan.Edition.InReadingOrder().Select(item => item.Quiz).OfType<string>())
            papers[hash] = (await BodyStore.Quiz(connection, hash))!;
        rubrics = await BodyStore.Rubrics(connection, [.. plan.Edition.InReadingOrder().Select(item => item.Rubric).OfType<string>()]);
        foreach (var section in plan.Sections)
        foreach (
            var item in plan
                .Schedule.Section(section.Section.Ref)
                .Items.Where(item => item.Dates?.Opens.At < now && item.Item.Published && !item.Item.Held)
        )
        foreach (var (person, name) in studentsOf[section.Id.Value])
            Did(person, name, section.Id.Value, item);
        await Store();
    }

    private void Did(long person, string name, long section, ScheduledItem item)
    {
        var opens = item.Dates!.Opens.At!.Value;
        var id = plan.Row(item.Item.Ref).Id;
        var gated = item.Item.Item.Gate is not null;
        // Some are quick, some slow: a student's own pace, the same in everything.
        var pace = 0.2 + (chance.NextDouble() * 2.5);
        var read = opens + Duration.FromHours(2 + (20 * pace));
        var steady = name == DemoPeople.OnTrack;
        if (read > now || gated || (chance.NextDouble() > 0.95 && !steady))
            return;
        Add("opened", read, person);
        var sat = opens + Duration.FromHours(20 + (50 * pace));
        if (item.Item.Item.Kind == ItemKind.Quiz && sat < now && (chance.NextDouble() < 0.92 || steady))
            Sat(sat, 35 + chance.Next(66));
        if (item.Item.Item.Kind == ItemKind.Choice)
            Add("picked", read, person, option: item.Item.Item.Options[chance.Next(item.Item.Item.Options.Length)]);
        var handed = opens + Duration.FromHours(20 + (30 * pace));
        if (item.Item.Item.Kind != ItemKind.Task || handed > now || (chance.NextDouble() > 0.9 && !steady))
            return;
        // The one who is held up waits for feedback on the step before.
        var waits = name == DemoPeople.HeldUp && item.Item.Item.Title == "Isobars by hand";
        var backAt = handed + Duration.FromHours(40 + (40 * chance.NextDouble()));
        var isLog = item.Item.Item.Asked is { Way: AskedWay.Log };
        var again = chance.NextDouble() < 0.08 && !steady;
        var back =
            waits || backAt > now || now - handed < Duration.FromDays(6) ? null
            : again ? "Nearly. Say what you measured with, and hand it in again."
            : Backs[chance.Next(Backs.Length)];
        var words = $"{Beginnings[chance.Next(Beginnings.Length)]} {Endings[chance.Next(Endings.Length)]}";
        var mark = back is null || again || item.Item.Item.Marked is not { } marked ? null : Mark(item.Item.Item, marked, steady, person);
        pieces.Add(
            (
                person,
                id,
                section,
                isLog ? "" : words,
                isLog ? Log(handed) : null,
                handed,
                back,
                again && back is not null,
                mark is null ? null : PlanParts.Json(mark),
                back is null ? null : backAt
            )
        );
        Add("submitted", handed, person);
        if (back is not null)
            Add("returned", backAt, lead, again);
        if (mark is not null && MarkShare.FactOf(mark) is { } percent)
            Add("scored", backAt, lead, score: percent);

        void Sat(Instant at, int good)
        {
            var percent = (decimal)good;
            if (item.Item.Item.Quiz is { } hash)
            {
                if (attempts.Sit(person, id, section, hash, papers[hash], at, good) is not { } done)
                    return;
                percent = done.Percent;
                Add("begun", done.Began, person);
                Add("submitted", at, person);
            }
            Add("scored", at, person, score: percent);
        }

        void Add(string what, Instant at, long by, bool again = false, decimal? score = null, string? option = null) =>
            facts.Add((person, id, section, what, at, by, again, score, option));
    }

    // Mostly in the upper half, in whole points.
    private GivenMark Mark(Item item, MarkedAs marked, bool isSteady, long person)
    {
        var good = Math.Max(marks.NextDouble(), marks.NextDouble());
        if (marked.Form == MarkForm.Scale)
            return new(marked, null, marked.Levels[Math.Min((int)(good * marked.Levels.Length), marked.Levels.Length - 1)].Name);
        if (item.Rubric is { } hash)
            return new(marked, null, null) { Rubric = DemoRubrics.Near(rubrics[hash], hash, isSteady ? 0.8 : 0.4 + (0.6 * good), person) };
        return new(marked, Math.Round(marked.OutOf * (decimal)(isSteady ? 0.8 : 0.4 + (0.6 * good))), null);
    }

    // An entry for each of the five days up to the one on which it was handed in.
    private string? Log(Instant handed)
    {
        var last = plan.Term.Local(handed).Date;
        // No two days alike.
        var seen = Seen.OrderBy(_ => skies.Next()).ToList();
        return LogEntry.Write([
            .. Enumerable
                .Range(0, 5)
                .Select(day => new LogEntry(
                    last.PlusDays(day - 4).ToString("uuuu-MM-dd", System.Globalization.CultureInfo.InvariantCulture),
                    seen[day]
                )),
        ]);
    }

    private async Task Store()
    {
        facts.Sort((one, other) => one.At.CompareTo(other.At));
        await connection.ExecuteAsync(
            """
            INSERT INTO fact (person, item, section, event, at, recorded_at, by, again, score, option, request)
            SELECT person, item, section, event, at, at, by, again, score::numeric, option, gen_random_uuid()
            FROM unnest(@person, @item, @section, @what, @at, @by, @again, @score, @option)
              f (person, item, section, event, at, by, again, score, option)
            """,
            new
            {
                person = facts.Select(fact => fact.Person).ToArray(),
                item = facts.Select(fact => fact.Item).ToArray(),
                section = facts.Select(fact => fact.Section).ToArray(),
                what = facts.Select(fact => fact.Event).ToArray(),
                at = facts.Select(fact => fact.At).ToArray(),
                by = facts.Select(fact => fact.By).ToArray(),
                again = facts.Select(fact => fact.Again).ToArray(),
                score = facts.Select(fact => fact.Score is { } score ? $"{score}" : null!).ToArray(),
                option = facts.Select(fact => fact.Option!).ToArray(),
            }
        );
        await attempts.Store(connection);
        foreach (var piece in pieces)
            await connection.ExecuteAsync(
                """
                WITH w AS (INSERT INTO work (person, item, section) VALUES (@Person, @Item, @Section) ON CONFLICT DO NOTHING RETURNING id),
                     v AS (INSERT INTO work_version (work, n, text, entries, handed_in_at, request)
                       SELECT id, 1, @Text, @Entries::jsonb, @At, gen_random_uuid() FROM w)
                INSERT INTO feedback (work, n, by, text, again, mark, remarks, returned_at)
                  SELECT id, 1, @lead, @Back, @Again, @Mark::jsonb, @remarks::jsonb, @BackAt FROM w WHERE @Back IS NOT NULL
                """,
                new
                {
                    piece.Person,
                    piece.Item,
                    piece.Section,
                    piece.Text,
                    piece.Entries,
                    piece.At,
                    piece.Back,
                    piece.Again,
                    piece.Mark,
                    piece.BackAt,
                    remarks = Remark.Write(DemoRemarks.On(piece.Text, piece.Entries, piece.Person)),
                    lead,
                }
            );
    }
}
