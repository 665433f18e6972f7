using Polycline.Core.Courses;

namespace Polycline.Core.Wording;

/// <summary>What can come of an item, in words.</summary>
public static class OutcomeWords
{
    /// <summary>What does not come of it, in words: <c>feedback</c>, <c>a score</c> …</summary>
    public static string Of(GateNode leaf) =>
        leaf switch
        {
            GateNode.Done { Deed: Deed.Submitted } => "something handed in",
            GateNode.Done { Deed: Deed.Returned } => "feedback",
            GateNode.Scored => "a score",
            _ => "a choice",
        };
}
