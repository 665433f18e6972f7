using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Who has not handed in, and reminding them.</summary>
public sealed class MissingTests : LeadOfASchool
{
    private const string Diary = "Cloud diary";

    private long section;

    protected override Task Prepare()
    {
        section = School.Ids["section:9 Alder"];
        return Task.CompletedTask;
    }

    private async Task<JsonNode?> Missing(string title = Diary) =>
        (await Lead.Get($"/api/sections/{section}/missing")).Json["items"]!
            .AsArray()
            .SingleOrDefault(item => item!["title"]!.GetValue<string>() == title);

    private async Task<Reply> Remind(IEnumerable<long> students, string title = Diary, bool preview = false) =>
        await Lead.Post(
            $"/api/sections/{section}/remind-students" + (preview ? "?preview=true" : ""),
            new { item = await School.Item(title), students },
            preview ? null : Guid.NewGuid()
        );

    private Task<IEnumerable<(long Person, string Subject)>> Letters() =>
        School.Sql(connection => connection.QueryAsync<(long, string)>("SELECT person, subject FROM mail ORDER BY id"));

    private static string Text(JsonNode? node) => node!.GetValue<string>();

    [Fact]
    public async Task Those_who_have_not_handed_in_are_exactly_those_whom_the_scores_say_so_of()
    {
        var scores = (await Lead.Get(Route("scores"))).Json;
        var place = scores["items"]!.AsArray().TakeWhile(item => Text(item!["title"]) != Diary).Count();
        var overdue = scores["sections"]!.AsArray().Single(one => Text(one!["name"]) == "9 Alder")!["students"]!
            .AsArray()
            .Where(line => Text(line!["cells"]![place]!["words"]) == "overdue")
            .Select(line => Text(line!["name"]))
            .ToList();
        overdue.ShouldNotBeEmpty();
        var missing = (await Missing())!;
        missing["students"]!
            .AsArray()
            .Where(student => student!["isOverdue"]!.GetValue<bool>())
            .Select(student => Text(student!["name"]))
            .ShouldBe(overdue, ignoreOrder: true);
        // Whoever hands in is none of them any more.
        var one = missing["students"]![0]!;
        using var student = await School.As(Text(one["name"]));
        var sent = await student.Post(
            $"/api/sections/{section}/hand-in",
            new
            {
                item = await School.Item(Diary),
                text = "Here it is.",
                pressedAt = (string?)null,
            },
            Guid.NewGuid()
        );
        sent.Status.ShouldBe(HttpStatusCode.OK, sent.Text);
        (await Missing())?["students"]!.AsArray().Select(other => Text(other!["name"])).ShouldNotContain(Text(one["name"]));
    }

    [Fact]
    public async Task A_reminder_goes_once_a_day_to_those_who_have_something_to_hand_in()
    {
        var students = (await Missing())!["students"]!.AsArray().Select(student => student!["student"]!.GetValue<long>()).ToList();
        var done = School.Ids["person:" + DemoPeople.OnTrack];
        students.ShouldNotContain(done);
        var shown = await Remind([students[0], done], preview: true);
        shown.Json["sent"]!.GetValue<int>().ShouldBe(1);
        Text(shown.Json["sentence"]).ShouldEndWith($"{DemoPeople.OnTrack} has nothing to hand in.");
        (await Letters()).ShouldBeEmpty();

        (await Remind([students[0], done])).Json["sent"]!.GetValue<int>().ShouldBe(1);
        (await Letters()).ShouldHaveSingleItem().ShouldBe((students[0], "Still to hand in: Cloud diary"));
        (await Missing())!["students"]!.AsArray().Single(student => student!["student"]!.GetValue<long>() == students[0])!["reminded"]!
            .GetValue<bool>()
            .ShouldBeTrue();
        var again = await Remind(students);
        again.Json["sent"]!.GetValue<int>().ShouldBe(students.Count - 1);
        Text(again.Json["sentence"]).ShouldContain("within the last day");
        (await Letters()).Select(letter => letter.Person).ShouldBeUnique();
    }

    [Fact]
    public async Task Nobody_of_another_section_is_written_to_and_nothing_that_is_not_handed_in()
    {
        var stranger = School.Ids["person:" + DemoPeople.HeldUp];
        (await Remind([stranger])).Json["field"]!.GetValue<string>().ShouldBe("students[0]");
        (await Remind([999_999])).Json["field"]!.GetValue<string>().ShouldBe("students[0]");
        (await Remind([])).Json["field"]!.GetValue<string>().ShouldBe("students");
        var own = School.Ids["person:" + DemoPeople.OnTrack];
        (await Remind([own, own])).Json["field"]!.GetValue<string>().ShouldBe("students");
        (await Remind([own], "What a cloud is")).Json["field"]!.GetValue<string>().ShouldBe("item");
        (await Letters()).ShouldBeEmpty();
        using var student = await School.As(DemoPeople.OnTrack);
        (await student.Get($"/api/sections/{section}/missing")).Status.ShouldBe(HttpStatusCode.NotFound);
    }
}
