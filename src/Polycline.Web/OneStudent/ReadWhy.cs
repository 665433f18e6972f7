using System.Collections.Immutable;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Explaining;
using Polycline.Core.Planning;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Sections;

namespace Polycline.Web.OneStudent;

/// <summary>Why a student can or cannot see an item at a moment, for those who teach them.</summary>
public sealed record WhyAnswer
{
    public required Id<Item> Item { get; init; }

    public required string Code { get; init; }

    public required string Title { get; init; }

    public required string Name { get; init; }

    /// <summary>The moment it is asked for.</summary>
    public required Moment At { get; init; }

    public required bool CanChange { get; init; }

    /// <summary>Their section then; null: none lists them.</summary>
    public required SectionChoice? Section { get; init; }

    /// <summary>One of the states.</summary>
    public required string State { get; init; }

    /// <summary>Since when it is open, or when it opens by itself; null: neither can be said.</summary>
    public required string? Since { get; init; }

    /// <summary>Everything in the way, the first to decide first; none: it is open.</summary>
    public required IReadOnlyList<string> InTheWay { get; init; }

    /// <summary>That they have begun it, so that they can still read it.</summary>
    public required bool StaysReadable { get; init; }

    public required IReadOnlyList<WhyCondition> Conditions { get; init; }

    /// <summary>When it opens, is due and closes, as far as that is given.</summary>
    public required IReadOnlyList<WhyDate> Dates { get; init; }

    /// <summary>What alone would open it.</summary>
    public required IReadOnlyList<WhyMend> Mends { get; init; }

    /// <summary>What opens it only together, where nothing does alone.</summary>
    public required IReadOnlyList<WhyMend> Together { get; init; }

    /// <summary>How much more time they have in a quiz, in percent; null: none was agreed.</summary>
    public required int? QuizTime { get; init; }
}

/// <param name="On">What it is on: <c>the item</c>, <c>the unit “Fronts”</c>.</param>
/// <param name="MetAt">When it was met first, and stays met; null: not yet, or it does not stay met.</param>
/// <param name="IsOpened">Somebody opened it for this student.</param>
public sealed record WhyCondition(string On, bool Met, Moment? MetAt, bool IsOpened, IReadOnlyList<WhyLine> Lines);

/// <param name="Depth">How deep it stands, from 0.</param>
/// <param name="Outcome"><c>met</c>, <c>not-met</c> or <c>waived</c>.</param>
/// <param name="Since">Null: from the beginning.</param>
public sealed record WhyLine(int Depth, string Words, string Outcome, Moment? Since, string? Note);

/// <param name="What"><c>Opens</c>, <c>Due</c> or <c>Closes</c>.</param>
/// <param name="At">Null: at a moment that does not come.</param>
/// <param name="Given">Who gave it, in words.</param>
public sealed record WhyDate(string What, Moment? At, string Given, IReadOnlyList<WhyStep> Steps)
{
    /// <summary>Those that have a rule, each with where it comes from.</summary>
    internal static IReadOnlyList<WhyDate> All(
        ExplanationWords words,
        SectionSchedule? schedule,
        DateTimeZone zone,
        IEnumerable<(string What, Instant? At, Layer? Layer, ImmutableArray<DateStep> Steps)> dates
    ) =>
        [
            .. dates
                .Where(date => !date.Steps.IsEmpty)
                .Select(date => new WhyDate(
                    date.What,
                    Moment.Of(date.At, zone),
                    ExplanationWords.Given(date.Layer),
                    [.. words.Path(date.Steps, schedule).Select(step => new WhyStep(step.Words, Moment.Of(step.Moment, zone)))]
                )),
        ];
}

/// <param name="Moment">The moment after it; null: there is none.</param>
public sealed record WhyStep(string Words, Moment? Moment);

/// <param name="Kind">What it is, such as <c>give-back</c>.</param>
/// <param name="Words">As it goes on after “To open it,”.</param>
/// <param name="Items">The items whose pieces are given back.</param>
/// <param name="Changes">What the section does differently then, as it is sent.</param>
/// <param name="Row">Where in the outline the condition stands that is dropped, such as <c>item-12</c>; null: nothing is dropped.</param>
public sealed record WhyMend(
    string Kind,
    string Words,
    IReadOnlyList<Id<Item>> Items,
    IReadOnlyList<DifferenceChange> Changes,
    string? Row = null
);

/// <summary>Reads why an item is open to one student, or is not.</summary>
public static class ReadWhy
{
    public static async Task<WhyAnswer> Handle(
        long edition,
        long student,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("Why a student can or cannot see something");
        var plan = await compiled.Edition(access);
        var found = plan.Item(new Id<Item>(item)) ?? throw Problem.Unknown();
        var (name, record) = await ReadOneStudent.Known(database, plan, access, new(student), viewpoint.At, stop);
        return Of(plan, Explanation.Of(plan.Schedule, record, found.Ref, viewpoint.At), found, name, viewpoint);
    }

    private static WhyAnswer Of(EditionPlan plan, Explanation why, Item item, string name, Viewpoint viewpoint)
    {
        var zone = plan.Term.Zone;
        var words = new ExplanationWords(plan.Schedule, new(plan.Schedule), name, plan.OptionOf);
        var section = why.Section is { } own ? plan.Following(PlanIds.IdOf(own)) : null;
        var mends = new Mends(plan, section, words, why);
        return new()
        {
            Item = new(plan.Row(item.Ref).Id),
            Code = plan.Schedule.CodeOf[item.Ref],
            Title = item.Title,
            Name = name,
            At = Moment.Of(viewpoint.At, zone),
            CanChange = plan.State != EditionState.Resting && viewpoint.TakesCommands,
            Section = section is null ? null : new(section.Id, section.Name, section.Letter),
            State = EnumNames.Of(why.State),
            Since = words.Since(why),
            InTheWay = [.. why.Stands.Select(one => words.Of(one, why))],
            StaysReadable = why.Because is not null,
            Conditions =
            [
                .. why.Gates.Select(gate => new WhyCondition(
                    words.Owner(gate),
                    gate.Met,
                    Moment.Of(gate.MetAt, zone),
                    gate.IsOpened,
                    [
                        .. words
                            .Of(gate)
                            .Select(line => new WhyLine(
                                line.Depth,
                                line.Words,
                                EnumNames.Of(line.Outcome),
                                Moment.Of(line.Since, zone),
                                line.Note
                            )),
                    ]
                )),
            ],
            Dates = WhyDate.All(
                words,
                why.Section is { } here ? plan.Schedule.Section(here) : null,
                zone,
                [
                    ("Opens", why.Opens.At, why.Opens.Layer, why.Opens.Steps),
                    ("Due", why.Due.At, why.Due.Layer, why.Due.Steps),
                    ("Closes", why.Closes.At, why.Closes.Layer, why.Closes.Steps),
                ]
            ),
            Mends = [.. why.Remedies.Select(mends.Of)],
            Together = [.. (why.Together ?? []).Select(mends.Of)],
            QuizTime = why.QuizTime,
        };
    }

    /// <summary>Remedies as they can be done.</summary>
    private sealed class Mends(EditionPlan plan, FollowingSection? section, ExplanationWords words, Explanation why)
    {
        public WhyMend Of(Remedy remedy) =>
            remedy switch
            {
                Remedy.GiveBack given => Mend("give-back", remedy, given.Items),
                Remedy.MoveOpening moved => Mend(
                    "move-opening",
                    remedy,
                    [],
                    Changed(Level.Item, moved.Item.Name, AdjustedField.Opens, null)
                ),
                Remedy.PutBackHold => Mend(
                    "put-back-hold",
                    remedy,
                    [],
                    [.. At(Obstacle.Held).SelectMany(one => Changed(one.Level!.Value, one.Id!, AdjustedField.Hold, false))]
                ),
                Remedy.Publish => Mend(
                    "publish",
                    remedy,
                    [],
                    [.. At(Obstacle.Unpublished).SelectMany(one => Changed(one.Level!.Value, one.Id!, AdjustedField.Published, true))]
                ),
                Remedy.DropCondition => Mend("drop-condition", remedy, []) with { Row = RowOf(At(Obstacle.Locked).First()) },
                Remedy.OpenForStudent => Mend("open-for-student", remedy, []),
                _ => Mend("wait", remedy, []),
            };

        private WhyMend Mend(string kind, Remedy remedy, IEnumerable<Ref<Item>> items, params DifferenceChange[] changes) =>
            new(kind, words.Of(remedy), [.. items.Select(item => new Id<Item>(plan.Row(item).Id))], changes);

        private string? RowOf(InTheWay one) => plan.Find(one.Id!) is { } row ? $"{EnumNames.Of(one.Level!.Value)}-{row.Id}" : null;

        private IEnumerable<InTheWay> At(Obstacle what) => why.Stands.Where(one => one.What == what);

        private DifferenceChange[] Changed(Level level, string lineage, AdjustedField field, bool? value)
        {
            if (section is null || plan.Find(lineage) is not { } row)
                return [];
            var present = plan.Adjustments.FirstOrDefault(one => one.Section == section.Id && one.Target == lineage && one.Field == field);
            // What a section keeps back is kept back by it alone.
            var isPutBack = field == AdjustedField.Hold;
            return
            [
                new(
                    section.Id,
                    level,
                    row.Id,
                    field,
                    isPutBack,
                    isPutBack || value is null ? null : System.Text.Json.JsonSerializer.SerializeToElement(value),
                    present?.Version ?? 0
                ),
            ];
        }
    }
}
