using System.Text.Json.Nodes;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.PlanFiles;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;

namespace Polycline.Web.OneStudent;

/// <summary>Collects what is to be different for students, field by field, against what is so already.</summary>
internal sealed class ExceptionChanges(EditionPlan plan)
{
    private readonly ILookup<(Id<Person>, string, string), ExceptionRow> present = plan.People.Exceptions.ToLookup(row =>
        (row.Person, row.Item, row.Field)
    );

    private readonly List<Change> changes = [];

    public IReadOnlyList<Change> Changes => changes;

    /// <summary>Gives a student what an exception says, and leaves its other fields as they are.</summary>
    public void Give(ForOneStudent given)
    {
        Date("opens", given.Opens);
        Date("due", given.Due);
        Date("closes", given.Closes);
        Flag("excused", given.Excused);
        Flag("include", given.Include);
        Flag("exclude", given.Exclude);
        Flag("unlocked", given.Unlocked);

        void Date(string field, Given<Anchor> date)
        {
            if (date.Is)
                Set(given, field, date.Value is { } anchor ? JsonNode.Parse(PlanParts.Json(anchor)) : null);
        }

        void Flag(string field, bool? flag)
        {
            if (flag is { } value)
                Set(given, field, JsonValue.Create(value));
        }
    }

    /// <summary>Takes one field back.</summary>
    public void PutBack(ExceptionRow row) =>
        changes.Add(
            Change.Delete(row.Version, [.. KeyOf(row.Person, row.Item, row.Field, row.Move), Tables.Exceptions.Value.Is(Parse(row.Value))])
        );

    private void Set(ForOneStudent given, string field, JsonNode? value)
    {
        var person = PlanIds.IdOf(given.Student);
        var rows = present[(person, given.Item.Name, field)].ToList();
        var move = given.Move is { } mark ? MoveText.Of(mark) : "";
        // What a person says now stands, whatever a move once gave.
        if (move.Length == 0)
            foreach (var moved in rows.Where(row => row.Move.Length > 0))
                PutBack(moved);
        var key = KeyOf(person, given.Item.Name, field, move);
        if (rows.FirstOrDefault(row => row.Move == move) is not { } row)
            changes.Add(Change.Add([.. key, Tables.Exceptions.Value.Is(value)]));
        else if (Tables.Exceptions.Value.Turns(Parse(row.Value), value) is { Changes: true } turn)
            changes.Add(Change.Set(key, row.Version, turn));
    }

    private Cell[] KeyOf(Id<Person> person, string item, string field, string move) =>
        [
            Tables.Exceptions.Edition.Is(plan.Id),
            Tables.Exceptions.Person.Is(person),
            Tables.Exceptions.Item.Is(item),
            Tables.Exceptions.Field.Is(field),
            Tables.Exceptions.Move.Is(move),
        ];

    private static JsonNode? Parse(string? json) => json is null ? null : JsonNode.Parse(json);
}
