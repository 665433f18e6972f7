using Dapper;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Sheets;

namespace Polycline.Demo.School;

/// <summary>What a section of the demo has written together.</summary>
internal static class DemoSheets
{
    private const string On = "Compare your charts";

    private static readonly string[] Begins =
    [
        "Where do all our charts agree?",
        "Where do they differ, and why did each of us draw it that way?",
        "One place where I would now draw my line differently, and why.",
    ];

    // After which paragraph, by which student of the section, and how long after the sheet was begun.
    private static readonly (int After, int Student, string Text, int Minutes)[] Written =
    [
        (0, 0, "All of us have the low in the north-west, over Ravnsund.", 4),
        (0, 3, "And nobody’s 1012 touches Old Quay: it reads 1011.", 7),
        (1, 6, "Between Fenwater and Harrowmouth. Both say 1009, so the 1008 can go round either side.", 9),
        (1, 9, "I went round the outside because the wind at Fenwater was westerly that day.", 15),
        (2, 3, "South of Lisken. I drew a bump there for no reason but my ruler.", 21),
    ];

    /// <summary>Begins the sheet of one section and writes in it.</summary>
    public static async Task Write(NpgsqlConnection connection, long edition, long section, Instant at)
    {
        var item = await connection.ExecuteScalarAsync<Id<Item>>(
            "SELECT id FROM item WHERE edition = @edition AND title = @On",
            new { edition, On }
        );
        var students = (
            await connection.QueryAsync<Id<Person>>(
                "SELECT person FROM place WHERE section = @section AND upper_inf(period) ORDER BY person",
                new { section }
            )
        ).AsList();
        await SheetStore.Begin(connection, item, new(section), Begins, at);
        var sheet = await SheetStore.Of(connection, item, new(section)) ?? throw new InvalidOperationException("The sheet was not begun.");
        foreach (var (after, student, text, minutes) in Written)
        {
            var blocks = await SheetStore.Blocks(connection, item, new(section), at + Duration.FromDays(1));
            // The last of those under the same question.
            var place = blocks.ToList().FindIndex(block => block.Text == Begins[after]);
            while (place + 1 < blocks.Count && blocks[place + 1].Author is not null)
                place++;
            var block = await SheetStore.Add(
                connection,
                sheet.Id,
                Rank.Between(blocks[place].Rank, place + 1 < blocks.Count ? blocks[place + 1].Rank : null)
            );
            await SheetStore.Write(connection, block, 1, 0, students[student], text, at + Duration.FromMinutes(minutes));
        }
    }
}
