using System.Globalization;
using Polycline.Core.Courses;

namespace Polycline.Core.Wording;

/// <summary>How an item is marked, and marks, in words.</summary>
public static class MarkWords
{
    /// <summary>How it is marked: <c>out of 20 points</c>.</summary>
    public static string Of(MarkedAs? marked) =>
        marked?.Form switch
        {
            null => "in words alone",
            MarkForm.Points => marked.OutOf == 1 ? "out of 1 point" : $"out of {Number(marked.OutOf)} points",
            MarkForm.Percent => "in per cent",
            _ => $"as {Counting.Joined([.. marked.Levels.Select(level => level.Name)], "or")}",
        };

    /// <summary>All of it, so that two that differ are told differently.</summary>
    public static string InFull(MarkedAs marked)
    {
        var levels = Counting.Joined(
            [.. marked.Levels.Select(level => level.Percent is { } percent ? $"{level.Name} ({Number(percent)} %)" : level.Name)],
            "or"
        );
        var how = marked.Form == MarkForm.Scale ? $"as {levels}" : Of(marked);
        return marked.Form == MarkForm.Points || marked.OutOf == 100 ? how : $"{how}, counting as {Number(marked.OutOf)}";
    }

    /// <summary>A mark: <c>12 of 20</c>, <c>70 %</c>, <c>nearly there</c>.</summary>
    public static string Of(GivenMark mark) =>
        mark.As.Form switch
        {
            MarkForm.Points => $"{Number(mark.Value!.Value)} of {Number(mark.As.OutOf)}",
            MarkForm.Percent => $"{Number(mark.Value!.Value)} %",
            _ => mark.Level!,
        };

    /// <summary>A number without zeros at its end.</summary>
    public static string Number(decimal number) => number.ToString("0.##", CultureInfo.InvariantCulture);
}
