using System.Net;
using System.Text.Json.Nodes;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Terms are made by the office, like an earlier one or from nothing, and removed while they are empty.</summary>
public sealed class TermTests : IAsyncLifetime
{
    private School school = null!;
    private Caller office = null!;
    private long autumn;

    /// <summary>A good request for a term that is like no other.</summary>
    public static object Good(string name = "Summer school 2027") =>
        new
        {
            name,
            zone = "Europe/Dublin",
            first = "2027-07-05",
            last = "2027-07-30",
            like = (long?)null,
            marks = Array.Empty<object>(),
        };

    /// <summary>A term in which nothing stands yet.</summary>
    public static Task<long> Empty(School of) =>
        of.Sql(connection =>
            connection.ExecuteScalarAsync<long>(
                """
                INSERT INTO term (name, zone, first, last, settings)
                SELECT 'Empty ' || gen_random_uuid(), zone, first, last, settings FROM term ORDER BY id LIMIT 1 RETURNING id
                """
            )
        );

    public async ValueTask InitializeAsync()
    {
        school = await School.Open();
        office = await school.As(DemoPeople.Office);
        autumn = await TermCommandExamples.Autumn(school);
    }

    public ValueTask DisposeAsync()
    {
        office.Dispose();
        return school.DisposeAsync();
    }

    private Task<Reply> Do(string command, object body) => office.Post($"/api/school/{command}", body, Guid.NewGuid());

    private async Task<JsonNode> Calendar(long term) => (await office.Get($"/api/terms/{term}/calendar")).Json;

    [Fact]
    public async Task A_term_like_the_last_has_its_weeks_and_settings_and_the_closures_that_were_left_in()
    {
        var ahead = (await office.Get($"/api/terms/{autumn}/ahead")).Json;
        ahead["name"]!.GetValue<string>().ShouldBe("Autumn term 2027");
        var was = await Calendar(autumn);
        var marks = ahead["marks"]!.AsArray();
        marks.Count.ShouldBe(was["marks"]!.AsArray().Count);
        var kept = marks.Where(mark => mark!["kind"]!.GetValue<string>() == "closure").ToList();
        kept.Count.ShouldBeGreaterThan(0);

        var made = await Do(
            "make-term",
            new
            {
                name = ahead["name"],
                zone = ahead["zone"],
                first = ahead["first"],
                last = ahead["last"],
                like = autumn,
                marks = kept.Select(mark => new
                {
                    id = (long?)null,
                    version = 0,
                    gone = false,
                    kind = mark!["kind"],
                    first = mark["first"],
                    last = mark["last"],
                    name = mark["name"],
                    runs = mark["runs"],
                    periods = mark["periods"],
                }),
            }
        );
        made.Status.ShouldBe(HttpStatusCode.OK, made.Text);
        var calendar = await Calendar(made.Json["term"]!.GetValue<long>());
        foreach (var same in new[] { "weekdays", "rotation", "periods", "offDays", "zone" })
            JsonNode.DeepEquals(calendar[same], was[same]).ShouldBeTrue(same);
        calendar["marks"]!.AsArray().Count.ShouldBe(kept.Count);
        // The same number of days is taught, save for marks that were left out.
        Math.Abs(calendar["classDays"]!.GetValue<int>() - was["classDays"]!.GetValue<int>()).ShouldBeLessThan(3);
        // A course can be rolled over to it at once.
        using var lead = await school.As(DemoPeople.Lead);
        (await lead.Get($"/api/editions/{school.WeatherWatch}/editions")).Text.ShouldContain("Autumn term 2027");
    }

    [Theory]
    [InlineData("name", "Autumn term 2026", "2027-07-05", "2027-07-30", "Europe/Dublin")]
    [InlineData("name", " ", "2027-07-05", "2027-07-30", "Europe/Dublin")]
    [InlineData("first", "Summer", "2027-07", "2027-07-30", "Europe/Dublin")]
    [InlineData("first", "Summer", "0027-07-05", "2027-07-30", "Europe/Dublin")]
    [InlineData("last", "Summer", "2027-07-05", "2027-07-04", "Europe/Dublin")]
    [InlineData("last", "Summer", "2027-07-05", "2029-07-04", "Europe/Dublin")]
    [InlineData("zone", "Summer", "2027-07-05", "2027-07-30", "Europe/Atlantis")]
    public async Task What_is_wrong_with_it_is_said_at_its_field(string field, string name, string first, string last, string zone)
    {
        var before = await school.RowCounts("audit", "request");
        var reply = await Do(
            "make-term",
            new
            {
                name,
                zone,
                first,
                last,
                like = (long?)null,
                marks = Array.Empty<object>(),
            }
        );
        (reply.Status, reply.Json["field"]!.GetValue<string>()).ShouldBe((HttpStatusCode.UnprocessableEntity, field));
        (await school.RowCounts("audit", "request")).ShouldBe(before);
    }

    [Fact]
    public async Task A_term_goes_while_nothing_stands_in_it_and_leaves_nothing_behind()
    {
        var before = await school.RowCounts("audit", "request");
        var term = (await Do("make-term", Good())).Json["term"]!.GetValue<long>();
        (
            await office.Post(
                $"/api/terms/{term}/mark-days",
                new
                {
                    marks = new[]
                    {
                        new
                        {
                            id = (long?)null,
                            version = 0,
                            gone = false,
                            kind = "closure",
                            first = "2027-07-12",
                            last = "2027-07-12",
                            name = "Regatta",
                            runs = (string?)null,
                            periods = (object?)null,
                        },
                    },
                },
                Guid.NewGuid()
            )
        ).Status.ShouldBe(HttpStatusCode.OK);
        (await Do("remove-term", new { term })).Status.ShouldBe(HttpStatusCode.OK);
        (await school.RowCounts("audit", "request")).ShouldBe(before);
        (await Do("remove-term", new { term = autumn })).Code.ShouldBe("cannot-undo");
        (await Do("remove-term", new { term })).Json["field"]!.GetValue<string>().ShouldBe("term");
    }

    [Theory]
    [InlineData("?years=6", "years")]
    [InlineData("?years=0", "years")]
    [InlineData("?first=soon", "first")]
    public async Task Further_ahead_than_five_years_nobody_looks(string query, string field) =>
        (await office.Get($"/api/terms/{autumn}/ahead{query}")).Json["field"]!.GetValue<string>().ShouldBe(field);
}
