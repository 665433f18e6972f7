using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.Marking;
using Polycline.Core.Sections;

namespace Polycline.Core.MarkFiles.Checking;

/// <summary>Makes the book of a marking file that all passes let through.</summary>
internal sealed class MarkingBuilder
{
    private readonly Dictionary<string, ShortScale> scales = new(StringComparer.Ordinal);
    private readonly Dictionary<(string, int), PointRubric> rubrics = [];
    private readonly Dictionary<(string Item, string Question), QuestionKey> keys = [];

    private MarkingBuilder() { }

    public static MarkingBook Of(JsonPiece file) => new MarkingBuilder().BookOf(file);

    /// <summary>The key of a question, or of a gap.</summary>
    public static QuestionKey KeyOf(JsonPiece question)
    {
        var isAll = question["partial"]?.Value == "all";
        return question["kind"]!.Value switch
        {
            "one" => new QuestionKey.OneKey(Texts(question, "options"), Texts(question, "right")),
            "many" => new QuestionKey.ManyKey(Texts(question, "options"), Texts(question, "right"), isAll),
            "truth" => new QuestionKey.TruthKey(question["right"]!.Kind == JsonKind.True),
            "number" => NumberOf(question),
            "text" => new QuestionKey.TextKey(Texts(question, "accept"))
            {
                NotAccepted = Texts(question, "not"),
                KeepsCase = question["case"]?.Value == "keep",
                DropsSpace = question["space"]?.Value == "drop",
                FoldsAccents = question["accents"]?.Value == "fold",
                Edits = Whole(question, "edits") ?? 0,
            },
            "order" => new QuestionKey.OrderKey(Texts(question, "sequence"), isAll),
            "match" => new QuestionKey.MatchKey(
                [.. question["pairs"]!.Members.Select(pair => new MatchPair(pair.Name, pair.Value.Value!))],
                Texts(question, "spare"),
                isAll
            ),
            "gaps" => new QuestionKey.GapsKey([.. question.Each("gaps").Select(KeyOf)], isAll),
            "free" => new QuestionKey.FreeKey(),
            _ => new QuestionKey.FileKey(),
        };
    }

    private static QuestionKey.NumberKey NumberOf(JsonPiece question)
    {
        var value = Amount(question, "value")!.Value;
        var tolerance = question["tolerance"];
        return new(value)
        {
            Tolerance =
                tolerance is null ? 0
                : Amount(tolerance, "by") is { } by ? by
                : value.Abs() * Amount(tolerance, "percent")!.Value / 100,
            Units = Texts(question, "units"),
            NeedsUnit = Flag(question, "needUnit") ?? true,
            Figures = Whole(question, "figures"),
            Slip = (Amount(question, "slip") ?? 0) / 100,
        };
    }

    private MarkingBook BookOf(JsonPiece file)
    {
        foreach (var scale in file.Each("scales"))
            scales[scale["id"]!.Value!] = new(
                Ref<ShortScale>(scale),
                [.. scale.Each("levels").Select(level => new ScaleLevel(level["id"]!.Value!, Amount(level, "percent") / 100))]
            );
        foreach (var rubric in file.Each("rubrics"))
            rubrics[MarkingIndex.VersionOf(rubric)] = RubricOf(rubric);
        return new()
        {
            Units =
            [
                .. file.Each("units")
                    .Select(unit => new MarkedUnit(Ref<Unit>(unit), Whole(unit, "drop") ?? 0, [.. unit.Each("items").Select(ItemOf)])),
            ],
            Scales = [.. scales.Values],
            Students =
            [
                .. file.Each("students")
                    .Select(student => new MarkedStudent(
                        Ref<Student>(student),
                        student["name"]!.Value!,
                        ExtraOf(student) ?? ExtraTime.None
                    )),
            ],
            Sections = [.. file.Each("sections").Select(SectionOf)],
            Exceptions = [.. file.Each("exceptions").Select(ExceptionOf)],
            Attempts = [.. file.Each("attempts").Select(AttemptOf)],
            Work =
            [
                .. file.Each("work")
                    .Select(work => new HandIn(Of<Student>(work, "student"), Of<Item>(work, "item"), Moment(work, "at")!.Value)),
            ],
            Marks = [.. file.Each("marks").Select(MarkOf)],
            Corrections =
            [
                .. file.Each("corrections")
                    .Select(correction => new KeyCorrection(
                        Of<Item>(correction, "item"),
                        Moment(correction, "at")!.Value,
                        [.. correction.Each("questions").Select(QuestionOf)]
                    )),
            ],
            Weights = WeightsOf(file["course"]?["weights"]),
            Missing = file["course"]?["missing"]?.Value == "zero" ? MissingCounts.AsZero : MissingCounts.LeftOut,
            DecimalMark = file["course"]?["decimalMark"]?.Value == "," ? DecimalMark.Comma : DecimalMark.Point,
        };
    }

    private static Weights WeightsOf(JsonPiece? weights) =>
        weights is null
            ? Weights.None
            : new(
                weights["by"]!.Value switch
                {
                    "purpose" => WeightsBy.Purpose,
                    "unit" => WeightsBy.Unit,
                    _ => WeightsBy.Nothing,
                },
                (weights["of"]?.Members ?? []).ToImmutableDictionary(part => part.Name, part => (Fraction)Forms.NumberOf(part.Value))
            );

    private static PointRubric RubricOf(JsonPiece rubric) =>
        new(
            Ref<PointRubric>(rubric),
            Whole(rubric, "version")!.Value,
            [
                .. rubric
                    .Each("criteria")
                    .Select(criterion => new PointCriterion(
                        criterion["id"]!.Value!,
                        Amount(criterion, "weight") ?? 1,
                        Flag(criterion, "optional") ?? false,
                        [.. criterion.Each("levels").Select(LevelOf)]
                    )),
            ]
        );

    private static CriterionLevel LevelOf(JsonPiece level) =>
        Amount(level, "points") is { } points
            ? new(level["id"]!.Value!, points, points, false)
            : new(level["id"]!.Value!, Amount(level, "from")!.Value, Amount(level, "to")!.Value, true);

    private MarkedItem ItemOf(JsonPiece item)
    {
        var purpose = item["purpose"]?.Value switch
        {
            "practice" => Purpose.Practice,
            "read" => Purpose.ToRead,
            _ => Purpose.ForMarks,
        };
        ImmutableArray<Ref<Student>>? forWhom = item["for"] is null
            ? null
            : [.. item.Each("for").Select(id => new Ref<Student>(id.Value!))];
        if (item["kind"]!.Value == "quiz")
        {
            ImmutableArray<QuizQuestion> questions = [.. item.Each("questions").Select(QuestionOf)];
            foreach (var question in questions)
                keys[(item["id"]!.Value!, question.Id)] = question.Key;
            return new MarkedItem.MarkedQuiz
            {
                Item = Ref<Item>(item),
                Purpose = purpose,
                Counts = Flag(item, "counts"),
                For = forWhom,
                Questions = questions,
                OutOf = Amount(item, "outOf"),
                Using = item["using"]?.Value switch
                {
                    "latest" => AttemptsUsed.Latest,
                    "mean" => AttemptsUsed.Mean,
                    _ => AttemptsUsed.Best,
                },
                Limit = Whole(item, "limit"),
                Grace = Whole(item, "grace") ?? 0,
            };
        }
        return new MarkedItem.MarkedTask
        {
            Item = Ref<Item>(item),
            Purpose = purpose,
            Counts = Flag(item, "counts"),
            For = forWhom,
            Score = item["score"]!.Value switch
            {
                "points" => TaskScore.Points,
                "percent" => TaskScore.Percent,
                "scale" => TaskScore.Scale,
                _ => TaskScore.None,
            },
            OutOf = Amount(item, "outOf") ?? 100,
            Scale = item["scale"] is { } scale ? scales[scale.Value!] : null,
            Rubric = item["rubric"] is { } rubric ? rubrics[MarkingIndex.VersionOf(rubric)] : null,
        };
    }

    /// <summary>A question with its key.</summary>
    public static QuizQuestion QuestionOf(JsonPiece question) =>
        new(question["id"]!.Value!, KeyOf(question), Amount(question, "points")!.Value)
        {
            IsExtra = Flag(question, "extra") ?? false,
            Voided = question["void"]?.Value switch
            {
                "full" => Voided.Full,
                "out" => Voided.Out,
                _ => Voided.No,
            },
        };

    private static MarkedSection SectionOf(JsonPiece section) =>
        new(
            Ref<Section>(section),
            [.. section.Each("skips").Select(id => new Ref<Item>(id.Value!))],
            (section["dates"]?.Members ?? []).ToImmutableDictionary(
                dated => new Ref<Item>(dated.Name),
                dated => new MarkingDates(Moment(dated.Value, "due"), Moment(dated.Value, "closes"))
            ),
            [.. section.Each("students").Select(student => new SectionStudent(Ref<Student>(student), Moment(student, "from")))]
        );

    private static DifferentFor ExceptionOf(JsonPiece exception) =>
        new(Of<Student>(exception, "student"), Of<Item>(exception, "item"))
        {
            Excused = Flag(exception, "excused"),
            Include = Flag(exception, "include"),
            Exclude = Flag(exception, "exclude"),
            Due = exception["due"] is null ? default : Moment(exception, "due"),
            Closes = exception["closes"] is null ? default : Moment(exception, "closes"),
            Extra = ExtraOf(exception),
        };

    private QuizAttempt AttemptOf(JsonPiece attempt)
    {
        var item = Of<Item>(attempt, "item");
        return new()
        {
            Student = Of<Student>(attempt, "student"),
            Item = item,
            Number = Whole(attempt, "n")!.Value,
            Began = Moment(attempt, "began")!.Value,
            Ended = Moment(attempt, "ended"),
            Asked = attempt["asked"] is null ? null : Texts(attempt, "asked"),
            LateAllowed = Moment(attempt, "lateAllowed"),
            Answers =
            [
                .. attempt
                    .Each("answers")
                    .Select(answer => new GivenAnswer(
                        answer["question"]!.Value!,
                        Moment(answer, "at")!.Value,
                        AnswerFit.Read(answer["answer"]!, keys[(item.Name, answer["question"]!.Value!)], new())
                    )),
            ],
        };
    }

    private Mark MarkOf(JsonPiece mark) =>
        new(Of<Student>(mark, "student"), Of<Item>(mark, "item"), Moment(mark, "at")!.Value)
        {
            Attempt = Whole(mark, "attempt"),
            Question = mark["question"]?.Value,
            IsAgain = Flag(mark, "again") ?? false,
            Points = Amount(mark, "points"),
            Share = Amount(mark, "percent") / 100,
            Level = mark["level"]?.Value,
            Rubric = mark["rubric"] is { } made
                ? new(
                    rubrics[MarkingIndex.VersionOf(made)],
                    [
                        .. made.Each("levels")
                            .Select(level => new CriterionMark(
                                level["criterion"]!.Value!,
                                level["level"]!.Value!,
                                Amount(level, "points")
                            )),
                    ]
                )
                : null,
        };

    private static ExtraTime? ExtraOf(JsonPiece piece) =>
        piece["extra"] is { } extra ? new(Amount(extra, "percent") ?? 0, Whole(extra, "minutes") ?? 0) : null;

    private static Ref<T> Ref<T>(JsonPiece piece) => Of<T>(piece, "id");

    private static Ref<T> Of<T>(JsonPiece piece, string member) => new(piece[member]!.Value!);

    private static ImmutableArray<string> Texts(JsonPiece piece, string list) => [.. piece.Each(list).Select(text => text.Value!)];

    private static bool? Flag(JsonPiece piece, string member) => piece[member] is { } flag ? flag.Kind == JsonKind.True : null;

    private static int? Whole(JsonPiece piece, string member) => piece[member] is { } whole ? Forms.WholeOf(whole) : null;

    private static Fraction? Amount(JsonPiece piece, string member) =>
        piece[member] is { } amount ? Forms.NumberOf(amount) : (Fraction?)null;

    private static Instant? Moment(JsonPiece piece, string member) =>
        piece[member] is { IsNull: false, Value: { } text } ? Forms.InstantOf(text) : null;
}
