using System.Globalization;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;

namespace Polycline.Data;

/// <summary>
/// What a plan calls the sections and students that are kept here: their ids. This is the only place where the one becomes
/// the other.
/// </summary>
public static class PlanIds
{
    public static Ref<Section> InPlan(this Id<Section> section) => new($"{section}");

    public static Ref<Student> InPlan(this Id<Person> student) => new($"{student}");

    public static Id<Section> IdOf(Ref<Section> section) => Id<Section>.Parse(section.Name, CultureInfo.InvariantCulture);

    public static Id<Person> IdOf(Ref<Student> student) => Id<Person>.Parse(student.Name, CultureInfo.InvariantCulture);
}
