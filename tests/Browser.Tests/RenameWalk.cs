using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>An item renamed, seen in a colleague's open browser on another instance, undone.</summary>
public sealed class RenameWalk(TwoInstances school) : IClassFixture<TwoInstances>
{
    private const string Old = "Film: a day over the harbour";

    [Fact]
    public void Two_people_on_two_instances()
    {
        using var orla = new Person(school.Addresses[0]);
        using var tomas = new Person(school.Addresses[1]);
        tomas.ComeIn("Tomas Reeve");
        tomas.Press(tomas.See("//nav//a[normalize-space() = 'Outline']"));
        tomas.SeeText(Old);

        orla.Open("/editions/2/outline");
        orla.See("[type=email]").SendKeys("orla.tierney-vance@fenwater.example");
        orla.See("[type=password]").SendKeys("not hers");
        orla.Expected.AddRange([401]);
        orla.Press(orla.See("button[type=submit]"));
        orla.SeeText("That address and password do not match.");
        orla.See("[type=password]").SendKeys(Keys.Control + "a");
        orla.Type("harbour-light" + Keys.Enter);
        orla.Until(() => orla.Path == "/editions/2/outline");

        // Shown before, done, and seen elsewhere.
        Open(orla, Old);
        orla.Type(" and night");
        orla.SeeText("Changes in all 4 sections at once, for 93 students.");
        orla.Press(orla.See("//button[contains(., 'Rename in all 4 sections')]"));
        orla.Sure("You renamed");
        tomas.SeeText($"{Old} and night");
        tomas.SeeText("Orla Tierney-Vance renamed");
        orla.Until(() => orla.Focus().Text == $"{Old} and night", "the focus is back on the row");

        // A field in use is told, never replaced.
        Open(tomas, $"{Old} and night");
        tomas.Expected.Add(409);
        tomas.Type(", twice");
        orla.Press(orla.See("//footer//button[normalize-space() = 'undo']"));
        orla.Sure("You undid: renamed");
        tomas.SeeText($"While you were writing, Orla Tierney-Vance changed this to “{Old}”");
        tomas.Focus().GetAttribute("value").ShouldBe($"{Old} and night, twice");
        tomas.Press(tomas.See("//button[contains(., 'Use mine')]"));
        tomas.Sure("You renamed");
        orla.SeeText($"{Old} and night, twice");
        orla.SeeText("Tomas Reeve renamed");

        // What stands in the way of an undo is named.
        orla.Expected.Add(409);
        orla.Press(orla.See("//button[normalize-space() = 'all changes']"));
        orla.Press(orla.All("//section[@aria-label = 'What was changed']//li//button[normalize-space() = 'redo']")[0]);
        orla.SeeText($"Tomas Reeve has since renamed “{Old}” to “{Old} and night, twice”.");
        orla.HeardNoComplaint();
        tomas.HeardNoComplaint();
    }

    [Fact]
    public void By_keyboard_alone()
    {
        using var orla = new Person(school.Addresses[0]);
        orla.Open("/sign-in");
        orla.See(".person");
        orla.Until(() => orla.Focus().GetAttribute("type") == "email", "the mail address has the focus");
        orla.Type("orla.tierney-vance@fenwater.example" + Keys.Tab);
        orla.Type("harbour-light" + Keys.Enter);
        orla.Choose(true, "//a[contains(@class, 'name')][contains(., 'Weather Watch')]");
        orla.Choose(true, "//nav//a[normalize-space() = 'Outline']");
        orla.SeeText(Old);

        orla.Type(string.Concat(Enumerable.Repeat(Keys.ArrowDown, 5)) + Keys.ArrowUp);
        orla.Until(() => orla.Focus().Text == "Overview: looking up", "the arrows move from row to row");
        orla.Type(Keys.Enter);
        orla.See(".row.opened");
        orla.Type(Keys.Enter);
        orla.Until(() => orla.Focus().TagName == "input", "Enter on an open item renames it");
        orla.Type(", once more?h" + Keys.Enter);
        orla.Sure("You renamed “Overview: looking up” to “Overview: looking up, once more?h”", keys: true);
        orla.Until(() => orla.Focus().Text.EndsWith("once more?h", StringComparison.Ordinal), "the focus is back");
        orla.Type(Keys.Control + "z");
        orla.Sure("You undid: renamed", keys: true);
        orla.SeeNoText("Overview: looking up, once more?h\npage");

        orla.Type("?");
        orla.SeeText("Keys and marks");
        orla.SeeText("undo your last change");
        orla.Press(orla.See("//label[contains(., 'Single-letter keys')]"));
        orla.Type(Keys.Escape);
        orla.Until(() => orla.All(".v-overlay--active").Count == 0, "Escape closes the sheet");
        orla.Type("?");
        orla.All(".v-overlay--active").ShouldBeEmpty();
        orla.HeardNoComplaint();
    }

    [Fact]
    public void What_a_team_calls_its_levels_stands_on_its_screens_and_its_students()
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/outline");
        orla.Choose(true, "//button[normalize-space() = 'course settings']");
        foreach (
            var (label, word) in new[]
            {
                ("One unit", "week"),
                ("Several units", "weeks"),
                ("One lesson", "topic"),
                ("Several lessons", "topics"),
                ("One item", "piece"),
                ("Several items", "pieces"),
            }
        )
        {
            orla.Reach(element => element.GetAttribute("aria-label") == label);
            orla.Type(Keys.Control + "a");
            orla.Type(word);
        }
        orla.SeeText("Changes in all 4 sections at once, for 93 students.");
        orla.Choose(true, "//button[normalize-space() = 'Save']");
        orla.Sure("6 weeks, 38 topics, 110 pieces", keys: true);
        foreach (
            var (path, seen) in new[]
            {
                ("today", "9 Alder"),
                ("outline", "add a week"),
                ("dates", "Piece"),
                ("work", "9 Alder"),
                ("scores", "middle half of 9 Alder"),
                ("pace", "38 topics"),
                ("sections", "Topics"),
                ("editions", "weeks, topics, pieces"),
                ("seen/1?as=pretend:1", "Now"),
            }
        )
        {
            orla.Open($"/editions/2/{path}");
            orla.SeeText(seen);
            System
                .Text.RegularExpressions.Regex.Matches(orla.Text(), @"[^\n]*\b([Uu]nit|[Ll]esson|[Ii]tem)s?\b[^\n]*")
                .Select(line => line.Value)
                .ShouldBeEmpty(path);
        }
        orla.Press(orla.See("//a[contains(., 'Six things one can measure')]"));
        orla.SeeText("week “Looking up” · topic “What weather is made of”");
        orla.Open("/editions/2/outline");
        orla.SeeText("6 weeks");
        orla.Type(Keys.Control + "z");
        orla.Sure("6 units, 38 lessons, 110 items", keys: true);
        orla.HeardNoComplaint();
    }

    [Fact]
    public void Whoever_is_signed_out_is_led_to_sign_in_and_back_and_what_is_not_theirs_is_not_there()
    {
        using var person = new Person(school.Addresses[0]);
        person.Expected.AddRange([401, 404]);
        person.Open("/editions/2/outline");
        person.SeeText("you will be taken back to where you were");
        person.Press(person.See("//button[contains(., 'Imke Osei')]"));
        person.SeeText("There is nothing here.");
        person.Open("/");
        person.Press(person.See("//a[contains(., 'Weather Watch')]"));
        person.SeeText("Now and next");
        person.Open("/no/such/page");
        person.SeeText("This address leads nowhere");
        person.Press(person.See(".who"));
        person.Press(person.See("//button[normalize-space() = 'Sign out everywhere']"));
        person.See("[type=email]");
        person.HeardNoComplaint();
    }

    private static void Open(Person person, string title)
    {
        person.Press(person.See($"//button[@data-stop and normalize-space() = '{title}']"));
        person.See(".row.opened + .panel");
        person.Press(person.See($"//button[@data-stop and normalize-space() = '{title}']"));
        person.Until(() => person.Focus().GetAttribute("value") == title, "the title is ready to be written");
    }
}
