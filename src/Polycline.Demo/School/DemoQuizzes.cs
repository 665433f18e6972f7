using System.Globalization;
using System.Text;
using Polycline.Core.MarkFiles;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Formats.Quizzes;

namespace Polycline.Demo.School;

/// <summary>A demo course's quizzes, from the text file beside it, written as a teacher would write them.</summary>
internal static class DemoQuizzes
{
    /// <returns>By the item's id in the course's file; none where there is no such file.</returns>
    public static IReadOnlyDictionary<string, Body> Of(string course)
    {
        using var stream = typeof(DemoQuizzes).Assembly.GetManifestResourceStream($"Polycline.Demo.School.{course}-quizzes.txt");
        if (stream is null)
            return new Dictionary<string, Body>();
        using var reader = new StreamReader(stream, Encoding.UTF8);
        return reader
            .ReadToEnd()
            .ReplaceLineEndings("\n")
            .Split("\n# ", StringSplitOptions.None)
            .Select(part => part.TrimStart('#', ' '))
            .ToDictionary(part => part[..part.IndexOf(' ', StringComparison.Ordinal)], part => new Body(Stored(part), BodyKind.Quiz));
    }

    // A heading, lines that say how it is taken, and the questions.
    private static string Stored(string part)
    {
        var (head, text) = part.Split("\n\n", 2) is [var before, var after] ? (before, after) : ("", part);
        var rules = head.Split('\n')
            .Skip(1)
            .Select(line => line.Split(": ", 2))
            .ToDictionary(pair => pair[0], pair => pair[1], StringComparer.Ordinal);
        var read = QuizText.Read(text.Trim());
        var questions = read.Questions
            ?? throw new InvalidOperationException(
                $"{head}: " + string.Join("; ", read.Lines.Where(line => line.IsFault).Select(line => $"{line.Text}: {line.Words}"))
            );
        return QuizPaperFile.Write(
            new()
            {
                Questions = questions,
                Draws = read.Draws,
                MixesQuestions = rules.GetValueOrDefault("mixed", "").Contains("questions", StringComparison.Ordinal),
                MixesOptions = rules.GetValueOrDefault("mixed", "").Contains("answers", StringComparison.Ordinal),
                Limit = rules.TryGetValue("limit", out var limit) ? int.Parse(limit, CultureInfo.InvariantCulture) : null,
                Attempts = rules.TryGetValue("attempts", out var attempts) ? int.Parse(attempts, CultureInfo.InvariantCulture) : null,
                Using = rules.TryGetValue("using", out var used) ? EnumNames.Parse<AttemptsUsed>(used) : AttemptsUsed.Best,
                Shown = EnumNames.Parse<AnswersShown>(rules["shown"]),
            }
        );
    }
}
