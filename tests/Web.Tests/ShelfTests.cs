using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>What a teacher keeps on their shelf: rubrics, apart from any item.</summary>
public sealed class ShelfTests : LeadOfASchool
{
    /// <summary>A rubric to keep.</summary>
    public static object Good(string name = "Any graph", decimal most = 2) =>
        new
        {
            rubric = new
            {
                name,
                criteria = new[]
                {
                    new
                    {
                        id = "",
                        title = "Both axes named",
                        weight = 1,
                        isOptional = false,
                        levels = new[] { Level(0), Level(most) },
                    },
                },
            },
        };

    private static object Level(decimal points) =>
        new
        {
            id = "",
            name = "",
            from = points,
            to = points,
            isRange = false,
            words = "",
        };

    /// <summary>Keeps one and says under which id.</summary>
    public static async Task<long> Keep(School school, Caller who)
    {
        var name = $"Kept {Guid.NewGuid()}";
        (await who.Post("/api/me/keep-rubric", Good(name), Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        return (await Kept(school, who)).First(one => Name(one) == name)["kept"]!.GetValue<long>();
    }

    private static async Task<IReadOnlyList<JsonNode>> Kept(School school, Caller who) =>
        [
            .. (await who.Get($"/api/editions/{school.WeatherWatch}/rubrics"))
                .Json.AsArray()
                .Select(one => one!)
                .Where(one => one["kept"] is not null),
        ];

    private static string Name(JsonNode known) => known["rubric"]!["name"]!.GetValue<string>();

    private async Task<string> Keep(object asked)
    {
        var reply = await Lead.Post("/api/me/keep-rubric", asked, Guid.NewGuid());
        return reply.Json[reply.Status == HttpStatusCode.OK ? "sentence" : "title"]!.GetValue<string>();
    }

    [Fact]
    public async Task A_rubric_on_the_shelf_outlives_its_item_and_is_used_in_another()
    {
        var before = await Kept(School, Lead);
        (await Keep(Good())).ShouldBe("“Any graph” is on your shelf.");
        (await Keep(Good())).ShouldBe("“Any graph” is on your shelf already.");
        (await Keep(Good(most: 5))).ShouldBe("“Any graph” is on your shelf, beside 1 other of that name.");
        var kept = await Kept(School, Lead);
        kept.Count.ShouldBe(before.Count + 2);
        kept[0]["where"]!.GetValue<string>().ShouldBe("on your shelf since Thu 8 Oct");
        // It is used as it is, in an item of another kind of work.
        var item = await School.Item("Cloud diary");
        var version = (await Lead.Get(Route($"items/{item}"))).Json["version"]!.GetValue<long>();
        var used = new
        {
            item,
            rubric = kept[0]["rubric"],
            version,
        };
        (await Lead.Post(Route("write-rubric"), used, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        // Off the shelf, the item keeps it; and it can be put back.
        var off = new { kept = kept[0]["kept"]!.GetValue<long>() };
        (await Lead.Post("/api/me/take-off-shelf", off, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        (await Lead.Post("/api/me/take-off-shelf", off, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.NotFound);
        (await Kept(School, Lead)).Count.ShouldBe(before.Count + 1);
        Name((await Lead.Get(Route($"items/{item}/rubric"))).Json).ShouldBe("Any graph");
        (await Lead.Post("/api/me/keep-rubric", new { rubric = kept[0]["rubric"] }, Guid.NewGuid())).Json["sentence"]!
            .GetValue<string>()
            .ShouldStartWith("“Any graph” is on your shelf, beside 1 other");
    }

    [Fact]
    public async Task A_shelf_is_ones_own_and_what_does_not_suit_is_refused_by_field()
    {
        var kept = await Keep(School, Lead);
        using var co = await School.As(DemoPeople.CoTeacher);
        (await Kept(School, co)).ShouldNotContain(one => one["kept"]!.GetValue<long>() == kept);
        (await co.Post("/api/me/take-off-shelf", new { kept }, Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.NotFound);
        (await Keep(Good(" "))).ShouldBe("Give the rubric a name of up to 100 characters.");
        (await Keep(Good("Steep", 10_001))).ShouldBe("Points are numbers from 0 to 10,000, with at most two decimals.");
        await School.Sql(connection =>
            connection.ExecuteAsync(
                """
                WITH made AS (
                  INSERT INTO body (hash, kind, data)
                  SELECT decode(md5(n::text) || md5(n::text), 'hex'), 'rubric', (SELECT data FROM body WHERE kind = 'rubric' LIMIT 1)
                  FROM generate_series(1, 200) n RETURNING hash)
                INSERT INTO kept_rubric (person, rubric, kept_at) SELECT @lead, hash, '2026-10-01' FROM made
                """,
                new { lead = School.Ids["person:" + DemoPeople.Lead] }
            )
        );
        (await Keep(Good("One more"))).ShouldBe("Your shelf holds 200 rubrics. Take one off that you no longer need.");
    }
}
