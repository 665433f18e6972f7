using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Npgsql;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>The outline read and renamed, by two people at once.</summary>
public sealed class OutlineTests : IAsyncLifetime
{
    private School school = null!;
    private Caller lead = null!;
    private Caller co = null!;

    public async ValueTask InitializeAsync()
    {
        school = await School.Open();
        lead = await school.As(DemoPeople.Lead);
        co = await school.As(DemoPeople.CoTeacher);
    }

    public async ValueTask DisposeAsync()
    {
        lead.Dispose();
        co.Dispose();
        await school.DisposeAsync();
    }

    [Fact]
    public async Task It_has_the_whole_course_with_its_codes_and_who_follows()
    {
        var outline = (await lead.Get(Route("outline"))).Json;
        outline["counts"]!.ToJsonString().ShouldBe("""{"units":6,"lessons":38,"items":110,"unpublished":30,"behind":0}""");
        outline["units"]![2]!["title"]!.GetValue<string>().ShouldBe("Clouds by name");
        outline["units"]![2]!["lessons"]![0]!["items"]![2]!["code"]!.GetValue<string>().ShouldBe("3.03");
        outline["sections"]!
            .AsArray()
            .Select(section => $"{section!["letter"]} {section["name"]} {section["students"]}")
            .ShouldBe(["A 9 Alder 24", "B 9 Birch 23", "C 9 Cedar 25", "D 9 Dogwood 22"]);
    }

    [Fact]
    public async Task Once_students_have_seen_the_codes_nothing_changes_one()
    {
        async Task<Dictionary<string, string>> Codes() =>
            (await lead.Get(Route("dates"))).Json["units"]!
                .AsArray()
                .SelectMany(unit => unit!["items"]!.AsArray())
                .ToDictionary(row => row!["title"]!.GetValue<string>(), row => row!["code"]!.GetValue<string>());
        async Task<string> Added(string lesson, string title)
        {
            var (unit, on) = await school.Sql(connection =>
                connection.QuerySingleAsync<(long, long)>(
                    "SELECT unit, id FROM lesson WHERE edition = @WeatherWatch AND title = @lesson",
                    new { school.WeatherWatch, lesson }
                )
            );
            var reply = await lead.Post(
                Route("add-item"),
                new
                {
                    unit,
                    lesson = on,
                    kind = "page",
                    purpose = "to-read",
                    title,
                    section = (long?)null,
                },
                Guid.NewGuid()
            );
            reply.Status.ShouldBe(HttpStatusCode.OK, reply.Text);
            return (await Codes())[title];
        }
        var before = await Codes();
        var ramp = before.Keys.ToList().IndexOf("Label the ramp");
        (await Added("The warm front", "Between two")).ShouldBe(before.Values.ElementAt(ramp) + "a");
        var (item, version) = await CommandExamples.At(school, "item", "Between two");
        await lead.Post(Route("remove-item"), new { item, version }, Guid.NewGuid());
        (await Added("The warm front", "In its stead")).ShouldBe(before.Values.ElementAt(ramp) + "b");
        var move = await CommandExamples.All["move-item"](school);
        (await lead.Post(Route("move-item"), move!, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        var after = await Codes();
        before.ShouldEachBe(pair => after[pair.Key] == pair.Value);
        (
            await lead.Post(
                Route("change-course"),
                new
                {
                    codes = "straight",
                    before = "listed",
                    levels = (object?)null,
                    version = 1,
                },
                Guid.NewGuid()
            )
        ).Json["field"]!.GetValue<string>().ShouldBe("codes");
        // A course that has opened nothing is still numbered on.
        using var colleague = await school.As(DemoPeople.Colleague);
        var tides = $"/api/editions/{school.Ids["edition:Tides and Channels 2026"]}";
        var settings = (await colleague.Get($"{tides}/outline")).Json["settings"]!;
        (
            await colleague.Post(
                $"{tides}/change-course",
                new
                {
                    codes = "straight",
                    before = "listed",
                    levels = (object?)null,
                    version = (long)settings["version"]!,
                },
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
        (await colleague.Get($"{tides}/outline")).Text.ShouldContain("\"code\":\"#001\"");
    }

    [Fact]
    public async Task What_a_team_calls_its_levels_stands_in_every_sentence_and_goes_with_the_course()
    {
        var plain = (await lead.Get(Route("outline"))).Json["settings"]!["version"]!.GetValue<long>();
        async Task<Reply> Call(string unit, string lesson = "topic") =>
            await lead.Post(
                Route("change-course"),
                new
                {
                    codes = "by-unit",
                    before = "listed",
                    levels = new
                    {
                        unit = new { one = unit, many = $"{unit}s" },
                        lesson = new { one = lesson, many = $"{lesson}s" },
                        item = new { one = "piece", many = "pieces" },
                    },
                    version = plain,
                },
                Guid.NewGuid()
            );
        foreach (
            var (unit, lesson, field) in new[]
            {
                ("", "topic", "levels.unit.one"),
                ("we\nek", "topic", "levels.unit.one"),
                ("class", "topic", "levels.unit.one"),
                ("topic", "Topic", "levels.unit.one"),
                ("week", new string('x', 25), "levels.lesson.one"),
            }
        )
            (await Call(unit, lesson)).Json["field"]!.GetValue<string>().ShouldBe(field);
        (await Call("week")).Json["reach"]!["sentence"]!.GetValue<string>().ShouldBe("Changes in all 4 sections at once, for 93 students.");

        // Every answer's words, less what the team has written itself: what is still called a lesson has no space in it.
        var (alder, birch) = (school.Ids["section:9 Alder"], school.Ids["section:9 Birch"]);
        var (item, _) = await CommandExamples.At(school, "item", "Label the ramp");
        string[] routes =
        [
            "outline",
            "dates",
            "today",
            "pace",
            "sections",
            "editions",
            "history",
            "groups",
            "ribbon",
            "work",
            $"items/{item}",
        ];
        var said = (await Task.WhenAll(routes.Select(async route => (await lead.Get(Route(route))).Json)))
            .Append((await lead.Get($"/api/sections/{alder}/items/{item}?as=pretend:{alder}")).Json)
            .Append(
                (
                    await Previewed(
                        "differ",
                        new
                        {
                            changes = new[]
                            {
                                new
                                {
                                    section = birch,
                                    of = "item",
                                    target = item,
                                    field = "skip",
                                    putBack = false,
                                    value = true,
                                    version = 0,
                                },
                            },
                        }
                    )
                ).Json
            )
            .SelectMany(Strings)
            .Where(text => text.Contains(' ', StringComparison.Ordinal))
            .ToList();
        said.ShouldContain("at the start of the 1st class after the topic");
        said.Where(text => System.Text.RegularExpressions.Regex.IsMatch(text, @"\b([Uu]nit|[Ll]esson|[Ii]tem)s?\b")).ShouldBeEmpty();
        (await lead.Get(Route("ribbon"))).Json["levels"]!["item"]!["a"]!.GetValue<string>().ShouldBe("a piece");

        async Task<Reply> Previewed(string command, object body) => await lead.Post(Route($"{command}?preview=true"), body);
        static IEnumerable<string> Strings(JsonNode? node) =>
            node switch
            {
                JsonObject members => members.SelectMany(member => Strings(member.Value)),
                JsonArray entries => entries.SelectMany(Strings),
                JsonValue value when value.TryGetValue<string>(out var text) => [text],
                _ => [],
            };
    }

    [Fact]
    public async Task Of_two_who_rename_the_same_item_the_second_is_shown_both_and_nothing_is_lost()
    {
        var (item, version) = await CommandExamples.FirstItem(school, school.WeatherWatch);
        (
            await co.Post(
                Route("rename-item"),
                new
                {
                    item,
                    title = "Theirs",
                    version,
                },
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
        var late = await lead.Post(
            Route("rename-item"),
            new
            {
                item,
                title = "Mine",
                version,
            },
            Guid.NewGuid()
        );
        late.Status.ShouldBe(HttpStatusCode.Conflict);
        late.Code.ShouldBe("changed-meanwhile");
        var both = late.Json["conflict"]!;
        (both["yours"]!.GetValue<string>(), both["theirs"]!.GetValue<string>(), both["by"]!.GetValue<string>()).ShouldBe(
            ("Mine", "Theirs", DemoPeople.CoTeacher)
        );
        both["at"]!["words"]!.GetValue<string>().ShouldStartWith("Thu 8 Oct, 10:");
        var again = await lead.Post(
            Route("rename-item"),
            new
            {
                item,
                title = "Mine",
                version = both["version"]!.GetValue<long>(),
            },
            Guid.NewGuid()
        );
        again.Status.ShouldBe(HttpStatusCode.OK);
        (await Titles())[0].ShouldBe("Mine");
    }

    [Fact]
    public async Task Of_many_at_the_very_same_time_exactly_one_comes_through()
    {
        var (item, version) = await CommandExamples.FirstItem(school, school.WeatherWatch);
        var replies = await Task.WhenAll(
            Enumerable
                .Range(0, 12)
                .Select(n =>
                    (n % 2 == 0 ? lead : co).Post(
                        Route("rename-item"),
                        new
                        {
                            item,
                            title = $"Title {n}",
                            version,
                        },
                        Guid.NewGuid()
                    )
                )
        );
        replies.Count(reply => reply.Status == HttpStatusCode.OK).ShouldBe(1);
        replies.Count(reply => reply.Code == "changed-meanwhile").ShouldBe(11);
    }

    [Fact]
    public async Task An_undo_that_a_later_change_stands_in_the_way_of_names_it()
    {
        var (item, version) = await CommandExamples.FirstItem(school, school.WeatherWatch);
        var first = (
            await lead.Post(
                Route("rename-item"),
                new
                {
                    item,
                    title = "First",
                    version,
                },
                Guid.NewGuid()
            )
        ).Json["batch"]!.GetValue<long>();
        await co.Post(
            Route("rename-item"),
            new
            {
                item,
                title = "Second",
                version = version + 1,
            },
            Guid.NewGuid()
        );
        var refused = await lead.Post(Route("undo"), new { batch = first }, Guid.NewGuid());
        refused.Code.ShouldBe("cannot-undo");
        refused.Json["title"]!.GetValue<string>().ShouldBe("Tomas Reeve has since renamed “First” to “Second”.");
        var history = (await lead.Get(Route("history"))).Json["changes"]!.AsArray();
        history
            .Select(change => $"{change!["author"]} {change["mine"]} {change["words"]}")
            .Take(2)
            .ShouldBe([
                "Tomas Reeve false renamed “First” to “Second”",
                "Orla Tierney-Vance true renamed “Welcome to Weather Watch” to “First”",
            ]);
    }

    [Fact]
    public async Task A_title_of_the_longest_length_or_in_any_script_is_kept_as_it_is()
    {
        var (item, version) = await CommandExamples.FirstItem(school, school.WeatherWatch);
        foreach (var title in new[] { new string('x', 200), "Облака и «фронты» 雲 ☁ <b>'; DROP TABLE item; --" })
            (
                await lead.Post(
                    Route("rename-item"),
                    new
                    {
                        item,
                        title,
                        version = version++,
                    },
                    Guid.NewGuid()
                )
            ).Status.ShouldBe(HttpStatusCode.OK);
        (await Titles())[0].ShouldBe("Облака и «фронты» 雲 ☁ <b>'; DROP TABLE item; --");
        (
            await lead.Post(
                Route("rename-item"),
                new
                {
                    item,
                    title = new string('x', 201),
                    version,
                },
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task Whoever_waits_too_long_for_another_change_is_told_so_and_nothing_is_half_done()
    {
        await using var holder = new NpgsqlConnection(school.Database.Owner);
        await holder.OpenAsync();
        await using var held = await holder.BeginTransactionAsync();
        await holder.ExecuteAsync("SELECT 1 FROM edition WHERE id = @WeatherWatch FOR UPDATE", new { school.WeatherWatch });
        var reply = await lead.Post(Route("rename-item"), await CommandExamples.Rename(school), Guid.NewGuid());
        (reply.Status, reply.Code).ShouldBe((HttpStatusCode.ServiceUnavailable, "busy"));
        reply.Message.Headers.RetryAfter.ShouldNotBeNull();
        await held.RollbackAsync();
        (await Titles())[0].ShouldBe("Welcome to Weather Watch");
    }

    [Fact]
    public async Task A_change_that_crosses_another_is_given_up_and_goes_again_by_itself()
    {
        // On a slow machine PostgreSQL may end the other side instead: then they cross once more.
        for (var tries = 0; !await Crossed($"In the end {tries}"); tries++)
            tries.ShouldBeLessThan(5);
    }

    // False: PostgreSQL ended the other side, and the command went through.
    private async Task<bool> Crossed(string title)
    {
        var (item, version) = await CommandExamples.FirstItem(school, school.WeatherWatch);
        await using var other = new NpgsqlConnection(school.Database.Owner);
        await other.OpenAsync();
        await using var crossing = await other.BeginTransactionAsync();
        await other.ExecuteAsync("UPDATE item SET rank = rank WHERE id = @item", new { item });
        var rename = lead.Post(
            Route("rename-item"),
            new
            {
                item,
                title,
                version,
            },
            Guid.NewGuid()
        );
        await school.UntilWaiting();
        // Now each waits for the other; PostgreSQL ends the one that has waited longer, the command.
        var ended = true;
        try
        {
            await other.ExecuteAsync("SELECT 1 FROM edition WHERE id = @WeatherWatch FOR UPDATE", new { school.WeatherWatch });
            rename.IsCompleted.ShouldBeFalse();
            await crossing.CommitAsync();
        }
        catch (PostgresException fault) when (fault.SqlState == PostgresErrorCodes.DeadlockDetected)
        {
            await crossing.RollbackAsync();
            ended = false;
        }
        (await rename).Status.ShouldBe(HttpStatusCode.OK);
        (await Titles())[0].ShouldBe(title);
        return ended;
    }

    [Fact]
    public async Task The_ribbon_has_the_weeks_closures_and_class_days_of_the_term_and_the_moment()
    {
        var ribbon = (await lead.Get(Route("ribbon"))).Json;
        ribbon["weeks"]!.AsArray().Count.ShouldBe(16);
        ribbon["weeks"]![1]!.ToJsonString().ShouldBe("""{"at":7,"monday":"7 Sep","letter":"B"}""");
        ribbon["closures"]!.AsArray().Select(closure => closure!["words"]!.GetValue<string>()).ShouldBe(["18 Sep", "26 Oct – 30 Oct"]);
        ribbon["classDays"]!.AsArray().Select(day => day!["label"]!.GetValue<string>()).ShouldContain("A-fri");
        ribbon["momentAt"]!.GetValue<double>().ShouldBe(38.43, 0.02);
        var then = (await lead.Get(Route("ribbon") + "?at=2026-10-26T09:00:00Z")).Json;
        (then["isNow"]!.GetValue<bool>(), then["moment"]!["words"]!.GetValue<string>()).ShouldBe((false, "Mon 26 Oct, 09:00"));
    }

    private string Route(string last) => $"/api/editions/{school.WeatherWatch}/{last}";

    private async Task<List<string>> Titles() =>
        [
            .. (await lead.Get(Route("outline"))).Json["units"]!
                .AsArray()
                .SelectMany(unit => unit!["lessons"]!.AsArray())
                .SelectMany(lesson => lesson!["items"]!.AsArray())
                .Select(item => item!["title"]!.GetValue<string>()),
        ];
}
