using Polycline.Core.MarkFiles;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;

namespace Polycline.Formats.Quizzes;

/// <summary>A question as a row of fields: another way of writing what <see cref="QuizText"/> reads.</summary>
public sealed record QuestionForm
{
    /// <summary>What is asked, as HTML; gaps stand in it in brackets, with what belongs into them.</summary>
    public required string Html { get; init; }

    /// <summary>
    /// <c>one</c>, <c>many</c>, <c>truth</c>, <c>number</c>, <c>text</c>, <c>order</c>, <c>match</c>, <c>gaps</c>, <c>free</c> or
    /// <c>file</c>.
    /// </summary>
    public required string Kind { get; init; }

    /// <summary>Of <c>one</c>, <c>many</c>, <c>order</c> and <c>match</c>: what there is, in its order.</summary>
    public required IReadOnlyList<AnswerForm> Answers { get; init; }

    /// <summary>Of <c>truth</c>, <c>number</c> and <c>text</c>: what is right, as it is typed. Else empty.</summary>
    public required string Right { get; init; }

    /// <summary>Of <c>text</c>: forms that are wrong however near they come, as they are typed.</summary>
    public required string Wrong { get; init; }

    /// <summary>Of <c>text</c>: 0 to 3 slips that are overlooked.</summary>
    public required int Slips { get; init; }

    public required bool CapitalsCount { get; init; }
    public required bool AccentsCount { get; init; }
    public required bool AllOrNothing { get; init; }
    public required bool InThisOrder { get; init; }
    public required decimal Points { get; init; }
    public required bool IsExtra { get; init; }

    /// <summary>
    /// <c>full points</c>: it is faulty, and everybody has its points; <c>left out</c>: as if it were not there. Else empty.
    /// </summary>
    public string Faulty { get; init; } = "";

    /// <summary>Empty: none.</summary>
    public required string Hint { get; init; }

    /// <summary>Empty: nothing is said afterwards.</summary>
    public required string After { get; init; }

    public required bool BeginsPage { get; init; }

    /// <summary>How many are drawn from this question and those after it; 0: no draw begins here.</summary>
    public required int Draw { get; init; }

    /// <summary>From how many, this one among them.</summary>
    public required int DrawOf { get; init; }

    /// <summary>Questions with what stands between them, as rows.</summary>
    /// <param name="draws">Of each pool, how many are drawn.</param>
    public static IReadOnlyList<QuestionForm> Of(IReadOnlyList<PaperQuestion> questions, IReadOnlyList<int> draws) =>
        [
            .. questions.Select(
                (question, at) =>
                {
                    var begins = question.Pool > 0 && (at == 0 || questions[at - 1].Pool != question.Pool);
                    return Of(question) with
                    {
                        Draw = begins ? draws[question.Pool - 1] : 0,
                        DrawOf = begins ? questions.Count(one => one.Pool == question.Pool) : 0,
                    };
                }
            ),
        ];

    private static QuestionForm Of(PaperQuestion question)
    {
        var key = question.Question.Key;
        var text = key as QuestionKey.TextKey;
        return new()
        {
            Html = key is QuestionKey.GapsKey gaps
                ? GapText.Filled(question.Text, [.. gaps.Parts.Select(part => QuizText.Gap(part, question))])
                : question.Text,
            Kind = QuizPaperFile.KindOf(key),
            Answers = [.. AnswersOf(question)],
            Right = key switch
            {
                QuestionKey.TruthKey truth => truth.Right ? "true" : "false",
                QuestionKey.NumberKey number => QuizText.NumberKey(number),
                QuestionKey.TextKey accepts => string.Join(" / ", accepts.Accepted),
                _ => "",
            },
            Wrong = string.Join(" / ", text?.NotAccepted ?? []),
            Slips = text?.Edits ?? 0,
            CapitalsCount = text?.KeepsCase ?? false,
            AccentsCount = text is not { FoldsAccents: true },
            AllOrNothing = QuizText.IsAllOrNothing(key),
            InThisOrder = question.KeepsOrder,
            Points = (decimal)question.Question.Points.Above / (decimal)question.Question.Points.Below,
            IsExtra = question.Question.IsExtra,
            Faulty = QuizText.Faulty(question),
            Hint = question.Hint ?? "",
            After = question.After ?? "",
            BeginsPage = question.BeginsPage,
            Draw = 0,
            DrawOf = 0,
        };
    }

    private static IEnumerable<AnswerForm> AnswersOf(PaperQuestion question)
    {
        return question.Question.Key switch
        {
            QuestionKey.OneKey one => one.Options.Select(id => Choice(id, one.Right.Contains(id))),
            QuestionKey.ManyKey many => many.Options.Select(id => Choice(id, many.Right.Contains(id))),
            QuestionKey.OrderKey order => order.Sequence.Select(id => new AnswerForm(question.Words[id], "", true)),
            QuestionKey.MatchKey match => match
                .Pairs.Select(pair => new AnswerForm(question.Words[pair.Left], question.Words[pair.Right], true))
                .Concat(match.Spare.Select(id => new AnswerForm("", question.Words[id], false))),
            _ => [],
        };

        AnswerForm Choice(string id, bool isRight) => new(question.Words[id], "", isRight, question.Replies.GetValueOrDefault(id, ""));
    }
}

/// <param name="Words">What it says; of a match, what a match is found for, or empty where nothing has this match.</param>
/// <param name="Match">Of a match: what belongs to it. Else empty.</param>
/// <param name="IsRight">Of one or several to choose: whether it is right.</param>
/// <param name="Reply">Of one or several to choose: what is said afterwards to whoever chooses it; empty: nothing.</param>
public sealed record AnswerForm(string Words, string Match, bool IsRight, string Reply = "");
