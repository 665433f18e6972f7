using Dapper;
using NodaTime;
using Npgsql;

namespace Polycline.Demo.School;

/// <summary>What the demo's team has noted for itself, and which text is about the lead.</summary>
internal static class DemoNotes
{
    private static readonly (string On, string Text, bool NextTime, bool Earlier, int DaysBefore)[] Left =
    [
        ("Weigh a litre of air", "The good balance is in the chemistry store. Ask for it a week ahead.", false, false, 30),
        ("Cloud diary", "Print the diary sheets before the first class of the unit: 30 for each section.", false, false, 12),
        ("Air has weight", "The balloon bursts if it lies on the radiator.", false, false, 21),
        ("Cloud diary", "Two weeks were too few after the half-term break. Start it a week earlier.", true, true, 0),
        ("Clouds by name", "The walk to the harbour wall took the whole class. Leave nothing else for that day.", true, true, 0),
    ];

    /// <param name="edition">The present one.</param>
    /// <param name="earlier">The one before it, at rest, in which some of it was left for next time.</param>
    public static async Task Leave(NpgsqlConnection connection, long edition, long earlier, long lead, Instant start)
    {
        // What is at rest takes no notes; these were left before it was.
        await connection.ExecuteAsync("UPDATE edition SET state = 'draft' WHERE id = @earlier", new { earlier });
        foreach (var (on, text, nextTime, before, days) in Left)
            await connection.ExecuteAsync(
                """
                INSERT INTO team_note (edition, place, next_time, text, author, written_at)
                SELECT @where, lineage, @nextTime, @text, @lead, @at
                FROM (SELECT lineage, title, edition FROM unit UNION ALL SELECT lineage, title, edition FROM lesson
                      UNION ALL SELECT lineage, title, edition FROM item) place
                WHERE edition = @edition AND title = @on
                """,
                new
                {
                    where = before ? earlier : edition,
                    edition,
                    nextTime,
                    text,
                    lead,
                    at = before ? start - Duration.FromDays(300) : start - Duration.FromDays(days),
                    on,
                }
            );
        await connection.ExecuteAsync("UPDATE edition SET state = 'resting' WHERE id = @earlier", new { earlier });
        await connection.ExecuteAsync(
            "UPDATE item SET about_teacher = true, about_whom = @lead WHERE edition = @edition AND title = 'Welcome to Weather Watch'",
            new { edition, lead }
        );
    }
}
