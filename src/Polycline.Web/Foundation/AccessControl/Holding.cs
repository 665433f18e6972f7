using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation.AccessControl;

/// <summary>
/// Checks what a command is about to write against what its caller may change: someone who teaches some sections changes those
/// alone and the students in them; the leads of a course change them all. What is the course's own is its team's.
/// </summary>
public static class Holding
{
    /// <exception cref="ProblemException">A section, or a student, is not the caller's.</exception>
    public static async Task Against(NpgsqlConnection connection, Access access, EditionPlan before, IReadOnlyList<Change> changes)
    {
        if (access.IsLead)
            return;
        if (access.OnlySections && await LedgerStore.TouchesCourse(connection, changes))
            throw Problem.Forbidden(
                "You can change the sections you teach, but not the course itself.",
                "Nothing was changed. Make the change for your own sections, or ask a lead to make you a co-teacher of the course."
            );
        var touched = await LedgerStore.Touched(connection, changes);
        // A pretend section is everybody's who may change the course.
        var foreign = touched
            .Sections.Where(section =>
                !access.Teaches.Contains(section) && (access.OnlySections || before.Following(section)?.Pretend is null)
            )
            .ToList();
        if (foreign.Count > 0)
        {
            var named = before.Sections.Where(section => foreign.Contains(section.Id)).ToList();
            throw Problem.Forbidden(
                named.Count == 0
                    ? "That section is not yours to change."
                    : $"{Counting.Joined([.. named.Select(section => section.Name)], "and")} "
                        + $"{(named.Count == 1 ? "is" : "are")} not yours to change.",
                named.SelectMany(section => section.Teachers).Distinct().ToList() is { Count: > 0 } teachers
                    ? $"Nothing was changed. Ask {Counting.Joined(teachers, "or")}, or change only the sections that you teach."
                    : "Nothing was changed. Change only the sections that you teach."
            );
        }
        // Whoever joins a section of the caller's is not in it yet.
        var joining = changes
            .Where(change => change.Table == Tables.Places.Table && change.Before is null)
            .Select(change => new Id<Person>(change.After!["person"]!.GetValue<long>()))
            .ToHashSet();
        if (
            touched.People.Any(person =>
                !joining.Contains(person)
                && !before.Sections.Any(section =>
                    access.Teaches.Contains(section.Id) && section.Listed.Any(listed => listed.Person == person)
                )
            )
        )
            throw Problem.Unknown("student");
    }
}
