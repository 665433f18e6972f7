using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>A teacher looks through the scores, weights the units, and a student reads their own.</summary>
public sealed class ScoresWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    [Fact]
    public void From_the_table_to_what_a_total_is_made_of()
    {
        using var orla = new Person(school.Addresses[0]);
        using var imke = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/scores");
        orla.SeeText("middle half of 9 Alder");
        orla.IsAccessible("the scores of a section");
        orla.Press(orla.See("//button[@aria-label = '77.3 %: what Imke Osei’s total is made of']"));
        orla.SeeText("34 of 44");
        orla.SeeText("waiting to be read");
        orla.IsAccessible("what a total is made of");
        orla.Press(orla.See("//aside//button[normalize-space() = 'close']"));

        orla.Press(orla.See("//button[normalize-space() = 'how it adds up']"));
        orla.Press(orla.See("//label[normalize-space() = 'weighted by unit']"));
        orla.IsAccessible("how scores are added up");
        var weight = orla.See("input[aria-label = 'Weight of Looking up']");
        weight.SendKeys(OpenQA.Selenium.Keys.Control + "a" + OpenQA.Selenium.Keys.Null + "3");
        orla.SeeText("students’ totals are worked out again.");
        orla.Press(orla.See("//button[normalize-space() = 'Set how scores are added up' and not(@disabled)]"));
        orla.Sure("You set how scores are added up: weighted by unit and what is missing is left out");
        // Two units count for Imke: 19 of 23 three times, 15 of 21 once.
        orla.Press(orla.See("//button[@aria-label = '79.8 %: what Imke Osei’s total is made of']"));
        orla.SeeText("weight 3");

        imke.ComeIn("Imke Osei");
        imke.Choose(true, "//a[normalize-space() = 'Your scores']");
        imke.SeeText("79.8 %");
        imke.SeeText("The percentages of the units, weighted.");
        imke.IsAccessible("a student’s own scores");

        // Scores of what was done on paper, typed and pasted, looked at before and taken back.
        orla.Press(orla.See("//button[normalize-space() = 'write scores']"));
        var first = orla.See("input[aria-label = '3.03 Cloud diary, Aino Abara']");
        first.SendKeys("7" + OpenQA.Selenium.Keys.Enter);
        orla.Focus().GetAttribute("aria-label").ShouldBe("3.03 Cloud diary, Bashir Brennan");
        orla.PasteHere("Dao Dvorak\t11,5\nNobody Known\t3");
        orla.SeeText("nobody here is called “Nobody Known”");
        // Left and come back to, they are still there.
        orla.Open(orla.Path);
        orla.SeeText("2 new scores. 3.08 A cloud in a bottle opens for Aino Abara and Dao Dvorak.");
        orla.IsAccessible("scores that are written");
        orla.Press(orla.See("//button[normalize-space() = 'Give 2 scores']"));
        orla.SeeText("Done. 2 new scores.");
        orla.See("input[aria-label = '3.03 Cloud diary, Dao Dvorak']").GetAttribute("value").ShouldBe("11.5");
        orla.Press(orla.See("//button[normalize-space() = 'take them back']"));
        orla.SeeText("2 scores taken back. 3.08 A cloud in a bottle closes for Aino Abara and Dao Dvorak.");
        orla.Press(orla.See("//button[normalize-space() = 'Yes, take them back']"));
        orla.SeeText("Done. 2 scores taken back.");
        orla.See("input[aria-label = '3.03 Cloud diary, Dao Dvorak']").GetAttribute("value").ShouldBe("");
        foreach (var person in new[] { orla, imke })
            person.HeardNoComplaint();
    }
}
