using System.Collections.Immutable;
using CsCheck;
using NodaTime;
using Polycline.Core.Marking;

namespace Polycline.Tests.Core.Marking;

/// <summary>Books of marks drawn by lot: two quizzes, two tasks, up to fourteen students, some late, waiting or corrected.</summary>
internal static class SomeBook
{
    public static readonly Instant Start = Instant.FromUtc(2026, 10, 5, 9, 0);
    public static readonly Instant Now = Start + Duration.FromDays(3);

    private static readonly ImmutableArray<string> Options = ["a", "b", "c"];

    private static readonly PointRubric[] Rubrics =
    [
        new(new("r1"), 1, [Criterion("c1", 2, false), Criterion("c2", 1, true)]),
        new(new("r1"), 2, [Criterion("c1", 1, false)]),
    ];

    public static readonly Gen<MarkingBook> Any =
        from units in Gen.Select(Gen.Int[0, 2], Quiz("q1"), Task("t1"), Quiz("q2"), Task("t2"))
            .Select<(int, MarkedItem, MarkedItem, MarkedItem, MarkedItem), ImmutableArray<MarkedUnit>>(drawn =>
                [new(new("u1"), drawn.Item1, [drawn.Item2, drawn.Item3]), new(new("u2"), 0, [drawn.Item4, drawn.Item5])]
            )
        from count in Gen.Int[1, 14]
        from attempts in Each(count, student => Lots.Of("q1", "q1", "q1", "q2").SelectMany(item => Attempts(student, item)))
        from marks in Each(count, student => TaskMark(student, units).Array[0, 3].Select(some => (IEnumerable<Mark>)some))
        from work in Each(count, student =>
            Hours.Array[0, 2].Select(some => some.Select(at => new HandIn(new($"p{student}"), new("t1"), at)))
        )
        from byHand in Each(count, student => HandMark(student, attempts).Array[0, 2].Select(some => some.OfType<Mark>()))
        from corrections in Correction.Array[0, 2]
        from weights in Lots.Of(WeightsBy.Nothing, WeightsBy.Purpose, WeightsBy.Unit)
        from heavy in Gen.Int[0, 3]
        from missing in Lots.Of(MissingCounts.LeftOut, MissingCounts.AsZero)
        select new MarkingBook
        {
            Units = units,
            Students = [.. Enumerable.Range(0, count).Select(n => new MarkedStudent(new($"p{n}"), $"Student {n}", ExtraTime.None))],
            Sections =
            [
                new(
                    new("s1"),
                    [],
                    ImmutableDictionary<Polycline.Core.Ref<Polycline.Core.Courses.Item>, MarkingDates>.Empty.Add(
                        new("t2"),
                        new(Start + Duration.FromDays(2), null)
                    ),
                    [.. Enumerable.Range(0, count).Select(n => new SectionStudent(new($"p{n}"), null))]
                ),
            ],
            Attempts = [.. attempts],
            Work = [.. work],
            Marks = [.. marks, .. byHand],
            Corrections = [.. corrections],
            Missing = missing,
            Weights = new(
                weights,
                weights == WeightsBy.Purpose ? Of("marks", "practice", heavy)
                    : weights == WeightsBy.Unit ? Of("u1", "u2", heavy)
                    : ImmutableDictionary<string, Fraction>.Empty
            ),
        };

    private static Gen<Instant> Hours => Gen.Int[0, 71].Select(hours => Start + Duration.FromHours(hours));

    private static Gen<Fraction> Amount => Gen.Int[0, 400].Select(hundredths => new Fraction(hundredths, 100));

    private static Gen<QuizQuestion> Question(string id) =>
        Gen.Select(Lots.Of([.. Options]), Gen.Int[1, 4], Gen.Int[0, 11], Gen.Bool)
            .Select(drawn => new QuizQuestion(
                id,
                id == "k3" ? new QuestionKey.FreeKey() : new QuestionKey.OneKey(Options, [drawn.Item1]),
                drawn.Item2
            )
            {
                IsExtra = drawn.Item3 == 0,
                Voided =
                    drawn.Item3 == 1 ? Voided.Full
                    : drawn.Item3 == 2 ? Voided.Out
                    : Voided.No,
            });

    private static Gen<MarkedItem> Quiz(string id) =>
        Gen.Select(
                Question("k1"),
                Question("k2"),
                Question("k3"),
                Lots.Of(AttemptsUsed.Best, AttemptsUsed.Latest, AttemptsUsed.Mean),
                Gen.Int[0, 2]
            )
            .Select(drawn =>
                (MarkedItem)
                    new MarkedItem.MarkedQuiz
                    {
                        Item = new(id),
                        Questions = [drawn.Item1, drawn.Item2, drawn.Item3],
                        Using = drawn.Item4,
                        Limit = drawn.Item5 == 0 ? null : 20 * drawn.Item5,
                        Grace = 30,
                    }
            );

    private static Gen<MarkedItem> Task(string id) =>
        Gen.Select(Lots.Of(TaskScore.Points, TaskScore.Percent, TaskScore.None), Gen.Int[1, 20], Gen.Bool)
            .Select(drawn =>
                (MarkedItem)
                    new MarkedItem.MarkedTask
                    {
                        Item = new(id),
                        Score = drawn.Item1,
                        OutOf = drawn.Item2,
                        Rubric = drawn.Item3 && drawn.Item1 != TaskScore.None ? Rubrics[1] : null,
                        Counts = id == "t1" && drawn.Item3 ? true : null,
                    }
            );

    private static Gen<IEnumerable<QuizAttempt>> Attempts(int student, string item) =>
        Gen.Select(Gen.Int[0, 3], Gen.Int[5, 50].Array[3], Lots.Of("a", "b", "c", "", "").Array[9])
            .Select(drawn =>
                Enumerable
                    .Range(0, drawn.Item1)
                    .Select(n =>
                    {
                        var began = Start + Duration.FromHours(n * 20);
                        return new QuizAttempt
                        {
                            Student = new($"p{student}"),
                            Item = new(item),
                            Number = n + 1,
                            Began = began,
                            Ended = drawn.Item2[n] > 45 ? null : began + Duration.FromMinutes(drawn.Item2[n]),
                            Answers =
                            [
                                .. Enumerable
                                    .Range(0, 3)
                                    .Where(k => drawn.Item3[(n * 3) + k].Length > 0)
                                    .Select(k => new GivenAnswer(
                                        $"k{k + 1}",
                                        began + Duration.FromMinutes(k),
                                        k == 2
                                            ? new Answer.Typed(drawn.Item3[(n * 3) + k])
                                            : new Answer.PickedOption(drawn.Item3[(n * 3) + k])
                                    )),
                            ],
                        };
                    })
            );

    private static Gen<Mark> TaskMark(int student, ImmutableArray<MarkedUnit> units) =>
        Gen.Select(Gen.Int[0, 1], Hours, Gen.Int[0, 5], Amount)
            .Select(drawn =>
            {
                var task = (MarkedItem.MarkedTask)units[drawn.Item1].Items[1];
                var mark = new Mark(new($"p{student}"), task.Item, drawn.Item2) { IsAgain = drawn.Item3 == 0 };
                return task.Score switch
                {
                    TaskScore.None => mark,
                    _ when drawn.Item3 > 3 => mark with { Rubric = ByRubric(drawn.Item3 == 4, drawn.Item4) },
                    TaskScore.Points => mark with { Points = drawn.Item4 },
                    _ => mark with { Share = drawn.Item4 / 4 },
                };
            });

    private static RubricMark ByRubric(bool isWhole, Fraction points) =>
        new(Rubrics[0], [isWhole ? new CriterionMark("c1", "some", points) : new("c2", "none", null)]);

    private static Gen<Mark?> HandMark(int student, IReadOnlyList<QuizAttempt> attempts)
    {
        var own = attempts.Where(attempt => attempt.Student.Name == $"p{student}").ToList();
        return Gen.Select(Gen.Int[0, 8], Gen.Int[0, 30], Amount)
            .Select(drawn =>
                own.Count == 0
                    ? null
                    : new Mark(
                        own[0].Student,
                        own[drawn.Item1 % own.Count].Item,
                        own[drawn.Item1 % own.Count].Began + Duration.FromHours(drawn.Item2)
                    )
                    {
                        Attempt = own[drawn.Item1 % own.Count].Number,
                        Question = "k3",
                        Points = drawn.Item3,
                    }
            );
    }

    private static Gen<KeyCorrection> Correction =>
        Gen.Select(Lots.Of("q1", "q2"), Hours, Question("k1"), Question("k2"))
            .Select(drawn => new KeyCorrection(new(drawn.Item1), drawn.Item2, [drawn.Item3, drawn.Item4]));

    private static PointCriterion Criterion(string id, int weight, bool isOptional) =>
        new(id, weight, isOptional, [new("none", 0, 0, false), new("some", 0, 4, true)]);

    private static ImmutableDictionary<string, Fraction> Of(string one, string other, int heavy) =>
        ImmutableDictionary<string, Fraction>.Empty.Add(one, heavy).Add(other, 1);

    private static Gen<IReadOnlyList<T>> Each<T>(int count, Func<int, Gen<IEnumerable<T>>> one) =>
        Enumerable
            .Range(0, count)
            .Aggregate(Gen.Const((IReadOnlyList<T>)[]), (all, n) =>
                all.SelectMany(before => one(n).Select(after => (IReadOnlyList<T>)[.. before, .. after]))
            );
}

/// <summary>Drawing one of a few.</summary>
internal static class Lots
{
    public static Gen<T> Of<T>(params T[] some) => Gen.Int[0, some.Length - 1].Select(n => some[n]);
}
