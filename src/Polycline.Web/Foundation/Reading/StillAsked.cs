using Polycline.Core.Courses;
using Polycline.Data.Files;
using Polycline.Data.Work;
using Polycline.Formats.Files;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation.Reading;

/// <summary>What an item asks for that is not among what a student has: their page says it before, their teacher sees it after.</summary>
public static class StillAsked
{
    /// <param name="asks">Null: nothing is asked for.</param>
    /// <param name="isJudged">Whether it is judged by its rubric, or has none.</param>
    public static IReadOnlyList<string> Of(
        Asks? asks,
        string text,
        IReadOnlyList<WorkFileRow> files,
        IReadOnlyList<string> links,
        IReadOnlyList<LogEntry> entries,
        bool isJudged
    ) =>
        asks is null or { Way: AskedWay.Tick }
            ? []
            :
            [
                .. files.Where(file => file.AsGiven).Select(file => $"your work in “{file.Name}”"),
                .. asks.Missing(
                    Bounds.IsVisible(text),
                    links.Count,
                    entries.Count,
                    [.. files.Select(file => FileTypes.AskedKindOf(file.Name, file.Type))]
                ),
                .. asks.Judged && !isJudged ? new[] { "your own judgement of it" } : [],
            ];
}
