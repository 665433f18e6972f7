using System.Collections.Immutable;
using System.Globalization;
using System.Numerics;
using System.Text.Json;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;

namespace Polycline.Core.MarkFiles;

/// <summary>Writes questions in the form in which they are read; what is as usual is left out.</summary>
internal static class KeyWriter
{
    public static void Write(PaperQuestion paper, Utf8JsonWriter json)
    {
        var question = paper.Question;
        json.WriteStartObject();
        json.WriteString("id", question.Id);
        json.WriteString("kind", KindOf(question.Key));
        Amount(json, "points", question.Points);
        if (question.IsExtra)
            json.WriteBoolean("extra", true);
        if (question.Voided != Voided.No)
            json.WriteString("void", question.Voided == Voided.Full ? "full" : "out");
        Key(question.Key, json);
        json.WriteString("text", paper.Text);
        Map(json, "words", paper.Words);
        if (paper.Hint is not null)
            json.WriteString("hint", paper.Hint);
        if (paper.After is not null)
            json.WriteString("after", paper.After);
        Map(json, "replies", paper.Replies);
        if (paper.Pool > 0)
            json.WriteNumber("pool", paper.Pool);
        if (paper.BeginsPage)
            json.WriteBoolean("page", true);
        if (paper.KeepsOrder)
            json.WriteBoolean("asWritten", true);
        json.WriteEndObject();
    }

    private static void Map(Utf8JsonWriter json, string name, ImmutableDictionary<string, string> said)
    {
        if (said.IsEmpty)
            return;
        json.WriteStartObject(name);
        foreach (var (id, words) in said.OrderBy(one => one.Key, StringComparer.Ordinal))
            json.WriteString(id, words);
        json.WriteEndObject();
    }

    /// <summary>What a kind of question is called in a marking file.</summary>
    public static string KindOf(QuestionKey key) =>
        key switch
        {
            QuestionKey.OneKey => "one",
            QuestionKey.ManyKey => "many",
            QuestionKey.TruthKey => "truth",
            QuestionKey.NumberKey => "number",
            QuestionKey.TextKey => "text",
            QuestionKey.OrderKey => "order",
            QuestionKey.MatchKey => "match",
            QuestionKey.GapsKey => "gaps",
            QuestionKey.FreeKey => "free",
            _ => "file",
        };

    /// <summary>An amount that has a decimal form, exactly.</summary>
    public static void Amount(Utf8JsonWriter json, string name, Fraction amount)
    {
        json.WritePropertyName(name);
        json.WriteRawValue(DecimalOf(amount).ToString("0.#########", CultureInfo.InvariantCulture));
    }

    /// <exception cref="ArgumentException">It has no decimal form of at most nine decimals.</exception>
    public static decimal DecimalOf(Fraction amount)
    {
        var most = BigInteger.Pow(10, 9);
        return most % amount.Below == 0
            ? (decimal)(amount.Above * (most / amount.Below)) / 1_000_000_000m
            : throw new ArgumentException("This amount can't be written with nine decimals.", nameof(amount));
    }

    private static void Key(QuestionKey key, Utf8JsonWriter json)
    {
        switch (key)
        {
            case QuestionKey.OneKey one:
                List(json, "options", one.Options);
                List(json, "right", one.Right);
                break;
            case QuestionKey.ManyKey many:
                List(json, "options", many.Options);
                List(json, "right", many.Right);
                Partial(json, many.AllOrNothing);
                break;
            case QuestionKey.TruthKey truth:
                json.WriteBoolean("right", truth.Right);
                break;
            case QuestionKey.NumberKey number:
                Number(number, json);
                break;
            case QuestionKey.TextKey text:
                List(json, "accept", text.Accepted);
                if (!text.NotAccepted.IsEmpty)
                    List(json, "not", text.NotAccepted);
                if (text.KeepsCase)
                    json.WriteString("case", "keep");
                if (text.DropsSpace)
                    json.WriteString("space", "drop");
                if (text.FoldsAccents)
                    json.WriteString("accents", "fold");
                if (text.Edits > 0)
                    json.WriteNumber("edits", text.Edits);
                break;
            case QuestionKey.OrderKey order:
                List(json, "sequence", order.Sequence);
                Partial(json, order.AllOrNothing);
                break;
            case QuestionKey.MatchKey match:
                json.WriteStartObject("pairs");
                foreach (var pair in match.Pairs)
                    json.WriteString(pair.Left, pair.Right);
                json.WriteEndObject();
                if (!match.Spare.IsEmpty)
                    List(json, "spare", match.Spare);
                Partial(json, match.AllOrNothing);
                break;
            case QuestionKey.GapsKey gaps:
                json.WriteStartArray("gaps");
                foreach (var part in gaps.Parts)
                {
                    json.WriteStartObject();
                    json.WriteString("kind", KindOf(part));
                    Key(part, json);
                    json.WriteEndObject();
                }
                json.WriteEndArray();
                Partial(json, gaps.AllOrNothing);
                break;
        }
    }

    private static void Number(QuestionKey.NumberKey number, Utf8JsonWriter json)
    {
        Amount(json, "value", number.Value);
        if (number.Tolerance.Sign > 0)
        {
            json.WriteStartObject("tolerance");
            Amount(json, "by", number.Tolerance);
            json.WriteEndObject();
        }
        if (!number.Units.IsEmpty)
            List(json, "units", number.Units);
        if (!number.NeedsUnit)
            json.WriteBoolean("needUnit", false);
        if (number.Figures is { } figures)
            json.WriteNumber("figures", figures);
        if (number.Slip.Sign > 0)
            Amount(json, "slip", number.Slip * 100);
    }

    private static void Partial(Utf8JsonWriter json, bool isAll)
    {
        if (isAll)
            json.WriteString("partial", "all");
    }

    private static void List(Utf8JsonWriter json, string name, IEnumerable<string> texts)
    {
        json.WriteStartArray(name);
        foreach (var text in texts)
            json.WriteStringValue(text);
        json.WriteEndArray();
    }
}
