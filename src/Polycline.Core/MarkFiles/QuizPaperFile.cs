using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using Polycline.Core.Json;
using Polycline.Core.MarkFiles.Checking;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Wording;

namespace Polycline.Core.MarkFiles;

/// <summary>
/// A quiz as it is stored and put into packages: questions in the form of a marking file, with what they say beside. Read with the
/// same care, whoever wrote it.
/// </summary>
public static class QuizPaperFile
{
    private const int LongestText = 20_000;
    private const int LongestWords = 1_000;

    private static readonly JsonShape Words = Forms.OfText(
        text => text.Trim().Length > 0 && text.Length <= LongestWords,
        $"must be text of up to {LongestWords} characters"
    );

    private static readonly JsonShape Question = KeyShapes.With(
        new("text", Forms.OfText(text => text.Length <= LongestText, $"must be text of up to {LongestText} characters"), true),
        new("words", Forms.Map(Words, false)),
        new("hint", Words),
        new("after", Words),
        new("replies", Forms.Map(Words, false)),
        new("pool", Amounts.FromOne),
        new("page", Forms.Bool),
        new("asWritten", Forms.Bool)
    );

    private static readonly JsonShape Paper = Forms.Object(
        new MemberShape("questions", Forms.List(Question, 1), true),
        new("outOf", Amounts.Worth),
        new("using", WordsOf<AttemptsUsed>()),
        new("limit", Amounts.FromOne),
        new("grace", Amounts.Count),
        new("attempts", Amounts.FromOne),
        new("shown", WordsOf<AnswersShown>()),
        new("scoreShown", WordsOf<AnswersShown>()),
        new("draws", Forms.List(Amounts.FromOne, 1)),
        new("mixesQuestions", Forms.Bool),
        new("mixesOptions", Forms.Bool)
    );

    /// <exception cref="FileRefusedException">It is no such quiz; the path starts at it.</exception>
    public static QuizPaper Read(string json)
    {
        var piece = JsonPiece.Parse(Encoding.UTF8.GetBytes(json)) ?? throw new FileRefusedException("$", "this is not JSON");
        FaultList.Pass(faults => Paper(piece, faults));
        FaultList.Pass(faults =>
        {
            KeyNames.Check(piece.Each("questions"), faults);
            if (piece.Each("questions").Count > QuizPaper.MostQuestions)
                faults.Add(piece["questions"]!, $"at most {QuizPaper.MostQuestions} questions");
            foreach (var question in piece.Each("questions"))
                CheckWords(question, faults);
        });
        FaultList.Pass(faults => CheckPools(piece, faults));
        return new()
        {
            Questions = [.. piece.Each("questions").Select(QuestionOf)],
            OutOf = piece["outOf"] is { } outOf ? (Fraction)Forms.NumberOf(outOf) : (Fraction?)null,
            Using = piece["using"] is { } used ? EnumNames.Parse<AttemptsUsed>(used.Value!) : AttemptsUsed.Best,
            Limit = piece["limit"] is { } limit ? Forms.WholeOf(limit) : null,
            Grace = piece["grace"] is { } grace ? Forms.WholeOf(grace) : 0,
            Attempts = piece["attempts"] is { } attempts ? Forms.WholeOf(attempts) : null,
            Shown = piece["shown"] is { } shown ? EnumNames.Parse<AnswersShown>(shown.Value!) : AnswersShown.AtOnce,
            ScoreShown = piece["scoreShown"] is { } score ? EnumNames.Parse<AnswersShown>(score.Value!) : null,
            Draws = [.. piece.Each("draws").Select(Forms.WholeOf)],
            MixesQuestions = Is(piece, "mixesQuestions"),
            MixesOptions = Is(piece, "mixesOptions"),
        };
    }

    /// <summary>Whether a text is a quiz as it is stored, to the letter.</summary>
    public static bool IsOne(string json)
    {
        try
        {
            return Write(Read(json)) == json;
        }
        catch (FileRefusedException)
        {
            return false;
        }
    }

    /// <returns>The same quiz gives the same text.</returns>
    public static string Write(QuizPaper paper)
    {
        using var stream = new MemoryStream();
        using (var json = new Utf8JsonWriter(stream))
        {
            json.WriteStartObject();
            json.WriteStartArray("questions");
            foreach (var question in paper.Questions)
                KeyWriter.Write(question, json);
            json.WriteEndArray();
            if (paper.OutOf is { } outOf)
                KeyWriter.Amount(json, "outOf", outOf);
            json.WriteString("using", EnumNames.Of(paper.Using));
            if (paper.Limit is { } limit)
                json.WriteNumber("limit", limit);
            json.WriteNumber("grace", paper.Grace);
            if (paper.Attempts is { } attempts)
                json.WriteNumber("attempts", attempts);
            json.WriteString("shown", EnumNames.Of(paper.Shown));
            if (paper.ScoreShown is { } scoreShown)
                json.WriteString("scoreShown", EnumNames.Of(scoreShown));
            if (!paper.Draws.IsEmpty)
            {
                json.WriteStartArray("draws");
                foreach (var draw in paper.Draws)
                    json.WriteNumberValue(draw);
                json.WriteEndArray();
            }
            if (paper.MixesQuestions)
                json.WriteBoolean("mixesQuestions", true);
            if (paper.MixesOptions)
                json.WriteBoolean("mixesOptions", true);
            json.WriteEndObject();
        }
        return Encoding.UTF8.GetString(stream.ToArray());
    }

    /// <summary>What a kind of question is called: <c>one</c>, <c>many</c>, <c>truth</c> …</summary>
    public static string KindOf(QuestionKey key) => KeyWriter.KindOf(key);

    /// <summary>Reads an answer that came from outside.</summary>
    /// <returns>Null: cleared.</returns>
    /// <exception cref="FileRefusedException">The question does not take it; the path starts at the answer.</exception>
    public static Answer? Answer(QuestionKey key, string json)
    {
        var piece = JsonPiece.Parse(Encoding.UTF8.GetBytes(json)) ?? throw new FileRefusedException("$", "this is not JSON");
        Answer? answer = null;
        FaultList.Pass(faults => answer = AnswerFit.Read(piece, key, faults));
        return answer;
    }

    private static PaperQuestion QuestionOf(JsonPiece piece) =>
        new(
            MarkingBuilder.QuestionOf(piece),
            piece["text"]!.Value!,
            (piece["words"]?.Members ?? []).ToImmutableDictionary(word => word.Name, word => word.Value.Value!)
        )
        {
            Hint = piece["hint"]?.Value,
            After = piece["after"]?.Value,
            Replies = (piece["replies"]?.Members ?? []).ToImmutableDictionary(reply => reply.Name, reply => reply.Value.Value!),
            Pool = PoolOf(piece),
            BeginsPage = Is(piece, "page"),
            KeepsOrder = Is(piece, "asWritten"),
        };

    private static bool Is(JsonPiece piece, string flag) => piece[flag] is { Kind: JsonKind.True };

    private static int PoolOf(JsonPiece question) => question["pool"] is { } pool ? Forms.WholeOf(pool) : 0;

    // The questions of a pool stand together, on one page, and whichever are drawn, an attempt has the same to reach.
    private static void CheckPools(JsonPiece piece, FaultList faults)
    {
        var questions = piece.Each("questions");
        var draws = piece.Each("draws");
        var last = 0;
        for (var at = 0; at < questions.Count; at++)
        {
            var pool = PoolOf(questions[at]);
            var isFirst = pool != 0 && (at == 0 || PoolOf(questions[at - 1]) != pool);
            if (isFirst && pool != ++last)
                faults.Add(questions[at]["pool"]!, "pools are numbered in order, and the questions of one stand together");
            else if (pool != 0 && !isFirst && Forms.NumberOf(questions[at]["points"]!) != Forms.NumberOf(questions[at - 1]["points"]!))
                faults.Add(questions[at]["points"]!, "the questions of a pool give the same points");
            else if (pool != 0 && (questions[at]["extra"] is not null || questions[at]["void"] is not null))
                faults.Add((questions[at]["extra"] ?? questions[at]["void"])!, "a question of a pool is neither a bonus nor void");
            else if (pool != 0 && !isFirst && questions[at]["page"] is { } page)
                faults.Add(page, "a page cannot begin within a pool");
        }
        if (draws.Count != last)
            faults.AddMissing(piece, "draws", $"there must be one number for each of {last} pools");
        else
            for (var n = 0; n < draws.Count; n++)
                if (Forms.WholeOf(draws[n]) > questions.Count(question => PoolOf(question) == n + 1))
                    faults.Add(draws[n], "the pool has not so many questions");
    }

    // Everything that a student picks among says something.
    private static void CheckWords(JsonPiece question, FaultList faults)
    {
        var said = (question["words"]?.Members ?? []).Select(word => word.Name).ToHashSet(StringComparer.Ordinal);
        var ids = question.Each("gaps").Prepend(question).SelectMany(KeyNames.IdsOf).ToList();
        foreach (var id in ids.Where(id => !said.Contains(id)))
            faults.AddMissing(question, "words", $"there are no words for '{id}'");
        foreach (var word in question["words"]?.Members ?? [])
            if (!ids.Contains(word.Name))
                faults.Add(question["words"]!, word, "the question has nothing of this id");
        IReadOnlyList<string> chosen = question["kind"]!.Value is "one" or "many" ? ids : [];
        foreach (var reply in question["replies"]?.Members ?? [])
            if (!chosen.Contains(reply.Name))
                faults.Add(question["replies"]!, reply, "there is no such option to choose");
    }

    private static JsonShape WordsOf<T>()
        where T : struct, Enum => Forms.OneOf([.. Enum.GetValues<T>().Select(EnumNames.Of)]);
}
