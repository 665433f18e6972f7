using NodaTime;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Planning;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Formats;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Dates;

public sealed record DatesAnswer(
    Id<Edition> Edition,
    long Version,
    bool CanChange,
    IReadOnlyList<DatesSection> Sections,
    IReadOnlyList<DatesUnit> Units,
    int Differences,
    int ToCheck
);

/// <param name="Lacking">By how many classes the course does not fit; 0: it fits.</param>
/// <param name="ToCheck">What was noticed, in words.</param>
/// <param name="Pretend">It is made up, and counts nowhere.</param>
public sealed record DatesSection(
    Id<Section> Id,
    string Name,
    string Letter,
    int Students,
    int Classes,
    int Lacking,
    IReadOnlyList<string> ToCheck,
    bool Pretend
);

/// <param name="Number">Null for what belongs to one section only.</param>
public sealed record DatesUnit(int? Number, string Title, IReadOnlyList<DatesRow> Items);

/// <param name="Opens">Timing in words; null: open as soon as it is published.</param>
/// <param name="Cells">One for each section, in their order.</param>
public sealed record DatesRow(
    Id<Item> Item,
    string Code,
    string Title,
    string Kind,
    bool Published,
    string? Opens,
    string? Due,
    IReadOnlyList<DatesCell> Cells
);

public sealed record DatesCell
{
    /// <summary>When it opens there.</summary>
    public required Moment? Opens { get; init; }

    public required Moment? Due { get; init; }

    public required Moment? Closes { get; init; }

    /// <summary>It has opened there and stays open, whatever its date says.</summary>
    public required bool HasOpened { get; init; }

    /// <summary>Its timing does not work out in this section: it opens, or falls due, at a moment that never comes.</summary>
    public required bool Unresolved { get; init; }

    public required bool Held { get; init; }

    public required bool Skipped { get; init; }

    /// <summary>It belongs to another section only.</summary>
    public required bool Absent { get; init; }

    /// <summary>How many students of the section it is for.</summary>
    public required int Students { get; init; }

    /// <summary>The fields that this section has otherwise, and since when: to be named when they are changed.</summary>
    public required IReadOnlyList<DatesDifference> Differs { get; init; }

    /// <summary>What was noticed about it there, in words.</summary>
    public required IReadOnlyList<string> ToCheck { get; init; }
}

/// <param name="Course">What it would be if it were put back.</param>
public sealed record DatesDifference(AdjustedField Field, long Version, Moment? Course);

/// <summary>Reads every item's dates in every section.</summary>
public static class ReadDates
{
    public static async Task<DatesAnswer> Handle(long edition, Access access, Viewpoint viewpoint, PlanCache compiled)
    {
        viewpoint.NeedsTeam("The table of dates");
        var plan = await compiled.Teaching(access, viewpoint);
        return Of(plan, plan.State != EditionState.Resting && viewpoint.TakesCommands, viewpoint.At);
    }

    /// <summary>The same as a table for a spreadsheet.</summary>
    public static async Task<IResult> HandleCsv(long edition, Access access, Viewpoint viewpoint, PlanCache compiled)
    {
        var answer = await Handle(edition, access, viewpoint, compiled);
        return Results.File(Csv.Write(Table(answer)), "text/csv; charset=utf-8", "dates.csv");
    }

    /// <summary>An item a row; of each section when it opens, is due and closes.</summary>
    public static IEnumerable<IReadOnlyList<string?>> Table(DatesAnswer answer)
    {
        yield return
        [
            "Code",
            "Title",
            "Kind",
            .. answer.Sections.SelectMany(section => new[] { $"{section.Name} opens", $"{section.Name} due", $"{section.Name} closes" }),
        ];
        foreach (var row in answer.Units.SelectMany(unit => unit.Items))
            yield return
            [
                row.Code,
                row.Title,
                row.Kind,
                .. row.Cells.SelectMany(cell =>
                    cell.Absent ? [null, null, null]
                    : cell.Skipped ? ["dropped here", null, null]
                    : new[] { Local(cell.Opens), Local(cell.Due), Local(cell.Closes) }
                ),
            ];

        static string? Local(Moment? moment) => moment?.Local[..16].Replace('T', ' ');
    }

    private static readonly DatesCell OfAnotherSection = new()
    {
        Opens = null,
        Due = null,
        Closes = null,
        HasOpened = false,
        Unresolved = false,
        Held = false,
        Skipped = false,
        Absent = true,
        Students = 0,
        Differs = [],
        ToCheck = [],
    };

    /// <summary>The answer for an edition: a pure function.</summary>
    public static DatesAnswer Of(EditionPlan plan, bool canChange, Instant moment)
    {
        var people = plan.Sections.Select(section => section.PeopleOn(plan.Term.Local(moment).Date)).ToList();
        var number = 0;
        var anchors = new AnchorWords(plan.TitleOf, plan.Edition.Levels);
        var differences = plan.Adjustments.ToLookup(row => (row.Section, row.Target));
        var findings = plan
            .Sections.Select(section => plan.Schedule.Section(section.Section.Ref).Findings.ToLookup(finding => finding.Target))
            .ToList();
        return new(
            plan.Id,
            plan.Version,
            canChange,
            [.. plan.Sections.Select((section, at) => SectionOf(plan, section, people[at].Count))],
            [
                .. plan.ItemsByUnit()
                    .Select(unit => new DatesUnit(
                        unit.Unit.Section is null ? ++number : null,
                        plan.TitleOf(unit.Unit.Lineage),
                        [.. unit.Items.Select(Row)]
                    )),
            ],
            plan.Adjustments.Count,
            plan.Sections.Sum(section => plan.Schedule.Section(section.Section.Ref).Findings.Length)
        );

        DatesRow Row(TreeRow row)
        {
            var item = plan.Schedule.Item(new(row.Lineage));
            return new(
                row.As<Item>(),
                plan.Schedule.CodeOf[item.Ref],
                item.Title,
                EnumNames.Of(item.Kind),
                item.Published,
                Said(item.Opens),
                Said(item.Due),
                [
                    .. plan.Sections.Select(
                        (section, at) =>
                            Cell(
                                plan,
                                section,
                                people[at],
                                item,
                                differences[(section.Id, item.Ref.Name)],
                                [.. findings[at][item.Ref.Name]]
                            )
                    ),
                ]
            );

            string? Said(Anchor? anchor) => anchor is null ? null : anchors.Of(anchor, row.Lesson is null);
        }
    }

    private static DatesCell Cell(
        EditionPlan plan,
        FollowingSection section,
        IReadOnlyList<Id<Person>> people,
        Item item,
        IEnumerable<AdjustmentRow> differences,
        IReadOnlyList<Finding> findings
    )
    {
        var schedule = plan.Schedule.Section(section.Section.Ref);
        if (schedule.Item(item.Ref) is not { } found)
            return OfAnotherSection;
        var (here, dates) = found;
        var zone = plan.Term.Zone;
        var rows = differences.ToList();
        var bare =
            rows.Count == 0 || here.Skipped
                ? null
                : ItemDates.Of(
                    here with
                    {
                        Opens = new(item.Opens, Layer.Master),
                        Due = new(item.Due, Layer.Master),
                        Closes = new(item.Closes, Layer.Master),
                    },
                    schedule.Anchors,
                    schedule.Term
                );
        return new()
        {
            Opens = Moment.Of(dates?.Opens.At, zone),
            Due = Moment.Of(dates?.Due.At, zone),
            Closes = Moment.Of(dates?.Closes.At, zone),
            HasOpened = here.Opened is not null,
            Unresolved = dates is { Opens.IsUnresolved: true } or { Due.IsUnresolved: true },
            Held = here.Held,
            Skipped = here.Skipped,
            Absent = false,
            Students = here.Skipped ? 0 : For(plan, people, here),
            Differs =
            [
                .. rows.Select(row => new DatesDifference(
                    row.Field,
                    row.Version,
                    Moment.Of(
                        row.Field switch
                        {
                            AdjustedField.Opens => bare?.Opens.At,
                            AdjustedField.Due => bare?.Due.At,
                            AdjustedField.Closes => bare?.Closes.At,
                            _ => null,
                        },
                        zone
                    )
                )),
            ],
            ToCheck = findings.Count == 0 ? [] : [.. findings.Select(WordsOf(plan).Of)],
        };
    }

    private static int For(EditionPlan plan, IReadOnlyList<Id<Person>> people, CourseItem here) =>
        here.For is { } whom ? people.Count(person => whom.Includes(person.InPlan(), plan.People.GroupsOf(person))) : people.Count;

    private static FindingWords WordsOf(EditionPlan plan) =>
        new(target => plan.Find(target) is null ? target : plan.TitleOf(target), plan.Edition.Basis, plan.Edition.Levels);

    private static DatesSection SectionOf(EditionPlan plan, FollowingSection section, int students)
    {
        var schedule = plan.Schedule.Section(section.Section.Ref);
        return new(
            section.Id,
            section.Name,
            section.Letter,
            students,
            schedule.Meetings.Meetings.Length,
            schedule.Forecast.Lacking,
            [.. schedule.Findings.Select(WordsOf(plan).Of)],
            section.Pretend is not null
        );
    }
}
