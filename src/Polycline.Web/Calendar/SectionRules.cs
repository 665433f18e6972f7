using System.Text.Json;
using FluentValidation;

namespace Polycline.Web.Calendar;

/// <summary>What is said of a section has to be so.</summary>
internal static class SectionRules
{
    private const int LongestSubject = 120;
    private const int LongestYear = 40;

    /// <summary>One line of up to 120 characters; it may be empty.</summary>
    public static void IsSubject<T>(this IRuleBuilder<T, string> rule) =>
        rule.Must(subject => IsLine(subject, LongestSubject)).WithMessage($"A subject is one line of at most {LongestSubject} characters.");

    /// <summary>One line of up to 40 characters; it may be empty.</summary>
    public static void IsYear<T>(this IRuleBuilder<T, string> rule) =>
        rule.Must(year => IsLine(year, LongestYear)).WithMessage($"A year is one line of at most {LongestYear} characters.");

    /// <summary>A list of up to 60 times, in the plan file's form.</summary>
    public static void IsTimetable<T>(this IRuleBuilder<T, JsonElement> rule) =>
        rule.Must(slots => slots.ValueKind == JsonValueKind.Array && slots.GetArrayLength() <= SlotForm.Most)
            .WithMessage($"A timetable has at most {SlotForm.Most} times.");

    private static bool IsLine(string text, int longest) => text.Length <= longest && !text.Any(char.IsControl);
}
