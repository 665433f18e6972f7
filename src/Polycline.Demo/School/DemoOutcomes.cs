using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data.Outcomes;
using Polycline.Formats;

namespace Polycline.Demo.School;

/// <summary>What the students of the demo school should be able to do, and which items of Weather Watch are tied to it.</summary>
internal static class DemoOutcomes
{
    private static readonly (string Code, string[] Items)[] Ties =
    [
        ("G1.1", ["Guide: the maximum-minimum thermometer", "Guide: the rain gauge", "Reading scales", "Guide: vane and cups"]),
        ("G1.1", ["Reading a barometer", "Guide: the aneroid barometer", "Looking up: what we know"]),
        ("G1.2", ["A week of mornings", "What a log is for", "The first log", "Pressure log: two weeks", "Log of a foggy morning"]),
        ("G1.3", ["Catching rain fairly", "Which window will be yours?", "Compare your charts"]),
        ("G2.1", ["Why wind does not blow straight", "Arrows on the chart", "Hills and hollows of pressure"]),
        ("G2.2", ["Lines that never cross", "Isobars by hand", "High or low?", "The weight of air: what we know"]),
        ("G2.3", ["Film: how a low goes by", "Seven charts in a row", "A week of charts"]),
        ("G3.1", ["Cloud diary", "Sort the photographs", "Which storey?", "Clouds by name", "Clouds again"]),
        ("G3.2", ["What a cloud is", "Rising, cooling, showing", "A cloud in a bottle", "Three ways to make a fog"]),
        ("G4.1", ["A slow ramp", "Label the ramp", "A steep push", "Before, during, after", "Fronts: what we know"]),
        ("G4.2", ["What did the charts miss?", "Find the front in our own log", "How to show evidence"]),
        ("G5.1", ["The forecast you remember", "How a harbour is briefed", "Project, step 3: the real thing"]),
        ("G5.2", ["Questions that can be answered", "Project, step 1: your question"]),
        ("G6.1", ["Write a warning", "Which warning?", "The worst day of a year", "Storm season: what we know"]),
        ("E2.1", ["Five minutes of sky", "Cloud diary", "Ask at home: the storm they remember"]),
        ("E2.4", ["Read one another's drafts", "Notes on two others' projects"]),
        ("E3.2", ["One minute, spoken"]),
        ("M4.2", ["Reading scales", "Reading an ascent", "Isobars by hand"]),
        ("M5.1", ["Chance, and how to say it"]),
    ];

    /// <param name="office">Who took the list in.</param>
    public static async Task Tie(NpgsqlConnection connection, long edition, long office, Instant at)
    {
        await using var file = typeof(DemoOutcomes).Assembly.GetManifestResourceStream("Polycline.Demo.School.outcomes.csv")!;
        using var reader = new StreamReader(file);
        await OutcomeStore.Replace(
            connection,
            [.. OutcomesFile.Read(await reader.ReadToEndAsync()).Select(line => (line.Code, line.Words, line.Subject))],
            new Id<Person>(office),
            at
        );
        foreach (var (code, items) in Ties)
            await connection.ExecuteAsync(
                "UPDATE item SET outcomes = outcomes || @code WHERE edition = @edition AND title = ANY(@items)",
                new
                {
                    code,
                    edition,
                    items,
                }
            );
    }
}
