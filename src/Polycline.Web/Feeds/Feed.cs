using System.Security.Cryptography;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Feeds;
using Polycline.Data.Students;
using Polycline.Formats;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Feeds;

/// <summary>A calendar by its private link: whoever has the link reads it.</summary>
public static class Feed
{
    public static async Task<IResult> Handle(
        string token,
        HttpContext http,
        Database database,
        PlanCache compiled,
        IClock clock,
        CancellationToken stop
    )
    {
        var link = await database.Read(connection => LinkStore.Find(connection, CalendarLinks.Hash(token)), stop)
            ?? throw Problem.Unknown();
        var at = clock.GetCurrentInstant();
        var sections = await database.Read(connection => LinkStore.Sections(connection, link, at), stop);
        var events = new List<FeedEvent>();
        var zone = DateTimeZone.Utc;
        // What is over still counts in the sequence, which never falls.
        foreach (var told in sections.Where(told => !told.IsOver))
        {
            var plan = await compiled.Edition(told.Edition, told.EditionVersion, told.TermVersion);
            if (plan.Following(told.Section) is not { } section)
                continue;
            zone = plan.Term.Zone;
            events.AddRange(
                link.Kind switch
                {
                    "teacher-calendar" => SectionFeed.ForTeam(plan, section),
                    "section-calendar" => SectionFeed.ForStudent(plan, section, SectionFeed.Nobody(section), at, null, null),
                    _ => SectionFeed.ForStudent(plan, section, await Record(database, plan, link.Person, at, stop), at, told.From, told.To),
                }
            );
        }
        var name = link.Kind == "section-calendar" && sections is [var only, ..] ? await NameOf(compiled, only) : link.PersonName;
        var bytes = CalendarFeed.Write(
            name,
            zone,
            events.DistinctBy(one => one.Uid),
            (int)sections.Select(section => section.Batch.Value).DefaultIfEmpty(0).Max(),
            sections.Select(section => section.ChangedAt).OfType<Instant>().DefaultIfEmpty(NodaConstants.UnixEpoch).Max()
        );
        http.Response.Headers.CacheControl = "private, no-cache";
        return Results.File(
            bytes,
            "text/calendar; charset=utf-8",
            entityTag: new($"\"{Convert.ToHexStringLower(SHA256.HashData(bytes).AsSpan(0, 16))}\"")
        );
    }

    private static async Task<Core.Release.StudentRecord> Record(
        Database database,
        EditionPlan plan,
        Id<Person> person,
        Instant at,
        CancellationToken stop
    ) => (await database.Read(connection => StudentStore.Read(connection, plan, [person], at), stop)).Records[person];

    private static async Task<string> NameOf(PlanCache compiled, FeedSection told)
    {
        var plan = await compiled.Edition(told.Edition, told.EditionVersion, told.TermVersion);
        return $"{plan.CourseTitle}, {plan.Following(told.Section)?.Name}";
    }
}
