using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;

namespace Polycline.Tests.Web;

/// <summary>A good request for every command on a term, each of which does something in the demo school.</summary>
public static class TermCommandExamples
{
    /// <summary>By name; a command without one fails the walks.</summary>
    public static readonly IReadOnlyDictionary<string, Func<School, Task<object?>>> All = new Dictionary<
        string,
        Func<School, Task<object?>>
    >
    {
        ["mark-days"] = _ =>
            Task.FromResult<object?>(
                new { marks = new[] { Closure("2026-11-09", "2026-11-13", "Storm repairs"), Mark("extra", "2026-11-21", "Making up") } }
            ),
        ["set-term"] = async school =>
        {
            var calendar = await Calendar(school);
            return new
            {
                first = "2026-08-31",
                last = "2026-12-16",
                weekdays = new[] { "mon", "tue", "wed", "thu", "fri" },
                rotation = new
                {
                    kind = "weeks",
                    labels = new[] { "A", "B" },
                    count = "teaching",
                },
                periods = calendar["periods"],
                offDays = "back",
                version = calendar["ownVersion"]!.GetValue<long>(),
            };
        },
        ["change-section"] = async school =>
        {
            var section = (await Calendar(school))["sections"]!.AsArray().First(one => one!["name"]!.GetValue<string>() == "9 Cedar")!;
            return new
            {
                section = section["id"],
                name = "9 Cypress",
                subject = "Geography",
                year = "9",
                slots = section["slots"]!.AsArray().Skip(1).Select(slot => slot!.DeepClone()),
                version = section["version"],
            };
        },
        ["end-section"] = async school =>
        {
            var section = (await Calendar(school))["sections"]!.AsArray().First(one => one!["name"]!.GetValue<string>() == "9 Cedar")!;
            return new
            {
                section = section["id"],
                last = "2026-10-02",
                version = section["version"],
            };
        },
        // Of what was undone already, so that the walks leave nothing behind.
        ["undo"] = async school =>
        {
            using var office = await school.As(DemoPeople.Office);
            var address = $"/api/terms/{await Autumn(school)}";
            var done = await office.Post(
                $"{address}/mark-days",
                Marks(Closure("2026-11-09", "2026-11-13", "Storm repairs")),
                Guid.NewGuid()
            );
            var undone = await office.Post($"{address}/undo", new { batch = done.Json["batch"]!.GetValue<long>() }, Guid.NewGuid());
            return new { batch = undone.Json["batch"]!.GetValue<long>() };
        },
    };

    /// <summary>The term that the demo school is in.</summary>
    public static Task<long> Autumn(School school) => Term(school, "Autumn term 2026");

    public static Task<long> Term(School school, string name) =>
        school.Sql(connection => connection.ExecuteScalarAsync<long>("SELECT id FROM term WHERE name = @name", new { name }));

    /// <summary>Its calendar, as the office reads it.</summary>
    public static async Task<JsonNode> Calendar(School school)
    {
        using var office = await school.As(DemoPeople.Office);
        return (await office.Get($"/api/terms/{await Autumn(school)}/calendar")).Json;
    }

    public static object Marks(object mark) => new { marks = new[] { mark } };

    public static object Mark(string kind, string date, string name, string? runs = null) => MarkOf(kind, date, date, name, runs);

    public static object Closure(string first, string last, string name) => MarkOf("closure", first, last, name, null);

    private static object MarkOf(string kind, string first, string last, string name, string? runs) =>
        new
        {
            id = (long?)null,
            version = 0,
            gone = false,
            kind,
            first,
            last,
            name,
            runs,
            periods = (object?)null,
        };
}
