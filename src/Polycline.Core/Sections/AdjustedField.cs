using Polycline.Core.Courses;

namespace Polycline.Core.Sections;

/// <summary>What a section can change of a unit, lesson or item. The computation, chapter 3.</summary>
public enum AdjustedField
{
    Opens,
    Due,
    Closes,
    For,
    Published,
    Hold,
    Skip,
    Length,
    Pin,
    Lesson,
}

public static class AdjustedFields
{
    /// <summary>Which of an item's moments it is; null: none of them.</summary>
    public static DateField? AsDate(this AdjustedField field) =>
        field switch
        {
            AdjustedField.Opens => DateField.Opens,
            AdjustedField.Due => DateField.Due,
            AdjustedField.Closes => DateField.Closes,
            _ => null,
        };
}
