using Dapper;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Demo.School;

/// <content>What has happened by the time the clock starts.</content>
public static partial class DemoSchool
{
    private sealed partial class Writer
    {
        // What was taught before yesterday is confirmed; in 9 Birch one lesson took two classes more than planned.
        private async Task Taught(Id<Edition> edition, long behind)
        {
            var bare = (await EditionStore.Read(connection, edition))!;
            var slow = bare.Schedule.Section(new($"{behind}")).Forecast.Lessons.First(lesson => lesson.Start?.Ordinal >= 6);
            await Record(behind, slow.Lesson.Name, slow.Ordinals.Length + 2, slow.EndsAt!.Value);
            var plan = (await EditionStore.Read(connection, edition))!;
            foreach (var section in plan.Sections)
            foreach (
                var lesson in plan
                    .Schedule.Section(section.Section.Ref)
                    .Forecast.Lessons.Where(lesson => lesson.EndsAt < Start - Duration.FromDays(1))
            )
                if (section.Id.Value != behind || lesson.Lesson != slow.Lesson)
                    await Record(
                        section.Id.Value,
                        lesson.Lesson.Name,
                        plan.Schedule.Section(section.Section.Ref).Lesson(lesson.Lesson)!.Length,
                        lesson.EndsAt!.Value
                    );

            Task Record(long section, string lesson, int took, Instant at) =>
                connection.ExecuteAsync(
                    "INSERT INTO taught (section, lesson, took, done, at) VALUES (@section, @lesson::uuid, @took, true, @at)",
                    new
                    {
                        section,
                        lesson,
                        took,
                        at,
                    }
                );
        }

        // A term taught to its end: every so many lessons one took a class more than planned, and what was optional was left out.
        private async Task TaughtThrough(Id<Edition> edition, long section, int every)
        {
            var schedule = (await EditionStore.Read(connection, edition))!.Schedule.Section(new($"{section}"));
            var used = 0;
            foreach (var (lesson, n) in schedule.Course.Lessons.Where(lesson => !lesson.Optional).Select((lesson, n) => (lesson, n)))
            {
                var took = lesson.Length + (n % every == 2 ? 1 : 0);
                if ((used += took) > schedule.Meetings.Meetings.Length)
                    return;
                await connection.ExecuteAsync(
                    "INSERT INTO taught (section, lesson, took, done, at) VALUES (@section, @lesson::uuid, @took, true, @at)",
                    new
                    {
                        section,
                        lesson = lesson.Ref.Name,
                        took,
                        at = schedule.Meetings.Meetings[Math.Max(0, used - 1)].EndsAt,
                    }
                );
            }
        }

        // What has opened by the time the clock starts is recorded, as the sweep would have done.
        private async Task Opened(long edition) =>
            await OpeningRecords.Keep(connection, (await EditionStore.Read(connection, new(edition)))!, Start);

        private async Task Work(Id<Edition> edition, long lead)
        {
            var plan = await EditionStore.Read(connection, edition) ?? throw new InvalidOperationException("The course was not written.");
            var rows = await connection.QueryAsync<(long Section, long Person, string Name)>(
                "SELECT n.section, p.id, p.name FROM enrolment n JOIN person p ON p.id = n.person WHERE upper_inf(n.period) ORDER BY n.id"
            );
            var studentsOf = rows.ToLookup(row => row.Section, row => (row.Person, row.Name));
            await new DemoWork(connection, plan, lead, Start).Write(
                plan.Sections.ToDictionary(
                    section => section.Id.Value,
                    section => (IReadOnlyList<(long, string)>)[.. studentsOf[section.Id.Value]]
                )
            );
        }
    }
}
