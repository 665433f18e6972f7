using System.Text.Json.Nodes;
using CsCheck;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Merging;

/// <summary>What always holds of a merge. Source: the merge file, <i>Holds</i>.</summary>
public sealed class TreeMergePropertiesTests
{
    private sealed record Thing(string Id, int Title, int[] Blocks, List<Thing> Lessons, List<Thing> Items);

    // Few ids and values, so that the three have much in common; an id stands once, at its own level.
    private static readonly Gen<JsonObject> Trees = Gen.Select(
            Gen.Int[0, 2],
            Gen.Shuffle(new[] { 0, 1, 2 }),
            Gen.Int[-1, 3].Array[5],
            Gen.Int[-1, 7].Array[6],
            Gen.Select(Gen.Int[0, 2], Gen.Int[0, 1], Gen.Int[0, 5]).Array[14],
            Gen.Int[0, 1].Array[3]
        )
        .Select((title, units, lessonIn, itemIn, says, has) => Drawn(title, units, lessonIn, itemIn, says, has));

    private static JsonObject Drawn(
        int title,
        int[] order,
        int[] lessonIn,
        int[] itemIn,
        (int Title, int Text, int Order)[] says,
        int[] has
    )
    {
        JsonObject Said(string? id, int at, params string[] lists)
        {
            var (value, text, turn) = says[at];
            var thing = new JsonObject { ["fields"] = value == 0 ? new JsonObject() : new JsonObject { ["title"] = value } };
            if (id is not null)
                thing["id"] = id;
            var blocks = new[] { "b1", "b2", "b3" }.Skip(turn % 3).Concat(new[] { "b1", "b2", "b3" }.Take(turn % 3)).Take(turn / 2 + text);
            thing["texts"] = new JsonObject
            {
                ["body"] = new JsonArray([.. blocks.Select(block => new JsonObject { ["id"] = block, ["text"] = $"{text}" })]),
            };
            foreach (var list in lists)
                thing[list] = new JsonArray();
            return thing;
        }
        var root = new JsonObject
        {
            ["fields"] = new JsonObject { ["title"] = title },
            ["units"] = new JsonArray(),
        };
        var places = new List<JsonObject>();
        foreach (var n in order.Where(n => has[n] == 1 || n == 0))
        {
            var unit = Said($"u{n}", n, "lessons", "items");
            root["units"]!.AsArray().Add(unit);
            places.Add(unit);
        }
        var units = places.Count;
        for (var n = 0; n < lessonIn.Length; n++)
            if (lessonIn[n] >= 0)
            {
                var lesson = Said($"l{n}", 3 + n, "items");
                Put(places[lessonIn[n] % units]["lessons"]!.AsArray(), lesson, says[n].Order);
                places.Add(lesson);
            }
        for (var n = 0; n < itemIn.Length; n++)
            if (itemIn[n] >= 0)
                Put(places[itemIn[n] % places.Count]["items"]!.AsArray(), Said($"i{n}", 8 + n), says[n].Order);
        return root;

        static void Put(JsonArray list, JsonObject thing, int at) => list.Insert(Math.Min(at % 3, list.Count), thing);
    }

    private static JsonNode Merge(JsonNode past, JsonNode mine, JsonNode theirs, params IEnumerable<JsonNode> choices)
    {
        var answer = MergeFiles.Answer(MergeFiles.Of(past, mine, theirs, choices));
        answer["error"].ShouldBeNull(answer.ToJsonString());
        return answer;
    }

    // As the answer writes it: with every member, and without what is empty.
    private static JsonNode Whole(JsonNode tree) => Merge(tree, tree, tree)["merged"]!;

    private static int Conflicts(JsonNode answer) => answer["conflicts"]!.AsArray().Count;

    private static void Same(JsonNode one, JsonNode other, string why) =>
        JsonNode.DeepEquals(one, other).ShouldBeTrue($"{why}\n{one.ToJsonString()}\n{other.ToJsonString()}");

    private static IEnumerable<string> Ids(JsonNode thing) =>
        new[] { "units", "lessons", "items" }
            .SelectMany(list => thing[list]?.AsArray() ?? [])
            .SelectMany(below => Ids(below!).Prepend(below!["id"]!.GetValue<string>()));

    private static JsonObject Choice(JsonNode conflict, string take)
    {
        var choice = conflict.DeepClone().AsObject();
        foreach (var member in new[] { "base", "mine", "theirs" })
            choice.Remove(member);
        choice["take"] = take;
        return choice;
    }

    // Every conflict chosen, those too that another choice brings to light.
    private static (JsonNode Answer, List<JsonObject> Choices) Settled(
        JsonNode past,
        JsonNode mine,
        JsonNode theirs,
        Func<int, string> take
    )
    {
        var choices = new List<JsonObject>();
        var answer = Merge(past, mine, theirs);
        while (answer["conflicts"]!.AsArray().Where(conflict => conflict!["take"] is null).ToList() is { Count: > 0 } open)
        {
            choices.AddRange(open.Select(conflict => Choice(conflict!, take(choices.Count))));
            answer = Merge(past, mine, theirs, choices);
        }
        return (answer, choices);
    }

    // Something both have, each in a place that the other lacks. Where both places are gone mine comes back, so sides are not alike.
    private static bool HasNoPlace(JsonNode mine, JsonNode theirs)
    {
        var (here, there) = (Places(mine, ""), Places(theirs, ""));
        return here.Any(one => there.TryGetValue(one.Key, out var place) && !there.ContainsKey(one.Value) && !here.ContainsKey(place));
    }

    private static Dictionary<string, string> Places(JsonNode thing, string id) =>
        new[] { "units", "lessons", "items" }
            .SelectMany(list => thing[list]?.AsArray() ?? [])
            .SelectMany(below => Places(below!, below!["id"]!.GetValue<string>()).Append(new(below["id"]!.GetValue<string>(), id)))
            .ToDictionary();

    private static string Turned(string take) => take == "mine" ? "theirs" : "mine";

    [Fact]
    public void With_one_side_unchanged_the_other_stands_as_it_is() =>
        Gen.Select(Trees, Trees)
            .Sample(
                (past, other) =>
                {
                    foreach (var answer in new[] { Merge(past, past, other), Merge(past, other, past), Merge(past, other, other) })
                    {
                        Same(answer["merged"]!, Whole(other), "the other");
                        Conflicts(answer).ShouldBe(0);
                    }
                    Merge(past, other, past)["taken"]!.AsArray().ShouldBeEmpty();
                    Merge(past, past, other)["kept"]!.AsArray().ShouldBeEmpty();
                },
                iter: 500
            );

    [Fact]
    public void Turned_round_it_comes_to_the_same_where_all_is_chosen_and_choices_are_turned_round_too() =>
        Gen.Select(Trees, Trees, Trees, Gen.Int[0, 1].Array[40])
            .Sample(
                (past, mine, theirs, takes) =>
                {
                    if (HasNoPlace(mine, theirs))
                        return;
                    var (answer, choices) = Settled(past, mine, theirs, n => takes[n % takes.Length] == 0 ? "mine" : "theirs");
                    var turned = choices.Select(choice =>
                    {
                        var other = choice.DeepClone().AsObject();
                        other["take"] = Turned(choice["take"]!.GetValue<string>());
                        return other;
                    });
                    var back = Merge(past, theirs, mine, turned);
                    Same(answer["merged"]!, back["merged"]!, $"{past.ToJsonString()}\n{mine.ToJsonString()}\n{theirs.ToJsonString()}");
                    Same(answer["taken"]!, back["kept"]!, "taken");
                    // A choice can do away with another conflict that was chosen before.
                    Same(answer["idle"]!, back["idle"]!, "idle");
                },
                iter: 1500
            );

    // A few things done to a tree by one person: what they add has ids of their own.
    private static JsonNode Edited(JsonNode tree, string who, (int What, int Where)[] steps)
    {
        var edited = tree.DeepClone();
        foreach (var ((what, where), n) in steps.Select((step, n) => (step, n)))
        {
            var lists = Lists(edited).ToList();
            var list = lists[where % lists.Count];
            if (what == 0 || list.Count == 0)
                list.Insert(
                    where % (list.Count + 1),
                    new JsonObject
                    {
                        ["id"] = $"{who}{n}",
                        ["fields"] = new JsonObject { ["by"] = who },
                    }
                );
            else if (what == 1)
                list[where % list.Count]!["fields"]![where % 2 == 0 ? "title" : "goal"] = $"{who}{n}";
            else if (what == 2)
                list.RemoveAt(where % list.Count);
            else if (list[where % list.Count] is var thing)
            {
                thing!["texts"] ??= new JsonObject();
                var body = thing["texts"]!["body"] as JsonArray ?? [];
                if (body.Parent is null)
                    thing["texts"]!["body"] = body;
                body.Add(new JsonObject { ["id"] = $"{who}{n}", ["text"] = who });
            }
        }
        return edited;
    }

    // Items only: then nothing that is added is of another level in another tree.
    private static IEnumerable<JsonArray> Lists(JsonNode thing) =>
        new[] { "units", "lessons" }
            .SelectMany(list => thing[list]?.AsArray() ?? [])
            .SelectMany(below => Lists(below!))
            .Concat(thing["items"] is JsonArray items ? [items] : []);

    [Fact]
    public void Taken_in_two_steps_it_comes_to_the_same_as_in_one()
    {
        var steps = Gen.Select(Gen.Int[0, 3], Gen.Int[0, 60]).Array[2];
        var quiet = 0;
        Gen.Select(Trees, steps, steps, steps)
            .Sample(
                (drawn, own, first, second) =>
                {
                    var past = Whole(drawn);
                    var (mine, one, other) = (Edited(past, "m", own), Edited(past, "s", first), Edited(past, "t", second));
                    var both = Merge(past, one, other);
                    var taken = Merge(past, mine, one);
                    if (Conflicts(both) + Conflicts(taken) > 0)
                        return;
                    var then = Merge(one, taken["merged"]!, both["merged"]!);
                    // Where what stood between two additions was removed meanwhile, only the one step has to ask which comes first.
                    var direct = Merge(past, mine, both["merged"]!);
                    if (Conflicts(then) + Conflicts(direct) > 0)
                        return;
                    Interlocked.Increment(ref quiet);
                    Same(then["merged"]!, direct["merged"]!, "in one step");
                },
                iter: 1500
            );
        quiet.ShouldBeGreaterThan(50);
    }

    [Fact]
    public void What_was_taken_is_not_offered_again_and_nothing_is_lost_that_both_have() =>
        Gen.Select(Trees, Trees, Trees, Gen.Int[0, 1].Array[40])
            .Sample(
                (past, mine, theirs, takes) =>
                {
                    var (answer, _) = Settled(past, mine, theirs, n => takes[n % takes.Length] == 0 ? "mine" : "theirs");
                    var again = Merge(theirs, answer["merged"]!, theirs);
                    Same(again["merged"]!, answer["merged"]!, "again");
                    again["taken"]!.AsArray().ShouldBeEmpty();
                    var there = Ids(answer["merged"]!).ToList();
                    there.Distinct().Count().ShouldBe(there.Count);
                    Ids(mine).Intersect(Ids(theirs)).Except(there).ShouldBeEmpty();
                },
                iter: 500
            );
}
