using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.Release;
using Polycline.Core.Sections;

namespace Polycline.Core.PlanFiles.Reading;

/// <summary>Makes the plan of a file whose form and names are as they should be.</summary>
internal static class PlanBuilder
{
    private static readonly string[] Weekdays = ["", "mon", "tue", "wed", "thu", "fri", "sat", "sun"];

    public static Plan Of(JsonPiece plan) =>
        new(
            TermOf(plan["term"]!),
            EditionOf(plan["edition"]!),
            Each(plan, "sections", SectionBuilder.Of),
            (plan["groups"]?.Members ?? []).ToImmutableDictionary(
                group => group.Name,
                group => group.Value.Items.Select(Ref<Student>).ToImmutableArray()
            ),
            (plan["home"]?.Members ?? []).ToImmutableDictionary(home => new Ref<Student>(home.Name), home => Ref<Section>(home.Value)),
            [.. plan.Each("exceptions").Where(piece => piece["item"] is not null).Select(ExceptionOf)],
            Each(plan, "facts", FactOf)
        )
        {
            Arrangements =
            [
                .. plan.Each("exceptions")
                    .Where(piece => piece["always"] is not null)
                    .Select(piece => new Arrangement(
                        Ref<Student>(piece["student"]!),
                        Number(piece["always"]!, "dueDays"),
                        Number(piece["always"]!, "quizTime")
                    )),
            ],
        };

    private static ForOneStudent ExceptionOf(JsonPiece piece) =>
        new()
        {
            Student = Ref<Student>(piece["student"]!),
            Item = Ref<Item>(piece["item"]!),
            Opens = Given(piece, "opens"),
            Due = Given(piece, "due"),
            Closes = Given(piece, "closes"),
            Excused = Flag(piece, "excused"),
            Include = Flag(piece, "include"),
            Exclude = Flag(piece, "exclude"),
            Unlocked = Flag(piece, "unlocked"),
            Move = piece["move"] is { } move ? MoveOf(move) : null,
        };

    public static ImmutableArray<Question> QuestionsOf(JsonPiece plan) =>
        [
            .. plan.Each("ask")
                .Where(piece => piece["item"] is not null)
                .Select(piece => new Question(Ref<Student>(piece["student"]!), Ref<Item>(piece["item"]!), Moment(piece, "at")!.Value)),
        ];

    public static ImmutableArray<FurtherQuestion> FurtherOf(JsonPiece plan) =>
        [.. plan.Each("ask").Where(piece => piece["item"] is null).Select(QuestionBuilder.Of)];

    public static MoveMark MoveOf(JsonPiece piece) =>
        new(Ref<Section>(piece["from"]!), Ref<Section>(piece["to"]!), Date(piece, "on")!.Value);

    public static Term TermOf(JsonPiece piece) =>
        new(
            Text(piece, "name"),
            DateTimeZoneProviders.Tzdb[Text(piece, "zone")],
            Date(piece, "first")!.Value,
            Date(piece, "last")!.Value,
            CalendarOf(piece)
        );

    /// <summary>The calendar members of a term, as they also stand in the database.</summary>
    public static SchoolCalendar CalendarOf(JsonPiece piece) =>
        new(
            Each(piece, "weekdays", day => (IsoDayOfWeek)Array.IndexOf(Weekdays, day.Value)),
            Each(piece, "closures", closure => new Closure(
                Date(closure, "from")!.Value,
                Date(closure, "to")!.Value,
                Text(closure, "name")
            )),
            Each(piece, "extraDays", extra => new ExtraDay(Date(extra, "date")!.Value, Text(extra, "name"))),
            RotationOf(piece["rotation"]),
            Each(piece, "periods", PeriodOf),
            Each(piece, "specialDays", day => new SpecialDay(
                Date(day, "date")!.Value,
                day["runs"]?.Value,
                day["periods"] is null ? null : Each(day, "periods", PeriodOf),
                day["name"]?.Value
            )),
            piece["offDays"]?.Value switch
            {
                "back" => OffDays.Back,
                "forward" => OffDays.Forward,
                _ => OffDays.Stay,
            }
        );

    public static Rotation RotationOf(JsonPiece? piece) =>
        piece?["kind"]!.Value switch
        {
            "weeks" => new Rotation.ByWeeks(Each(piece, "labels", label => label.Value!), piece["count"]!.Value == "teaching"),
            "days" => new Rotation.ByDays(Each(piece, "labels", label => label.Value!), piece["closures"]!.Value == "count"),
            _ => new Rotation.Weekly(),
        };

    public static string StudentId(JsonPiece entry) => entry.Kind == JsonKind.Object ? entry["id"]!.Value! : entry.Value!;

    public static Item ItemOf(JsonPiece piece) =>
        new()
        {
            Ref = Ref<Item>(piece["id"]!),
            Kind = Enum.Parse<ItemKind>(Text(piece, "kind"), ignoreCase: true),
            Title = Text(piece, "title"),
            Purpose = PurposeOf(piece),
            Lineage = piece["lineage"]?.Value,
            Published = Flag(piece, "published") ?? true,
            Code = piece["code"]?.Value,
            For = WhomOf(piece["for"]),
            Opens = AnchorOf(piece["opens"]),
            Due = AnchorOf(piece["due"]),
            Closes = AnchorOf(piece["closes"]),
            Gate = GateBuilder.Of(piece["gate"]),
            Before = BeforeOf(piece),
            Options = Each(piece, "options", option => option.Value!),
            Picks = Number(piece, "picks") ?? 1,
        };

    public static ForWhom? WhomOf(JsonPiece? piece) =>
        piece is null or { IsNull: true }
            ? null
            : new(
                piece["students"] is null ? null : Each(piece, "students", Ref<Student>),
                piece["groups"] is null ? null : Each(piece, "groups", group => group.Value!),
                Each(piece, "except", group => group.Value!)
            );

    public static Anchor? AnchorOf(JsonPiece? piece) =>
        piece is null or { IsNull: true }
            ? null
            : new()
            {
                At = Enum.Parse<AnchorBase>(Text(piece, "at").Replace("-", "", StringComparison.Ordinal), ignoreCase: true),
                Of = piece["of"]?.Value,
                Meetings = Number(piece, "meetings"),
                Weeks = Number(piece, "weeks"),
                Days = Number(piece, "days"),
                ClassDays = Number(piece, "classDays"),
                Clock = ClockOf(piece["clock"]?.Value),
                Date = Date(piece, "date"),
                Time = Time(piece, "time"),
            };

    public static ImmutableArray<T> Each<T>(JsonPiece owner, string list, Func<JsonPiece, T> read) => [.. owner.Each(list).Select(read)];

    public static Ref<T> Ref<T>(JsonPiece piece) => new(piece.Value!);

    public static Ref<T>? SomeRef<T>(JsonPiece? piece) => piece is null or { IsNull: true } ? null : Ref<T>(piece);

    public static string Text(JsonPiece owner, string member) => owner[member]!.Value!;

    public static bool? Flag(JsonPiece owner, string member) => owner[member] is { } piece ? piece.Kind == JsonKind.True : null;

    public static int? Number(JsonPiece owner, string member) => owner[member] is { } piece ? Forms.WholeOf(piece) : null;

    public static LocalDate? Date(JsonPiece owner, string member) => owner[member] is { } piece ? Forms.DateOf(piece.Value!) : null;

    public static LocalTime? Time(JsonPiece owner, string member) => owner[member] is { } piece ? Forms.TimeOf(piece.Value!) : null;

    public static Instant? Moment(JsonPiece owner, string member) => owner[member] is { } piece ? Forms.InstantOf(piece.Value!) : null;

    /// <summary>A date that may be left out (inherited) or null (cleared).</summary>
    public static Given<Anchor> Given(JsonPiece owner, string member) =>
        owner[member] is { } piece ? AnchorOf(piece) : default(Given<Anchor>);

    public static Calendars.Period PeriodOf(JsonPiece piece) =>
        new(Text(piece, "name"), Time(piece, "start")!.Value, Time(piece, "end")!.Value);

    private static AnchorClock? ClockOf(string? clock) =>
        clock switch
        {
            null => null,
            "keep" => new(ClockKind.Keep),
            "meeting-start" => new(ClockKind.MeetingStart),
            "meeting-end" => new(ClockKind.MeetingEnd),
            _ => new(ClockKind.Time, Forms.TimeOf(clock)),
        };

    private static Edition EditionOf(JsonPiece piece) =>
        new(
            Text(piece, "title"),
            piece["basis"]!.Value == "minutes" ? Basis.Minutes : Basis.Meetings,
            Number(piece, "minStart") ?? 10,
            piece["codes"]?.Value == "straight" ? CodeStyle.Straight : CodeStyle.ByUnit,
            BeforeOf(piece) ?? BeforeOpening.Listed,
            Each(piece, "units", UnitOf)
        );

    private static BeforeOpening? BeforeOf(JsonPiece piece) =>
        piece["before"]?.Value switch
        {
            "listed" => BeforeOpening.Listed,
            "unseen" => BeforeOpening.Unseen,
            _ => null,
        };

    private static Unit UnitOf(JsonPiece piece)
    {
        var items = piece.Each("items").ToLookup(item => item["lesson"]?.Value, ItemOf);
        return new(
            Ref<Unit>(piece["id"]!),
            Text(piece, "title"),
            Each(piece, "lessons", lesson => new Lesson(
                Ref<Lesson>(lesson["id"]!),
                Text(lesson, "title"),
                Number(lesson, "length")!.Value,
                [.. items[lesson["id"]!.Value]],
                Flag(lesson, "optional") ?? false,
                Flag(lesson, "published") ?? true,
                GateBuilder.Of(lesson["gate"])
            )
            {
                Lineage = lesson["lineage"]?.Value,
            }),
            [.. items[null]],
            Flag(piece, "published") ?? true,
            GateBuilder.Of(piece["gate"]),
            BeforeOf(piece)
        )
        {
            Lineage = piece["lineage"]?.Value,
        };
    }

    // What is not said to be for something else is for reading where there is nothing to hand in.
    private static Purpose PurposeOf(JsonPiece item) =>
        item["purpose"]?.Value switch
        {
            "read" => Purpose.ToRead,
            "practice" => Purpose.Practice,
            "marks" => Purpose.ForMarks,
            _ => ItemRules.UsualPurpose(Enum.Parse<ItemKind>(Text(item, "kind"), ignoreCase: true)),
        };

    private static Fact FactOf(JsonPiece piece) =>
        new(
            Ref<Student>(piece["student"]!),
            Ref<Item>(piece["item"]!),
            Enum.Parse<FactEvent>(Text(piece, "event").Replace("-", "", StringComparison.Ordinal), ignoreCase: true),
            Moment(piece, "at")!.Value,
            piece["score"] is { } score ? Forms.NumberOf(score) : null,
            Number(piece, "attempt") ?? 1,
            piece["option"]?.Value,
            Flag(piece, "again") ?? false
        );
}
