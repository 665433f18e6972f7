using Polycline.Core.Marking;
using Polycline.Core.Wording;

namespace Polycline.Formats.Quizzes;

/// <summary>What kinds of questions are called.</summary>
internal static class QuestionKinds
{
    public static string InWords(QuestionKey key) =>
        key switch
        {
            QuestionKey.OneKey => "one of several",
            QuestionKey.ManyKey many => $"several of several, {many.Right.Length} right",
            QuestionKey.TruthKey => "true or false",
            QuestionKey.NumberKey => "a number",
            QuestionKey.TextKey => "a short text",
            QuestionKey.OrderKey => "putting in order",
            QuestionKey.MatchKey => "matching",
            QuestionKey.GapsKey gaps => Counting.Counted(gaps.Parts.Length, "gap in a text", "gaps in a text"),
            QuestionKey.FreeKey => "a text that you read",
            _ => "a file that you look at",
        };
}
