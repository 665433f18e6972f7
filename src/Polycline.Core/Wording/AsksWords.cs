using Polycline.Core.Courses;

namespace Polycline.Core.Wording;

/// <summary>What an item asks of a student, in words.</summary>
public static class AsksWords
{
    /// <summary>What is asked for: <c>text and the photograph</c>.</summary>
    /// <param name="asks">Null: nothing.</param>
    public static string Of(Asks? asks)
    {
        if (asks is null)
            return "nothing";
        if (asks.Way == AskedWay.Tick)
            return "a tick";
        var parts = new List<string>();
        if (asks.Way == AskedWay.Log)
            parts.Add("a log");
        else if (asks.Text == AskedPart.Asked)
            parts.Add("text");
        if (asks.Links == AskedPart.Asked)
            parts.Add("a link");
        parts.AddRange(asks.Files.Select(file => file.What));
        if (asks.Judged)
            parts.Add("their own judgement of it");
        return parts.Count == 0 ? "anything that can be handed in" : Counting.Joined(parts, "and");
    }

    /// <summary>All of it, so that two that differ are told differently.</summary>
    public static string InFull(Asks asks) =>
        asks.Way == AskedWay.Tick
            ? Of(asks)
            : Counting.Joined(
                [
                    .. asks.Way == AskedWay.Log ? ["a log"] : new[] { $"text {Word(asks.Text)}" },
                    $"links {Word(asks.Links)}",
                    .. asks.Files.Select(file => file.Kind is { } kind ? $"{file.What} among {Many(kind)}" : file.What),
                    $"other files {Word(asks.OtherFiles ? AskedPart.Welcome : AskedPart.No)}",
                    .. asks.Together.IsEmpty
                        ? []
                        : new[] { $"one piece for each of the groups {Counting.Joined([.. asks.Together], "and")}" },
                    .. asks.Judged ? new[] { "their own judgement of it" } : [],
                ],
                "and"
            );

    private static string Word(AskedPart part) =>
        part switch
        {
            AskedPart.Asked => "asked for",
            AskedPart.Welcome => "welcome",
            _ => "not taken",
        };

    /// <summary>The kinds of file that are taken: <c>pictures and documents</c>. Null: any.</summary>
    public static string? Kinds(Asks asks) =>
        asks.OtherFiles || asks.Files.Any(file => file.Kind is null)
            ? null
            : Counting.Joined([.. asks.Files.Select(file => Many(file.Kind!.Value)).Distinct()], "and");

    private static string Many(AskedKind kind) =>
        kind switch
        {
            AskedKind.Picture => "pictures",
            AskedKind.Document => "documents",
            AskedKind.Table => "spreadsheets",
            AskedKind.Slides => "slides",
            AskedKind.Sound => "sound recordings",
            AskedKind.Film => "films",
            _ => "other files",
        };
}

/// <summary>What a choice offers, in words.</summary>
public static class OfferWords
{
    /// <summary>How many of what: <c>one of Instrument and Harbour briefing</c>.</summary>
    public static string Of(Item choice) =>
        $"{(choice.Picks == 1 ? "one" : $"up to {choice.Picks}")} of {Counting.Joined([.. choice.Options.Select(choice.TitleOf)], "and")}";

    /// <summary>All of it, so that two that differ are told differently.</summary>
    public static string InFull(Item choice) =>
        $"{Of(choice)}{(choice.Offered?.IsFinal == true ? ", for good" : "")}"
        + string.Concat(
            (choice.Offered?.Options ?? []).Select(option =>
                (option.Room is { } room ? $"; {option.Title} for {room}" : "")
                + (option.Words.Length > 0 ? $"; {option.Words}" : "")
                + (
                    option.Picture is { } picture
                        ? $"; {option.Title} with a picture{(picture.Words.Length > 0 ? $" of {picture.Words}" : "")}"
                        : ""
                )
            )
        );
}
