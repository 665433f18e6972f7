using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;

namespace Polycline.Formats.Quizzes.Qti;

/// <summary>What of a quiz QTI 2.2 has no place for, in words.</summary>
internal static class QtiFit
{
    public static IReadOnlyList<string> LeftOut(QuizPaper paper)
    {
        var said = new List<string>();
        void Say(Func<PaperQuestion, bool> which, string one, string several)
        {
            var places = paper.Questions.Select((question, at) => (question, at + 1)).Where(pair => which(pair.question)).ToList();
            if (places.Count == 1)
                said.Add($"Question {places[0].Item2}: {one}");
            else if (places.Count > 1)
                said.Add($"Questions {string.Join(", ", places.SkipLast(1).Select(pair => pair.Item2))} and {places[^1].Item2}: {several}");
        }

        Say(question => question.Hint is not null, "its hint is left out.", "their hints are left out.");
        Say(
            question => question.Question.IsExtra,
            "it is an ordinary question there, not a bonus.",
            "they are ordinary questions there, not bonuses."
        );
        Say(
            question => question.Question.Voided != Voided.No,
            "it counts there, although it is void here.",
            "they count there, although they are void here."
        );
        Say(
            question => Parts(question).OfType<QuestionKey.NumberKey>().Any(number => !number.Units.IsEmpty),
            "the unit is left out: only the number is compared.",
            "the units are left out: only the numbers are compared."
        );
        Say(
            question => Parts(question).OfType<QuestionKey.NumberKey>().Any(number => number.Figures is not null),
            "it doesn’t ask for significant figures there.",
            "they don’t ask for significant figures there."
        );
        Say(
            question => Parts(question).OfType<QuestionKey.TextKey>().Any(text => text.Edits > 0 || text.FoldsAccents || text.DropsSpace),
            "slips and accents are not overlooked there.",
            "slips and accents are not overlooked there."
        );
        Say(
            question => question.Question.Key is QuestionKey.OrderKey { AllOrNothing: false },
            "there are no points there for a part of the order.",
            "there are no points there for a part of the order."
        );
        if (paper.Attempts != 1)
            said.Add("How many attempts there are, and which of them counts, is left out.");
        if (paper.Shown != AnswersShown.AtOnce || paper.ScoreIsShown != AnswersShown.AtOnce)
            said.Add("When students see their score and the answers is left out.");
        if (paper.OutOf is not null)
            said.Add("What the quiz is worth is left out; there the points of its questions are added up.");
        if (paper.Limit is not null && paper.Grace > 0)
            said.Add("The moment of grace after the time limit is left out.");
        return said;
    }

    private static IEnumerable<QuestionKey> Parts(PaperQuestion question) =>
        question.Question.Key is QuestionKey.GapsKey gaps ? gaps.Parts : [question.Question.Key];
}
