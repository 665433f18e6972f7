using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Polycline.Core.Courses;

namespace Polycline.Formats.Schemes;

/// <summary>Reads what people write beside the title of an item, a lesson or a unit: its kind, how long it takes, when it is due.</summary>
internal static partial class ItemWords
{
    private static readonly Dictionary<string, ItemKind> Kinds = new(StringComparer.OrdinalIgnoreCase)
    {
        ["page"] = ItemKind.Page,
        ["read"] = ItemKind.Page,
        ["reading"] = ItemKind.Page,
        ["text"] = ItemKind.Page,
        ["link"] = ItemKind.Link,
        ["film"] = ItemKind.Link,
        ["video"] = ItemKind.Link,
        ["website"] = ItemKind.Link,
        ["handout"] = ItemKind.Handout,
        ["worksheet"] = ItemKind.Handout,
        ["sheet"] = ItemKind.Handout,
        ["copy each"] = ItemKind.Handout,
        ["task"] = ItemKind.Task,
        ["homework"] = ItemKind.Task,
        ["assignment"] = ItemKind.Task,
        ["essay"] = ItemKind.Task,
        ["quiz"] = ItemKind.Quiz,
        ["test"] = ItemKind.Quiz,
        ["choice"] = ItemKind.Choice,
        ["discussion"] = ItemKind.Discussion,
        ["discuss"] = ItemKind.Discussion,
    };

    private static readonly string[] Ordinals = ["", "first", "second", "third", "fourth", "fifth", "sixth"];

    /// <summary>Which kind a word stands for; null: none.</summary>
    public static ItemKind? KindOf(string word) => Kinds.TryGetValue(word.Trim().TrimEnd(':'), out var kind) ? kind : null;

    /// <summary>Whether what is written begins as an item does: with its kind, or with an address.</summary>
    public static bool BeginsAsItem(string written) => Kind().IsMatch(written) || Address().IsMatch(written);

    /// <summary>An item of a line: its kind before the title or in brackets after it, its purpose, and when it is due.</summary>
    public static SchemeLine Item(int line, string written)
    {
        var text = written;
        string? address = null;
        if (Address().Match(text) is { Success: true } found)
        {
            address = found.Value.TrimEnd('.', ',', ')');
            text = text.Replace(address, " ", StringComparison.Ordinal);
        }
        ItemKind? kind = null;
        var notes = new List<string>();
        if (Kind().Match(text) is { Success: true } word)
        {
            kind = KindOf(word.Groups["kind"].Value);
            if (word.Groups["kind"].Value.Equals("copy each", StringComparison.OrdinalIgnoreCase))
                notes.Add("A copy each");
            text = text[word.Length..];
        }
        else if (address is not null && KindOf(text) is { } alone)
            (kind, text) = (alone, "");
        Purpose? purpose = null;
        Anchor? due = null;
        // What stands in brackets at the end, or after a wide gap, is said of it.
        var said = Said(ref text);
        foreach (var part in said)
            if (KindOf(part) is { } given)
                kind ??= given;
            else if (PurposeOf(part) is { } meant)
            {
                purpose = meant;
                if (Points().IsMatch(part))
                    notes.Add(part);
            }
            else if (DueOf(part) is { } at)
                due = at;
            else
                notes.Add(part);
        kind ??= address is null ? ItemKind.Page : ItemKind.Link;
        var title = text.Trim(' ', '\t', ':', '-', '–');
        return new()
        {
            Line = line,
            Level = SchemeLevel.Item,
            Title =
                title.Length > 0 ? title
                : address is null ? ""
                : Regex.Replace(address, "^https?://(www\\.)?", "").TrimEnd('/'),
            Kind = kind.Value,
            Purpose = purpose ?? ItemRules.UsualPurpose(kind.Value),
            Due = due,
            Address = address,
            Note = notes.Count == 0 ? null : string.Join(", ", notes),
        };
    }

    /// <summary>A lesson or a unit of a line: its title, how long it takes, and whether it may be left out.</summary>
    public static SchemeLine Part(int line, string written, SchemeLevel level)
    {
        var text = written;
        var optional = false;
        (int? Length, int? Shortest, bool InMinutes) time = (null, null, false);
        foreach (var part in Said(ref text))
            if (part.Equals("optional", StringComparison.OrdinalIgnoreCase))
                optional = true;
            else if (LengthOf(part) is { } found)
                time = found;
            else
                text += $" ({part})";
        return new()
        {
            Line = line,
            Level = level,
            Title = text.Trim(' ', '\t', ':'),
            Length = time.Length,
            Shortest = time.Shortest,
            InMinutes = time.InMinutes,
            Optional = optional,
        };
    }

    /// <summary>How long, and the least it can do with: "2 classes", "1-2", "90 min". Null: it is no length.</summary>
    public static (int? Length, int? Shortest, bool InMinutes)? LengthOf(string text)
    {
        if (Length().Match(text.Trim()) is not { Success: true } found)
            return null;
        var first = Number(found.Groups["first"].Value);
        var second = found.Groups["second"].Success ? Number(found.Groups["second"].Value) : first;
        var unit = found.Groups["unit"].Value;
        var times = unit.StartsWith('h') || unit.StartsWith('H') ? 60 : 1;
        var inMinutes = times == 60 || unit.StartsWith("min", StringComparison.OrdinalIgnoreCase);
        return second < first ? null : (second * times, first == second ? null : first * times, inMinutes);
    }

    /// <summary>When something is due: "due 2nd class after", "a week", "next class", "in 3 days". Null: nothing of the kind.</summary>
    public static Anchor? DueOf(string text)
    {
        var words = DueWord().Replace(text.Trim().ToLowerInvariant(), "").Trim();
        if (ClassAfter().Match(words) is { Success: true } found)
        {
            var ordinal = found.Groups["n"].Success
                ? Number(found.Groups["n"].Value)
                : Math.Max(1, Array.IndexOf(Ordinals, found.Groups["word"].Value));
            return ordinal is > 0 and <= 40
                ? new()
                {
                    At = AnchorBase.LessonEnd,
                    Meetings = ordinal,
                    Clock = new(ClockKind.MeetingStart),
                }
                : null;
        }
        if (AfterTime().Match(words) is not { Success: true } time)
            return null;
        var n = time.Groups["n"].Value is "a" or "one" ? 1 : Number(time.Groups["n"].Value);
        if (n is < 1 or > 60)
            return null;
        return time.Groups["unit"].Value.StartsWith("week", StringComparison.Ordinal)
            ? new() { At = AnchorBase.LessonEnd, Days = 7 * n }
            : new() { At = AnchorBase.LessonEnd, Days = n };
    }

    private static Purpose? PurposeOf(string text) =>
        text.Trim().ToLowerInvariant() switch
        {
            "for marks" or "marked" or "graded" => Purpose.ForMarks,
            "practice" or "for practice" => Purpose.Practice,
            "to read" or "reading" => Purpose.ToRead,
            _ when Points().IsMatch(text) => Purpose.ForMarks,
            _ => null,
        };

    /// <summary>Takes from the end of a text what is said of it: in brackets, after a wide gap, or after <c>due</c>.</summary>
    private static ImmutableArray<string> Said(ref string text)
    {
        var said = new List<string>();
        for (var more = true; more; )
        {
            more = false;
            text = text.TrimEnd();
            if (Brackets().Match(text) is { Success: true } brackets)
            {
                said.InsertRange(0, Split(brackets.Groups["in"].Value));
                text = text[..brackets.Index];
                more = true;
            }
            else if (Gap().Match(text) is { Success: true } gap)
            {
                said.InsertRange(0, Split(gap.Groups["said"].Value));
                text = text[..gap.Index];
                more = true;
            }
            else if (DueAtEnd().Match(text) is { Success: true } due && DueOf(due.Groups["due"].Value) is not null)
            {
                said.Insert(0, due.Groups["due"].Value);
                text = text[..due.Index];
                more = true;
            }
            else if (LengthAtEnd().Match(text) is { Success: true } length && length.Index > 0)
            {
                said.Insert(0, length.Groups["length"].Value);
                text = text[..length.Index];
                more = true;
            }
        }
        return [.. said];
    }

    private static IEnumerable<string> Split(string text) =>
        text.Split([',', ';'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);

    private static int Number(string digits) =>
        int.TryParse(digits, NumberStyles.None, CultureInfo.InvariantCulture, out var n) ? Math.Min(n, 10_000) : 0;

    // The kind is written small, or with a colon: "Test match" and "Reading soundings" are titles.
    [GeneratedRegex(
        @"^\s*(?<kind>page|read|reading|text|link|film|video|website|handout|worksheet|sheet|copy\ each|task|homework|assignment|essay
          |quiz|test|choice|discussion|discuss)(?:\s*:\s*|\s+)(?=\S)
        | ^\s*(?<kind>[Pp]age|[Rr]ead|[Tt]ext|[Ll]ink|[Ff]ilm|[Vv]ideo|[Hh]andout|[Ww]orksheet|[Cc]opy\ each|[Tt]ask|[Hh]omework
          |[Aa]ssignment|[Ee]ssay|[Qq]uiz|[Tt]est|[Cc]hoice|[Dd]iscussion)\s*:\s*(?=\S)",
        RegexOptions.CultureInvariant | RegexOptions.IgnorePatternWhitespace,
        1000
    )]
    private static partial Regex Kind();

    [GeneratedRegex(@"https?://[^\s""<>]{3,500}", RegexOptions.IgnoreCase, 1000)]
    private static partial Regex Address();

    [GeneratedRegex(@"\s*\((?<in>[^()]*)\)$", RegexOptions.None, 1000)]
    private static partial Regex Brackets();

    [GeneratedRegex(@"(?:\s{2,}|\t)(?<said>\S(?:(?!\s{2,}|\t).)*)$", RegexOptions.None, 1000)]
    private static partial Regex Gap();

    [GeneratedRegex(@"[\s,;]+(?<due>due\s.*)$", RegexOptions.IgnoreCase, 1000)]
    private static partial Regex DueAtEnd();

    [GeneratedRegex(
        @"[\s,:]+(?<length>\d{1,3}(?:\s*[-–]\s*\d{1,3})?\s*(?:classes|class|lessons|periods|hours|hour|min|minutes|mins))$",
        RegexOptions.IgnoreCase,
        1000
    )]
    private static partial Regex LengthAtEnd();

    [GeneratedRegex(
        @"^(?<first>\d{1,4})(?:\s*[-–]\s*(?<second>\d{1,4}))?\s*(?<unit>classes|class|lessons|periods|hours|hour|h|min|minutes|mins)?$",
        RegexOptions.IgnoreCase,
        1000
    )]
    private static partial Regex Length();

    [GeneratedRegex(@"^(?:due|for|by)\s+", RegexOptions.None, 1000)]
    private static partial Regex DueWord();

    [GeneratedRegex(
        @"^(?:the\s+|at\s+the\s+|start\s+of\s+the\s+)*
          (?:(?<n>\d{1,2})(?:st|nd|rd|th)?|(?<word>first|second|third|fourth|fifth|sixth)|next)\s+class(?:\s+(?:after|on))?$
        | ^\+\s*(?<n>\d{1,2})\s+class(?:es)?$",
        RegexOptions.IgnorePatternWhitespace,
        1000
    )]
    private static partial Regex ClassAfter();

    [GeneratedRegex(@"^(?:in\s+|after\s+)?(?<n>a|one|\d{1,2})\s+(?<unit>weeks?|days?)(?:\s+(?:after|later))?$", RegexOptions.None, 1000)]
    private static partial Regex AfterTime();

    [GeneratedRegex(@"^\d{1,4}\s*(?:points?|pts?|marks?|%)$", RegexOptions.IgnoreCase, 1000)]
    private static partial Regex Points();
}
