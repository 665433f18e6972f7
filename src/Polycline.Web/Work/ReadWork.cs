using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.PlanFiles;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Data.Quizzes;
using Polycline.Data.Scores;
using Polycline.Data.Work;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Work;

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
