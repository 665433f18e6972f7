using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Changes;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Sections;

namespace Polycline.Core.Wording;

/// <summary>What a change to a course does, computed from the course before it and after it.</summary>
/// <param name="Rows">What comes out differently: the course in reading order, then dates section by section.</param>
/// <param name="Sections">The sections that it touches.</param>
/// <param name="Sentence">The same in words, for the team.</param>
/// <param name="Students">What it does for each student; empty where that was not asked.</param>
public sealed record Reach(
    ImmutableArray<ReachRow> Rows,
    ImmutableArray<SectionSize> Sections,
    string Sentence,
    Effect Effect,
    ImmutableArray<SightChange> Students
)
{
    /// <summary>Of items that are no longer for some: for whom they stay.</summary>
    public ImmutableArray<(Ref<Student> Student, Ref<Section> Section, Ref<Item> Item)> Keep { get; init; } = [];

    /// <summary>
    /// How many classes a section has, by how much the course does not fit it, how many items fall out of the term, and how
    /// many changes of its classes name none: fields of a <see cref="ReachRow"/>.
    /// </summary>
    public const string Classes = "classes",
        Lacking = "does not fit by",
        Outside = "out of the term",
        Sleeping = "changes without effect";

    /// <summary>A due that comes to stand on a day without classes: a field of a <see cref="ReachRow"/>.</summary>
    public const string OffDay = "due on a day without classes";

    /// <summary>How scores are added up: a field of a <see cref="ReachRow"/>.</summary>
    public const string Totals = "add up";

    private const string UnseenByStudents = "Students see nothing of this yet: only the team does.";

    private static readonly string[] Dates = ["opens", "due", "closes"];
    private static readonly string[] Fits = [Classes, Lacking, Outside, Sleeping];

    /// <summary>Nothing comes out differently.</summary>
    public static Reach Nothing { get; } = new([], [], "Nothing changes for anyone.", Effect.None, []);

    /// <summary>This, with what else is done: where students see nothing of the course differently, that stands alone.</summary>
    /// <param name="sentence">What else; empty: nothing.</param>
    public Reach With(string sentence) =>
        sentence.Length == 0 ? this : this with { Sentence = Sentence == UnseenByStudents ? sentence : $"{Sentence} {sentence}" };

    /// <summary>Compares two states of one course.</summary>
    /// <param name="sizes">The sections that follow it before or after, in order.</param>
    /// <param name="students">What it does for each student at <paramref name="at"/>; null when only the change of the plan is asked
    /// for.</param>
    /// <param name="at">The moment of the change, to tell what opens now from what opens later.</param>
    public static Reach Between(
        PlanSchedule before,
        PlanSchedule after,
        ImmutableArray<SectionSize> sizes,
        SightReach? students = null,
        Instant? at = null
    )
    {
        if (ReferenceEquals(before, after) && students is null or { Changes.IsEmpty: true })
            return Nothing;
        var course = ReachRows.OfCourse(before, after).ToList();
        var joined = sizes.Where(size => !before.Follows(size.Section)).ToImmutableArray();
        var left = sizes.Where(size => !after.Follows(size.Section)).ToImmutableArray();
        var staying = sizes.Except(joined).Except(left).ToImmutableArray();
        List<ReachRow> dates =
        [
            .. staying.SelectMany(size => ReachRows.OfDates(before, after, size)),
            .. staying.SelectMany(size => ReachRows.OfOffDays(before, after, size)),
        ];
        var seen = dates.Where(row => !row.TeamOnly).ToList();
        var terms = staying.SelectMany(size => ReachRows.OfFit(before, after, size)).ToList();
        var follows = ReachRows.OfFollowing(left, joined).ToList();
        var sights = students?.Changes ?? [];
        var named = sights.Select(change => change.Section).ToHashSet();
        var touched =
            follows.Count > 0
                ? [.. left, .. joined]
                : sizes
                    .Where(size =>
                        (students is null && course.Count > 0)
                        || named.Contains(size.Section)
                        || dates.Concat(terms).Any(row => row.Section == size.Name)
                    )
                    .ToImmutableArray();
        var effect =
            left.Length > 0 || sights.Any(change => change.Takes) ? Effect.Takes
            : sights.Length + follows.Count > 0
            || seen.Concat(terms).Any(row => sizes.Any(size => size.Name == row.Section && size.Students > 0))
            || (course.Any(row => row.Field == Totals) && sizes.Any(size => size.Students > 0))
            || (students is null && course.Count > 0)
                ? Effect.Some
            : Effect.None;
        var words = new ReachWords(before, after, sizes, sights);
        List<string> told = [];
        if (left.Length > 0)
            told.Add(ReachWords.Follow(left, "stops following", "stop following"));
        if (joined.Length > 0)
            told.Add(ReachWords.Follow(joined, "follows from now on", "follow from now on"));
        told.AddRange(words.Sights());
        told.AddRange(words.Narrower(students?.Keep ?? []));
        if (at is { } now)
            told.AddRange(words.Later(now));
        if (follows.Count == 0)
            told.AddRange(
                words.Course(
                    students is null
                        ? course.Count > 0
                            ? touched
                            : []
                        : words.Reading(),
                    seen
                )
            );
        told.AddRange(words.Fits(terms, touched.Length == 1));
        told.AddRange(words.Work());
        var addedUp = course.Any(row => row.Field == Totals) ? SectionSize.Together(sizes) : 0;
        if (addedUp > 0)
            told.Add($"{Counting.Counted(addedUp, "student’s total is", "students’ totals are")} worked out again.");
        var sentence =
            told.Count > 0 ? string.Join(' ', told)
            : course.Count + dates.Count + terms.Count == 0 ? Nothing.Sentence
            : sizes.IsEmpty ? "No section follows this edition yet: only the team sees it."
            : course.Any(row => row is { Field: "always open", TeamOnly: false })
                ? "Students can already open all of it, so nothing changes for them."
            : UnseenByStudents;
        return new(
            [.. course, .. follows, .. terms, .. dates],
            touched,
            sizes.IsEmpty && course.Count > 0 ? "No section follows this edition yet: only the team sees it." : sentence,
            effect,
            sights
        )
        {
            Keep = students?.Keep ?? [],
        };
    }

    /// <summary>Whether a row is a date that moves.</summary>
    internal static bool IsDate(ReachRow row) => Dates.Contains(row.Field);
}
