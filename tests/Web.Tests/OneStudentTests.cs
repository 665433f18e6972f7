using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>One student: what is different for them, and what comes of joining late, of moving, and of being in two sections.</summary>
public sealed class OneStudentTests : LeadOfASchool
{
    private long Id(string student) => School.Ids["person:" + student];

    private long Section(string name) => School.Ids["section:" + name];

    private async Task<JsonNode> Of(string student) => (await Lead.Get(Route($"students/{Id(student)}"))).Json;

    private async Task<JsonNode> ItemOf(string student, string title) =>
        (await Of(student))["items"]!.AsArray().Single(item => item!["title"]!.GetValue<string>() == title)!;

    private async Task<object> Change(string student, string title, string change, int? days = null, string? until = null) =>
        new
        {
            students = new[] { Id(student) },
            items = new[] { await School.Item(title) },
            change,
            days,
            until,
        };

    private object Move(string student, string from, string to, string on, params object[] choices) =>
        new
        {
            students = new[] { Id(student) },
            from = Section(from),
            to = Section(to),
            on,
            choices,
        };

    // Everything that a move may write, and nothing it may not.
    private Task<string> People() =>
        School.Sql(async connection =>
            string.Join(
                '\n',
                await connection.QueryAsync<string>(
                    """
                    SELECT concat_ws(' ', section, person, period) FROM enrolment UNION ALL
                    SELECT concat_ws(' ', 'exception', person, item, field, value, move) FROM exception UNION ALL
                    SELECT concat_ws(' ', 'home', person, section) FROM home UNION ALL
                    SELECT 'facts ' || count(*) || ' work ' || (SELECT count(*) FROM work) FROM fact ORDER BY 1
                    """
                )
            )
        );

    [Fact]
    public async Task What_is_agreed_with_one_student_is_so_for_them_alone_and_is_put_back()
    {
        const string item = "Cloud diary";
        var theirs = $"/api/sections/{Section("9 Alder")}/items/{await School.Item(item)}";
        using var student = await School.As(DemoPeople.OnTrack);
        var usual = (await student.Get(theirs)).Json["due"]!["words"]!.GetValue<string>();
        var later = await Post("for-students", await Change(DemoPeople.OnTrack, item, "more-time", days: 2));
        later.Json["reach"]!["students"].ShouldBeNull();
        var moved = (await student.Get(theirs)).Json["due"]!["words"]!.GetValue<string>();
        moved.ShouldNotBe(usual);
        (await ItemOf(DemoPeople.OnTrack, item))["differs"]![0]!.GetValue<string>().ShouldBe($"due {moved}");
        (await ItemOf(DemoPeople.HeldUp, item))["differs"]!.AsArray().ShouldBeEmpty();

        await Post("for-students", await Change(DemoPeople.OnTrack, item, "excuse"));
        (await ItemOf(DemoPeople.OnTrack, item))["state"]!.GetValue<string>().ShouldBe("excused");
        (await student.Get($"/api/sections/{Section("9 Alder")}/now")).Text.ShouldContain("excused");

        // The history is everybody's on the team, and names no student.
        var history = (await Lead.Get(Route("history"))).Text;
        history.ShouldContain("excused 1 student");
        history.ShouldNotContain(DemoPeople.OnTrack);

        await Post("for-students", await Change(DemoPeople.OnTrack, item, "put-back"));
        (await student.Get(theirs)).Json["due"]!["words"]!.GetValue<string>().ShouldBe(usual);
        (await ItemOf(DemoPeople.OnTrack, item))["differs"]!.AsArray().ShouldBeEmpty();
    }

    [Fact]
    public async Task What_is_not_open_is_opened_for_one_student_and_left_out_or_added_for_another()
    {
        const string item = "Fog signals, a collection of links";
        async Task<string> State() => (await ItemOf(DemoPeople.OnTrack, item))["state"]!.GetValue<string>();
        (await State()).ShouldBe("upcoming");
        await Post("for-students", await Change(DemoPeople.OnTrack, item, "open"));
        (await State()).ShouldBe("open");
        using var student = await School.As(DemoPeople.OnTrack);
        var theirs = $"/api/sections/{Section("9 Alder")}/items/{await School.Item(item)}";
        (await student.Get(theirs)).Json["title"]!.GetValue<string>().ShouldBe(item);
        await Post("for-students", await Change(DemoPeople.OnTrack, item, "leave-out"));
        (await State()).ShouldBe("not-assigned");
        await Post("for-students", await Change(DemoPeople.OnTrack, item, "add"));
        (await State()).ShouldBe("open");
    }

    [Theory]
    [InlineData("more-time", null, null, "until")]
    [InlineData("more-time", 3, "2026-11-02", "until")]
    [InlineData("more-time", 0, null, "days")]
    [InlineData("more-time", 300, null, "days")]
    [InlineData("more-time", null, "2026-09-01", "until")]
    [InlineData("more-time", null, "2027-02-01", "until")]
    public async Task More_time_that_is_none_is_refused_by_its_field(string change, int? days, string? until, string field)
    {
        var refused = await Lead.Post(
            Route("for-students"),
            await Change(DemoPeople.OnTrack, "Cloud diary", change, days, until),
            Guid.NewGuid()
        );
        refused.Status.ShouldBe(HttpStatusCode.UnprocessableEntity, refused.Text);
        refused.Json["field"]!.GetValue<string>().ShouldBe(field);
        (await ItemOf(DemoPeople.OnTrack, "Cloud diary"))["differs"]!.AsArray().ShouldBeEmpty();
    }

    [Fact]
    public async Task More_days_for_everything_move_each_due_date_and_their_reason_is_the_teams()
    {
        using var student = await School.As(DemoPeople.OnTrack);
        var page = $"/api/sections/{Section("9 Alder")}/now";
        var before = await Dues(student, page);
        await Post(
            "arrange",
            new
            {
                student = Id(DemoPeople.OnTrack),
                dueDays = 3,
                quizTime = 25,
                reason = "a wrist in plaster",
                version = 0,
            }
        );
        var after = await Dues(student, page);
        after.Keys.ShouldBe(before.Keys);
        after.Count(due => due.Value != before[due.Key]).ShouldBeGreaterThan(3);
        foreach (var (item, due) in after)
            string.CompareOrdinal(due, before[item]).ShouldBeGreaterThanOrEqualTo(0, item);
        (await Lead.Get(Route($"students/{Id(DemoPeople.OnTrack)}"))).Text.ShouldContain("a wrist in plaster");
        (await student.Get(page)).Text.ShouldNotContain("wrist");
        (await Lead.Get(Route("history"))).Text.ShouldNotContain("wrist");
        // Somebody else's meanwhile is told.
        (
            await Lead.Post(
                Route("arrange"),
                new
                {
                    student = Id(DemoPeople.OnTrack),
                    dueDays = 5,
                    quizTime = (int?)null,
                    reason = "",
                    version = 7,
                },
                Guid.NewGuid()
            )
        ).Code.ShouldBe("changed-meanwhile");
    }

    private static async Task<Dictionary<string, string>> Dues(Caller student, string page)
    {
        var dues = new Dictionary<string, string>();
        Collect((await student.Get(page)).Json);
        return dues;

        void Collect(JsonNode? node)
        {
            if (node is JsonArray list)
                foreach (var one in list)
                    Collect(one);
            if (node is not JsonObject row)
                return;
            if (row["code"] is JsonValue code && row["due"]?["instant"] is JsonValue due)
                dues[code.GetValue<string>()] = due.GetValue<string>();
            foreach (var (_, below) in row)
                Collect(below);
        }
    }

    [Fact]
    public async Task A_catch_up_is_proposed_agreed_and_then_proposed_no_more()
    {
        var address = Route($"students/{Id(DemoPeople.JoinedLate)}/catch-up");
        var proposed = (await Lead.Get(address)).Json;
        var lines = proposed["lines"]!.AsArray();
        lines.ShouldNotBeEmpty();
        // One a class.
        lines.Select(line => line!["class"]!.GetValue<int>()).ShouldBeUnique();
        (await Of(DemoPeople.JoinedLate))["catchUp"]!.GetValue<int>().ShouldBeGreaterThanOrEqualTo(lines.Count);
        var first = lines[0]!["item"]!.GetValue<long>();
        var without = (await Lead.Get($"{address}?perClass=2&leave={first}")).Json;
        without["left"]![0]!["item"]!.GetValue<long>().ShouldBe(first);
        without["lines"]!.AsArray().Select(line => line!["item"]!.GetValue<long>()).ShouldNotContain(first);
        (await Lead.Get($"{address}?perClass=0")).Json["field"]!.GetValue<string>().ShouldBe("perClass");
        (await Lead.Get($"{address}?leave=fish")).Status.ShouldBe(HttpStatusCode.NotFound);

        await Post(
            "accept-catch-up",
            new
            {
                student = Id(DemoPeople.JoinedLate),
                lines = lines.Select(line =>
                {
                    var local = line!["due"]!["local"]!.GetValue<string>();
                    return new
                    {
                        item = line["item"]!.GetValue<long>(),
                        date = local[..10],
                        time = local[11..16],
                    };
                }),
                leave = Array.Empty<long>(),
            }
        );
        var again = (await Lead.Get(address)).Json;
        var asked = lines.Select(line => line!["item"]!.GetValue<long>()).ToHashSet();
        again["lines"]!.AsArray().ShouldNotContain(line => asked.Contains(line!["item"]!.GetValue<long>()));
        // Nothing that was agreed on is overdue.
        (await Of(DemoPeople.JoinedLate))["items"]!
            .AsArray()
            .Where(item => asked.Contains(item!["id"]!.GetValue<long>()))
            .ShouldNotContain(item => item!["state"]!.GetValue<string>() == "overdue");
    }

    [Fact]
    public async Task Moved_and_moved_back_on_one_day_everything_is_as_it_was_and_no_work_has_moved()
    {
        var before = await People();
        var address = Route($"students/{Id(DemoPeople.OnTrack)}/move?from={Section("9 Alder")}&to={Section("9 Birch")}&on=2026-10-08");
        var shown = (await Lead.Get(address)).Json;
        var states = shown["rows"]!.AsArray().Select(row => row!["state"]!.GetValue<string>()).ToList();
        states.ShouldContain("done");
        states.ShouldContain("later");
        await Post("move-students", Move(DemoPeople.OnTrack, "9 Alder", "9 Birch", "2026-10-08"));
        var moved = await People();
        moved.ShouldNotBe(before);
        var places = (await Of(DemoPeople.OnTrack))["places"]!.AsArray();
        places.Single(place => place!["isNow"]!.GetValue<bool>())!["name"]!.GetValue<string>().ShouldBe("9 Birch");
        // The page they have is the new section's, and what they had done is still there.
        using var student = await School.As(DemoPeople.OnTrack);
        (await student.Get($"/api/sections/{Section("9 Birch")}/now")).Status.ShouldBe(HttpStatusCode.OK);
        (await ItemOf(DemoPeople.OnTrack, "Cloud diary"))["state"]!.GetValue<string>().ShouldNotBe("not-enrolled");

        var back = (
            await Lead.Get(Route($"students/{Id(DemoPeople.OnTrack)}/move?from={Section("9 Birch")}&to={Section("9 Alder")}&on=2026-10-08"))
        ).Json;
        back["isBack"]!.GetValue<bool>().ShouldBeTrue();
        await Post("move-students", Move(DemoPeople.OnTrack, "9 Birch", "9 Alder", "2026-10-08"));
        (await People()).ShouldBe(before);
    }

    [Fact]
    public async Task What_was_agreed_before_a_move_comes_back_when_the_move_is_undone()
    {
        var address = Route($"students/{Id(DemoPeople.HeldUp)}/move?from={Section("9 Birch")}&to={Section("9 Alder")}&on=2026-10-08");
        var title = (await Lead.Get(address)).Json["rows"]!.AsArray().First(row => row!["state"]!.GetValue<string>() == "already-due")![
            "title"
        ]!.GetValue<string>();
        // Agreed on, and yet past by then: the move gives a later date.
        await Post("for-students", await Change(DemoPeople.HeldUp, title, "more-time", days: 1));
        var before = await People();
        await Post("move-students", Move(DemoPeople.HeldUp, "9 Birch", "9 Alder", "2026-10-08"));
        await Post("move-students", Move(DemoPeople.HeldUp, "9 Alder", "9 Birch", "2026-10-08"));
        (await People()).ShouldBe(before);
    }

    [Fact]
    public async Task What_is_already_due_in_the_new_section_asks_for_a_choice_and_what_is_chosen_comes()
    {
        // 9 Birch is behind 9 Alder: whoever comes from there meets dates that have passed.
        var address = Route($"students/{Id(DemoPeople.HeldUp)}/move?from={Section("9 Birch")}&to={Section("9 Alder")}&on=2026-10-08");
        var asks = (await Lead.Get(address)).Json["rows"]!
            .AsArray()
            .Where(row => row!["state"]!.GetValue<string>() == "already-due")
            .ToList();
        asks.ShouldNotBeEmpty();
        var item = asks[0]!["item"]!.GetValue<long>();
        var excused = (await Lead.Get($"{address}&choices={item}:excuse")).Json["rows"]!
            .AsArray()
            .Single(row => row!["item"]!.GetValue<long>() == item)!;
        excused["choice"]!.GetValue<string>().ShouldBe("excuse");
        await Post(
            "move-students",
            Move(
                DemoPeople.HeldUp,
                "9 Birch",
                "9 Alder",
                "2026-10-08",
                new
                {
                    student = Id(DemoPeople.HeldUp),
                    item,
                    choice = "excuse",
                }
            )
        );
        var items = (await Of(DemoPeople.HeldUp))["items"]!.AsArray();
        items.Single(one => one!["id"]!.GetValue<long>() == item)!["state"]!.GetValue<string>().ShouldBe("excused");
        // Nothing that asked is overdue by the move.
        var asked = asks.Select(row => row!["item"]!.GetValue<long>()).ToHashSet();
        items.ShouldNotContain(one => asked.Contains(one!["id"]!.GetValue<long>()) && one["state"]!.GetValue<string>() == "overdue");
        foreach (var wrong in new[] { $"{item}:sell", "x:new", "1:2:3" })
            (await Lead.Get($"{address}&choices={wrong}")).Status.ShouldBe(HttpStatusCode.BadRequest, wrong);
    }

    [Fact]
    public async Task In_two_sections_the_home_section_decides()
    {
        (await Of(DemoPeople.InTwoSections))["needsHome"]!.GetValue<bool>().ShouldBeTrue();
        foreach (var section in new[] { "9 Dogwood", "9 Alder" })
        {
            await Post("set-home", new { student = Id(DemoPeople.InTwoSections), section = Section(section) });
            var now = await Of(DemoPeople.InTwoSections);
            now["needsHome"]!.GetValue<bool>().ShouldBeFalse();
            now["places"]!.AsArray().Single(place => place!["isNow"]!.GetValue<bool>())!["name"]!.GetValue<string>().ShouldBe(section);
        }
        var other = await Lead.Post(
            Route("set-home"),
            new { student = Id(DemoPeople.InTwoSections), section = Section("9 Cedar") },
            Guid.NewGuid()
        );
        other.Json["field"]!.GetValue<string>().ShouldBe("section");
    }

    [Fact]
    public async Task Students_join_by_their_address_and_leave_and_what_they_did_stays_readable()
    {
        async Task<Reply> Join(params string[] addresses) =>
            await Lead.Post(
                Route("join-students"),
                new
                {
                    section = Section("9 Birch"),
                    addresses,
                    from = "2026-10-12",
                },
                Guid.NewGuid()
            );
        var unknown = await Join("nobody@fenwater.example");
        // A colleague is answered like nobody.
        var colleague = await Join(DemoPeople.Email(DemoPeople.Colleague));
        unknown.Json["field"]!.GetValue<string>().ShouldBe("addresses[0]");
        colleague.Json["field"]!.GetValue<string>().ShouldBe("addresses[0]");
        colleague.Text.ShouldNotContain(DemoPeople.Colleague);
        (await Join("fish")).Status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var joined = await Join(DemoPeople.Email(DemoPeople.OnTrack));
        joined.Status.ShouldBe(HttpStatusCode.OK, joined.Text);
        (await Of(DemoPeople.OnTrack))["places"]!.AsArray().Count.ShouldBe(2);

        var facts = await People();
        await Post(
            "leave-section",
            new
            {
                section = Section("9 Alder"),
                students = new[] { Id(DemoPeople.OnTrack) },
                last = "2026-10-07",
            }
        );
        (await People())
            .Split('\n')
            .Last(line => line.StartsWith("facts", StringComparison.Ordinal))
            .ShouldBe(facts.Split('\n').Last(line => line.StartsWith("facts", StringComparison.Ordinal)));
        using var student = await School.As(DemoPeople.OnTrack);
        (await student.Get($"/api/sections/{Section("9 Alder")}/now")).Status.ShouldBe(HttpStatusCode.NotFound);
        (await Lead.Get(Route($"students/{Id(DemoPeople.OnTrack)}"))).Status.ShouldBe(HttpStatusCode.OK);

        // Once they have worked where they came, their coming is not undone as if it had never been.
        await School.Sql(connection =>
            connection.ExecuteAsync(
                """
                INSERT INTO fact (person, item, section, event, at, recorded_at, by, request)
                SELECT @student, min(id), @birch, 'submitted', '2026-10-13T09:00Z', now(), @student, gen_random_uuid()
                FROM item WHERE edition = @WeatherWatch
                """,
                new
                {
                    student = Id(DemoPeople.OnTrack),
                    birch = Section("9 Birch"),
                    School.WeatherWatch,
                }
            )
        );
        (await Lead.Post(Route("undo"), new { batch = joined.Json["batch"]!.GetValue<long>() }, Guid.NewGuid())).Code.ShouldBe(
            "cannot-undo"
        );
    }
}
