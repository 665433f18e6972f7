using System.Text;

namespace Polycline.Core.Unicode;

/// <summary>White space is what has Unicode's property White_Space.</summary>
public static class Spaces
{
    /// <summary>Trimmed, and each run of white space within made one blank.</summary>
    public static string Tidy(string text)
    {
        var tidy = new StringBuilder(text.Length);
        var isApart = false;
        foreach (var letter in text)
        {
            if (char.IsWhiteSpace(letter))
            {
                isApart = true;
                continue;
            }
            if (isApart && tidy.Length > 0)
                tidy.Append(' ');
            isApart = false;
            tidy.Append(letter);
        }
        return tidy.ToString();
    }
}
