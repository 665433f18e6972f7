using NodaTime;
using NodaTime.Text;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.OneStudent;

/// <summary>The students of an edition's sections, as commands name them.</summary>
internal static class StudentsHere
{
    /// <exception cref="ProblemException">One of them is in no section of the edition.</exception>
    public static void Check(EditionPlan plan, IReadOnlyList<Id<Person>> students, string field)
    {
        for (var n = 0; n < students.Count; n++)
            Check(plan, students[n], $"{field}[{n}]");
    }

    /// <exception cref="ProblemException">They are in no section of the edition.</exception>
    public static void Check(EditionPlan plan, Id<Person> student, string field)
    {
        if (!plan.Sections.Any(section => section.Listed.Any(place => place.Person == student)))
            throw Problem.Unknown(field);
    }

    /// <exception cref="ProblemException">No section of that id follows the edition.</exception>
    public static FollowingSection Section(EditionPlan plan, Id<Section> section, string field) =>
        plan.Counted.Following(section) ?? throw Problem.Unknown(field);

    /// <summary>Checks that a section is still taught on a day, so that somebody can join it.</summary>
    /// <exception cref="ProblemException">It had ended by then.</exception>
    public static void IsTaught(FollowingSection section, LocalDate on, string field)
    {
        if (section.EndedOn is { } last && last < on)
            throw Problem.Field(field, $"{section.Name} ended on {Moment.InWords(last, last)}. Choose an earlier day or another section.");
    }

    /// <summary>A day of the term, as it travels: <c>2026-10-12</c>.</summary>
    /// <exception cref="ProblemException">It is no date, or lies outside the term.</exception>
    public static LocalDate Day(EditionPlan plan, string text, string field)
    {
        if (LocalDatePattern.Iso.Parse(text) is not { Success: true, Value: var day })
            throw Problem.Field(field, "That is not a date. Write one such as 2026-10-12.");
        return day < plan.Term.First || day > plan.Term.Last
            ? throw Problem.Field(field, "That day is not in the term. Choose one that is.")
            : day;
    }

    /// <summary>A date as it travels; null for none.</summary>
    public static string? Iso(LocalDate? date) => date is { } day ? LocalDatePattern.Iso.Format(day) : null;
}
