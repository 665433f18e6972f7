using System.Text.Json.Nodes;
using Polycline.Core.MarkFiles;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student.Quizzes;

/// <param name="Id">What an answer names: another one in each attempt.</param>
public sealed record PutOption(string Id, string Words);

/// <param name="Kind"><c>one</c>, <c>number</c> or <c>text</c>.</param>
public sealed record PutGap(string Kind, IReadOnlyList<PutOption> Options);

/// <summary>A question as it is put to a student: nothing of it says what is right.</summary>
public sealed record PutQuestion
{
    public required string Id { get; init; }

    public required string Kind { get; init; }

    /// <summary>Such as <c>2</c> or <c>0.5</c>.</summary>
    public required string Points { get; init; }

    public required bool IsExtra { get; init; }

    /// <summary>What is asked; gaps stand in it as <c>[1]</c>, <c>[2]</c> …</summary>
    public required string Html { get; init; }

    public required string? Hint { get; init; }

    /// <summary>What there is to choose from, to put in order, or to find a match for.</summary>
    public required IReadOnlyList<PutOption> Options { get; init; }

    /// <summary>Of matching: what may be matched.</summary>
    public required IReadOnlyList<PutOption> Rights { get; init; }

    public required IReadOnlyList<PutGap> Gaps { get; init; }

    /// <summary>What was answered, in the form in which it is sent; null: nothing.</summary>
    public required JsonNode? Answer { get; init; }

    /// <summary>The file that was sent as the answer; null: none was.</summary>
    public FileAnswer? File { get; init; }

    /// <summary>On which page, from 1.</summary>
    public required int Page { get; init; }

    /// <param name="lot">What would give the answer away by its order, or is to be mixed, stands in one that is the attempt's own.</param>
    /// <param name="mixes">Whether options are mixed too.</param>
    internal static PutQuestion Of(PlacedQuestion placed, string lot, bool mixes, PutPlace place, Answer? answer)
    {
        var question = placed.Asked;
        var key = question.Question.Key;
        var names = new PutNames(question, lot);
        return new()
        {
            Id = question.Question.Id,
            Kind = QuizPaperFile.KindOf(key),
            Points = question.Question.Points.PointsShown(),
            IsExtra = question.Question.IsExtra,
            Html = QuestionText.Shown(question.Text, place.Address),
            Hint = question.Hint,
            Options = key switch
            {
                QuestionKey.OneKey one => Choices(one.Options),
                QuestionKey.ManyKey many => Choices(many.Options),
                QuestionKey.OrderKey order => Mixed(order.Sequence),
                QuestionKey.MatchKey match => Said(match.Pairs.Select(pair => pair.Left)),
                _ => [],
            },
            Rights = key is QuestionKey.MatchKey matching
                ? Mixed(matching.Pairs.Select(pair => pair.Right).Concat(matching.Spare).Distinct())
                : [],
            Gaps = key is QuestionKey.GapsKey gaps
                ?
                [
                    .. gaps.Parts.Select(part => new PutGap(
                        QuizPaperFile.KindOf(part),
                        part is QuestionKey.OneKey one ? Choices(one.Options) : []
                    )),
                ]
                : [],
            Answer = names.Sent(key, answer),
            File = key is QuestionKey.FileKey ? place.FileOf(question.Question.Id, answer) : null,
            Page = placed.Page,
        };

        List<PutOption> Choices(IEnumerable<string> ids) => mixes && !question.KeepsOrder ? Mixed(ids) : Said(ids);

        List<PutOption> Said(IEnumerable<string> ids) => [.. ids.Select(id => new PutOption(names.Of(id), question.Words[id]))];

        List<PutOption> Mixed(IEnumerable<string> ids) => Said(QuizDraw.Mixed(ids, $"{lot} {question.Question.Id}"));
    }

    /// <summary>An answer in the form in which it is kept.</summary>
    public static JsonNode? Sent(Answer? answer) =>
        answer switch
        {
            Answer.PickedOption picked => picked.Option,
            Answer.ListedOptions listed => new JsonArray([.. listed.Options.Select(option => (JsonNode)option)]),
            Answer.Said said => said.IsTrue,
            Answer.Typed typed => typed.Text,
            Answer.Matched matched => new JsonObject(matched.Pairs.Select(pair => KeyValuePair.Create(pair.Left, (JsonNode?)pair.Right))),
            Answer.Filled filled => new JsonArray([.. filled.Parts.Select(Sent)]),
            _ => null,
        };
}
