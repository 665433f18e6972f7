using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Scores;
using Polycline.Formats.Quizzes;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Scores;

/// <summary>How the questions of a quiz went. Source: the computation, chapter 13.6.</summary>
/// <param name="Questions">In their order.</param>
public sealed record QuestionsAnswer(string Code, string Title, IReadOnlyList<AskedQuestion> Questions);

/// <param name="Text">What is asked, as plain text.</param>
/// <param name="Sections">Those of the viewer in which it was asked, in order of name.</param>
public sealed record AskedQuestion(int N, string Text, IReadOnlyList<QuestionInSection> Sections);

public sealed record QuestionInSection
{
    public required Id<Section> Section { get; init; }

    public required string Name { get; init; }

    public required string Letter { get; init; }

    /// <summary>How many answered it in a first attempt.</summary>
    public required int Students { get; init; }

    /// <summary>How many of them have full points.</summary>
    public required int Right { get; init; }

    /// <summary>How much of it was reached on average, such as <c>72.5 %</c>; null: nobody was asked it.</summary>
    public required string? Mean { get; init; }

    /// <summary>How well it tells strong from weak: <c>well</c>, <c>a little</c>, <c>hardly</c>, <c>the wrong way round</c>; null: too few
    /// answered it.</summary>
    public required string? TellsApart { get; init; }

    /// <summary>The most frequent wrong answers.</summary>
    public required IReadOnlyList<WrongInWords> Wrong { get; init; }
}

/// <param name="Words">What was answered.</param>
public sealed record WrongInWords(string Words, int Students);

/// <summary>Reads how the questions of a quiz went, section by section.</summary>
public static class ReadQuestions
{
    // From which difference between the best and the weakest on it tells them apart so well.
    private static readonly Fraction Well = new(2, 5),
        ALittle = new(1, 5);

    public static async Task<QuestionsAnswer> Handle(
        long edition,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("How questions went");
        var plan = await compiled.Edition(access);
        var quiz = plan.Item(new Id<Item>(item)) ?? throw Problem.Unknown();
        if (quiz.Kind != ItemKind.Quiz)
            throw Problem.Unknown();
        var rows = await database.Read(
            connection => ScoreStore.Read(connection, plan, access.Person.Id, access.IsLead, viewpoint.At),
            stop
        );
        return Of(plan, quiz, rows);
    }

    private static QuestionsAnswer Of(EditionPlan plan, Item quiz, ScoreRows rows)
    {
        var paper = rows.Marks.PaperOf(quiz.Ref);
        // A student of theirs may have their home in a section that is not.
        var theirs = rows.Students.Select(place => place.Section).ToHashSet();
        var sections = rows
            .Marks.Course.Book.Sections.Select(section => (Following: plan.Following(PlanIds.IdOf(section.Section))!, Own: section))
            .Where(section => theirs.Contains(section.Following.Id))
            .OrderBy(section => section.Following.Name, StringComparer.Ordinal)
            .Select(section =>
                (
                    section.Following,
                    Went: ItemStatistics.Of(rows.Marks.Course, section.Own).FirstOrDefault(one => one.Item.Item == quiz.Ref)?.Questions
                )
            )
            .ToList();
        return new(
            plan.Schedule.CodeOf[quiz.Ref],
            quiz.Title,
            [
                .. (paper?.Questions ?? []).Select(
                    (question, n) =>
                        new AskedQuestion(
                            n + 1,
                            QuizText.PlainText(question.Text),
                            [
                                .. sections
                                    .Select(section =>
                                        (section.Following, Went: section.Went?.FirstOrDefault(one => one.Question == question.Question))
                                    )
                                    .Where(section => section.Went is { Students: > 0 })
                                    .Select(section => InSection(section.Following, section.Went!, question)),
                            ]
                        )
                ),
            ]
        );
    }

    private static QuestionInSection InSection(FollowingSection section, QuestionStatistics went, PaperQuestion question) =>
        new()
        {
            Section = section.Id,
            Name = section.Name,
            Letter = section.Letter,
            Students = went.Students,
            Right = went.Right,
            Mean = went.Mean is { } mean ? ScoreWords.Percent(mean) : null,
            TellsApart =
                went.Discrimination is not { } apart ? null
                : apart >= Well ? "well"
                : apart >= ALittle ? "a little"
                : apart.Sign >= 0 ? "hardly"
                : "the wrong way round",
            Wrong = [.. went.Wrong.Select(wrong => new WrongInWords(InWords(question, wrong.Answer), wrong.Students))],
        };

    // Ids stand there for what they say; what was typed is said as it was.
    private static string InWords(PaperQuestion question, string answer) =>
        question.Question.Key switch
        {
            QuestionKey.OneKey => question.Words[answer],
            QuestionKey.ManyKey when answer.Length == 0 => "none of them",
            QuestionKey.ManyKey => Counting.Joined([.. answer.Split(' ').Select(id => question.Words[id])], "and"),
            QuestionKey.OrderKey => string.Join(", ", answer.Split(' ').Select(id => question.Words[id])),
            _ => answer,
        };
}
