using Polycline.Core.Planning;

namespace Polycline.Core.Wording;

/// <summary>How the things of a plan are called in sentences: an item by its code and title, all else by its title.</summary>
public sealed class PlanNames
{
    private readonly Dictionary<string, string> names = new(StringComparer.Ordinal);

    public PlanNames(PlanSchedule plan)
    {
        foreach (var section in plan.Sections)
        {
            names[section.Section.Ref.Name] = section.Section.Title;
            foreach (var unit in section.Course.Units)
                names[unit.Ref.Name] = unit.Title;
            foreach (var lesson in section.Course.Lessons)
                names[lesson.Ref.Name] = lesson.Title;
        }
        foreach (var unit in plan.Edition.Units)
        {
            names[unit.Ref.Name] = unit.Title;
            foreach (var lesson in unit.Lessons)
                names[lesson.Ref.Name] = lesson.Title;
        }
        foreach (var item in plan.CodeOf.Keys)
            names[item.Name] = $"{plan.CodeOf[item]} {plan.Item(item).Title}";
    }

    /// <summary>The name of what has that id; the id itself where nothing has it.</summary>
    public string Of(string id) => names.GetValueOrDefault(id, id);
}
