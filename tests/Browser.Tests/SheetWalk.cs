using OpenQA.Selenium;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>Two of a class write in one sheet at the same time, one of them by keys, and their teacher reads it.</summary>
public sealed class SheetWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    [Fact]
    public void Two_change_one_paragraph_at_once_and_both_read_what_each_wrote()
    {
        using var imke = new Person(school.Addresses[0]);
        using var orla = new Person(school.Addresses[0]);
        imke.ComeIn("Imke Osei");
        var item = imke.Ask<long>(
            """
            return fetch('/api/sections/1/now').then((r) => r.json()).then((all) =>
              Number(/"item":(\d+)[^{}]*?"title":"Compare your charts"/.exec(JSON.stringify(all))[1]))
            """
        );
        imke.Open($"/sections/1/items/{item}");
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/outline");
        orla.Press(orla.See("//button[normalize-space() = 'Compare your charts']"));
        orla.Press(orla.See("//button[@aria-label = 'Read the sheet of 9 Alder']"));
        orla.SeeText("South of Lisken.");
        imke.SeeText("South of Lisken.");
        imke.IsAccessible("a sheet");
        orla.IsAccessible("a sheet, read by its teacher");

        const string Lisken = "//li[not(.//li)][contains(., 'South of Lisken')]//button[normalize-space() = 'change']";
        imke.Choose(true, Lisken);
        orla.Press(orla.See(Lisken));
        Move(imke, Keys.Home);
        imke.Type("Just ");
        imke.SeeText("Saved.");
        Move(orla, Keys.End);
        orla.Type(" Well seen!");
        orla.SeeText("Saved.");
        imke.Choose(true, "//form//button[normalize-space() = 'Done']");
        orla.Press(orla.See("//form//button[normalize-space() = 'Done']"));
        foreach (var person in new[] { imke, orla })
            person.SeeText("Just South of Lisken. I drew a bump there for no reason but my ruler. Well seen!");

        imke.Choose(true, "//li[not(.//li)][contains(., 'Just South')]//button[contains(., 'changes')]");
        imke.SeeText("Bashir Brennan, Wed 23 Sep");
        imke.SeeText("Orla Tierney-Vance, Thu 8 Oct");
        imke.Choose(true, "//button[normalize-space() = 'Write a paragraph']");
        imke.Type("North of Fenwater, too.");
        imke.Choose(true, "//form//button[normalize-space() = 'Done']");
        orla.SeeText("North of Fenwater, too.");
        // Taken out by mistake, it is put back.
        imke.Choose(true, "//li[not(.//li)][contains(., 'North of Fenwater')]//button[normalize-space() = 'take out']");
        orla.SeeNoText("North of Fenwater, too.");
        imke.Choose(true, "//button[normalize-space() = 'put it back']");
        orla.SeeText("North of Fenwater, too.");
        imke.HeardNoComplaint();
        orla.HeardNoComplaint();
    }

    // The whole text is one line of the field or more: to its very end.
    private static void Move(Person person, string to)
    {
        person.See("form textarea");
        person.Until(() => person.Focus().TagName == "textarea", "the field has the focus");
        person.Focus().SendKeys(Keys.Control + to);
    }
}
