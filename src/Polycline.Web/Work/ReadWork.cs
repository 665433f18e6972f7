using System.Text.Json;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.PlanFiles;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Data.Quizzes;
using Polycline.Data.Scores;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
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

/// <summary>
/// Reads what was handed in, by section: what waits first, in the order that frees most. Source: the computation, chapter 13.7.
/// </summary>
public static class ReadWork
{
    public static async Task<WorkAnswer> Handle(
        long edition,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        viewpoint.NeedsTeam("Students’ work");
        var plan = await compiled.Edition(access);
        var (scores, handedIn, answered) = await database.Read(
            async connection =>
            {
                var (scores, handedIn) = await ScoreStore.WithWork(connection, plan, access.Person.Id, access.IsLead, viewpoint.At);
                var withFiles = scores.Attempts.Where(attempt =>
                    attempt.Put.Questions.Any(question => question.Question.Key is QuestionKey.FileKey)
                );
                return (
                    scores,
                    handedIn,
                    withFiles.Any() ? await AnswerFiles.Read(connection, withFiles.Select(attempt => attempt.Row.Id)) : AnswerFiles.None
                );
            },
            stop
        );
        var (mine, pieces, files) = handedIn;
        var bySection = pieces.ToLookup(piece => piece.Section);
        var queue = ReadingQueue.Of(plan, scores.Marks, viewpoint.At);
        var names = scores.Students.ToLookup(student => student.Student.InPlan(), student => student.Name);
        var waits = new WaitingTold(plan, queue.Waits, student => names[student].FirstOrDefault());
        var rubrics = await compiled.Rubrics(
            plan.Edition.InReadingOrder()
                .Select(item => item.Rubric)
                .Concat(pieces.SelectMany(piece => new[] { MarkAnswer.RubricIn(piece.Mark), OwnJudgement.Read(piece.Judged)?.Rubric }))
        );
        return new(
            viewpoint.TakesCommands,
            [
                .. plan
                    .Sections.Where(section => mine.Contains(section.Id))
                    .Select(section =>
                        SectionOf(
                            plan,
                            section,
                            bySection[section.Id],
                            files,
                            rubrics,
                            queue,
                            waits,
                            QuizPieces.Of(plan, scores, answered, section, viewpoint.At)
                        )
                    )
                    .Select(section =>
                        section with
                        {
                            Pieces =
                            [
                                .. section.Pieces.Select(piece =>
                                    piece with
                                    {
                                        Ready = Own(piece).FirstOrDefault(),
                                        Beside = [.. Own(piece).Skip(1)],
                                        Reader = PieceReader.Of(
                                            handedIn.Readers.GetValueOrDefault((piece.Item, piece.Student)),
                                            plan.Term.Zone
                                        ),
                                    }
                                ),
                            ],
                        }
                    ),
            ],
            rubrics.ToDictionary(rubric => rubric.Key, rubric => RubricForm.Of(rubric.Value)!)
        );

        // Whoever asks sees their own mark first.
        IEnumerable<WorkReady> Own(WorkPiece piece) =>
            (piece.Ready is { } first ? piece.Beside.Prepend(first) : [])
                .Select(mark => mark with { IsOwn = mark.ById == access.Person.Id })
                .OrderByDescending(mark => mark.IsOwn);
    }

    private static WorkSection SectionOf(
        EditionPlan plan,
        FollowingSection section,
        IEnumerable<PieceRow> rows,
        IReadOnlyDictionary<Id<WorkFileRow>, WorkFileRow> files,
        IReadOnlyDictionary<string, WrittenRubric> rubrics,
        ReadingQueue queue,
        WaitingTold waits,
        IEnumerable<WorkPiece> quizzes
    )
    {
        // What was given back, and what came too late, stands after what waits, as it came.
        var pieces = rows.Where(row => plan.Row(row.Item) is { } known && plan.Schedule.Knows(new(known.Lineage)))
            .Select(row => PieceOf(plan, section, row, files, rubrics, queue))
            .Concat(quizzes)
            .OrderBy(piece =>
                piece.Back is null && (piece.Work is not null || piece.Quiz is not null)
                    ? queue.PlaceOf(piece.Student, plan.Row(piece.Item)!)
                    : int.MaxValue
            )
            .ToList();
        return new(
            section.Id,
            section.Name,
            section.Letter,
            pieces.Count(piece => piece.Back is null && piece.Ready is null),
            pieces,
            waits.Freeing(section),
            waits.Nothing(section)
        );
    }

    private static WorkPiece PieceOf(
        EditionPlan plan,
        FollowingSection section,
        PieceRow row,
        IReadOnlyDictionary<Id<WorkFileRow>, WorkFileRow> files,
        IReadOnlyDictionary<string, WrittenRubric> rubrics,
        ReadingQueue queue
    )
    {
        var left = row.ReturnedAt is null ? LeftMark.Read(row.Ready).Select(mark => WorkReady.Of(mark, plan.Term.Zone)).ToList() : [];
        var item = plan.Schedule.Item(new(plan.Row(row.Item)!.Lineage));
        var zone = plan.Term.Zone;
        var due = plan.Schedule.Section(section.Section.Ref).Item(item.Ref)?.Dates?.Due.At;
        var late = due is { } falls && row.HandedInAt > falls ? (row.HandedInAt - falls).TotalDays : 0;
        return new()
        {
            Work = row.Work,
            N = row.N,
            Item = row.Item,
            Code = plan.Schedule.CodeOf[item.Ref],
            Title = item.Title,
            Student = row.Person,
            Name = row.Name,
            Others = row.Others ?? [],
            Text = row.Text,
            Files =
            [
                .. (row.Files ?? [])
                    .Where(files.ContainsKey)
                    .Select(file => files[file])
                    .Select(file =>
                        FileAnswer.Of(file.Id.Value, file.Name, file.Stored, $"/api/sections/{section.Id}/work-files/{file.Id}")
                    ),
            ],
            Links = row.Links ?? [],
            Entries = LogEntry.Read(row.Entries),
            StillAsked = Foundation.Reading.StillAsked.Of(
                item.Asked,
                row.Text,
                [.. (row.Files ?? []).Where(files.ContainsKey).Select(file => files[file])],
                row.Links ?? [],
                LogEntry.Read(row.Entries),
                item.Rubric is null || OwnJudgement.Read(row.Judged)?.IsWhole == true
            ),
            Judged = OwnJudgementAnswer.Of(row.Judged),
            HandedInAt = Moment.Of(row.HandedInAt, zone),
            PressedAt = Moment.Of(row.ClaimedAt, zone),
            Late =
                late <= 0 ? null
                : late < 1 ? "less than a day late"
                : Core.Wording.Counting.Counted((int)late, "day late", "days late"),
            Frees = row.ReturnedAt is null ? [.. queue.FreedBy(row.Person, item.Ref).Select(other => plan.Schedule.CodeOf[other])] : [],
            Days = (int)Math.Max(0, (queue.At - row.HandedInAt).TotalDays),
            Ready = left.FirstOrDefault(),
            Beside = [.. left.Skip(1)],
            Marked = MarkedForm.Of(item.Marked),
            Rubric = item.Rubric,
            Back = row.ReturnedAt is { } at
                ? new(row.Feedback!, row.Again == true, MarkAnswer.Of(row.Mark), Moment.Of(at, zone), ByPresent(item, row.Mark, rubrics))
                {
                    Remarks = Remark.Read(row.Remarks),
                }
                : null,
        };
    }

    private static string? ByPresent(Item item, string? mark, IReadOnlyDictionary<string, WrittenRubric> rubrics)
    {
        if (mark is null || item.Rubric is not { } present || PlanParts.Mark(mark) is not { Rubric: { } made } || made.Rubric == present)
            return null;
        return rubrics[present].Would(present, made) is { } share
            ? ScoreWords.Percent(share)
            : "without a score, as not all of it is marked";
    }
}
