using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>A teacher sees who gets through, by mouse and by keys, and says in words what must be so.</summary>
public sealed class ConditionsWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    [Fact]
    public void From_place_to_place_by_keys_and_the_same_in_words()
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/conditions");
        orla.See("//button[contains(., '2.15') and contains(@class, 'node')]");
        orla.IsAccessible("the picture of conditions", colours: true);
        // What waits for somebody stands beside it, with what helps.
        orla.SeeText("handed in, not given back");
        orla.Press(orla.See("(//aside//button[normalize-space() = 'open for one of them'])[1]"));
        orla.SeeText("Before it: not open to them yet");
        orla.Press(orla.See("(//aside//section//button[contains(@aria-label, ', by name')])[1]"));
        orla.See("(//aside//a[starts-with(@aria-label, 'why: ')])[1]");
        orla.IsAccessible("a place looked at");
        orla.Type(Keys.Escape);
        // From what is asked for to what waits for it, and back.
        orla.Until(() => orla.All("//button[contains(@class, 'node') and @aria-pressed = 'true']").Count == 0, "nothing is chosen");
        orla.Type(Keys.ArrowRight);
        string Chosen() => orla.See("//button[contains(@class, 'node') and @aria-pressed = 'true']").Text;
        var first = Chosen();
        orla.Type(Keys.ArrowRight);
        orla.Until(() => Chosen() != first, "the next place");
        orla.Focus().Text.ShouldBe(Chosen());
        orla.Type(Keys.ArrowLeft);
        orla.Until(() => orla.All("//button[contains(@class, 'node') and contains(@class, 'dim')]").Count > 0, "the others stand back");
        // One student's way, sections apart, units folded, and all of it in words.
        orla.Pick("Follow a student", "Davit Lindqvist");
        orla.SeeText("not open to them yet");
        orla.Press(orla.See("//button[normalize-space() = 'sections apart']"));
        orla.Press(orla.See("//button[normalize-space() = 'fold units']"));
        orla.SeeText("conditions");
        orla.Press(orla.See("//button[normalize-space() = 'unfold']"));
        orla.Press(orla.See("//button[normalize-space() = 'in words']"));
        orla.SeeText("Opens when feedback on 2.12 is given back. Students are told.");
        orla.IsAccessible("conditions in words");
        orla.HeardNoComplaint();
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void A_condition_of_several_lines_says_whom_it_lets_in_before_it_is_set(bool keys)
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/outline");
        orla.Press(orla.See($"//button[@data-stop and normalize-space() = '{(keys ? "Label the ramp" : "A slow ramp")}']"));
        orla.Choose(
            keys,
            "//p[@class = 'sentence']//button[starts-with(normalize-space(), 'No condition') or starts-with(., 'Opens when')]"
        );
        orla.Pick("Item 1", "2.12 Isobars by hand", keys);
        orla.SeeText("Now it would let in ");
        orla.Choose(keys, "//button[normalize-space() = 'and something else']");
        orla.Pick("Item 2", "1.07", keys);
        orla.Pick("How many of these, in all", "one of these is so", keys);
        orla.Choose(keys, "(//button[normalize-space() = 'say the opposite'])[2]");
        orla.SeeText("it is not so that");
        orla.SeeText("see nothing of it, as usual");
        orla.IsAccessible("a condition of several lines");
        orla.Choose(keys, "//button[contains(@aria-label, 'in 9 Birch, by name')]");
        orla.SeeText("Let in:");
        orla.Choose(keys, "//button[normalize-space() = 'Set this condition' and not(@disabled)]");
        orla.Sure("You set a condition on", keys);
        orla.SeeText("or it is not the case that");
        orla.HeardNoComplaint();
    }
}
