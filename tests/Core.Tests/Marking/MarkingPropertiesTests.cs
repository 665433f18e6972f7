using CsCheck;
using NodaTime;
using Polycline.Core.Marking;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Marking;

/// <summary>What holds of every book of marks. The computation, chapter 13.</summary>
public sealed class MarkingPropertiesTests
{
    private const int Draws = 1_500;

    [Fact]
    public void Excused_from_an_item_one_has_the_total_as_if_it_were_not_there()
    {
        var counted = 0;
        Gen.Select(SomeBook.Any, Lots.Of("q1", "t1", "q2", "t2"))
            .Sample(
                (book, item) =>
                {
                    var student = book.Students[0].Student;
                    var excused = book with { Exceptions = [new(student, new(item)) { Excused = true }] };
                    var without = book with
                    {
                        Units = [.. book.Units.Select(unit => unit with { Items = [.. unit.Items.Where(one => one.Item.Name != item)] })],
                        Attempts = [.. book.Attempts.Where(one => one.Item.Name != item)],
                        Work = [.. book.Work.Where(one => one.Item.Name != item)],
                        Marks = [.. book.Marks.Where(one => one.Item.Name != item)],
                        Corrections = [.. book.Corrections.Where(one => one.Item.Name != item)],
                    };
                    var total = Total.Of(new(excused, SomeBook.Now), student);
                    total.Share.ShouldBe(Total.Of(new(without, SomeBook.Now), student).Share);
                    if (total.Share != Total.Of(new(book, SomeBook.Now), student).Share)
                        Interlocked.Increment(ref counted);
                },
                iter: Draws
            );
        counted.ShouldBeGreaterThan(Draws / 20);
    }

    [Fact]
    public void Marking_again_with_the_same_key_changes_nothing()
    {
        SomeBook.Any.Sample(
            book =>
            {
                var course = new MarkedCourse(book, SomeBook.Now);
                var at = SomeBook.Start + Duration.FromHours(30);
                var again = book
                    .Units.SelectMany(unit => unit.Items)
                    .OfType<MarkedItem.MarkedQuiz>()
                    .Select(quiz => new KeyCorrection(quiz.Item, at, [.. course.Keys[quiz.Item].At(at)]))
                    .ToList();
                var repeated = new MarkedCourse(book with { Corrections = [.. book.Corrections, .. again] }, SomeBook.Now);
                ScoreFact.Of(repeated).ShouldBe(ScoreFact.Of(course));
                Remarking
                    .Of(repeated)
                    .Count(one => one.Changes.Count > 0)
                    .ShouldBe(Remarking.Of(course).Count(one => one.Changes.Count > 0));
            },
            iter: Draws
        );
    }

    [Fact]
    public void The_last_fact_of_an_attempt_passes_the_thresholds_that_its_exact_share_passes()
    {
        var facts = 0;
        SomeBook.Any.Sample(
            book =>
            {
                var course = new MarkedCourse(book, SomeBook.Now);
                foreach (var fact in ScoreFact.Of(course).GroupBy(one => (one.Student, one.Item, one.Attempt)).Select(own => own.Last()))
                {
                    if (course.PieceOf(fact.Student, fact.Item) is not QuizPiece { Keys.Quiz.Using: not AttemptsUsed.Mean } quiz)
                        continue;
                    var attempt = quiz.Attempts.First(one => one.Attempt.Number == fact.Attempt);
                    if (attempt.At(SomeBook.Now, quiz.Keys.At(SomeBook.Now)).Share is not { } share)
                        continue;
                    Interlocked.Increment(ref facts);
                    foreach (var threshold in new[] { fact.Percent, fact.Percent + 0.0001m, 33.3333m, 33.3334m, 66.6667m, 70 })
                        ScoreThreshold.IsPassed(share, threshold).ShouldBe(fact.Percent >= threshold);
                }
            },
            iter: Draws
        );
        facts.ShouldBeGreaterThan(Draws);
    }

    [Fact]
    public void The_order_of_students_decides_nothing_about_questions()
    {
        var told = 0;
        SomeBook.Any.Sample(
            book =>
            {
                var course = new MarkedCourse(book, SomeBook.Now);
                var turned = new MarkedCourse(
                    book with
                    {
                        Students = [.. book.Students.Reverse()],
                        Sections = [book.Sections[0] with { Students = [.. book.Sections[0].Students.Reverse()] }],
                    },
                    SomeBook.Now
                );
                static List<string> Told(MarkedCourse course) =>
                    [
                        .. ItemStatistics
                            .Of(course, course.Book.Sections[0])
                            .SelectMany(item => item.Questions ?? [])
                            .Select(one => $"{one.Question.Id} {one.Students} {one.Right} {one.Mean} {one.Discrimination}"),
                    ];
                Told(turned).ShouldBe(Told(course));
                if (
                    ItemStatistics
                        .Of(course, course.Book.Sections[0])
                        .SelectMany(item => item.Questions ?? [])
                        .Any(one => one.Discrimination is not null)
                )
                    Interlocked.Increment(ref told);
            },
            iter: Draws
        );
        told.ShouldBeGreaterThan(Draws / 50);
    }

    [Fact]
    public void Nothing_that_is_later_than_now_is_seen()
    {
        Gen.Select(SomeBook.Any, Gen.Int[0, 72])
            .Sample(
                (book, hours) =>
                {
                    var now = SomeBook.Start + Duration.FromHours(hours);
                    var until = book with
                    {
                        Attempts =
                        [
                            .. book
                                .Attempts.Where(one => one.Began <= now)
                                .Select(one =>
                                    one with
                                    {
                                        Ended = one.Ended <= now ? one.Ended : null,
                                        Answers = [.. one.Answers.Where(answer => answer.At <= now)],
                                    }
                                ),
                        ],
                        Work = [.. book.Work.Where(one => one.At <= now)],
                        Marks = [.. book.Marks.Where(one => one.At <= now)],
                        Corrections = [.. book.Corrections.Where(one => one.At <= now)],
                    };
                    var (whole, cut) = (new MarkedCourse(book, now), new MarkedCourse(until, now));
                    ScoreFact.Of(whole).ShouldBe(ScoreFact.Of(cut));
                    foreach (var student in book.Students)
                        Total.Of(whole, student.Student).Share.ShouldBe(Total.Of(cut, student.Student).Share);
                    QueuedPiece.Of(whole, (_, _) => 0).ShouldBe(QueuedPiece.Of(cut, (_, _) => 0));
                    // And what was once said stays: the facts of an earlier moment are the first of a later one's.
                    ScoreFact.Of(new(book, SomeBook.Now)).Where(fact => fact.At <= now).ShouldBe(ScoreFact.Of(whole));
                },
                iter: Draws
            );
    }
}
