using System.Collections.Immutable;
using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Enrolling;
using Polycline.Core.Planning;
using Polycline.Core.Release;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.People;
using Polycline.Data.Sections;

namespace Polycline.Web.Joining;

/// <summary>A section that is to follow a course, and what it holds of its own.</summary>
/// <param name="Own">The course that it alone follows now; null: none.</param>
/// <param name="Leads">Who may decide over that.</param>
/// <param name="Work">By item of its own.</param>
/// <param name="Taken">Lineages of its own that something in the course has, or had.</param>
/// <param name="Doubled">Items of its own that a student has handed in here and there: never put together.</param>
public sealed record JoiningSection(
    LoneSection Section,
    EditionPlan? Own,
    IReadOnlyList<Id<Core.Sections.Person>> Leads,
    IReadOnlyDictionary<Id<Item>, WorkCount> Work,
    IReadOnlySet<Id<Item>> Doubled,
    IReadOnlySet<string> Taken
)
{
    /// <summary>Reads it, and locks it with its own course; null where there is none.</summary>
    public static async Task<JoiningSection?> Read(NpgsqlConnection connection, EditionPlan course, Id<Core.Sections.Section> section)
    {
        if (await FollowingStore.Read(connection, section) is not { } lone)
            return null;
        if (lone.Edition is not { } edition || edition == course.Id)
            return new(
                lone,
                null,
                [],
                ImmutableDictionary<Id<Item>, WorkCount>.Empty,
                ImmutableHashSet<Id<Item>>.Empty,
                ImmutableHashSet<string>.Empty
            );
        await EditionStore.Lock(connection, edition);
        var own = await EditionStore.Read(connection, edition);
        var (members, _) = await TeamStore.Read(connection, edition);
        var found = new JoiningSection(
            lone,
            own,
            [.. members.Where(member => member.Role == "lead").Select(member => member.Person)],
            await FollowingStore.Work(connection, edition, section),
            ImmutableHashSet<Id<Item>>.Empty,
            await FollowingStore.Taken(connection, course.Id, [.. own!.Rows.Select(row => row.Lineage)])
        );
        return found with
        {
            Doubled = await FollowingStore.Doubled(
                connection,
                section,
                found.ItemPairs(course, found.Check(course, lone.FollowsFrom ?? course.Term.First))
            ),
        };
    }

    /// <summary>What the computation says of it. Source: the computation, chapter 11.</summary>
    public CourseJoin Check(EditionPlan course, LocalDate from)
    {
        var joining = Section.Section;
        var schedule = PlanSchedule.Of(
            TermDays.Of(course.Term),
            WithLineages(course.Edition),
            [.. course.Counted.Sections.Select(following => following.Section).Where(one => one.Ref != joining.Ref), joining]
        );
        var people = PeopleOf(course, joining);
        return CourseJoin.Of(schedule, people, joining.Ref, from, null, [.. Holds()]);
    }

    /// <summary>The items that are the same in both, by row, without those that a student has handed in on both sides.</summary>
    public IReadOnlyList<(Id<Item> From, Id<Item> To)> ItemPairs(EditionPlan course, CourseJoin join) =>
        Own is null
            ? []
            :
            [
                .. join
                    .Pairs.Where(pair => pair.Own.StartsWith('i'))
                    .Select(pair => (From: new Id<Item>(RowOf(pair.Own)), To: course.IdOf(new Ref<Item>(pair.Edition))))
                    .Where(pair => !Doubled.Contains(pair.From)),
            ];

    /// <summary>The row of something of its own, by the name that <see cref="Holds"/> gives it.</summary>
    public static long RowOf(string own) => long.Parse(own.AsSpan(1), System.Globalization.CultureInfo.InvariantCulture);

    /// <summary>Its own units, their lessons, their items, as the computation takes them.</summary>
    public IEnumerable<OwnThing> Holds()
    {
        if (Own is null)
            yield break;
        foreach (var (unit, items) in Own.ItemsByUnit())
        {
            yield return new($"u{unit.Id}", Level.Unit, Own.UnitOf(unit).Title, Lineage: unit.Lineage);
            foreach (var lesson in Own.Rows.Where(row => row.Level == Level.Lesson && row.Unit == unit.Unit && Own.IsHere(row)))
                yield return new($"l{lesson.Id}", Level.Lesson, Own.LessonOf(lesson).Title, $"u{unit.Id}", Lineage: lesson.Lineage);
            foreach (var row in items)
            {
                var item = Own.Schedule.Item(new(row.Lineage));
                yield return new(
                    $"i{row.Id}",
                    Level.Item,
                    item.Title,
                    row.Lesson is { } lesson ? $"l{lesson}" : $"u{unit.Id}",
                    item.Kind,
                    null,
                    row.Lineage,
                    Work.GetValueOrDefault(new(row.Id))
                );
            }
        }
    }

    // What is kept here is called by its lineage, which a plan file says beside its id.
    private static Edition WithLineages(Edition edition) =>
        edition with
        {
            Units =
            [
                .. edition.Units.Select(unit =>
                    unit with
                    {
                        Lineage = unit.Ref.Name,
                        Lessons =
                        [
                            .. unit.Lessons.Select(lesson =>
                                lesson with
                                {
                                    Lineage = lesson.Ref.Name,
                                    Items = [.. lesson.Items.Select(item => item with { Lineage = item.Ref.Name })],
                                }
                            ),
                        ],
                        Items = [.. unit.Items.Select(item => item with { Lineage = item.Ref.Name })],
                    }
                ),
            ],
        };

    private static Plan PeopleOf(EditionPlan course, Core.Sections.Section joining) =>
        new(
            course.Term,
            course.Edition,
            [.. course.SectionsWithStudents.Where(section => section.Ref != joining.Ref), joining],
            ImmutableDictionary<string, ImmutableArray<Ref<Core.Courses.Student>>>.Empty,
            course.People.Homes.ToImmutableDictionary(home => home.Person.InPlan(), home => home.Section.InPlan()),
            [],
            []
        );
}
