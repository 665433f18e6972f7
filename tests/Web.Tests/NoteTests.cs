using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>What a team notes for itself, now and for next time, and texts that are about its teacher.</summary>
public sealed class NoteTests : LeadOfASchool
{
    private const string Diary = "Cloud diary",
        Welcome = "Welcome to Weather Watch";

    private static object Note(string place, string text, bool nextTime = false) =>
        new
        {
            place,
            text,
            nextTime,
        };

    /// <summary>A note left on an item.</summary>
    public static async Task<(long Id, long Version)> Left(School school, string item, string text)
    {
        using var lead = await school.As(DemoPeople.Lead);
        var place = await CommandExamples.Lineage(school, item);
        var left = await lead.Post($"/api/editions/{school.WeatherWatch}/add-note", Note(place, text), Guid.NewGuid());
        left.Status.ShouldBe(HttpStatusCode.OK, left.Text);
        return await school.Sql(connection =>
            connection.QuerySingleAsync<(long, long)>("SELECT id, version FROM team_note ORDER BY id DESC LIMIT 1")
        );
    }

    private async Task<IReadOnlyList<JsonNode>> Notes(long edition) =>
        [.. (await Lead.Get($"/api/editions/{edition}/notes")).Json.AsArray().Select(note => note!)];

    [Fact]
    public async Task A_note_stands_on_something_of_this_course_and_says_something()
    {
        var theirs = await School.Sql(connection =>
            connection.ExecuteScalarAsync<Guid>(
                "SELECT lineage FROM item WHERE edition = @edition LIMIT 1",
                new { edition = School.Ids["edition:Tides and Channels 2026"] }
            )
        );
        var here = await CommandExamples.Lineage(School, Diary);
        foreach (var place in new[] { $"{theirs}", "", "nowhere", new('x', 500) })
            (await Field(place, "Print them.")).ShouldBe("place");
        foreach (var text in new[] { "", " \u200b", new('a', 2001) })
            (await Field(here, text)).ShouldBe("text");

        async Task<string?> Field(string place, string text) =>
            (await Lead.Post(Route("add-note"), Note(place, text), Guid.NewGuid())).Json["field"]?.GetValue<string>();
    }

    [Fact]
    public async Task No_student_reads_a_note_wherever_they_look_and_however_it_is_published()
    {
        const string Secret = "Zwölf Blätter je Klasse";
        await Left(School, Diary, Secret);
        foreach (var (level, title) in new[] { ("unit", "Clouds by name"), ("lesson", "The ten families") })
        {
            var place = await School.Sql(connection =>
                connection.ExecuteScalarAsync<Guid>(
                    $"SELECT lineage FROM {level} WHERE edition = @WeatherWatch AND title = @title",
                    new { School.WeatherWatch, title }
                )
            );
            await Post("add-note", Note($"{place}", Secret));
        }
        (await Notes(School.WeatherWatch)).Count(note => note["text"]!.GetValue<string>() == Secret).ShouldBe(3);
        using var imke = await School.As(DemoPeople.OnTrack);
        var section = School.Ids["section:9 Alder"];
        foreach (
            var address in new[]
            {
                $"/api/sections/{section}/now",
                $"/api/sections/{section}/items/{await School.Item(Diary)}",
                $"/api/sections/{section}/search?words=Blätter",
            }
        )
        {
            var read = await imke.Get(address);
            read.Status.ShouldBe(HttpStatusCode.OK, address);
            read.Text.ShouldNotContain("Blätter je");
        }
        (await imke.Get(Route("notes"))).Status.ShouldBe(HttpStatusCode.NotFound);
        var asImke = await Lead.Get($"{Route("notes")}?as=student:{School.Ids["person:" + DemoPeople.OnTrack]}");
        asImke.Status.ShouldNotBe(HttpStatusCode.OK);
        asImke.Text.ShouldNotContain(Secret);
    }

    [Fact]
    public async Task In_the_next_edition_the_notes_stand_again_and_what_was_left_for_it_is_said_to_come_from_the_last()
    {
        var place = await CommandExamples.Lineage(School, Diary);
        await Post("add-note", Note(place, "Print 94 sheets."));
        await Post("add-note", Note(place, "Two weeks are too few.", true));
        await Post("add-note", Note(await CommandExamples.Lineage(School, Welcome), "Gone with its item.", true));
        var rolled = await Lead.Post(Route("roll-over"), await RollOverTests.Spring(School), Guid.NewGuid());
        rolled.Status.ShouldBe(HttpStatusCode.OK, rolled.Text);
        var next = await School.Sql(connection => connection.ExecuteScalarAsync<long>("SELECT max(id) FROM edition"));
        await School.Sql(connection =>
            connection.ExecuteAsync("DELETE FROM item WHERE edition = @next AND title = @Welcome", new { next, Welcome })
        );
        (await Notes(next))
            .Where(note => note["text"]!.GetValue<string>() is "Print 94 sheets." or "Two weeks are too few." or "Gone with its item.")
            .Select(note => (note["text"]!.GetValue<string>(), note["leftIn"]?.GetValue<string>()))
            .ShouldBe([("Print 94 sheets.", null), ("Two weeks are too few.", "edition 2026")]);
        // What was left in the edition before that has not been forgotten either.
        (await Notes(next)).ShouldContain(note => note["leftIn"] != null && note["leftIn"]!.GetValue<string>() == "edition 2025");
    }

    [Fact]
    public async Task A_text_about_a_teacher_is_pointed_out_once_they_have_left_until_somebody_says_it_is_about_them()
    {
        var item = await School.Item(Welcome);
        await School.Sql(connection =>
            connection.ExecuteAsync("UPDATE item SET about_teacher = false, about_whom = NULL WHERE edition = @WeatherWatch", School)
        );
        var address = DemoPeople.Email(DemoPeople.Colleague);
        await Post(
            "set-team-member",
            new
            {
                address,
                person = (long?)null,
                role = "co",
                teaches = Array.Empty<long>(),
            }
        );
        using var other = await School.As(DemoPeople.Colleague);
        await About(other);
        (await Course()).ShouldNotContain(Welcome);
        await Post("end-team-member", new { person = School.Ids["person:" + DemoPeople.Colleague] });
        (await Course()).ShouldContain($"“{Welcome}” is about {DemoPeople.Colleague}, who is not on the team.");
        await About(Lead);
        (await Course()).ShouldNotContain(Welcome);

        async Task<string> Course() =>
            string.Join(
                '\n',
                (await Lead.Get(Route("today"))).Json["course"]!.AsArray().Select(check => check!["words"]!.GetValue<string>())
            );

        async Task About(Caller who)
        {
            var version = (await Lead.Get(Route($"items/{item}"))).Json["version"]!.GetValue<long>();
            var body = new
            {
                item,
                aboutTeacher = true,
                version,
            };
            (await who.Post(Route("say-about-teacher"), body, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        }
    }
}
