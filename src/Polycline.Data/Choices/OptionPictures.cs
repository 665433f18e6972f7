using Polycline.Core.Courses;
using Polycline.Data.Courses;

namespace Polycline.Data.Choices;

/// <summary>The pictures of a choice's options.</summary>
public static class OptionPictures
{
    /// <summary>
    /// A text of nothing but those pictures: it keeps their files for as long as anything may show them. Null: there are none.
    /// </summary>
    public static Body? Kept(Offered? offered)
    {
        var files = (offered?.Options ?? []).Select(option => option.Picture?.File).OfType<string>().Distinct().ToList();
        return files.Count == 0 ? null : new(string.Concat(files.Select(file => $"<img src=\"{Pictures.Named(file)}\" alt=\"\">")));
    }
}
