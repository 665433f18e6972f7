using System.Net;
using Polycline.Demo.School;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Web;

/// <summary>Who is on the team of a course, what each of them may do, and that it counts from the next request on.</summary>
public sealed class TeamTests : LeadOfASchool
{
    /// <summary>A colleague comes to read the course.</summary>
    public static Task<object?> Reader(School school) => Task.FromResult<object?>(Set(address: DemoPeople.Email(DemoPeople.Colleague)));

    /// <summary>The co-teacher goes.</summary>
    public static Task<object?> CoTeacher(School school) =>
        Task.FromResult<object?>(new { person = school.Ids["person:" + DemoPeople.CoTeacher] });

    private static object Set(string? address = null, long? person = null, string role = "reader", params long[] teaches) =>
        new
        {
            address,
            person,
            role,
            teaches,
        };

    private long Section(string name) => School.Ids["section:" + name];

    private long Person(string name) => School.Ids["person:" + name];

    private async Task<string?> Refused(Caller who, string command, object body)
    {
        var reply = await who.Post(Route(command), body, Guid.NewGuid());
        reply.Status.ShouldNotBe(HttpStatusCode.OK, reply.Text);
        return reply.Code;
    }

    private async Task<object> Rename() => await CommandExamples.Rename(School) ?? throw new InvalidOperationException();

    [Fact]
    public async Task A_reader_reads_the_course_changes_nothing_and_learns_no_students_name()
    {
        using var colleague = await School.As(DemoPeople.Colleague);
        (await colleague.Get(Route("outline"))).Status.ShouldBe(HttpStatusCode.NotFound);
        await Post("set-team-member", Set(address: DemoPeople.Email(DemoPeople.Colleague)));
        (await colleague.Get(Route("outline"))).Json["canChange"]!.GetValue<bool>().ShouldBeFalse();
        (await Refused(colleague, "rename-item", await Rename())).ShouldBe("forbidden");
        foreach (var page in new[] { "outline", "class-lists", "students", "work", "sections", "team", "today", "groups" })
            (await colleague.Get(Route(page))).Text.ShouldNotContain(DemoPeople.OnTrack, Case.Sensitive, page);
        (await colleague.Get(Route($"students/{Person(DemoPeople.OnTrack)}"))).Status.ShouldBe(HttpStatusCode.NotFound);
        var teaching = await Lead.Post(
            Route("set-team-member"),
            Set(person: Person(DemoPeople.Colleague), role: "reader", teaches: Section("9 Alder")),
            Guid.NewGuid()
        );
        teaching.Json["field"]!.GetValue<string>().ShouldBe("teaches");
    }

    [Fact]
    public async Task Whoever_only_teaches_sections_changes_those_and_a_co_teacher_the_course_too()
    {
        using var colleague = await School.As(DemoPeople.Colleague);
        await Post("set-team-member", Set(address: DemoPeople.Email(DemoPeople.Colleague), role: "sections", teaches: Section("9 Alder")));
        (await Refused(colleague, "rename-item", await Rename())).ShouldBe("forbidden");
        (await Refused(colleague, "add-group", new { name = "Field team" })).ShouldBe("forbidden");
        (await Refused(colleague, "change-classes", Cancel("9 Birch"))).ShouldBe("forbidden");
        (await colleague.Post(Route("change-classes"), Cancel("9 Alder"), Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        (await colleague.Get(Route("class-lists"))).Text.ShouldContain(DemoPeople.OnTrack);
        await Post("set-team-member", Set(person: Person(DemoPeople.Colleague), role: "co", teaches: Section("9 Alder")));
        (await colleague.Post(Route("rename-item"), await Rename(), Guid.NewGuid())).Status.ShouldBe(HttpStatusCode.OK);
        // What a co-teacher is not: whoever says who is on the team.
        (await Refused(colleague, "set-team-member", Set(person: Person(DemoPeople.Colleague), role: "lead"))).ShouldBe("forbidden");
        (await Refused(colleague, "end-team-member", new { person = Person(DemoPeople.CoTeacher) })).ShouldBe("forbidden");

        object Cancel(string section) =>
            new
            {
                section = Section(section),
                change = new { cancel = new { date = "2026-10-12" } },
                putBack = (int?)null,
                version = 0,
            };
    }

    [Fact]
    public async Task Whoever_is_taken_off_the_team_is_refused_at_their_next_request_on_every_instance()
    {
        await School.Start(new Polycline.Demo.DemoProfile());
        using var here = await School.As(DemoPeople.CoTeacher);
        using var there = await School.As(DemoPeople.CoTeacher, instance: 1);
        foreach (var one in new[] { here, there })
            (await one.Get(Route("outline"))).Status.ShouldBe(HttpStatusCode.OK);
        var said = (await Post("end-team-member", new { person = Person(DemoPeople.CoTeacher) })).Json["sentence"]!.GetValue<string>();
        said.ShouldContain("sees nothing of the course");
        foreach (var one in new[] { here, there })
        {
            (await one.Get(Route("outline"))).Status.ShouldBe(HttpStatusCode.NotFound);
            (await one.Get($"/api/sections/{Section("9 Dogwood")}")).Status.ShouldBe(HttpStatusCode.NotFound);
        }
        (await Lead.Get(Route("outline"))).Status.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task The_last_lead_stays_until_there_is_another_and_the_office_can_see_to_it()
    {
        var leave = new { person = Person(DemoPeople.Lead) };
        (await Refused(Lead, "end-team-member", leave)).ShouldBe("in-use");
        (await Refused(Lead, "set-team-member", Set(person: Person(DemoPeople.Lead), role: "co"))).ShouldBe("in-use");
        using var office = await School.As(DemoPeople.Office);
        var made = await office.Post(
            Route("set-team-member"),
            Set(person: Person(DemoPeople.CoTeacher), role: "lead", teaches: Section("9 Dogwood")),
            Guid.NewGuid()
        );
        made.Status.ShouldBe(HttpStatusCode.OK, made.Text);
        (await office.Get(Route("team"))).Json["canChange"]!.GetValue<bool>().ShouldBeTrue();
        // The office sees to the team, and to nothing else of the course.
        (await office.Get(Route("outline"))).Status.ShouldBe(HttpStatusCode.NotFound);
        await Post("end-team-member", leave);
        (await Lead.Get(Route("outline"))).Status.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Students_and_strangers_are_put_on_no_team_and_are_all_told_alike()
    {
        foreach (var address in new[] { "nobody@fenwater.example", DemoPeople.Email(DemoPeople.OnTrack), "x@" })
        {
            var refused = await Lead.Post(Route("set-team-member"), Set(address: address), Guid.NewGuid());
            refused.Json["field"]!.GetValue<string>().ShouldBe("address");
            refused.Text.ShouldNotContain(DemoPeople.OnTrack);
        }
        (await Refused(Lead, "set-team-member", Set(person: Person(DemoPeople.OnTrack)))).ShouldBe("unknown");
        (await Refused(Lead, "set-team-member", Set(person: Person(DemoPeople.CoTeacher), role: "sections", teaches: 99))).ShouldBe(
            "unknown"
        );
    }
}
