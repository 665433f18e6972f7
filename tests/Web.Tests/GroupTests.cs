using System.Net;
using Polycline.Data.Verify;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Groups are named before there are students; when somebody is put into one, what is for it is for them.</summary>
public sealed class GroupTests : LeadOfASchool
{
    [Fact]
    public async Task What_is_for_a_group_is_there_for_its_students_and_for_nobody_else_and_is_never_called_by_it()
    {
        var section = $"/api/sections/{School.Ids["section:9 Alder"]}";
        await Post("add-group", new { name = "Field team" });
        (await Lead.Post(Route("add-group"), new { name = " Field team " }, Guid.NewGuid())).Json["field"]!
            .GetValue<string>()
            .ShouldBe("name");
        var fog = await School.Item("Fog signals, a collection of links");
        await Post(
            "for-whom",
            new
            {
                item = fog,
                groups = new[] { "Field team" },
                except = Array.Empty<string>(),
                version = 1,
            }
        );
        (
            await Lead.Post(
                Route("for-whom"),
                new
                {
                    item = fog,
                    groups = new[] { "Nobody's" },
                    except = Array.Empty<string>(),
                    version = 2,
                },
                Guid.NewGuid()
            )
        ).Json["field"]!.GetValue<string>().ShouldBe("groups");
        (await Lead.Get(Route("outline"))).Text.ShouldContain("\"forWhom\":\"for Field team\"");
        // At a moment at which it is open for whoever it is for.
        var view = $"?as=student:{School.Ids["person:" + DemoPeople.OnTrack]}&at=2026-12-10T12:00:00Z";
        async Task<HttpStatusCode> Seen() => (await Lead.Get($"{section}/items/{fog}{view}")).Status;
        (await Seen()).ShouldBe(HttpStatusCode.NotFound);
        var group = (await Lead.Get(Route("groups"))).Json["groups"]![0]!["id"]!.GetValue<long>();
        (await Lead.Post(Route("remove-group"), new { group, version = 1 }, Guid.NewGuid())).Code.ShouldBe("in-use");
        var body = new { group, members = new[] { new { student = School.Ids["person:" + DemoPeople.OnTrack], @in = true } } };
        (await Lead.Post(Route("put-in-group") + "?preview=true", body)).Json["reach"]!["sentence"]!
            .GetValue<string>()
            .ShouldEndWith("“Field team” has 1 student instead of 0; 1 item depends on it.");
        var put = await Post("put-in-group", body);
        (await Seen()).ShouldBe(HttpStatusCode.OK);
        (await Lead.Get($"{section}/now{view}")).Text.ShouldNotContain("Field team");
        var cells = (await Lead.Get(Route("dates"))).Json["units"]!
            .AsArray()
            .SelectMany(unit => unit!["items"]!.AsArray())
            .Single(row => row!["item"]!.GetValue<long>() == fog)!["cells"]!.AsArray();
        cells.Select(cell => cell!["students"]!.GetValue<int>()).ShouldBe([1, 0, 0, 0]);
        var took = await Post(
            "put-in-group",
            new { group, members = new[] { new { student = School.Ids["person:" + DemoPeople.OnTrack], @in = false } } }
        );
        (await Seen()).ShouldBe(HttpStatusCode.NotFound);
        await Post("undo", new { batch = took.Json["batch"]!.GetValue<long>() });
        (await Seen()).ShouldBe(HttpStatusCode.OK);
        await Post("undo", new { batch = put.Json["batch"]!.GetValue<long>() });
        (await Seen()).ShouldBe(HttpStatusCode.NotFound);
        // Who has left a section is not offered, and the log has each step as it was.
        (await Lead.Get(Route("groups"))).Text.ShouldNotContain(DemoPeople.Leaver);
        (await Verifier.Run(School.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Groups_are_drawn_seen_made_drawn_anew_and_undone_with_pairs_apart_and_nobody_of_another_section_in_them()
    {
        var alder = School.Ids["section:9 Alder"];
        async Task<long[][]> Draw(string apart, int seed) =>
            [
                .. (await Lead.Get(Route($"draw-groups?section={alder}&size=4&apart={apart}&seed={seed}"))).Json["groups"]!
                    .AsArray()
                    .Select(group => group!.AsArray().Select(student => student!.GetValue<long>()).ToArray()),
            ];
        var first = await Draw("", 1);
        var (one, other) = (first[0][0], first[0][1]);
        (await Draw("", 1)).SelectMany(group => group).ShouldBe(first.SelectMany(group => group));
        foreach (var seed in Enumerable.Range(1, 10))
            (await Draw($"{one}-{other}", seed)).ShouldEachBe(group => !(group.Contains(one) && group.Contains(other)));
        async Task<Reply> Make(long[][] drawn) =>
            await Post(
                "group-students",
                new { section = alder, groups = drawn.Select((members, n) => new { name = $"Alder {n + 1}", members }) }
            );
        async Task<long[][]> Made() =>
            [
                .. (await Lead.Get(Route("groups"))).Json["groups"]!
                    .AsArray()
                    .Select(group => group!["members"]!.AsArray().Select(student => student!.GetValue<long>()).Order().ToArray()),
            ];
        await Make(first);
        (await Made()).ShouldBe(first.Select(group => group.Order().ToArray()));
        var second = await Draw($"{one}-{other}", 7);
        var again = await Make(second);
        (await Made()).ShouldBe(second.Select(group => group.Order().ToArray()));
        await Post("undo", new { batch = again.Json["batch"]!.GetValue<long>() });
        (await Made()).ShouldBe(first.Select(group => group.Order().ToArray()));
        var stranger = School.Ids["person:" + DemoPeople.JoinedLate];
        var refused = await Lead.Post(
            Route("group-students"),
            new { section = alder, groups = new[] { new { name = "Alder 1", members = new[] { stranger } } } },
            Guid.NewGuid()
        );
        refused.Json["field"]!.GetValue<string>().ShouldBe("groups[0].members[0]");
        (await Verifier.Run(School.Database.Owner, CancellationToken.None)).ShouldBeEmpty();
    }
}
