using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Scores: what stands for whom, what it comes to, and who reads it.</summary>
public sealed class ScoreTests : LeadOfASchool
{
    private const string Step = "Isobars by hand";
    private const string Quiz = "Looking up: what we know";

    private Task<JsonNode> Scores(Caller? who = null) => Json("scores", who ?? Lead);

    private async Task<JsonNode> Json(string route, Caller who)
    {
        var reply = await who.Get(Route(route));
        reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
        return reply.Json;
    }

    private static JsonNode Section(JsonNode scores, string name) =>
        scores["sections"]!.AsArray().Single(section => section!["name"]!.GetValue<string>() == name)!;

    private static JsonNode Line(JsonNode scores, string section, string student) =>
        Section(scores, section)["students"]!.AsArray().Single(line => line!["name"]!.GetValue<string>() == student)!;

    private static int Place(JsonNode scores, string title) =>
        scores["items"]!.AsArray().TakeWhile(item => item!["title"]!.GetValue<string>() != title).Count();

    private static string? Text(JsonNode? node) => node?.GetValue<string>();

    private async Task<Reply> AddUp(object adding, bool preview = false) =>
        await Lead.Post(
            Route("add-up-scores") + (preview ? "?preview=true" : ""),
            new { addingUp = adding, version = (await Scores())["version"]!.GetValue<long>() },
            preview ? null : Guid.NewGuid()
        );

    private async Task<object> ByUnit(decimal first, decimal others, bool missingAsZero = false, int drop = 0) =>
        new
        {
            by = "unit",
            units = (await Scores())["units"]!
                .AsArray()
                .Select(
                    (unit, n) =>
                        new
                        {
                            unit = unit!["unit"]!.GetValue<long>(),
                            weight = n == 0 ? first : others,
                            drop,
                        }
                ),
            purposes = Array.Empty<object>(),
            missingAsZero,
        };

    [Fact]
    public async Task A_total_is_the_sum_of_what_the_table_shows_and_says_what_it_leaves_out()
    {
        var scores = await Scores();
        var line = Line(scores, "9 Alder", DemoPeople.OnTrack);
        var total = (await Json($"students/{School.Ids["person:" + DemoPeople.OnTrack]}/total", Lead))["total"]!;
        var counted = scores["items"]!
            .AsArray()
            .Zip(line["cells"]!.AsArray())
            .Where(pair => Text(pair.First!["purpose"]) == "for-marks" && pair.Second!["percent"] is not null)
            .Select(pair => (Points: decimal.Parse(Text(pair.Second!["points"])!), OutOf: decimal.Parse(Text(pair.First!["outOf"])![3..])))
            .ToList();
        counted.Count.ShouldBeGreaterThan(2);
        var share = 100 * counted.Sum(one => one.Points) / counted.Sum(one => one.OutOf);
        Text(line["soFar"]).ShouldBe($"{Math.Round(share, 1, MidpointRounding.AwayFromZero):0.0} %");
        Text(total["soFar"]).ShouldBe(Text(line["soFar"]));
        var part = total["parts"]!.AsArray().ShouldHaveSingleItem()!;
        Text(part["points"]).ShouldBe($"{counted.Sum(one => one.Points):0.##} of {counted.Sum(one => one.OutOf):0.##}");
        part["lines"]!.AsArray().Count.ShouldBe(counted.Count);
        total["left"]!.AsArray().Select(one => Text(one!["words"])).ShouldContain("not due yet");

        // Whoever is excused has the same total as if the item were not there.
        var excused = await Lead.Post(
            Route("for-students"),
            new
            {
                students = new[] { School.Ids["person:" + DemoPeople.OnTrack] },
                items = new[] { await School.Item(Quiz) },
                change = "excuse",
                days = (int?)null,
                until = (string?)null,
            },
            Guid.NewGuid()
        );
        excused.Status.ShouldBe(HttpStatusCode.OK, excused.Text);
        var after = (await Json($"students/{School.Ids["person:" + DemoPeople.OnTrack]}/total", Lead))["total"]!;
        after["left"]!.AsArray().Single(one => Text(one!["title"]) == Quiz)!["words"]!.GetValue<string>().ShouldBe("excused");
        after["parts"]![0]!["lines"]!.AsArray().Count.ShouldBe(counted.Count - 1);
    }

    [Fact]
    public async Task Units_are_weighed_what_is_missing_counts_if_wanted_and_all_of_it_is_undone()
    {
        var before = Line(await Scores(), "9 Alder", DemoPeople.OnTrack)["soFar"]!.GetValue<string>();
        var shown = await AddUp(await ByUnit(3, 1), preview: true);
        shown.Status.ShouldBe(HttpStatusCode.OK, shown.Text);
        shown.Json["reach"]!["sentence"]!.GetValue<string>().ShouldMatch(@"^\d+ students’ totals are worked out again\.$");
        Text(Line(await Scores(), "9 Alder", DemoPeople.OnTrack)["soFar"]).ShouldBe(before);

        (await AddUp(await ByUnit(3, 1))).Status.ShouldBe(HttpStatusCode.OK);
        var total = (await Json($"students/{School.Ids["person:" + DemoPeople.OnTrack]}/total", Lead))["total"]!;
        var parts = total["parts"]!.AsArray().ToList();
        parts.Count.ShouldBeGreaterThan(1);
        parts.Select(part => Text(part!["weight"])).ShouldBe(["3", .. parts.Skip(1).Select(_ => "1")]);
        var mean = parts.Sum(part => Weight(part!) * Percent(part!)) / parts.Sum(part => Weight(part!));
        decimal.Parse(Text(total["soFar"])![..^2]).ShouldBe(mean, 0.1m);
        // What has no weight enters nothing.
        (await AddUp(await ByUnit(0, 1))).Status.ShouldBe(HttpStatusCode.OK);
        (await Json($"students/{School.Ids["person:" + DemoPeople.OnTrack]}/total", Lead))["total"]!["left"]!
            .AsArray()
            .Single(one => Text(one!["title"]) == Quiz)!["words"]!
            .GetValue<string>()
            .ShouldBe("has no weight");

        // Somebody with something overdue falls once what is missing counts, and is told so.
        var overdue = Section(await Scores(), "9 Alder")["students"]!
            .AsArray()
            .First(line => line!["soFar"] is not null && line["cells"]!.AsArray().Any(cell => Text(cell!["words"]) == "overdue"))![
            "student"
        ]!.GetValue<long>();
        var open = (await Json($"students/{overdue}/total", Lead))["total"]!;
        (await AddUp(await ByUnit(1, 1, missingAsZero: true))).Status.ShouldBe(HttpStatusCode.OK);
        var asZero = (await Json($"students/{overdue}/total", Lead))["total"]!;
        asZero["parts"]!
            .AsArray()
            .SelectMany(part => part!["lines"]!.AsArray())
            .Count(one => Text(one!["words"])!.EndsWith(", not handed in", StringComparison.Ordinal))
            .ShouldBe(open["left"]!.AsArray().Count(one => Text(one!["words"]) == "not handed in"));
        // Of a unit's scores the lowest is left out, but one always stays.
        (await AddUp(await ByUnit(1, 1, drop: 20))).Status.ShouldBe(HttpStatusCode.OK);
        (await Json($"students/{School.Ids["person:" + DemoPeople.OnTrack]}/total", Lead))["total"]!["parts"]!
            .AsArray()
            .ShouldAllBe(part => part!["lines"]!.AsArray().Count == 1);

        for (var back = 0; back < 4; back++)
        {
            var history = (await Json("history", Lead))["changes"]!.AsArray();
            var latest = history.First(change => !change!["undone"]!.GetValue<bool>() && !change["isUndo"]!.GetValue<bool>())!;
            (await Lead.Post(Route("undo"), new { batch = latest["batch"]!.GetValue<long>() }, Guid.NewGuid())).Status.ShouldBe(
                HttpStatusCode.OK
            );
        }
        Text(Line(await Scores(), "9 Alder", DemoPeople.OnTrack)["soFar"]).ShouldBe(before);

        static decimal Weight(JsonNode part) => decimal.Parse(Text(part["weight"])!);
        static decimal Percent(JsonNode part) => decimal.Parse(Text(part["percent"])![..^2]);
    }

    [Theory]
    [InlineData("loudness", 1, 0, "Weight by unit, by purpose, or not at all.")]
    [InlineData("unit", 0, 0, "Give at least one weight above 0: without any, nothing would count.")]
    [InlineData("unit", 10_001, 0, "A weight is a number from 0 to 10,000, with at most two decimals.")]
    [InlineData("unit", 0.005, 0, "A weight is a number from 0 to 10,000, with at most two decimals.")]
    [InlineData("nothing", 1, 21, "Leave out 0 to 20 scores per unit.")]
    public async Task What_cannot_be_weighed_so_is_refused(string by, double weight, int drop, string words)
    {
        var unit = (await Scores())["units"]![0]!["unit"]!.GetValue<long>();
        var reply = await AddUp(
            new
            {
                by,
                units = new[]
                {
                    new
                    {
                        unit,
                        weight,
                        drop,
                    },
                },
                purposes = Array.Empty<object>(),
                missingAsZero = false,
            }
        );
        reply.Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        reply.Text.ShouldContain(words);
    }

    [Fact]
    public async Task Students_read_their_own_and_nothing_of_a_quiz_whose_marks_are_never_shown()
    {
        using var student = await School.As(DemoPeople.OnTrack);
        var address = $"/api/sections/{School.Ids["section:9 Alder"]}/scores";
        var own = (await student.Get(address)).Json["total"]!;
        var line = Line(await Scores(), "9 Alder", DemoPeople.OnTrack);
        Text(own["soFar"]).ShouldBe(Text(line["soFar"]));
        own["parts"]![0]!["lines"]!.AsArray().Select(one => Text(one!["title"])).ShouldContain(Quiz);
        // What is hidden from them is not named either.
        var (n, _) = line["cells"]!.AsArray().Index().First(cell => Text(cell.Item!["words"]) == "not published");
        own.ToJsonString().ShouldNotContain(Text((await Scores())["items"]![n]!["title"])!);

        var quiz = await School.Item(Quiz);
        var asked = await Lead.Get(Route($"items/{quiz}/quiz"));
        var rules = asked.Json["rules"]!.DeepClone();
        rules["shown"] = "never";
        rules["scoreShown"] = "never";
        var written = await Lead.Post(
            Route("write-quiz"),
            new JsonObject
            {
                ["item"] = quiz,
                ["text"] = asked.Json["text"]!.DeepClone(),
                ["rules"] = rules,
                ["version"] = asked.Json["version"]!.DeepClone(),
            },
            Guid.NewGuid()
        );
        written.Status.ShouldBe(HttpStatusCode.OK, written.Text);
        var after = (await student.Get(address)).Json["total"]!;
        after.ToJsonString().ShouldNotContain(Quiz);
        // Their teacher sees it as before, marked by the same keys.
        var same = Line(await Scores(), "9 Alder", DemoPeople.OnTrack);
        Text(same["soFar"]).ShouldBe(Text(line["soFar"]));
        Text(after["soFar"]).ShouldNotBe(Text(line["soFar"]));
    }

    [Fact]
    public async Task A_co_teacher_reads_their_own_section_only_on_the_screen_and_in_files()
    {
        using var co = await School.As(DemoPeople.CoTeacher);
        var scores = await Scores(co);
        scores["sections"]!.AsArray().Select(section => Text(section!["name"])).ShouldBe(["9 Dogwood"]);
        (await co.Get(Route($"scores.csv?section={School.Ids["section:9 Alder"]}"))).Status.ShouldBe(HttpStatusCode.NotFound);
        var names = Section(await Scores(), "9 Alder")["students"]!.AsArray().Select(line => Text(line!["name"])!).ToList();
        var own = Section(scores, "9 Dogwood")["students"]!.AsArray().Select(line => Text(line!["name"])!).ToHashSet();
        var csv = (await co.Get(Route("scores.csv"))).Text;
        names.Where(name => !own.Contains(name)).ShouldAllBe(name => !csv.Contains(name));
        own.ShouldAllBe(name => csv.Contains(name));
    }

    [Fact]
    public async Task The_file_says_what_the_table_shows()
    {
        var scores = await Scores();
        var lines = (await Lead.Get(Route($"scores.csv?section={School.Ids["section:9 Alder"]}"))).Text.Trim('\uFEFF').Split("\r\n");
        var line = Line(scores, "9 Alder", DemoPeople.OnTrack);
        var row = lines.Single(one => one.StartsWith(DemoPeople.OnTrack, StringComparison.Ordinal)).Split(',');
        row[1].ShouldBe("9 Alder");
        row[2 + Place(scores, Step)].ShouldBe(Text(line["cells"]![Place(scores, Step)]!["points"]));
        row[^1].ShouldBe(Text(line["soFar"])![..^2]);
        lines.Length.ShouldBe(2 + Section(scores, "9 Alder")["students"]!.AsArray().Count);
    }

    [Fact]
    public async Task The_results_file_names_students_and_sections_as_the_roster_does_and_says_what_the_table_shows()
    {
        var (alder, imke) = (School.Ids["section:9 Alder"], School.Ids["person:" + DemoPeople.OnTrack]);
        await School.Sql(connection =>
            connection.ExecuteAsync(
                """
                INSERT INTO roster_key (source, kind, key, about)
                VALUES ('feed', 'section', 'c-9-alder', @alder), ('feed', 'person', 'u-imke', @imke)
                """,
                new { alder, imke }
            )
        );
        var file = await Lead.Get(Route($"results.zip?section={alder}"));
        var bytes = await file.Message.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken);
        var (items, results) = (Rows("lineItems.csv"), Rows("results.csv"));
        var id = $"polycline-item-{await School.Item(Step)}-section-{alder}";
        var item = items.Single(row => row[0] == id);
        (item[3], item[7], item[8], item[11]).ShouldBe(("2.12 Isobars by hand", "c-9-alder", "for-marks", "10"));
        var scores = await Scores();
        var result = results.Single(row => row[3] == id && row[4] == "u-imke");
        var cell = Line(scores, "9 Alder", DemoPeople.OnTrack)["cells"]![Place(scores, Step)]!;
        (result[5], result[6]).ShouldBe(("fully graded", Text(cell["points"])!));
        results.ShouldAllBe(row => items.Any(known => known[0] == row[3]));
        results.Select(row => row[0]).ShouldBeUnique();
        // Whoever came by no roster has an id of our own.
        results.ShouldContain(row => row[4].StartsWith("polycline-person-", StringComparison.Ordinal));
        string.Concat(results.SelectMany(row => row)).ShouldNotContain("@");

        List<string[]> Rows(string name)
        {
            using var zip = new System.IO.Compression.ZipArchive(new MemoryStream(bytes));
            using var text = new StreamReader(zip.GetEntry(name)!.Open());
            return [.. text.ReadToEnd().TrimEnd().Split("\r\n").Skip(1).Select(line => line.Split(','))];
        }
    }

    [Fact]
    public async Task A_spread_lies_among_the_scores_it_is_made_of()
    {
        var scores = await Scores();
        var place = Place(scores, Quiz);
        foreach (var section in scores["sections"]!.AsArray())
        {
            var shares = section!["students"]!
                .AsArray()
                .Select(line => Text(line!["cells"]![place]!["percent"]))
                .OfType<string>()
                .Select(percent => decimal.Parse(percent[..^2]))
                .Order()
                .ToList();
            var spread = section["spreads"]![place];
            if (shares.Count == 0)
            {
                spread.ShouldBeNull();
                continue;
            }
            // The score of somebody who joined after it was due, or is excused, is shown, and counts in no spread.
            spread!["students"]!.GetValue<int>().ShouldBeInRange(shares.Count - 1, shares.Count);
            var (low, median, high) = (Of("low"), Of("median"), Of("high"));
            low.ShouldBeLessThanOrEqualTo(median);
            median.ShouldBeLessThanOrEqualTo(high);
            shares.Count(share => share < median).ShouldBeLessThanOrEqualTo(shares.Count / 2);
            shares.Count(share => share > median).ShouldBeLessThanOrEqualTo(shares.Count / 2);

            decimal Of(string member) => spread[member]!.GetValue<decimal>();
        }
    }

    [Fact]
    public async Task Questions_say_how_they_went_where_and_which_wrong_answers_are_frequent()
    {
        var answer = await Json($"items/{await School.Item(Quiz)}/questions", Lead);
        var questions = answer["questions"]!.AsArray();
        questions.Count.ShouldBeGreaterThan(3);
        foreach (var asked in questions.Select(question => question!["sections"]!.AsArray()))
        {
            asked.Select(section => Text(section!["name"])).ShouldContain("9 Alder");
            foreach (var section in asked)
            {
                var (students, right) = (section!["students"]!.GetValue<int>(), section["right"]!.GetValue<int>());
                students.ShouldBeGreaterThan(5);
                right.ShouldBeInRange(0, students);
                section["wrong"]!.AsArray().Sum(wrong => wrong!["students"]!.GetValue<int>()).ShouldBeLessThanOrEqualTo(students - right);
                Text(section["tellsApart"]).ShouldNotBeNull();
            }
        }
        // What was picked is said in its own words, never by an id.
        questions
            .SelectMany(question => question!["sections"]!.AsArray())
            .SelectMany(section => section!["wrong"]!.AsArray())
            .Select(wrong => Text(wrong!["words"])!)
            .ToList()
            .ShouldSatisfyAllConditions(
                words => words.ShouldNotBeEmpty(),
                words => words.ShouldAllBe(word => !System.Text.RegularExpressions.Regex.IsMatch(word, @"^[a-z]\d+( [a-z]\d+)*$"))
            );
        using var co = await School.As(DemoPeople.CoTeacher);
        (await Json($"items/{await School.Item(Quiz)}/questions", co))["questions"]!
            .AsArray()
            .SelectMany(question => question!["sections"]!.AsArray())
            .ShouldAllBe(section => Text(section!["name"]) == "9 Dogwood");
        (await Lead.Get(Route($"items/{await School.Item(Step)}/questions"))).Status.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task An_item_that_is_given_back_in_words_by_now_shows_no_score_from_before()
    {
        var step = await School.Item(Step);
        Text(Line(await Scores(), "9 Alder", DemoPeople.OnTrack)["cells"]![Place(await Scores(), Step)]!["points"]).ShouldNotBeNull();
        var version = (await Lead.Get(Route($"items/{step}"))).Json["version"]!.GetValue<long>();
        var inWords = await Lead.Post(
            Route("mark-item-as"),
            new
            {
                item = step,
                marked = (object?)null,
                version,
            },
            Guid.NewGuid()
        );
        inWords.Status.ShouldBe(HttpStatusCode.OK, inWords.Text);
        var scores = await Scores();
        var cell = Line(scores, "9 Alder", DemoPeople.OnTrack)["cells"]![Place(scores, Step)]!;
        (Text(cell["words"]), Text(cell["points"]), Text(cell["percent"])).ShouldBe(("given back", null, null));
    }

    [Fact]
    public async Task Nothing_is_missing_of_what_a_student_could_not_open()
    {
        (await AddUp(await ByUnit(1, 1, missingAsZero: true))).Status.ShouldBe(HttpStatusCode.OK);
        var scores = await Scores();
        var locked = scores["sections"]!
            .AsArray()
            .SelectMany(section => section!["students"]!.AsArray())
            .SelectMany(line => line!["cells"]!.AsArray().Select((cell, n) => (Line: line, Words: Text(cell!["words"]), N: n)))
            .Where(one => one.Words is "locked" or "held back" or "to come")
            .Take(12)
            .ToList();
        locked.ShouldNotBeEmpty();
        foreach (var (line, _, n) in locked)
        {
            var total = (await Json($"students/{line["student"]!.GetValue<long>()}/total", Lead))["total"]!;
            var item = scores["items"]![n]!["item"]!.GetValue<long>();
            total["parts"]!
                .AsArray()
                .SelectMany(part => part!["lines"]!.AsArray())
                .ShouldNotContain(one => one!["item"]!.GetValue<long>() == item);
        }
    }
}
