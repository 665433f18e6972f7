using System.Text.Json;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Work;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Work;

/// <param name="Sections">Those whose work is the viewer's to read, in order of name.</param>
/// <param name="Rubrics">Those that pieces are marked by, or were, by what they are called here.</param>
public sealed record WorkAnswer(bool CanGiveBack, IReadOnlyList<WorkSection> Sections, IReadOnlyDictionary<string, RubricForm> Rubrics);

/// <param name="Freeing">What giving work back would open, by item; what helps most students first.</param>
/// <param name="NothingOpen">Who has nothing to work on although something is still to come, by reason.</param>
public sealed record WorkSection(
    Id<Section> Section,
    string Name,
    string Letter,
    int Waiting,
    IReadOnlyList<WorkPiece> Pieces,
    IReadOnlyList<FreeingWork> Freeing,
    IReadOnlyList<NothingOpen> NothingOpen
);

public sealed record WorkPiece
{
    /// <summary>Null: it came after the item had closed, and is kept as a draft.</summary>
    public required Id<PieceRow>? Work { get; init; }

    /// <summary>Which hand-in of it this is.</summary>
    public required int N { get; init; }

    public required Id<Item> Item { get; init; }

    public required string Code { get; init; }

    public required string Title { get; init; }

    public required Id<Person> Student { get; init; }

    public required string Name { get; init; }

    /// <summary>Those for whom it was handed in too, in order of name.</summary>
    public required IReadOnlyList<string> Others { get; init; }

    public required string Text { get; init; }

    public required IReadOnlyList<FileAnswer> Files { get; init; }

    public required IReadOnlyList<string> Links { get; init; }

    /// <summary>Those of a log, in the order of their days.</summary>
    public required IReadOnlyList<LogEntry> Entries { get; init; }

    /// <summary>What the student said of it by its rubric; null: nothing.</summary>
    public required OwnJudgementAnswer? Judged { get; init; }

    /// <summary>What was asked for and is not there, in words.</summary>
    public required IReadOnlyList<string> StillAsked { get; init; }

    public required Moment HandedInAt { get; init; }

    /// <summary>When the student's page says it was sent first, where it arrived later.</summary>
    public required Moment? PressedAt { get; init; }

    /// <summary>How late after its due, in words; null: in time.</summary>
    public required string? Late { get; init; }

    /// <summary>The codes of what giving it back to go on would open.</summary>
    public required IReadOnlyList<string> Frees { get; init; }

    /// <summary>How many days it has been waiting.</summary>
    public required int Days { get; init; }

    /// <summary>How it is marked; null: in words only.</summary>
    public required MarkedForm? Marked { get; init; }

    /// <summary>By which rubric; null: by none.</summary>
    public required string? Rubric { get; init; }

    /// <summary>What was given back; null: it waits.</summary>
    public required WorkBack? Back { get; init; }

    /// <summary>What goes back with it later; null: it has still to be read, or went back.</summary>
    public WorkReady? Ready { get; init; }

    /// <summary>What others left for it beside that, to be chosen between when it goes back.</summary>
    public IReadOnlyList<WorkReady> Beside { get; init; } = [];

    /// <summary>The colleague who reads it just now; null: nobody does.</summary>
    public PieceReader? Reader { get; init; }

    /// <summary>Of an attempt at a quiz, the answers that a person reads; null: it is none.</summary>
    public QuizReading? Quiz { get; init; }
}

/// <param name="SoFar">What the attempt comes to without the answers still to be read, such as <c>7 of 10</c>.</param>
public sealed record QuizReading(IReadOnlyList<AnswerToRead> Answers, string SoFar);

/// <param name="Question">Names it when points are given.</param>
/// <param name="Html">What was asked.</param>
/// <param name="OutOf">Its points.</param>
/// <param name="Points">What was given; null: it waits.</param>
/// <param name="Words">What was said of it.</param>
/// <param name="File">The file that was sent as the answer; null: none was.</param>
public sealed record AnswerToRead(
    string Question,
    string Html,
    string Answer,
    decimal OutOf,
    decimal? Points,
    string Words,
    FileAnswer? File
);

/// <param name="ById">Names whoever left it.</param>
/// <param name="Words">How it goes back, such as <c>go on, 8 of 12</c>.</param>
/// <param name="Back">As it goes back.</param>
/// <param name="GoesAt">When it goes back by itself; null: at no moment.</param>
/// <param name="WithAll">Whether it goes back by itself once everything of its item that waits in the section is ready.</param>
public sealed record WorkReady(Id<Person> ById, string By, Moment At, string Words, GiveBackRequest Back, Moment? GoesAt, bool WithAll)
{
    /// <summary>Whether it was left by whoever asks.</summary>
    public bool IsOwn { get; init; }

    internal static WorkReady Of(LeftMark mark, DateTimeZone zone) =>
        new(
            mark.By,
            mark.Name,
            Moment.Of(mark.At, zone),
            mark.Words,
            mark.Request.Deserialize<GiveBackRequest>(Json.Options)!,
            Moment.Of(mark.GoesAt, zone),
            mark.WithAll
        );
}

/// <param name="Mark">Null: none was given.</param>
/// <param name="ByPresent">What the mark would be by the rubric as it is now; null: it was made with that, or with none.</param>
public sealed record WorkBack(string Text, bool Again, MarkAnswer? Mark, Moment At, string? ByPresent)
{
    /// <summary>Those in the margin, in the order of their places.</summary>
    public required IReadOnlyList<Remark> Remarks { get; init; }
}
