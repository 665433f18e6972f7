using NodaTime;
using NodaTime.Text;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Ribbon;

/// <summary>Places are counted in days from the Monday of the term's first week; noon of the second day is 1.5.</summary>
public sealed record RibbonAnswer
{
    public required string Course { get; init; }

    public required string Edition { get; init; }

    public required string Term { get; init; }

    /// <summary>The date of place 0.</summary>
    public required string Origin { get; init; }

    /// <summary>How long the strip is: whole weeks.</summary>
    public required int Days { get; init; }

    /// <summary>Where the term begins on it.</summary>
    public required int From { get; init; }

    /// <summary>Where it ends.</summary>
    public required int To { get; init; }

    public required IReadOnlyList<RibbonWeek> Weeks { get; init; }

    public required IReadOnlyList<RibbonClosure> Closures { get; init; }

    public required IReadOnlyList<RibbonDay> ClassDays { get; init; }

    public required Moment Moment { get; init; }

    /// <summary>Where the moment stands; off the strip where it is outside the term.</summary>
    public required double MomentAt { get; init; }

    /// <summary>How far the moment is from now: <c>in 7 days</c>.</summary>
    public required string Relative { get; init; }

    public required bool IsNow { get; init; }

    /// <summary>Through whose eyes one looks: a student's name, or whom one pretends; null: as the team.</summary>
    public required string? Eyes { get; init; }

    /// <summary>The sections one looks at, each with its own units and classes.</summary>
    public required IReadOnlyList<RibbonLine> Lines { get; init; }

    /// <summary>Where the course's units lie with no section chosen: between the sections that are ahead and those behind.</summary>
    public required IReadOnlyList<RibbonUnit> Units { get; init; }

    /// <summary>What the course calls its levels.</summary>
    public required LevelNames Levels { get; init; }

    /// <summary>Whether anything in it can give a score.</summary>
    public required bool HasScores { get; init; }
}

/// <summary>Where a section's units lie.</summary>
/// <param name="Classes">Where its classes begin.</param>
public sealed record RibbonLine(
    Id<Section> Section,
    string Letter,
    string Name,
    IReadOnlyList<RibbonUnit> Units,
    IReadOnlyList<double> Classes
);

/// <summary>A unit, from the first class it takes to the end of the last.</summary>
public sealed record RibbonUnit(Id<Unit> Unit, double From, double To, string Title);

public sealed record RibbonWeek(int At, string Monday, string? Letter);

/// <param name="To">The place after its last day.</param>
public sealed record RibbonClosure(int From, int To, string Name, string Words);

public sealed record RibbonDay(int At, string Date, string Label);

/// <summary>Reads the term of an edition as the ribbon draws it.</summary>
public static class ReadRibbon
{
    public static async Task<RibbonAnswer> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    ) =>
        await compiled.Teaching(access, viewpoint) is var plan
            ? Of(
                plan,
                await compiled.Term(access),
                viewpoint,
                viewpoint.Eyes switch
                {
                    Eyes.OfStudent { Student: var student } => await database.Read(
                        connection => AccessStore.NameOf(connection, student),
                        stop
                    ),
                    Eyes.OfPretend { Section: var section, Facts.Count: var facts } =>
                        $"{(facts == 0 ? "anyone" : "a pretend student")} in {plan.Following(section)?.Name}",
                    _ => null,
                }
            )
            : throw Problem.Unknown();

    /// <summary>The answer for a term and a moment: a pure function.</summary>
    public static RibbonAnswer Of(EditionPlan course, CompiledTerm compiled, Viewpoint viewpoint, string? eyes)
    {
        var term = compiled.Term;
        var origin = compiled.Weeks[0].Monday;
        var local = term.Local(viewpoint.At);
        var inView = course.Sections.Where(section =>
            viewpoint.Eyes switch
            {
                Eyes.OfTeam => true,
                Eyes.OfPretend pretend => pretend.Section == section.Id,
                _ => false,
            }
        );
        var lines = inView.Select(LineOf).ToList();
        return new()
        {
            Course = course.CourseTitle,
            Edition = course.Edition.Title,
            Term = term.Name,
            Origin = LocalDatePattern.Iso.Format(origin),
            Days = 7 * compiled.Weeks.Count,
            From = Place(term.First),
            To = Place(term.Last) + 1,
            Weeks = [.. compiled.Weeks.Select(week => new RibbonWeek(Place(week.Monday), Moment.InWords(week.Monday), week.Letter))],
            Closures = [.. term.Calendar.Closures.Where(closure => closure.To >= term.First && closure.From <= term.Last).Select(Strip)],
            ClassDays = [.. compiled.ClassDays.Select(day => new RibbonDay(Place(day.Date), Moment.InWords(day.Date), day.Label))],
            Moment = Moment.Of(viewpoint.At, term.Zone),
            MomentAt = Place(local.Date) + (local.TimeOfDay.NanosecondOfDay / (double)NodaConstants.NanosecondsPerDay),
            Relative = MomentWords.Relative(viewpoint.At, viewpoint.Now, term.Zone),
            IsNow = viewpoint.IsNow,
            Eyes = eyes,
            Lines = lines,
            Units = Between(lines),
            Levels = course.Edition.Levels,
            HasScores = course.Edition.InReadingOrder().Any(item => item.HasScore),
        };

        RibbonLine LineOf(FollowingSection section)
        {
            var schedule = course.Schedule.Section(section.Section.Ref);
            return new(
                section.Id,
                section.Letter,
                section.Name,
                [
                    .. schedule
                        .Forecast.Lessons.Where(lesson => lesson.IsPlaced)
                        .GroupBy(lesson => schedule.Lesson(lesson.Lesson)!.Unit.Ref.Name)
                        .Select(unit => new RibbonUnit(
                            course.Find(unit.Key)!.As<Unit>(),
                            At(unit.Min(lesson => lesson.StartsAt!.Value)),
                            At(unit.Max(lesson => lesson.EndsAt!.Value)),
                            course.TitleOf(unit.Key)
                        )),
                ],
                [.. schedule.Meetings.Meetings.Select(meeting => At(meeting.StartsAt))]
            );
        }

        double At(Instant moment) =>
            term.Local(moment) is var there
                ? Place(there.Date) + Math.Round(there.TimeOfDay.NanosecondOfDay / (double)NodaConstants.NanosecondsPerDay, 3)
                : 0;

        // Of each unit the middle one of its beginnings, and of its ends.
        static IReadOnlyList<RibbonUnit> Between(IReadOnlyList<RibbonLine> lines) =>
            [
                .. lines
                    .SelectMany(line => line.Units)
                    .GroupBy(unit => unit.Unit)
                    .Select(unit => new RibbonUnit(
                        unit.Key,
                        Middle(unit.Select(one => one.From)),
                        Middle(unit.Select(one => one.To)),
                        unit.First().Title
                    ))
                    .OrderBy(unit => unit.From),
            ];

        static double Middle(IEnumerable<double> places) => places.Order().ToList() is var all ? all[(all.Count - 1) / 2] : 0;

        int Place(LocalDate date) => NodaTime.Period.DaysBetween(origin, date);

        RibbonClosure Strip(Closure closure)
        {
            var (from, to) = (LocalDate.Max(closure.From, term.First), LocalDate.Min(closure.To, term.Last));
            return new(
                Place(from),
                Place(to) + 1,
                closure.Name,
                from == to ? Moment.InWords(from) : $"{Moment.InWords(from)} – {Moment.InWords(to)}"
            );
        }
    }
}
