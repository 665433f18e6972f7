using NodaTime;
using Polycline.Core.Json;
using Polycline.Core.Marking;

namespace Polycline.Core.MarkFiles.Checking;

/// <summary>
/// The third and the fourth pass over a marking file: whether answers, marks and corrections fit what they are about, and whether
/// they came one after another. Source: the computation, chapter 13.8, <i>Refusal</i>.
/// </summary>
internal sealed class MarkingFits(JsonPiece file, MarkingIndex index, FaultList faults)
{
    private readonly Dictionary<(string Student, string Item, int Number), JsonPiece> attempts = file.Each("attempts").ToDictionary(KeyOf);
    private readonly Dictionary<JsonPiece, QuestionKey> keys = [];

    public void CheckForms()
    {
        foreach (var item in index.Items.Values)
            if (item["rubric"] is { } rubric && item["score"]?.Value is "scale" or "none")
                faults.Add(rubric, "a rubric gives points, which this task does not have");
        foreach (var attempt in file.Each("attempts"))
            Attempt(attempt);
        foreach (var work in file.Each("work"))
            if (IsQuiz(work))
                faults.Add(work["item"]!, "a quiz has attempts; work is handed in for a task");
        foreach (var mark in file.Each("marks"))
            if (IsQuiz(mark))
                QuizMark(mark);
            else
                TaskMark(mark, index.Items[mark["item"]!.Value!]);
        foreach (var correction in file.Each("corrections"))
            Correction(correction);
    }

    public void CheckTimes()
    {
        foreach (var attempt in file.Each("attempts"))
        {
            var began = Moment(attempt, "began")!.Value;
            if (Moment(attempt, "ended") < began)
                faults.Add(attempt["ended"]!, "it ended before it began");
            if (Moment(attempt, "lateAllowed") < began)
                faults.Add(attempt["lateAllowed"]!, "this lies before the attempt began");
            var last = began;
            foreach (var answer in attempt.Each("answers"))
            {
                var at = Moment(answer, "at")!.Value;
                if (at < last || at > Moment(attempt, "ended"))
                    faults.Add(answer["at"]!, "answers stand in the order of time, between the beginning and the end of the attempt");
                else
                    last = at;
            }
        }
        InOrderOfNumbers();
        foreach (var mark in file.Each("marks"))
            if (mark["attempt"] is not null && Moment(mark, "at") < Moment(attempts[KeyOf(mark, "attempt")], "began"))
                faults.Add(mark["at"]!, "this lies before the attempt began");
    }

    private void InOrderOfNumbers()
    {
        foreach (var own in file.Each("attempts").GroupBy(attempt => (attempt["student"]!.Value, attempt["item"]!.Value)))
        {
            Instant? latest = null;
            foreach (var attempt in own.OrderBy(attempt => Forms.WholeOf(attempt["n"]!)))
            {
                var began = Moment(attempt, "began")!.Value;
                if (began < latest)
                    faults.Add(attempt["began"]!, "an attempt of a lower number began later");
                latest = latest is { } known && known > began ? known : began;
            }
        }
    }

    private void Attempt(JsonPiece attempt)
    {
        if (!IsQuiz(attempt))
        {
            faults.Add(attempt["item"]!, "a task has no attempts");
            return;
        }
        var questions = index.QuestionsOf(attempt["item"]!.Value!)!;
        foreach (var answer in attempt.Each("answers"))
        {
            var question = questions[answer["question"]!.Value!];
            if (!WasAsked(attempt, answer["question"]!.Value!))
                faults.Add(answer["question"]!, "the attempt was not asked this");
            else if (keys.TryGetValue(question, out var key) || keys.TryAdd(question, key = MarkingBuilder.KeyOf(question)))
                AnswerFit.Read(answer["answer"]!, key, faults);
        }
    }

    private void QuizMark(JsonPiece mark)
    {
        foreach (var form in new[] { "again", "percent", "level", "rubric" })
            if (mark[form] is { } wrong)
                faults.Add(wrong, "a question of a quiz is given points");
        foreach (var needed in new[] { "attempt", "question", "points" })
            if (mark[needed] is null && (needed != "points" || GivenForm(mark) is null))
                faults.AddMissing(mark, needed, $"'{needed}' is missing");
        if (mark["attempt"] is null)
            return;
        if (!attempts.TryGetValue(KeyOf(mark, "attempt"), out var attempt))
            faults.Add(mark["attempt"]!, "there is no such attempt");
        else if (mark["question"] is { } question && !WasAsked(attempt, question.Value!))
            faults.Add(question, "the attempt was not asked this");
    }

    private void TaskMark(JsonPiece mark, JsonPiece task)
    {
        foreach (var member in new[] { "attempt", "question" })
            if (mark[member] is { } wrong)
                faults.Add(wrong, "a task is marked as a whole");
        var score = task["score"]!.Value!;
        var given = GivenForm(mark);
        var fits = score switch
        {
            "points" => given is "points" or "rubric",
            "percent" => given is "percent" or "rubric",
            "scale" => given is "level",
            _ => given is null,
        };
        if (!fits && given is null)
            faults.Add(mark, "a mark needs 'points', 'percent', 'level' or 'rubric', whichever the task is marked in");
        else if (!fits)
            faults.Add(mark[given!]!, "the task is not marked like this");
        else if (
            given == "level"
            && !index.Scales[task["scale"]!.Value!].Each("levels").Any(level => level["id"]!.Value == mark["level"]!.Value)
        )
            faults.Add(mark["level"]!, "the scale has no such level");
        if (mark["rubric"] is { } made)
            RubricMark(made);
    }

    private void RubricMark(JsonPiece made)
    {
        var rubric = index.Rubrics[MarkingIndex.VersionOf(made)];
        foreach (var mark in made.Each("levels"))
        {
            var level = rubric
                .Each("criteria")
                .First(criterion => criterion["id"]!.Value == mark["criterion"]!.Value)
                .Each("levels")
                .First(known => known["id"]!.Value == mark["level"]!.Value);
            var isRange = level["points"] is null;
            if (mark["points"] is not { } points)
            {
                if (isRange)
                    faults.AddMissing(mark, "points", "'points' is missing: this level is a range");
                continue;
            }
            var value = Forms.NumberOf(points);
            if (!isRange || value < Forms.NumberOf(level["from"]!) || value > Forms.NumberOf(level["to"]!))
                faults.Add(points, "the level does not give these points");
        }
    }

    private void Correction(JsonPiece correction)
    {
        if (!IsQuiz(correction))
        {
            faults.Add(correction["item"]!, "a task has no key");
            return;
        }
        var questions = index.QuestionsOf(correction["item"]!.Value!)!;
        foreach (var anew in correction.Each("questions"))
        {
            var known = questions[anew["id"]!.Value!];
            if (known["kind"]!.Value != anew["kind"]!.Value)
                faults.Add(anew["kind"]!, "a corrected question keeps its kind");
            else if (ChangedMember(known, anew) is { } changed)
                faults.Add(anew[changed]!, "a corrected question keeps what it is answered with");
        }
    }

    // What a question is answered with: the member of it that is another now.
    private static string? ChangedMember(JsonPiece known, JsonPiece anew)
    {
        foreach (var list in new[] { "options", "sequence" })
            if (anew[list] is not null && !Set(known.Each(list)).SetEquals(Set(anew.Each(list))))
                return list;
        if (anew["pairs"] is { } pairs)
            return Lefts(known["pairs"]!).SetEquals(Lefts(pairs)) && Rights(known).SetEquals(Rights(anew)) ? null : "pairs";
        if (anew["gaps"] is { } gaps)
            return
                gaps.Items.Count == known["gaps"]!.Items.Count
                && gaps.Items.Zip(known["gaps"]!.Items)
                    .All(pair => pair.First["kind"]!.Value == pair.Second["kind"]!.Value && ChangedMember(pair.Second, pair.First) is null)
                ? null
                : "gaps";
        return null;
    }

    private static HashSet<string> Set(IEnumerable<JsonPiece> ids) => ids.Select(id => id.Value!).ToHashSet(StringComparer.Ordinal);

    private static HashSet<string> Lefts(JsonPiece pairs) => pairs.Members.Select(pair => pair.Name).ToHashSet(StringComparer.Ordinal);

    private static HashSet<string> Rights(JsonPiece question) =>
        Set(question["pairs"]!.Members.Select(pair => pair.Value).Concat(question.Each("spare")));

    private static string? GivenForm(JsonPiece mark) =>
        new[] { "points", "percent", "level", "rubric" }.FirstOrDefault(form => mark[form] is not null);

    private bool IsQuiz(JsonPiece row) => index.QuestionsOf(row["item"]!.Value!) is not null;

    private static bool WasAsked(JsonPiece attempt, string question) =>
        attempt["asked"] is not { } asked || asked.Items.Any(known => known.Value == question);

    private static (string, string, int) KeyOf(JsonPiece attempt) => KeyOf(attempt, "n");

    private static (string, string, int) KeyOf(JsonPiece row, string number) =>
        (row["student"]!.Value!, row["item"]!.Value!, Forms.WholeOf(row[number]!));

    private static Instant? Moment(JsonPiece piece, string member) =>
        piece[member] is { IsNull: false, Value: { } text } ? Forms.InstantOf(text) : null;
}
