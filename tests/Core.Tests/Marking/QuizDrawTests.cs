using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Marking;

/// <summary>What of a quiz is put to an attempt, drawn and mixed by lot.</summary>
public sealed class QuizDrawTests
{
    private static PaperQuestion Asked(int n, int pool = 0, bool page = false, int points = 1) =>
        new(
            new($"k{n}", new QuestionKey.TruthKey(true), points),
            $"<p>{n}</p>",
            System.Collections.Immutable.ImmutableDictionary<string, string>.Empty
        )
        {
            Pool = pool,
            BeginsPage = page,
        };

    // Two for everybody, two of four that are worth two points each, and on a page of their own one of three and one more.
    private static readonly QuizPaper Paper = new()
    {
        Questions =
        [
            Asked(1),
            Asked(2),
            .. Enumerable.Range(3, 4).Select(n => Asked(n, 1, points: 2)),
            Asked(7, 2, page: true),
            Asked(8, 2),
            Asked(9, 2),
            Asked(10),
        ],
        Draws = [2, 1],
    };

    private static readonly IReadOnlyList<string> Lots = [.. Enumerable.Range(1, 300).Select(n => $"{n}")];

    private static List<string> Ids(QuizPaper paper, string lot) => [.. paper.PutTo(lot).Select(one => one.Asked.Question.Id)];

    [Fact]
    public void What_is_left_out_as_faulty_is_put_to_nobody_and_what_everyone_gets_is()
    {
        var faulty = Paper with
        {
            Questions =
            [
                .. Paper.Questions.Select(one =>
                    one.Question.Id switch
                    {
                        "k1" => one with { Question = one.Question with { Voided = Voided.Out } },
                        "k2" => one with { Question = one.Question with { Voided = Voided.Full } },
                        _ => one,
                    }
                ),
            ],
        };
        faulty.Asks.ShouldBe(Paper.Asks - 1);
        foreach (var lot in Lots)
            Ids(faulty, lot).ShouldBe(Ids(Paper, lot).Where(id => id != "k1"));
    }

    [Fact]
    public void Each_attempt_gets_as_many_of_a_pool_with_as_much_to_reach_and_the_same_whenever_it_is_asked()
    {
        foreach (var lot in Lots)
        {
            var put = Paper.PutTo(lot);
            put.Count.ShouldBe(Paper.Asks);
            put.Count(one => one.Asked.Pool == 1).ShouldBe(2);
            put.Count(one => one.Asked.Pool == 2).ShouldBe(1);
            Fraction.Sum(put.Select(one => one.Asked.Question.Points)).ShouldBe(Paper.Worth);
            Ids(Paper, lot).ShouldBe(Ids(Paper, lot));
            // Nothing is mixed, so they stand as they are written, page by page.
            put.Select(one => int.Parse(one.Asked.Question.Id[1..])).ShouldBeInOrder();
            put.Select(one => one.Page).ShouldBe([1, 1, 1, 1, 2, 2]);
        }
        Paper.Worth.ShouldBe(8);
        (Paper with { OutOf = 10 }).Worth.ShouldBe(10);
    }

    [Fact]
    public void Every_question_of_a_pool_has_its_turn()
    {
        var drawn = Lots.SelectMany(lot => Ids(Paper, lot)).GroupBy(id => id).ToDictionary(id => id.Key, id => id.Count());
        drawn.Count.ShouldBe(10);
        // Of four two, so each about half the time.
        foreach (var n in new[] { 3, 4, 5, 6 })
            drawn[$"k{n}"].ShouldBeInRange(110, 190);
    }

    [Fact]
    public void Mixed_questions_stay_on_their_page_and_nothing_is_lost()
    {
        var mixed = Paper with { MixesQuestions = true };
        foreach (var lot in Lots)
        {
            Ids(mixed, lot).Order().ShouldBe(Ids(Paper, lot).Order());
            mixed.PutTo(lot).Select(one => one.Page).ShouldBe([1, 1, 1, 1, 2, 2]);
        }
        Lots.Select(lot => Ids(mixed, lot)[0]).Distinct().Count().ShouldBe(6);
        QuizDraw.Mixed(["a", "b", "c"], "x").Order().ShouldBe(["a", "b", "c"]);
        Lots.Select(lot => string.Concat(QuizDraw.Mixed(["a", "b", "c"], lot))).Distinct().Count().ShouldBe(6);
    }

    [Fact]
    public void A_page_for_which_nothing_is_drawn_is_none()
    {
        var paper = new QuizPaper
        {
            Questions = [Asked(1), Asked(2, 1, page: true), Asked(3, 2, page: true), Asked(4, page: true)],
            Draws = [1, 1],
        };
        paper.PutTo("x").Select(one => one.Page).ShouldBe([1, 2, 3, 4]);
        (paper with { Questions = [Asked(1, page: true), Asked(2)], Draws = [] }).PutTo("x").Select(one => one.Page).ShouldBe([1, 1]);
    }
}
