using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>
/// One task on four timetables: other dates in two sections, dropped in a third, as the course has it in the fourth; by mouse and by keys
/// alone.
/// </summary>
public sealed class DatesWalk(TwoInstances school) : IClassFixture<TwoInstances>
{
    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void One_task_is_due_on_another_day_in_two_sections_dropped_in_a_third_and_its_text_changed_once_for_all(bool keys)
    {
        using var orla = new Person(school.Addresses[0]);
        using var tomas = new Person(school.Addresses[1]);
        orla.ComeIn("Orla Tierney-Vance");
        tomas.ComeIn("Tomas Reeve");
        tomas.Open("/editions/2/dates?words=sort%20the");
        orla.Open("/editions/2/dates?words=sort%20the");
        var inherited = Cell(orla, "9 Alder").Text;
        Set(orla, keys, "9 Birch", "17/11");
        Set(orla, keys, "9 Cedar", "thu 19 nov");
        OpenCell(orla, keys, "9 Dogwood");
        orla.Choose(keys, "//button[normalize-space() = 'drop here']");
        orla.Sure("dropped here", keys);
        // The colleague, on another instance, has it before them at once.
        foreach (var person in new[] { orla, tomas })
        {
            person.Until(() => Cell(person, "9 Birch").Text.Contains("Tue 17 Nov", StringComparison.Ordinal), "Tuesday in 9 Birch");
            person.Until(() => Cell(person, "9 Cedar").Text.Contains("Thu 19 Nov", StringComparison.Ordinal), "Thursday in 9 Cedar");
            person.SeeText("dropped here");
            Cell(person, "9 Alder").Text.ShouldBe(inherited);
        }
        orla.IsAccessible("dates of one item");

        // Its text is one for all.
        orla.Choose(keys, "//nav//a[normalize-space() = 'Outline']");
        orla.Choose(keys, "//button[@data-stop and normalize-space() = 'Sort the photographs']");
        orla.Choose(keys, "//button[normalize-space() = 'Write its instructions' or normalize-space() = 'Change the text']");
        orla.See("[contenteditable]").SendKeys("Look at the edges first. ");
        orla.Choose(keys, "//button[normalize-space() = 'Use this text']");
        orla.Sure("You wrote the text of “Sort the photographs”", keys);

        // All three differences stand in the sections' lists, each put back with one click.
        orla.Choose(keys, "//nav//a[normalize-space() = 'Sections']");
        foreach (var section in new[] { "9 Dogwood", "9 Cedar", "9 Birch" })
        {
            orla.Choose(keys, $"//nav[@aria-label = 'Section']//button[contains(., '{section}')]");
            orla.SeeText(section == "9 Dogwood" ? "Sort the photographs is dropped here" : "Sort the photographs is due ");
            orla.Choose(keys, "//button[contains(., 'put back: 3.') and contains(., 'Sort the photographs')]");
            orla.Sure("You put back “Sort the photographs” in " + section, keys);
            orla.Until(
                () => orla.All("//button[contains(., 'put back: 3.') and contains(., 'Sort the photographs')]").Count == 0,
                "it is put back"
            );
        }
        orla.HeardNoComplaint();
        tomas.HeardNoComplaint();
    }

    [Fact]
    public void By_keys_alone_a_block_is_chosen_copied_set_and_undone()
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/dates?unit=4&kind=task");
        orla.SeeText("A week of charts");
        var before = Dates(orla);
        orla.Reach(element => element.GetAttribute("data-cell") is not null);
        // To the dues, then two items down and one section along.
        orla.Type(Keys.ArrowDown);
        orla.Type(Keys.Shift + Keys.ArrowDown);
        orla.Type(Keys.Shift + Keys.ArrowRight);
        orla.Until(() => orla.All(".date.in").Count == 4, "a block of four");
        orla.Type(Keys.Enter);
        orla.SeeText("2 items from 4.");
        var date = orla.See("//aside//input[@aria-label = 'Date']");
        orla.Reach(element => element.Equals(date));
        // The first Enter reads what was typed, so that what it does is seen; the second does it.
        orla.Type(Keys.Control + "a" + Keys.Null + "24 nov" + Keys.Enter);
        orla.SeeText("4 dates move in 9 Alder and 9 Birch");
        orla.Type(Keys.Enter);
        orla.SeeText("You changed dates of 2 items in 9 Alder and 9 Birch");
        orla.Until(() => orla.All("//button[contains(@class, 'own') and contains(., 'Tue 24 Nov')]").Count == 4, "four dates set");
        orla.Reach(element => element.Text == "undo");
        orla.Type(Keys.Enter);
        orla.Sure("You undid", keys: true);
        orla.Until(() => Dates(orla) == before, "as it was");
        orla.HeardNoComplaint();
    }

    private static string Dates(Person person) =>
        person.Ask<string>("return [...document.querySelectorAll('[data-cell]')].map(cell => cell.innerText).join('\\n')");

    private static IWebElement Cell(Person person, string section) => person.See($"//button[contains(@data-cell, ' due {section}')]");

    private static void OpenCell(Person person, bool keys, string section)
    {
        if (!keys)
        {
            person.Press(Cell(person, section));
            return;
        }
        person.Reach(element => element.GetAttribute("data-cell") is not null);
        person.Type(Keys.Home);
        for (var n = 0; n < 12 && !At().Contains($" due {section}", StringComparison.Ordinal); n++)
        {
            var at = At();
            person.Type(at.Contains(" due ", StringComparison.Ordinal) ? Keys.ArrowRight : Keys.ArrowDown);
            person.Until(() => At() != at, "the keys go on");
        }
        person.Type(Keys.Enter);

        string At() => person.Focus().GetAttribute("data-cell") ?? "";
    }

    private static void Set(Person person, bool keys, string section, string date)
    {
        OpenCell(person, keys, section);
        var field = person.See("//aside//input[@aria-label = 'Date']");
        if (keys)
            person.Reach(element => element.Equals(field));
        field.SendKeys(Keys.Control + "a" + Keys.Null + date + Keys.Enter);
        person.SeeText($"1 date moves in {section}");
        if (keys)
            person.Type(Keys.Enter);
        else
            person.Press(person.See("//button[normalize-space() = 'Set this date']"));
        person.Until(() => person.All("//aside").Count == 0, "it is set");
    }
}
