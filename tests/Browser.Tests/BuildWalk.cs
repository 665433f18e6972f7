using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>A course is built before there is anybody to teach, by mouse and by keys.</summary>
public sealed class BuildWalk(TwoInstances school) : IClassFixture<TwoInstances>
{
    [Theory]
    [InlineData(false, "9 Elm", "Mara", "Wind and Sail")]
    [InlineData(true, "9 Fir", "Niall", "Rope and Tackle")]
    public void With_no_students_then_a_roster_comes_from_a_file_and_what_was_set_for_a_group_takes_effect(
        bool keys,
        string section,
        string one,
        string course
    )
    {
        using var orla = new Person(school.Addresses[0]);
        using var office = new Person(school.Addresses[1]);
        orla.ComeIn("Orla Tierney-Vance");
        office.ComeIn("Fintan Marsh");

        // The course, from a scheme of work; one thing in it is for a group in which there is nobody yet.
        orla.Open("/");
        orla.Choose(keys, "//a[normalize-space() = 'new course']");
        orla.Write("Title of the course", course);
        orla.Pick("Its first term", "Autumn term 2026", keys);
        orla.See("#scheme").SendKeys("Going out\n  The first morning   2 classes\n    read  What the flags say\n    task  Knots by feel\n");
        orla.SeeText("1 unit, 1 lesson for 2 classes and 2 items");
        orla.Choose(keys, "//button[starts-with(normalize-space(), 'Make the course: ')]");
        orla.SeeText("No section yet");
        orla.Choose(keys, "//button[@data-stop and normalize-space() = 'Knots by feel']");
        orla.Choose(keys, "//button[normalize-space() = 'For everyone.']");
        orla.See("input[aria-label='A new group']").SendKeys("Crew" + Keys.Enter);
        if (keys)
        {
            // Of several of which one holds, the arrows choose.
            orla.Reach(element => element.GetAttribute("type") == "radio");
            orla.Type(Keys.ArrowDown);
        }
        else
            orla.Press(orla.See("//label[normalize-space() = 'only for those in']"));
        Space(orla, keys, "(//label[normalize-space() = 'Crew'])[1]", "//label[normalize-space() = 'Crew']/preceding::input[1]");
        orla.Choose(keys, "//form[contains(@class, 'editor')]//button[normalize-space() = 'Save' and not(@disabled)]");
        orla.Sure(() => orla.Text().Contains("Only for Crew.", StringComparison.Ordinal), "only for the group", keys);
        orla.Type(Keys.Escape);
        orla.Choose(keys, "//button[@data-stop and normalize-space() = 'Going out']");
        orla.Choose(keys, "//button[normalize-space() = 'publish 2 items']");
        orla.Choose(keys, "//button[normalize-space() = 'Publish 2 items']");
        orla.SeeText("all published");

        // It is tried with nobody in it: somebody made up sees what is for everybody, and not what is for the group.
        orla.Choose(keys, "//nav//a[normalize-space() = 'Sections']");
        orla.Choose(keys, "//button[normalize-space() = 'add a pretend section']");
        Cell(orla, keys, "week A, Mon, P1");
        Cell(orla, keys, "week B, Mon, P1");
        orla.Choose(keys, "//button[normalize-space() = 'Make the pretend section' and not(@disabled)]");
        orla.SeeText("pretend, counted nowhere");
        orla.IsAccessible("a pretend section");
        orla.Choose(keys, "//button[contains(@class, 'tab') and normalize-space() = 'Students']");
        orla.See("input[aria-label='Name of the made-up student']").SendKeys("Quick" + Keys.Enter);
        orla.Choose(keys, "//a[contains(., 'look through their eyes')]");
        orla.SeeText("What the flags say");
        orla.SeeNoText("Knots by feel");
        orla.IsAccessible("through the eyes of somebody made up");

        // The office adds the section, and its students from a file.
        office.Open("/");
        office.Choose(keys, "//a[contains(., 'Autumn term 2026')]");
        office.Choose(keys, "//button[normalize-space() = 'add sections']");
        office.See("#pasted-sections").SendKeys($"{section}, Tierney-Vance, Mon P1");
        office.Choose(keys, "//button[normalize-space() = 'Add 1 section']");
        office.SeeNoText("One section on each line");
        office.Choose(keys, "//a[normalize-space() = 'import a roster']");
        var file = Path.Combine(Path.GetTempPath(), $"roster-{Guid.NewGuid():N}.csv");
        File.WriteAllLines(
            file,
            [
                "Student,Mail,Section",
                $"{one} Inside,{one}.inside@tern.example,{section}",
                $"{one} Outside,{one}.outside@tern.example,{section}",
            ]
        );
        office.SeeText("People and their sections from");
        office.All("input[type=file]")[0].SendKeys(file);
        office.SeeText("2 accounts are added and 2 enrolments are added.");
        office.Choose(keys, "//button[normalize-space() = 'Import the roster']");
        office.SeeText("Imported.");
        File.Delete(file);

        // The section follows, and the group is filled: what was for it opens for those who are in it.
        orla.Choose(keys, "//nav//a[normalize-space() = 'Outline']");
        orla.Choose(keys, "//a[normalize-space() = 'add a section']");
        orla.SeeText("What stands in the way");
        if (orla.All($"//button[normalize-space() = 'Have {section} follow']").Count == 0)
            orla.Pick("Which section", section, keys);
        orla.Choose(keys, $"//button[normalize-space() = 'Have {section} follow' and not(@disabled)]");
        orla.Sure($"You added {section}", keys);
        orla.Choose(keys, "//button[contains(@class, 'tab') and normalize-space() = 'Groups']");
        Box(orla, keys, $"{one} Inside is in Crew");
        orla.Sure("into the group “Crew”", keys);
        orla.IsAccessible("groups");
        orla.HeardNoComplaint();

        Comes(office, course, $"{one} Inside", true);
        Comes(office, course, $"{one} Outside", false);
        office.HeardNoComplaint();
    }

    // A student comes in by a link that the office passes on, and sees something of the course, or does not.
    private void Comes(Person office, string course, string name, bool sees)
    {
        office.Open($"/people?words={Uri.EscapeDataString(name)}");
        office.Press(office.See($"//button[contains(., '{name}')]"));
        office.Press(office.See("//button[contains(., 'a link to set a password') and not(contains(., 'mail'))]"));
        var way = office.See($"input[aria-label = 'The link for {name}']").GetAttribute("value")!;
        using var student = new Person(school.Addresses[0]);
        student.ComeInBy(new Uri(way).AbsolutePath, "a gull on one leg");
        student.Press(student.See($"//a[contains(., '{course}')]"));
        student.SeeText("What the flags say");
        if (sees)
            student.SeeText("Knots by feel");
        else
            student.Text().ShouldNotContain("Knots by feel");
        student.HeardNoComplaint();
    }

    private static void Box(Person person, bool keys, string label) =>
        Space(person, keys, $"//input[@aria-label = '{label}']", $"//input[@aria-label = '{label}']");

    private static void Cell(Person person, bool keys, string label) =>
        Space(person, keys, $"//*[@aria-label = '{label}']", $"//*[@aria-label = '{label}']");

    // What is ticked or pressed with the space bar.
    private static void Space(Person person, bool keys, string seen, string field)
    {
        person.Until(() => person.All(field).Count > 0, field);
        if (!keys)
        {
            // A box is drawn in place of its field, which is itself not seen.
            if (seen == field && person.All(seen)[0].TagName == "input")
                person.Ask<object?>("arguments[0].click()", person.All(seen)[0]);
            else
                person.Press(person.See(seen));
            return;
        }
        person.Reach(element => person.All(field).Contains(element));
        person.Type(" ");
    }
}
