using System.Collections.Immutable;
using System.Net;
using System.Text;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Wording;

namespace Polycline.Formats.Quizzes;

/// <summary>What was understood of one line.</summary>
/// <param name="Words">What it is; with a fault: what is wrong with it, and what to do.</param>
public sealed record QuizLine(string Text, string Words, bool IsFault);

/// <summary>
/// Questions written as plain text, in a form of our own: questions stand apart by an empty line; under each, its answers.
/// <c>docs/formats/quiz-text.md</c> says how.
/// </summary>
/// <param name="Lines">Each line of the text.</param>
/// <param name="Questions">Null: something is not understood, or there is none.</param>
/// <param name="Draws">Of each pool, how many of its questions are drawn.</param>
public sealed record QuizText(IReadOnlyList<QuizLine> Lines, ImmutableArray<PaperQuestion>? Questions, ImmutableArray<int> Draws)
{
    public const int LongestText = 200_000;

    private static readonly string[] Blocks = ["p", "h2", "h3", "li", "tr", "td", "th", "pre", "blockquote"];

    /// <summary>Reads a text.</summary>
    public static QuizText Read(string text)
    {
        var lines = text.ReplaceLineEndings("\n").Split('\n');
        var understood = new QuizLine[lines.Length];
        var questions = new List<PaperQuestion>();
        var parts = new QuizParts();
        var number = 0;
        for (var at = 0; at < lines.Length; )
        {
            if (string.IsNullOrWhiteSpace(lines[at]))
            {
                understood[at] = new(lines[at++], "", false);
                continue;
            }
            var end = at;
            while (end < lines.Length && !string.IsNullOrWhiteSpace(lines[end]))
                end++;
            if (end == at + 1 && parts.Take(at, lines[at]))
            {
                at = end;
                continue;
            }
            var block = new QuestionBlock(++number, lines[at..end]);
            var question = block.Read();
            block.Lines.CopyTo(understood, at);
            if (parts.Place(at, question) is { } placed)
                questions.Add(placed);
            at = end;
        }
        foreach (var (at, line) in parts.Lines(lines))
            understood[at] = line;
        var isGood = questions.Count is > 0 and <= QuizPaper.MostQuestions && !understood.Any(line => line.IsFault);
        return new(understood, isGood ? [.. questions] : null, parts.Draws);
    }

    /// <summary>A quiz as it would be written.</summary>
    public static string Write(QuizPaper paper) =>
        string.Join(
            "\n\n",
            paper.Questions.SelectMany(
                (question, at) => QuizParts.Before(question, at == 0 ? 0 : paper.Questions[at - 1].Pool, paper).Append(Written(question))
            )
        );

    /// <summary>What a question says, without markup: a paragraph a line, a formula as it was typed.</summary>
    public static string PlainText(string html)
    {
        var text = new StringBuilder();
        var isNewLine = false;
        foreach (var piece in HtmlPieces.Of(html))
            if (piece.Kind == HtmlPieceKind.Tag)
                isNewLine |= piece.Element == "br" || piece.IsEnd && Blocks.Contains(piece.Element);
            else if (Said(piece) is { Length: > 0 } said && !(isNewLine && string.IsNullOrWhiteSpace(said)))
            {
                if (isNewLine && text.Length > 0)
                    text.Append('\n');
                isNewLine = false;
                text.Append(said);
            }
        return text.ToString();
    }

    private static string Said(HtmlPiece piece)
    {
        const string Typed = "data-tex=\"";
        if (piece.Kind == HtmlPieceKind.Text)
            return WebUtility.HtmlDecode(piece.Text);
        var at = piece.Text.IndexOf(Typed, StringComparison.Ordinal);
        var end = at < 0 ? -1 : piece.Text.IndexOf('"', at + Typed.Length);
        return end < 0
            ? string.Concat(
                HtmlPieces.Of(piece.Text["<math".Length..]).Where(inner => inner.Kind == HtmlPieceKind.Text).Skip(1).Select(Said)
            )
            : WebUtility.HtmlDecode(piece.Text[(at + Typed.Length)..end]);
    }

    private static string Written(PaperQuestion question)
    {
        var text = question.Text;
        if (question.Question.Key is QuestionKey.GapsKey gaps)
            text = GapText.Filled(text, [.. gaps.Parts.Select(part => Gap(part, question))]);
        var answers = Under(question).ToList();
        var plain = string.Join('\n', PlainText(text).Split('\n').Concat(answers));
        // Plain lines, where they would be read as what stands there; else as it is formatted.
        return
            !plain.Split('\n').Any(string.IsNullOrWhiteSpace)
            && new QuestionBlock(1, plain.Split('\n')).Read() is { } read
            && read.Text == question.Text
            ? plain
            : string.Join('\n', answers.Prepend($"formatted: {text.ReplaceLineEndings("&#10;")}"));
    }

    private static List<string> Under(PaperQuestion question)
    {
        var lines = new List<string>();
        lines.AddRange(Answers(question));
        if (IsAllOrNothing(question.Question.Key))
            lines.Add("all or nothing");
        if (question.KeepsOrder)
            lines.Add("in this order");
        if (question.Question.Points != 1)
            lines.Add($"points: {Number(question.Question.Points)}");
        if (question.Question.IsExtra)
            lines.Add("extra");
        if (Faulty(question) is { Length: > 0 } faulty)
            lines.Add($"faulty: {faulty}");
        if (question.Hint is not null)
            lines.Add($"hint: {question.Hint}");
        if (question.After is not null)
            lines.Add($"after: {question.After}");
        return lines;
    }

    /// <summary>What becomes of a faulty question: <c>full points</c> for everybody, <c>left out</c>; empty: it is not faulty.</summary>
    internal static string Faulty(PaperQuestion question) =>
        question.Question.Voided switch
        {
            Voided.Full => "full points",
            Voided.Out => "left out",
            _ => "",
        };

    internal static bool IsAllOrNothing(QuestionKey key) =>
        key
            is QuestionKey.ManyKey { AllOrNothing: true }
                or QuestionKey.OrderKey { AllOrNothing: true }
                or QuestionKey.MatchKey { AllOrNothing: true }
                or QuestionKey.GapsKey { AllOrNothing: true };

    private static IEnumerable<string> Answers(PaperQuestion question) =>
        question.Question.Key switch
        {
            QuestionKey.OneKey one => Choices(question, one.Right),
            QuestionKey.ManyKey many => Choices(question, many.Right).Concat(many.Right.Length > 1 ? [] : ["any number"]),
            QuestionKey.TruthKey truth => [truth.Right ? "true" : "false"],
            QuestionKey.NumberKey number => [$"number: {NumberKey(number)}"],
            QuestionKey.TextKey key =>
            [
                $"text: {string.Join(" / ", key.Accepted)}",
                .. key.NotAccepted.IsEmpty ? [] : new[] { $"not: {string.Join(" / ", key.NotAccepted)}" },
                .. key.KeepsCase ? new[] { "capitals count" } : [],
                .. key.FoldsAccents ? new[] { "accents do not count" } : [],
                .. key.Edits > 0 ? new[] { $"slips: {key.Edits}" } : [],
            ],
            QuestionKey.OrderKey order => order.Sequence.Select((id, n) => $"{n + 1}. {question.Words[id]}"),
            QuestionKey.MatchKey match => match
                .Pairs.Select(pair => $"{question.Words[pair.Left]} = {question.Words[pair.Right]}")
                .Concat(match.Spare.Select(id => $"= {question.Words[id]}")),
            QuestionKey.GapsKey => [],
            QuestionKey.FreeKey => ["read"],
            _ => ["file"],
        };

    private static IEnumerable<string> Choices(PaperQuestion question, ImmutableArray<string> right)
    {
        foreach (var id in PaperQuestion.OptionsIn(question.Question.Key))
        {
            yield return $"{(right.Contains(id) ? '+' : '-')} {question.Words[id]}";
            if (question.Replies.TryGetValue(id, out var reply))
                yield return $"> {reply}";
        }
    }

    internal static string Gap(QuestionKey part, PaperQuestion question) =>
        part switch
        {
            QuestionKey.OneKey one => string.Join(
                " / ",
                one.Options.Select(id => (one.Right.Contains(id) ? "+" : "-") + question.Words[id])
            ),
            QuestionKey.NumberKey number => $"number: {NumberKey(number)}",
            QuestionKey.TextKey key => string.Join(" / ", key.Accepted),
            _ => "",
        };

    internal static string NumberKey(QuestionKey.NumberKey number) =>
        Number(number.Value)
        + (number.Tolerance.Sign > 0 ? $" ± {Number(number.Tolerance)}" : "")
        + (number.Units.IsEmpty ? "" : $" {string.Join(", ", number.Units)}")
        + (number.Figures is { } figures ? $"; {Counting.Counted(figures, "figure", "figures")}" : "")
        + (number.NeedsUnit || number.Units.IsEmpty ? "" : "; unit may be left out")
        + (number.Slip.Sign > 0 ? $"; {Number(number.Slip * 100)} % with the wrong unit or figures" : "");

    private static string Number(Fraction number) =>
        ((decimal)number.Above / (decimal)number.Below).ToString("0.#########", System.Globalization.CultureInfo.InvariantCulture);
}
