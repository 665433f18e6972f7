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
        orla.SeeText("Not open to them yet: ");
        orla.Press(orla.See("(//aside//section//button[contains(., ', by name')])[1]"));
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
        var title = keys ? "Label the ramp" : "A slow ramp";
        orla.Press(orla.See($"//button[@data-stop and normalize-space() = '{title}']"));
        orla.Choose(
            keys,
            "//p[@class = 'sentence']//button[starts-with(normalize-space(), 'No condition') or starts-with(., 'Opens when')]"
        );
        orla.Pick("Item 1", "2.12 Isobars by hand", keys);
        orla.SeeText("Now it would let in ");
        orla.Choose(keys, "//button[normalize-space() = 'and something else']");
        orla.Pick("Item 2", "1.07", keys);
        // How they go together is said before them, so by keys one would go back.
        orla.Pick("How many of these, in all", "any of these is true");
        orla.Choose(keys, "(//button[normalize-space() = 'say the opposite'])[2]");
        orla.SeeText("it is not the case that");
        orla.SeeText("see nothing of it, as usual");
        orla.IsAccessible("a condition of several lines");
        orla.Choose(keys, "//div[contains(@class, 'admits')]//button[contains(., '9 Birch')]");
        orla.SeeText("Let in:");
        orla.Choose(keys, "//button[normalize-space() = 'Set this condition' and not(@disabled)]");
        orla.Sure($"You set a condition on “{title}”", keys);
        orla.SeeText("or it is not the case that");
        orla.HeardNoComplaint();
    }

    [Theory]
    [InlineData(false, "Kites")]
    [InlineData(true, "Balloons")]
    public void Steps_a_branch_and_a_choice_from_nothing_in_at_most_30_decisions(bool keys, string course)
    {
        using var orla = new Person(school.Addresses[0]);
        var decisions = 0;
        void Press(string selector)
        {
            orla.Choose(keys, selector);
            decisions++;
        }
        void Pick(string label, string choice)
        {
            orla.Pick(label, choice, keys);
            decisions++;
        }
        // A course from nothing.
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/");
        Press("//a[normalize-space() = 'new course']");
        orla.Write("Title of the course", course);
        Pick("Its first term", "Autumn term 2026");
        orla.See("#scheme")
            .SendKeys(
                "In the air\n  First flights   3 classes\n    task  Step one\n    task  Step two\n    task  Step three\n"
                    + "    quiz  Which way is up\n    page  Higher still\n    page  Once more\n"
                    + "    choice  Your own craft\n    page  With a tail\n    page  Without one\n"
            );
        decisions += 2;
        Press("//button[starts-with(normalize-space(), 'Make the course: ')]");
        orla.SeeText("No section yet");

        // Three steps, each after feedback on the one before it.
        orla.See("//button[@data-stop and normalize-space() = 'Step one']").SendKeys("x");
        orla.Type(Keys.Shift + Keys.ArrowDown + Keys.ArrowDown + Keys.Null);
        decisions += 2;
        Press("//aside//button[normalize-space() = 'one after another']");
        orla.SeeText("each opens when the one before it");
        orla.IsAccessible("steps, chosen together");
        Press("//aside//button[normalize-space() = 'Change 3 items' and not(@disabled)]");
        orla.Sure("You set conditions on 2 items", keys);

        // A score opens one thing from 70 per cent up, and another below.
        Press("//button[@data-stop and normalize-space() = 'Which way is up']");
        Press("//button[normalize-space() = 'what its score opens']");
        orla.SeeText("Every score opens exactly one of them.");
        Pick("What opens, 1", "1.05");
        Pick("What opens, 2", "1.06");
        orla.IsAccessible("what a score opens");
        Press("//button[normalize-space() = 'Set what it opens' and not(@disabled)]");
        orla.Until(() => orla.All("//button[normalize-space() = 'Set what it opens']").Count == 0, "the branch is set");
        orla.Type(Keys.Escape);

        // Each option of a choice opens its own.
        Press("//button[@data-stop and normalize-space() = 'Your own craft']");
        Press("//button[normalize-space() = 'what each option opens']");
        string Label(int n) => orla.See($"(//input[starts-with(@aria-label, 'What “')])[{n}]").GetAttribute("aria-label")!;
        orla.Pick(Label(1), "1.08");
        orla.Pick(Label(2), "1.09");
        decisions += 2;
        Press("//button[normalize-space() = 'Set what it opens' and not(@disabled)]");
        orla.Until(() => orla.All("//button[normalize-space() = 'Set what it opens']").Count == 0, "the choice is set");

        orla.Open($"{orla.Path.Split('?')[0].Replace("outline", "conditions", StringComparison.Ordinal)}");
        orla.SeeText("6 conditions in 1 unit");
        decisions.ShouldBeLessThanOrEqualTo(30);
        Console.WriteLine($"Three steps, a branch and a choice by {(keys ? "keys" : "mouse")}: {decisions} decisions.");
        orla.HeardNoComplaint();
    }
}
