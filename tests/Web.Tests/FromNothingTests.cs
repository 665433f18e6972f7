using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>A course made from nothing: three steps, a branch by score and a choice, in two sections, walked by their students.</summary>
public sealed class FromNothingTests : LeadOfASchool
{
    private const string Scheme = """
        In the air
          First flights   1 class
            task  Step one
            task  Step two
            task  Step three
            quiz  Which way is up
            page  Higher still
            page  Once more
            choice  Your own craft
            page  With a tail
            page  Without one
        """;

    // A quiz of 20 points: the first two come to 14, the first alone to 13.
    private const string Questions = "Thirteen?\nnumber: 13\npoints: 13\n\nOne?\nnumber: 1\npoints: 1\n\nSix?\nnumber: 6\npoints: 6";

    private readonly Dictionary<string, (long Id, string Lineage)> items = [];
    private readonly Dictionary<string, (Caller Caller, long Section, long Id)> students = [];
    private long edition;
    private long elder;
    private long fir;

    private static string Text(JsonNode? node) => node!.GetValue<string>();

    protected override async Task Prepare()
    {
        var term = await School.Sql(connection =>
            connection.ExecuteScalarAsync<long>("SELECT id FROM term WHERE name = 'Autumn term 2026'")
        );
        var made = await Sent(
            Lead,
            "/api/me/make-course",
            new
            {
                title = "Kites",
                term,
                basis = "meetings",
                scheme = Scheme,
                answers = Array.Empty<object>(),
            }
        );
        edition = made["edition"]!.GetValue<long>();
        using var office = await School.As(DemoPeople.Office);
        object Section(string name, string period) =>
            new
            {
                name,
                subject = "Geography",
                year = "9",
                teachers = new[] { School.Ids["person:" + DemoPeople.Lead] },
                slots = new[] { new { day = "mon", periods = new[] { period } } },
            };
        await Sent(
            office,
            "/api/school/make-sections",
            new { term, sections = new[] { Section("9 Elder", "P1"), Section("9 Fir", "P2") } }
        );
        foreach (var name in new[] { "9 Elder", "9 Fir" })
        {
            var section = (await Lead.Get($"/api/editions/{edition}/joinable")).Json["sections"]!
                .AsArray()
                .Single(one => Text(one!["name"]) == name)!;
            var id = section["section"]!.GetValue<long>();
            await Sent(
                Lead,
                In("join-section"),
                new
                {
                    section = id,
                    version = section["version"]!.GetValue<long>(),
                    from = (string?)null,
                    homes = Array.Empty<object>(),
                }
            );
            (elder, fir) = name == "9 Elder" ? (id, fir) : (elder, id);
        }
        foreach (var unit in await Units())
        {
            var lesson = unit!["lessons"]![0]!;
            foreach (var item in lesson["items"]!.AsArray())
            {
                var id = item!["id"]!.GetValue<long>();
                items[Text(item["title"])] = (id, Text((await Lead.Get(In($"items/{id}"))).Json["lineage"]));
            }
            object Row(string of, JsonNode row) =>
                new Dictionary<string, long> { [of] = row["id"]!.GetValue<long>(), ["version"] = row["version"]!.GetValue<long>() };
            await Sent(
                Lead,
                In("change-items"),
                new
                {
                    units = new[] { Row("unit", unit) },
                    lessons = new[] { Row("lesson", lesson) },
                    items = lesson["items"]!.AsArray().Select(item => Row("item", item!)),
                    published = true,
                }
            );
        }
        foreach (var (name, section) in new[] { (DemoPeople.OnTrack, elder), (DemoPeople.HeldUp, elder), (DemoPeople.JoinedLate, fir) })
        {
            await Sent(
                Lead,
                In("join-students"),
                new
                {
                    section,
                    addresses = new[] { DemoPeople.Email(name) },
                    from = "2026-09-03",
                }
            );
            students[name] = (await School.As(name), section, School.Ids["person:" + name]);
        }
    }

    public override async ValueTask DisposeAsync()
    {
        foreach (var student in students.Values)
            student.Caller.Dispose();
        await base.DisposeAsync();
    }

    private string In(string route) => $"/api/editions/{edition}/{route}";

    private async Task<JsonArray> Units() => (await Lead.Get(In("outline"))).Json["units"]!.AsArray();

    private static async Task<JsonNode> Sent(Caller who, string address, object body)
    {
        var reply = await who.Post(address, body, Guid.NewGuid());
        reply.Status.ShouldBe(HttpStatusCode.OK, $"{address} {reply.Text}");
        return reply.Json;
    }

    private async Task<object> When(string title, object gate) =>
        new
        {
            item = items[title].Id,
            gate,
            version = (await Lead.Get(In($"items/{items[title].Id}"))).Json["version"]!.GetValue<long>(),
        };

    private async Task Set(params IEnumerable<(string Title, object Gate)> gates)
    {
        var conditions = new List<object>();
        foreach (var (title, gate) in gates)
            conditions.Add(await When(title, gate));
        await Sent(Lead, In("set-conditions"), new { conditions });
    }

    private object Returned(string title) => new { item = items[title].Lineage, @is = "returned" };

    /// <summary>What a student's own page says of an item; null: it is not there for them.</summary>
    private async Task<string?> State(string student, string title)
    {
        var (caller, section, _) = students[student];
        var page = await caller.Get($"/api/sections/{section}/items/{items[title].Id}");
        return page.Status == HttpStatusCode.NotFound ? null : Text(page.Json["state"]);
    }

    private Task<JsonNode> Do(string student, string command, object body) =>
        Sent(students[student].Caller, $"/api/sections/{students[student].Section}/{command}", body);

    private Task HandIn(string student, string title) =>
        Do(
            student,
            "hand-in",
            new
            {
                item = items[title].Id,
                text = "It flew.",
                pressedAt = (string?)null,
            }
        );

    private async Task GiveBack(string student, string title)
    {
        var (_, section, id) = students[student];
        var piece = (await Lead.Get(In("work"))).Json["sections"]!
            .AsArray()
            .SelectMany(one => one!["pieces"]!.AsArray())
            .Single(one => one!["student"]!.GetValue<long>() == id && one["item"]!.GetValue<long>() == items[title].Id)!;
        await Sent(
            Lead,
            $"/api/sections/{section}/give-back",
            new
            {
                work = piece["work"]!.GetValue<long>(),
                n = piece["n"]!.GetValue<int>(),
                text = "",
                again = false,
            }
        );
    }

    private async Task<IReadOnlyList<string>> Checks(string title) =>
        [
            .. (await Lead.Get(In("checks"))).Json["checks"]!
                .AsArray()
                .Where(check => check!["rows"]!.AsArray().Select(Text).Contains($"item-{items[title].Id}"))
                .Select(check => Text(check!["words"])),
        ];

    [Fact]
    public async Task Marking_one_students_step_frees_that_student_and_where_a_step_is_dropped_nobody_is_stuck()
    {
        await Set([("Step two", Returned("Step one")), ("Step three", Returned("Step two"))]);
        foreach (var student in students.Keys)
            await HandIn(student, "Step one");
        async Task<string> States(string title)
        {
            var states = new List<string>();
            foreach (var student in students.Keys)
                states.Add(await State(student, title) ?? "-");
            return string.Join(' ', states);
        }
        (await States("Step two")).ShouldBe("locked locked locked");
        await GiveBack(DemoPeople.OnTrack, "Step one");
        (await States("Step two")).ShouldBe("open locked locked");
        (await States("Step three")).ShouldBe("locked locked locked");

        // Dropped in one section, the last step waits there for the first; the finding names that section only.
        await Sent(
            Lead,
            In("differ"),
            new
            {
                changes = new[]
                {
                    new
                    {
                        section = elder,
                        of = "item",
                        target = items["Step two"].Id,
                        field = "skip",
                        putBack = false,
                        value = true,
                        version = 0,
                    },
                },
            }
        );
        var words = (await Checks("Step three")).ShouldHaveSingleItem();
        words.ShouldContain("9 Elder");
        words.ShouldNotContain("9 Fir");
        (await States("Step three")).ShouldBe("open locked locked");
        await GiveBack(DemoPeople.HeldUp, "Step one");
        await GiveBack(DemoPeople.JoinedLate, "Step one");
        (await States("Step three")).ShouldBe("open open locked");
        (await States("Step two")).ShouldBe("- - open");
    }

    [Fact]
    public async Task Exactly_70_per_cent_passes_and_a_retake_at_65_leaves_open_what_was_open()
    {
        var quiz = items["Which way is up"];
        await Sent(
            Lead,
            In("write-quiz"),
            new
            {
                item = quiz.Id,
                text = Questions,
                rules = new
                {
                    limit = (int?)null,
                    attempts = 3,
                    @using = "latest",
                    shown = "at-once",
                    outOf = (decimal?)null,
                    mixesQuestions = false,
                    mixesOptions = false,
                    scoreShown = (string?)null,
                },
                version = (await Lead.Get(In($"items/{quiz.Id}/quiz"))).Json["version"]!.GetValue<long>(),
            }
        );
        await Set([
            (
                "Higher still",
                new
                {
                    item = quiz.Lineage,
                    scoreMin = 70,
                    @using = "latest",
                }
            ),
            (
                "Once more",
                new
                {
                    item = quiz.Lineage,
                    scoreBelow = 70,
                    @using = "latest",
                }
            ),
        ]);
        (await Checks("Which way is up")).ShouldBeEmpty();
        async Task Take(string student, params string[] answers)
        {
            var (caller, section, _) = students[student];
            var n = (await Do(student, "begin-quiz", new { item = quiz.Id }))["n"]!.GetValue<int>();
            var put = (await caller.Get($"/api/sections/{section}/items/{quiz.Id}/quiz")).Json["running"]!["questions"]!.AsArray();
            for (var at = 0; at < answers.Length; at++)
                await Do(
                    student,
                    "answer-quiz",
                    new
                    {
                        item = quiz.Id,
                        n,
                        question = Text(put[at]!["id"]),
                        answer = answers[at],
                    }
                );
            await Do(student, "end-quiz", new { item = quiz.Id, n });
        }
        async Task<(string? Higher, string? Again)> Stand(string student) =>
            (await State(student, "Higher still"), await State(student, "Once more"));

        (await Stand(DemoPeople.OnTrack)).ShouldBe(("locked", null));
        await Take(DemoPeople.OnTrack, "13", "1");
        (await Stand(DemoPeople.OnTrack)).ShouldBe(("open", null));
        await Take(DemoPeople.HeldUp, "13");
        (await Stand(DemoPeople.HeldUp)).ShouldBe(("locked", "open"));
        // The retake counts, and takes nothing away.
        await Take(DemoPeople.OnTrack, "13");
        (await Stand(DemoPeople.OnTrack)).Higher.ShouldBe("open");
        (await Take70Again()).ShouldBe("open");

        async Task<string?> Take70Again()
        {
            await Take(DemoPeople.HeldUp, "13", "1");
            return await State(DemoPeople.HeldUp, "Higher still");
        }
    }

    [Fact]
    public async Task A_form_tied_to_nothing_is_reported_before_and_then_each_student_sees_their_own()
    {
        var choice = items["Your own craft"];
        var options = (await Lead.Get(In($"items/{choice.Id}"))).Json["offers"]!["options"]!
            .AsArray()
            .Select(option => Text(option!["option"]))
            .ToList();
        options.Count.ShouldBe(2);
        object Picked(int n) => new { choice = choice.Lineage, picked = options[n] };
        await Set([("With a tail", Picked(0))]);
        (await Checks("Your own craft")).ShouldHaveSingleItem();
        await Set([("Without one", Picked(1))]);
        (await Checks("Your own craft")).ShouldBeEmpty();
        foreach (var student in students.Keys)
            (await State(student, "With a tail"), await State(student, "Without one")).ShouldBe((null, null));
        await Do(DemoPeople.OnTrack, "pick-options", new { item = choice.Id, options = new[] { options[0] } });
        await Do(DemoPeople.HeldUp, "pick-options", new { item = choice.Id, options = new[] { options[1] } });
        (await State(DemoPeople.OnTrack, "With a tail"), await State(DemoPeople.OnTrack, "Without one")).ShouldBe(("open", null));
        (await State(DemoPeople.HeldUp, "With a tail"), await State(DemoPeople.HeldUp, "Without one")).ShouldBe((null, "open"));
    }
}
