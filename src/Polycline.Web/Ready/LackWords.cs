using Polycline.Core.Findings;

namespace Polycline.Web.Ready;

/// <summary>What an item lacks, in words.</summary>
internal static class LackWords
{
    /// <param name="name">What the item is called.</param>
    public static string Of(Lack lack, string name) =>
        lack switch
        {
            Lack.Published => $"“{name}” is not published.",
            Lack.Place => $"“{name}” has a date that falls nowhere in this term.",
            Lack.Due => $"“{name}” is for marks and has no due date.",
            Lack.Content => $"“{name}” has neither a text nor a file.",
            Lack.Address => $"“{name}” leads nowhere yet.",
            Lack.Asks => $"“{name}” is due, and there is nothing to hand in or to tick off.",
            Lack.Rubric => $"“{name}” is for marks and has no rubric.",
            Lack.Questions => $"“{name}” has no questions yet.",
            _ => $"“{name}” has fewer than two options to choose from.",
        };

    /// <summary>What to do about it.</summary>
    public static string Mend(Lack lack) =>
        lack switch
        {
            Lack.Published => "publish it",
            Lack.Place => "give it another date here",
            Lack.Due => "set when it is due",
            Lack.Content => "write it, or add a file",
            Lack.Address => "say where it leads",
            Lack.Asks => "say what is handed in",
            Lack.Rubric => "add a rubric",
            Lack.Questions => "write its questions",
            _ => "add its options",
        };
}
