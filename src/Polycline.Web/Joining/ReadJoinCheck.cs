using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Enrolling;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.OneStudent;

namespace Polycline.Web.Joining;

/// <summary>What stands in the way of a section that is to follow a course, and what becomes of what it holds.</summary>
public sealed record JoinCheckAnswer
{
    public required Id<Section> Section { get; init; }

    public required string Name { get; init; }

    /// <summary>To be named when it joins.</summary>
    public required long Version { get; init; }

    /// <summary>The first day on which it follows; null: from the beginning of the term.</summary>
    public required string? From { get; init; }

    /// <summary>The course of its own; null: it holds nothing.</summary>
    public required string? Holds { get; init; }

    public required IReadOnlyList<TwoSections> Doubles { get; init; }

    /// <summary>By how many classes or minutes it has too few for the course; 0: it has enough.</summary>
    public required int Lacks { get; init; }

    /// <summary><c>classes</c> or <c>minutes</c>.</summary>
    public required string Unit { get; init; }

    /// <summary>Its teachers who are not on the team of the course.</summary>
    public required int Strangers { get; init; }

    public required IReadOnlyList<TogetherThing> Together { get; init; }

    /// <summary>What may or may not be the same: it stays its own.</summary>
    public required IReadOnlyList<string> Unclear { get; init; }

    /// <summary>What stays its own.</summary>
    public required IReadOnlyList<string> Stays { get; init; }

    public required IReadOnlyList<WorkBefore> Work { get; init; }

    /// <summary>How many items were due before it follows: overdue for nobody there.</summary>
    public required int NotCounted { get; init; }
}

/// <param name="Others">The sections of the course that list them too.</param>
public sealed record TwoSections(Id<Person> Student, string Name, IReadOnlyList<OtherSection> Others);

public sealed record OtherSection(Id<Section> Id, string Name);

/// <param name="By"><c>lineage</c>, <c>code</c> or <c>title</c>.</param>
public sealed record TogetherThing(string Own, string Course, Level Of, string By);

/// <param name="What"><c>handed in</c>, <c>scores</c> or <c>feedback</c>.</param>
public sealed record WorkBefore(string What, int Before, int Matched, int Own);

/// <summary>Reads the check before a section follows a course: the computation's answer, and what the application adds of teams.</summary>
public static class ReadJoinCheck
{
    /// <param name="section">One that the viewer teaches.</param>
    /// <param name="from">The first day on which it follows. Left out: the first day of the term, or today in mid-term.</param>
    public static async Task<JoinCheckAnswer> Handle(
        long edition,
        long section,
        string? from,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("The check");
        var plan = await compiled.Edition(access);
        return await database.Read(
            async connection =>
            {
                var found = JoinSection.Needed(plan, await JoiningSection.Read(connection, plan, new(section)), viewpoint.Who.Id);
                var (members, _) = await Data.People.TeamStore.Read(connection, plan.Id);
                var strangers = found.Section.Teachers.Count(teacher => members.All(member => member.Person != teacher));
                return Of(plan, found, JoinSection.From(plan, from, viewpoint.At), strangers);
            },
            stop
        );
    }

    private static JoinCheckAnswer Of(EditionPlan plan, JoiningSection found, NodaTime.LocalDate? from, int strangers)
    {
        var join = found.Check(plan, from ?? plan.Term.First);
        var titles = found.Holds().ToDictionary(thing => thing.Id);
        var names = new PlanNames(plan.Schedule);
        var apart = found.Doubled.Select(item => $"i{item}").ToHashSet();
        return new()
        {
            Section = found.Section.Id,
            Name = found.Section.Name,
            Version = found.Section.Version,
            From = StudentsHere.Iso(from),
            Holds = found.Own?.CourseTitle,
            Doubles = [.. join.Hindrances.Where(one => one.Code == HindranceCode.DoubleEnrolment).Select(Double)],
            Lacks = join.Hindrances.FirstOrDefault(one => one.Code == HindranceCode.TooFewClasses)?.By ?? 0,
            Unit = plan.Edition.Basis == Basis.Meetings ? "classes" : "minutes",
            Strangers = strangers,
            Together =
            [
                .. join
                    .Pairs.Where(pair => !apart.Contains(pair.Own))
                    .Select(pair => new TogetherThing(
                        titles[pair.Own].Title,
                        names.Of(pair.Edition),
                        titles[pair.Own].Level,
                        EnumNames.Of(pair.By)
                    )),
            ],
            Unclear = [.. join.Ambiguous.SelectMany(one => one.Own).Select(own => titles[own].Title)],
            Stays = [.. join.Stays.Select(one => one.Own).Concat(apart).Select(own => titles[own].Title)],
            Work =
            [
                new("handed in", join.Before.HandedIn, join.Matched.HandedIn, join.Own.HandedIn),
                new("scores", join.Before.Scores, join.Matched.Scores, join.Own.Scores),
                new("feedback", join.Before.Feedback, join.Matched.Feedback, join.Own.Feedback),
            ],
            NotCounted = join.NotCounted.Length,
        };

        TwoSections Double(Hindrance hindrance)
        {
            var student = PlanIds.IdOf(new Ref<Core.Courses.Student>(hindrance.Targets[0]));
            return new(
                student,
                found.Section.Names[student],
                [
                    .. hindrance
                        .Targets.Skip(1)
                        .Select(target => PlanIds.IdOf(new Ref<Section>(target)))
                        .Where(other => other != found.Section.Id)
                        .Select(other => new OtherSection(other, plan.Following(other)!.Name)),
                ]
            );
        }
    }
}
