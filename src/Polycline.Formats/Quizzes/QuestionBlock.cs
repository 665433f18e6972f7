using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Wording;

namespace Polycline.Formats.Quizzes;

/// <summary>The lines of one question: what is asked, and under it the answers.</summary>
/// <param name="number">Which question it is, from 1.</param>
internal sealed partial class QuestionBlock(int number, string[] lines)
{
    internal const int LongestWords = 1_000;
    private const int LongestFormatted = 20_000;
    private const int MostAnswers = 50;

    private readonly QuizLine[] understood = [.. lines.Select(line => new QuizLine(line, "", false))];
    private readonly List<string> asked = [];
    private string? formatted;
    private readonly ChoiceLines options = new();
    private ImmutableDictionary<string, string> replies = ImmutableDictionary<string, string>.Empty;
    private readonly List<string> steps = [];
    private readonly PairLines pairs = new();
    private readonly List<string> accepted = [];
    private readonly List<string> notAccepted = [];
    private readonly HashSet<string> said = [];
    private QuestionKey.NumberKey? value;
    private bool? truth;
    private bool isFree;
    private bool isFile;
    private int edits;
    private Voided voided;
    private decimal points = 1;
    private string? hint;
    private string? after;

    /// <summary>What was understood, line by line.</summary>
    public QuizLine[] Lines => understood;

    /// <returns>Null: something is not understood.</returns>
    public PaperQuestion? Read()
    {
        for (var at = 0; at < lines.Length; at++)
            Line(at, lines[at].Trim());
        if (understood.Any(line => line.IsFault))
            return null;
        if (asked.Count == 0 && formatted is null)
        {
            Fault("There is no question here. Write it above its answers.");
            return null;
        }
        var (key, text, words) = KeyAndWords();
        if (key is null)
            return null;
        understood[0] = understood[0] with
        {
            Words =
                $"Question {number}: {QuestionKinds.InWords(key)}, {MarkWords.Number(points)} {(points == 1 ? "point" : "points")}"
                + (said.Contains("extra") ? ", extra" : ""),
        };
        return new(new($"k{number}", key, points) { IsExtra = said.Contains("extra"), Voided = voided }, text, words)
        {
            Hint = hint,
            After = after,
            Replies = replies,
            KeepsOrder = said.Contains("in this order"),
        };
    }

    private void Line(int at, string line)
    {
        var words = line.Length > 1 ? line[1..].Trim() : "";
        if (at == 0 && line.StartsWith("formatted:", StringComparison.OrdinalIgnoreCase))
            Formatted(line["formatted:".Length..].Trim());
        else if (line[0] is '+' or '-' && words.Length > 0 && line[1] == ' ')
            Option(at, words, line[0] == '+');
        else if (line[0] == '>' && options.Count > 0)
            Take(at, options.Reply(words), "said to whoever chooses it");
        else if (Step().Match(line) is { Success: true } step && HasAsked)
            Numbered(at, int.Parse(step.Groups[1].Value, CultureInfo.InvariantCulture), step.Groups[2].Value);
        else if (Setting().Match(line) is { Success: true } setting && HasAsked)
            Set(at, setting.Groups[1].Value.ToLowerInvariant(), setting.Groups[2].Value.Trim());
        else if (Word(line.ToLowerInvariant()) is { } meaning && HasAsked)
            Say(at, meaning);
        else if (Pair().Match(line) is { Success: true } pair && HasAsked && options.Count == 0)
            Matching(at, pair.Groups[1].Value.Trim(), pair.Groups[2].Value.Trim());
        else if (formatted is not null || said.Count > 0 || options.Count > 0 || steps.Count > 0 || pairs.Count > 0)
            Fault(at, "Put what you ask above its answers. An answer begins with + or -, with a number, or with a word such as “text:”.");
        else
            asked.Add(line);
    }

    private bool HasAsked => asked.Count > 0 || formatted is not null;

    // What is asked as HTML, on one line; whoever keeps it lets only the elements of a page through.
    private void Formatted(string html)
    {
        if (html.Length == 0)
            Fault(0, "Write what is asked.");
        else if (html.Length > LongestFormatted)
            Fault(0, $"This is too long: {LongestFormatted:N0} characters at most, with its formatting.");
        else
            formatted = html;
    }

    private void Option(int at, string words, bool isRight) => Take(at, options.Add(words, isRight), isRight ? "right" : "wrong");

    private void Take(int at, string? fault, string meaning)
    {
        if (fault is not null)
            Fault(at, fault);
        else
            Understood(at, meaning);
    }

    private void Numbered(int at, int place, string words)
    {
        if (place != steps.Count + 1)
            Fault(at, $"Number these 1, 2, 3 and so on: this should be {steps.Count + 1}.");
        else if (steps.Contains(words))
            Fault(at, "This is here twice.");
        else if (steps.Count == MostAnswers)
            Fault(at, $"There can be up to {MostAnswers} things to put in order.");
        else
        {
            steps.Add(words);
            Understood(at, $"comes {Counting.Nth(place)}");
        }
    }

    private void Matching(int at, string left, string right) =>
        Take(at, pairs.Add(left, right), left.Length == 0 ? "has no match" : "a pair");

    private void Set(int at, string name, string given)
    {
        if (given.Length is 0 or > LongestWords)
        {
            Fault(at, $"Write something after “{name}:”, up to {LongestWords:N0} characters.");
            return;
        }
        said.Add(name);
        switch (name)
        {
            case "points" when NumberText.Amount(given) is >= 0.01m and <= 10_000 and var amount && decimal.Round(amount, 2) == amount:
                points = amount;
                Understood(at, "what it is worth");
                break;
            case "points":
                Fault(at, "Write a number from 0.01 to 10,000, with at most two decimals.");
                break;
            case "slips" when given is "0" or "1" or "2" or "3":
                edits = given[0] - '0';
                Understood(at, "how many slips to overlook in longer words");
                break;
            case "slips":
                Fault(at, "Write 0, 1, 2 or 3.");
                break;
            case "faulty":
                voided = given.ToLowerInvariant() switch
                {
                    "full points" => Voided.Full,
                    "left out" => Voided.Out,
                    _ => Voided.No,
                };
                if (voided == Voided.No)
                    Fault(at, "Write “full points”, so that everyone gets them, or “left out”, as if it had not been asked.");
                else
                    Understood(at, voided == Voided.Full ? "everyone gets its points" : "as if it had not been asked");
                break;
            case "hint":
                hint = given;
                Understood(at, "shown on request");
                break;
            case "after":
                after = given;
                Understood(at, "shown afterwards");
                break;
            case "number":
                value = NumberText.Read(given);
                if (value is null)
                    Fault(at, "Write the number like this: 1013.25 ± 0.5 hPa, mbar; 3 figures");
                else
                    Understood(at, "the right number");
                break;
            default:
                var forms = given.Split(" / ", StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
                (name == "text" ? accepted : notAccepted).AddRange(forms);
                Understood(
                    at,
                    name == "text" ? Counting.Counted(forms.Length, "form is right", "forms are right") : "wrong, however close"
                );
                break;
        }
    }

    private void Say(int at, string word)
    {
        said.Add(word);
        switch (word)
        {
            case "true" or "false":
                if (truth is not null)
                    Fault(at, "Write true or false only once.");
                truth = word == "true";
                Understood(at, "the right answer");
                break;
            case "read":
                isFree = true;
                Understood(at, "a text that you read");
                break;
            case "file":
                isFile = true;
                Understood(at, "a file that you look at");
                break;
            default:
                Understood(
                    at,
                    word switch
                    {
                        "extra" => "its points are a bonus",
                        "in this order" => "its answers stay in this order",
                        _ => word,
                    }
                );
                break;
        }
    }

    private (QuestionKey? Key, string Text, ImmutableDictionary<string, string> Words) KeyAndWords()
    {
        var kinds = new[]
        {
            options.Count > 0,
            steps.Count > 0,
            pairs.Count > 0,
            accepted.Count > 0,
            value is not null,
            truth is not null,
            isFree,
            isFile,
        };
        var text = formatted ?? Html(asked);
        var isAll = said.Contains("all or nothing");
        var words = new PaperWords();
        var gaps = GapText.Find(text);
        if (kinds.Count(is_ => is_) + (gaps.Count > 0 ? 1 : 0) > 1)
            return (Fault("This question mixes two kinds of answer. Keep one of them."), "", words.All);
        QuestionKey? key = null;
        if (gaps.Count > 0)
        {
            var parts = gaps.Select(gap => GapText.KeyOf(gap, words)).ToList();
            if (parts.IndexOf(null) is >= 0 and var bad)
                return (
                    Fault($"The gap [{gaps[bad]}] is not understood. Write it like [cumulus], [+low / -high] or [number: 8 oktas]."),
                    "",
                    words.All
                );
            key = new QuestionKey.GapsKey([.. parts.OfType<QuestionKey>()], isAll);
            text = GapText.Numbered(text);
        }
        else if (options.Count > 0)
            key = Choosing(words, isAll);
        else if (steps.Count > 0)
            key =
                steps.Count < 2
                    ? Fault("One thing can’t be put in order. Add another.")
                    : new QuestionKey.OrderKey(words.Add(steps), isAll);
        else if (pairs.Count > 0)
            key = Pairing(words, isAll);
        else if (accepted.Count > 0)
            key = new QuestionKey.TextKey([.. accepted])
            {
                NotAccepted = [.. notAccepted],
                KeepsCase = said.Contains("capitals count"),
                FoldsAccents = said.Contains("accents do not count"),
                Edits = edits,
            };
        else if (value is not null)
            key = value;
        else if (truth is { } isTrue)
            key = new QuestionKey.TruthKey(isTrue);
        else if (isFree)
            key = new QuestionKey.FreeKey();
        else if (isFile)
            key = new QuestionKey.FileKey();
        else
            key = Fault("This question has no answer yet. Add one, or choose to read what students write (“read”).");
        return (key, text, words.All);
    }

    private QuestionKey? Choosing(PaperWords words, bool isAll) =>
        options.Key(words, said.Contains("any number"), isAll, out replies)
        ?? Fault("Mark the right answer with +, or add “any number” if none is right.");

    private QuestionKey? Pairing(PaperWords words, bool isAll) =>
        pairs.Key(words, isAll) ?? Fault("There is nothing to match. Write pairs like this: barometer = hPa");

    private static string Html(IEnumerable<string> lines) => string.Concat(lines.Select(line => $"<p>{GapText.Encoded(line)}</p>"));

    private static string? Word(string line) =>
        line
            is "true"
                or "false"
                or "read"
                or "file"
                or "extra"
                or "all or nothing"
                or "any number"
                or "capitals count"
                or "accents do not count"
                or "in this order"
            ? line
            : null;

    private void Understood(int at, string words)
    {
        if (!understood[at].IsFault)
            understood[at] = understood[at] with { Words = words };
    }

    private void Fault(int at, string words) => understood[at] = understood[at] with { Words = words, IsFault = true };

    private QuestionKey? Fault(string words)
    {
        Fault(0, words);
        return null;
    }

    [GeneratedRegex(@"^(\d{1,2})[.)]\s+(\S.*)$", RegexOptions.CultureInvariant)]
    private static partial Regex Step();

    [GeneratedRegex("^(points|hint|after|number|text|not|slips|faulty):(.*)$", RegexOptions.CultureInvariant | RegexOptions.IgnoreCase)]
    private static partial Regex Setting();

    [GeneratedRegex(@"^(.{0,1000}?)(?:^|\s)=\s+(\S.{0,999})$", RegexOptions.CultureInvariant)]
    private static partial Regex Pair();
}
