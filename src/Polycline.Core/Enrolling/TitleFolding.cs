using System.Globalization;
using Polycline.Core.Unicode;

namespace Polycline.Core.Enrolling;

/// <summary>
/// Titles as they are compared: NFKC (UAX 15), full case folding, NFKC again, and then without punctuation, separators and control
/// characters. Source: the computation, chapter 11.
/// </summary>
public static class TitleFolding
{
    /// <summary>The key that a title is compared by; empty if nothing is left of it.</summary>
    public static string Key(string title) =>
        NormalForms.TextOf(
            NormalForms.Nfkc(NormalForms.Nfkc(NormalForms.PointsOf(title)).SelectMany(NormalForms.CaseFolded)).Where(IsKept)
        );

    // The general categories P, Z and C go; letters, marks, numbers and symbols stay.
    private static bool IsKept(int point) =>
        CharUnicodeInfo.GetUnicodeCategory(point)
            is not (
                UnicodeCategory.ConnectorPunctuation
                or UnicodeCategory.DashPunctuation
                or UnicodeCategory.OpenPunctuation
                or UnicodeCategory.ClosePunctuation
                or UnicodeCategory.InitialQuotePunctuation
                or UnicodeCategory.FinalQuotePunctuation
                or UnicodeCategory.OtherPunctuation
                or UnicodeCategory.SpaceSeparator
                or UnicodeCategory.LineSeparator
                or UnicodeCategory.ParagraphSeparator
                or UnicodeCategory.Control
                or UnicodeCategory.Format
                or UnicodeCategory.Surrogate
                or UnicodeCategory.PrivateUse
                or UnicodeCategory.OtherNotAssigned
            );
}
