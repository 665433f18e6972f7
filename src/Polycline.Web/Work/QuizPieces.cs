using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Quizzes;
using Polycline.Data.Scores;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Work;

/// <summary>Attempts at quizzes in which there is something for a person to read, as pieces of work.</summary>
internal static class QuizPieces
{
    /// <summary>Those of one section; of what was read already too.</summary>
    public static IEnumerable<WorkPiece> Of(EditionPlan plan, ScoreRows scores, AnswerFiles files, FollowingSection section, Instant at)
    {
        var names = scores
            .Students.DistinctBy(student => student.Student)
            .ToDictionary(student => student.Student, student => student.Name);
        var marks = scores.AnswerMarks.ToLookup(mark => (mark.Person, mark.Item, mark.N));
        foreach (var (row, put) in scores.Attempts.Where(attempt => attempt.Row.Section == section.Id))
        {
            var item = plan.Schedule.Item(new(plan.Row(row.Item)!.Lineage));
            if (
                scores.Marks.Course.PieceOf(row.Person.InPlan(), item.Ref) is not QuizPiece piece
                || piece.Finished(at).FirstOrDefault(one => one.Attempt.Number == row.N) is not { } attempt
            )
                continue;
            var result = attempt.At(at, piece.Keys.At(at));
            var given = marks[(row.Person, row.Item, row.N)].ToLookup(mark => mark.Question);
            var answers = result.Questions.Where(one => one.Points is null || given.Contains(one.Question.Id)).ToList();
            if (answers.Count > 0)
                yield return PieceOf(plan, item, row, names[row.Person], attempt.Finish!.Value, at) with
                {
                    Quiz = new(
                        [.. answers.Select(one => AnswerOf(put, plan, row, files, one, given[one.Question.Id].LastOrDefault()))],
                        ScoreWords.PointsOf(result.Points, result.OutOf)
                    ),
                    Back = result.Waits
                        ? null
                        : new(
                            "",
                            false,
                            new(ScoreWords.PointsOf(result.Points, result.OutOf), null, null, null),
                            Moment.Of(given.SelectMany(one => one).Select(mark => mark.At).DefaultIfEmpty(at).Max(), plan.Term.Zone),
                            null
                        )
                        {
                            Remarks = [],
                        },
                };
        }
    }

    private static AnswerToRead AnswerOf(
        QuizPaper put,
        EditionPlan plan,
        AttemptRow row,
        AnswerFiles files,
        MarkedQuestion marked,
        AnswerMarkRow? given
    ) =>
        new(
            marked.Question.Id,
            QuestionText.Shown(
                put.Questions.First(question => question.Question.Id == marked.Question.Id).Text,
                $"/api/editions/{plan.Id}/items/{row.Item}"
            ),
            (marked.Answer as Answer.Typed)?.Text ?? "",
            (decimal)marked.Question.Points.Above / (decimal)marked.Question.Points.Below,
            given?.Points,
            given?.Words ?? "",
            marked.Answer is Answer.Typed { Text: var name } && files.Of(row.Id, marked.Question.Id, name) is { } file
                ? FileAnswer.Of(file.Id.Value, file.Name, file.Stored, $"/api/sections/{row.Section}/work-files/{file.Id}")
                : null
        );

    private static WorkPiece PieceOf(EditionPlan plan, Item item, AttemptRow row, string name, Instant finish, Instant at) =>
        new()
        {
            Work = null,
            N = row.N,
            Item = row.Item,
            Code = plan.Schedule.CodeOf[item.Ref],
            Title = item.Title,
            Student = row.Person,
            Name = name,
            Others = [],
            Text = "",
            Files = [],
            Links = [],
            Entries = [],
            Judged = null,
            StillAsked = [],
            HandedInAt = Moment.Of(finish, plan.Term.Zone),
            PressedAt = null,
            Late = null,
            Frees = [],
            Days = (int)Math.Max(0, (at - finish).TotalDays),
            Marked = null,
            Rubric = null,
            Back = null,
        };
}
