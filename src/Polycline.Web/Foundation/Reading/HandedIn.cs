using NodaTime;
using Polycline.Data.Students;
using Polycline.Data.Work;
using Polycline.Web.Foundation.Files;

namespace Polycline.Web.Foundation.Reading;

/// <summary>What a student handed in one time, and what came back.</summary>
/// <param name="ClaimedAt">When the page says it was sent first, where it arrived later.</param>
/// <param name="TakenBackAt">When the student took it back; null: it stands.</param>
public sealed record HandedIn(
    int N,
    string Text,
    IReadOnlyList<FileAnswer> Files,
    Moment At,
    Moment? ClaimedAt,
    Moment? TakenBackAt,
    IReadOnlyList<BackAnswer> Feedback
)
{
    public required IReadOnlyList<string> Links { get; init; }

    /// <summary>Those of a log, in the order of their days.</summary>
    public required IReadOnlyList<LogEntry> Entries { get; init; }

    /// <summary>What they said of it by its rubric before; null: nothing.</summary>
    public required OwnJudgementAnswer? Judged { get; init; }

    /// <summary>Who handed it in for the others; null: whose it is.</summary>
    public required string? By { get; init; }

    /// <summary>Those for whom it was handed in too, in order of name.</summary>
    public required IReadOnlyList<string> Others { get; init; }

    /// <param name="files">Those of the version, as whoever reads it gets them.</param>
    /// <param name="feedback">Also on other versions of the same piece.</param>
    public static HandedIn Of(VersionRow version, IReadOnlyList<FileAnswer> files, IEnumerable<FeedbackRow> feedback, DateTimeZone zone) =>
        new(
            version.N,
            version.Text,
            files,
            Moment.Of(version.HandedInAt, zone),
            Moment.Of(version.ClaimedAt, zone),
            Moment.Of(version.TakenBackAt, zone),
            [.. feedback.Where(row => row.N == version.N).Select(row => BackAnswer.Of(row, zone))]
        )
        {
            By = version.By,
            Others = version.Others ?? [],
            Links = version.Links ?? [],
            Entries = LogEntry.Read(version.Entries),
            Judged = OwnJudgementAnswer.Of(version.Judged),
        };
}

/// <param name="Mark">Null: none was given.</param>
public sealed record BackAnswer(string By, string Text, bool Again, MarkAnswer? Mark, Moment At, IReadOnlyList<Remark> Remarks)
{
    public static BackAnswer Of(FeedbackRow row, DateTimeZone zone) =>
        new(row.By, row.Text, row.Again, MarkAnswer.Of(row.Mark), Moment.Of(row.ReturnedAt, zone), Remark.Read(row.Remarks));

    /// <summary>What was given for what was done on paper: it is of nothing that was handed in.</summary>
    public static IReadOnlyList<BackAnswer> OnPaper(IEnumerable<FeedbackRow> feedback, DateTimeZone zone) =>
        [.. feedback.Where(row => row.N == 0).Select(row => Of(row, zone))];
}
