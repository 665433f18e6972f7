using System.Text.Json;
using NodaTime;
using Polycline.Core.Marking;
using Polycline.Core.Wording;

namespace Polycline.Core.MarkFiles;

/// <summary>Writes what a marking file comes to. Source: the computation, chapter 13.9.</summary>
public sealed class MarkingAnswer
{
    private readonly Utf8JsonWriter json;
    private readonly MarkedCourse course;

    private MarkingAnswer(Utf8JsonWriter json, MarkedCourse course)
    {
        this.json = json;
        this.course = course;
    }

    /// <summary>Computes a marking file and writes its answer.</summary>
    public static void Write(MarkingFile file, Utf8JsonWriter json)
    {
        new MarkingAnswer(json, new(file.Book, file.Now)).Write(file);
        json.Flush();
    }

    private void Write(MarkingFile file)
    {
        json.WriteStartObject();
        Each("attempts", file.Book.Attempts.Where(attempt => attempt.Began <= course.Now), Attempt);
        json.WriteStartObject("scores");
        foreach (var student in file.Book.Students)
            Scores(student);
        json.WriteEndObject();
        Each("facts", ScoreFact.Of(course), Fact);
        Each("remarked", Marking.Remarking.Of(course), Remarked);
        Each("otherRubric", Marking.OtherRubric.Of(course), OtherRubric);
        json.WriteStartObject("totals");
        foreach (var student in file.Book.Students.Where(student => course.SectionOf(student.Student) is not null))
            Total(student);
        json.WriteEndObject();
        json.WriteStartObject("sections");
        foreach (var section in file.Book.Sections)
            Section(section);
        json.WriteEndObject();
        Each("asked", file.Ask, Asked);
        Each("queue", ReadingQueue(file), Queued);
        json.WriteEndObject();
    }

    private IReadOnlyList<QueuedPiece> ReadingQueue(MarkingFile file) =>
        QueuedPiece.Of(course, (student, item) => file.Frees.GetValueOrDefault((student, item)));

    private void Attempt(QuizAttempt attempt)
    {
        var marking = ((QuizPiece)course.PieceOf(attempt.Student, attempt.Item)!).Attempts.First(one =>
            ReferenceEquals(one.Attempt, attempt)
        );
        var isFinished = marking.IsFinished(course.Now);
        var questions = course.Keys[attempt.Item].At(course.Now);
        var result = isFinished ? marking.At(course.Now, questions) : null;
        json.WriteString("student", attempt.Student.Name);
        json.WriteString("item", attempt.Item.Name);
        json.WriteNumber("n", attempt.Number);
        json.WriteString("state", isFinished ? "finished" : "running");
        Text(
            "by",
            !isFinished ? null
                : marking.IsEndedByStudent ? "student"
                : "clock"
        );
        Moment("at", isFinished ? marking.Finish : null);
        json.WriteNumber("inGrace", marking.InGrace(course.Now));
        json.WriteNumber("afterStop", marking.AfterStop(course.Now));
        json.WriteStartObject("questions");
        foreach (var marked in result?.Questions ?? [])
        {
            json.WriteStartObject(marked.Question.Id);
            Exact("points", marked.Points);
            Text("note", marked.Note is { } note ? EnumNames.Of(note) : null);
            json.WriteEndObject();
        }
        json.WriteEndObject();
        Exact("points", result?.Points);
        Exact("outOf", marking.OutOf(questions));
        Exact("share", result?.Share);
        json.WriteStartArray("waiting");
        foreach (var question in result?.Waiting ?? [])
            json.WriteStringValue(question);
        json.WriteEndArray();
        json.WriteBoolean("final", result?.Share is not null);
    }

    private void Scores(MarkedStudent student)
    {
        json.WriteStartObject(student.Student.Name);
        foreach (var (_, item) in course.Items)
        {
            if (course.Score(student.Student, item.Item) is not { } score)
                continue;
            json.WriteStartObject(item.Item.Name);
            Exact("share", score.Share);
            Exact("points", score.Points);
            Exact("outOf", score.Share is null ? null : score.OutOf);
            Text("percentShown", score.Share?.PercentShown());
            Text("pointsShown", score.Points?.PointsShown());
            Text("level", score.Level);
            Number("attempt", score.Attempt);
            json.WriteBoolean("final", score.IsFinal);
            json.WriteEndObject();
        }
        json.WriteEndObject();
    }

    private void Fact(ScoreFact fact)
    {
        json.WriteString("student", fact.Student.Name);
        json.WriteString("item", fact.Item.Name);
        json.WriteString("event", "scored");
        Moment("at", fact.At);
        json.WritePropertyName("score");
        // Without the zeros at the end that a decimal keeps.
        json.WriteRawValue(fact.Percent.ToString("0.####", System.Globalization.CultureInfo.InvariantCulture));
        json.WriteNumber("attempt", fact.Attempt);
    }

    private void Remarked(Remarking remarked)
    {
        json.WriteString("item", remarked.Item.Name);
        Moment("at", remarked.At);
        json.WriteNumber("rises", remarked.Rises);
        json.WriteNumber("falls", remarked.Falls);
        json.WriteNumber("same", remarked.Same);
        Each("changes", remarked.Changes, change =>
        {
            json.WriteString("student", change.Student.Name);
            Each("attempts", change.Attempts, attempt =>
            {
                json.WriteNumber("n", attempt.Number);
                Exact("before", attempt.Before);
                Exact("after", attempt.After);
            });
            Exact("before", change.Before);
            Exact("after", change.After);
            Exact("by", change.By);
        });
    }

    private void OtherRubric(OtherRubric other)
    {
        json.WriteString("student", other.Piece.Student.Name);
        json.WriteString("item", other.Piece.Item.Item.Name);
        json.WriteString("id", other.Made.Id.Name);
        json.WriteNumber("version", other.Made.Version);
        Exact("share", other.Share);
        Exact("would", other.Would);
    }

    private void Total(MarkedStudent student)
    {
        var total = Marking.Total.Of(course, student.Student);
        json.WriteStartObject(student.Student.Name);
        Exact("share", total.Share);
        Text("percentShown", total.Share?.PercentShown());
        Each("counted", total.Counted, counted =>
        {
            json.WriteString("item", counted.Item.Item.Name);
            json.WriteString("as", counted.IsMissing ? "missing" : "score");
            Exact("points", counted.Points);
            Exact("outOf", counted.OutOf);
        });
        Each("left", total.Left, left =>
        {
            json.WriteString("item", left.Item.Item.Name);
            json.WriteString("why", EnumNames.Of(left.Why));
        });
        json.WriteStartObject("scales");
        foreach (var scale in total.Scales)
        {
            json.WriteStartObject(scale.Scale.Id.Name);
            Each("levels", scale.Levels, level =>
            {
                json.WriteString("item", level.Item.Item.Name);
                json.WriteString("level", level.Level);
            });
            json.WriteString("middle", scale.Middle);
            json.WriteEndObject();
        }
        json.WriteEndObject();
        json.WriteEndObject();
    }

    private void Section(MarkedSection section)
    {
        json.WriteStartObject(section.Section.Name);
        json.WriteStartObject("items");
        foreach (var item in ItemStatistics.Of(course, section))
        {
            json.WriteStartObject(item.Item.Item.Name);
            json.WriteNumber("n", item.Students);
            Exact("median", item.Median);
            Exact("low", item.Low);
            Exact("high", item.High);
            if (item.Questions is { } questions)
            {
                json.WriteStartObject("questions");
                foreach (var question in questions)
                    Question(question);
                json.WriteEndObject();
            }
            json.WriteEndObject();
        }
        json.WriteEndObject();
        json.WriteEndObject();
    }

    private void Question(QuestionStatistics statistics)
    {
        json.WriteStartObject(statistics.Question.Id);
        json.WriteNumber("n", statistics.Students);
        json.WriteNumber("right", statistics.Right);
        Exact("mean", statistics.Mean);
        Exact("discrimination", statistics.Discrimination);
        Each("wrong", statistics.Wrong, wrong =>
        {
            json.WriteString("answer", wrong.Answer);
            json.WriteNumber("n", wrong.Students);
        });
        json.WriteEndObject();
    }

    private void Asked(ThresholdQuestion asked)
    {
        var item = course.Items.First(place => place.Item.Item == asked.Item).Item;
        var threshold = ScoreThreshold.Of(course, item, asked.Section, asked.From, asked.To);
        json.WriteString("item", asked.Item.Name);
        Text("section", asked.Section?.Name);
        json.WriteNumber("n", threshold.Students);
        json.WriteStartArray("passes");
        foreach (var passes in threshold.Passes)
            json.WriteNumberValue(passes);
        json.WriteEndArray();
        Students("in", threshold.In);
        Students("out", threshold.Out);
    }

    private void Students(string name, IReadOnlyList<Ref<Courses.Student>> students)
    {
        json.WriteStartArray(name);
        foreach (var student in students)
            json.WriteStringValue(student.Name);
        json.WriteEndArray();
    }

    private void Queued(QueuedPiece queued)
    {
        json.WriteString("student", queued.Student.Name);
        json.WriteString("item", queued.Item.Item.Name);
        Number("attempt", queued.Attempt);
        Moment("handedIn", queued.HandedIn);
        Moment("since", queued.Since);
        json.WriteNumber("frees", queued.Frees);
    }

    private void Each<T>(string name, IEnumerable<T> entries, Action<T> members)
    {
        json.WriteStartArray(name);
        foreach (var entry in entries)
        {
            json.WriteStartObject();
            members(entry);
            json.WriteEndObject();
        }
        json.WriteEndArray();
    }

    private void Exact(string name, Fraction? number) => Text(name, number?.ToString());

    private void Text(string name, string? text)
    {
        if (text is null)
            json.WriteNull(name);
        else
            json.WriteString(name, text);
    }

    private void Number(string name, int? number)
    {
        if (number is { } known)
            json.WriteNumber(name, known);
        else
            json.WriteNull(name);
    }

    private void Moment(string name, Instant? at) => Text(name, at is { } moment ? $"{moment:uuuu-MM-dd'T'HH:mm:ss'Z'}" : null);
}
