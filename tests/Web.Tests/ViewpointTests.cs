using System.Net;
using Dapper;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Who may look through whose eyes, and at which moment.</summary>
public sealed class ViewpointTests(SchoolOfClass shared) : IClassFixture<SchoolOfClass>, IAsyncLifetime
{
    private School school = null!;

    public async ValueTask InitializeAsync() => school = await shared.Open();

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Theory]
    [InlineData("at=2026-10-15T09:00:00Z")]
    [InlineData("as=team")]
    [InlineData("as=student:1")]
    public async Task A_student_can_set_neither_moment_nor_eyes(string view)
    {
        using var student = await school.As(DemoPeople.OnTrack);
        (await student.Get($"/api/sections/{school.Ids["section:9 Alder"]}?{view}")).Status.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task Through_a_students_eyes_the_answer_is_that_students_own_to_the_byte()
    {
        using var student = await school.As(DemoPeople.OnTrack);
        using var lead = await school.As(DemoPeople.Lead);
        var address = $"/api/sections/{school.Ids["section:9 Alder"]}";
        var own = await student.Get(address);
        var seen = await lead.Get($"{address}?as=student:{school.Ids["person:" + DemoPeople.OnTrack]}");
        seen.Text.ShouldBe(own.Text);
    }

    [Fact]
    public async Task A_lens_leaves_a_trace_that_cannot_be_taken_back_and_the_teams_screens_stay_the_teams()
    {
        using var lead = await school.As(DemoPeople.Lead);
        var student = school.Ids["person:" + DemoPeople.HeldUp];
        (await lead.Get($"/api/editions/{school.WeatherWatch}/outline?as=student:{student}")).Status.ShouldBe(HttpStatusCode.Forbidden);
        var traces = await school.Sql(connection => connection.QueryAsync<string>("SELECT about->>'student' FROM audit WHERE what = 'lens-used' ORDER BY id DESC LIMIT 1"));
        traces.ShouldBe([$"{student}"]);
    }

    [Fact]
    public async Task Nobody_looks_through_the_eyes_of_a_student_who_is_not_theirs()
    {
        using var co = await school.As(DemoPeople.CoTeacher);
        using var other = await school.As(DemoPeople.Colleague);
        var ribbon = $"/api/editions/{school.WeatherWatch}/ribbon";
        (await co.Get($"{ribbon}?as=student:{school.Ids["person:" + DemoPeople.InTwoSections]}")).Status.ShouldBe(HttpStatusCode.OK);
        (await co.Get($"{ribbon}?as=student:{school.Ids["person:" + DemoPeople.OnTrack]}")).Status.ShouldBe(HttpStatusCode.NotFound);
        (await other.Get($"/api/editions/{school.Ids["edition:Tides and Channels 2026"]}/ribbon?as=student:{school.Ids["person:" + DemoPeople.OnTrack]}")).Status.ShouldBe(HttpStatusCode.NotFound);
    }

    [Theory]
    [InlineData("at=yesterday", "at")]
    [InlineData("at=2026-10-15", "at")]
    [InlineData("as=nobody", "as")]
    [InlineData("as=student:x", "as")]
    public async Task A_view_of_another_form_names_what_is_wrong(string view, string field)
    {
        using var lead = await school.As(DemoPeople.Lead);
        var reply = await lead.Get($"/api/editions/{school.WeatherWatch}/ribbon?{view}");
        (reply.Code, reply.Json["field"]!.GetValue<string>()).ShouldBe(("malformed", field));
    }
}
