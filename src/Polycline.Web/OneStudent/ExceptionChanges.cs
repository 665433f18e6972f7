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
    private readonly Dictionary<(Id<Person>, string, string), ExceptionRow> present = plan.People.Exceptions.ToDictionary(row =>
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

    /// <summary>Takes one field back: the student has it as everybody does.</summary>
    public void PutBack(ExceptionRow row) =>
        changes.Add(
            Change.Delete(
                row.Version,
                [
                    .. KeyOf(row.Person, row.Item, row.Field),
                    Tables.Exceptions.Value.Is(Parse(row.Value)),
                    Tables.Exceptions.Move.Is(Parse(row.Move)),
                ]
            )
        );

    private void Set(ForOneStudent given, string field, JsonNode? value)
    {
        var person = PlanIds.IdOf(given.Student);
        var move = given.Move is { } mark ? JsonNode.Parse(MoveText.Of(mark)) : null;
        var key = KeyOf(person, given.Item.Name, field);
        if (!present.TryGetValue((person, given.Item.Name, field), out var row))
        {
            changes.Add(Change.Add([.. key, Tables.Exceptions.Value.Is(value), Tables.Exceptions.Move.Is(move)]));
            return;
        }
        Turn[] turns = [Tables.Exceptions.Value.Turns(Parse(row.Value), value), Tables.Exceptions.Move.Turns(Parse(row.Move), move)];
        // What was agreed with them stays theirs, when a move would only say the same again.
        if (turns[0].Changes)
            changes.Add(Change.Set(key, row.Version, turns));
    }

    private Cell[] KeyOf(Id<Person> person, string item, string field) =>
        [
            Tables.Exceptions.Edition.Is(plan.Id),
            Tables.Exceptions.Person.Is(person),
            Tables.Exceptions.Item.Is(item),
            Tables.Exceptions.Field.Is(field),
        ];

    private static JsonNode? Parse(string? json) => json is null ? null : JsonNode.Parse(json);
}
