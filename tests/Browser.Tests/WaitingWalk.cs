using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>Who waits for whom, and what would help: from Today to Work, in Conditions, Scores and a student's own page.</summary>
public sealed class WaitingWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void From_what_giving_back_opens_to_that_work_and_to_who_has_nothing_open(bool keys)
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/today");
        orla.SeeText("9 Dogwood");
        orla.IsAccessible("who waits, on Today", colours: true);
        orla.Choose(keys, "(//a[starts-with(normalize-space(), 'giving back 2.12 to')])[1]");
        orla.See("//h1[normalize-space() = 'Work']");
        // Of that item only, and what giving it back opens stands above.
        orla.Until(
            () => orla.All("//ul[@aria-label = 'Pieces of work']//button[@aria-current or contains(., '2.12')]").Count > 10,
            "the pieces of 2.12"
        );
        orla.All("//ul[@aria-label = 'Pieces of work']//button[contains(., '2.09') or contains(., '2.17')]").ShouldBeEmpty();
        orla.IsAccessible("what frees most, in Work");
        orla.Choose(keys, "//button[starts-with(normalize-space(), 'nothing open')]");
        orla.SeeText("has something to work on, or has done all there is.");
        // Before the term everybody waits for its first day.
        orla.Open("/editions/2/work?section=1&view=nothing-open&at=2026-08-20T09:00");
        orla.SeeText("Nothing open for");
        orla.SeeText("opens on Mon 31 Aug");
        orla.Choose(keys, "//button[starts-with(normalize-space(), 'and ') and contains(., ' more')]");
        orla.IsAccessible("who has nothing open");
        orla.Choose(keys, "//ul[@aria-label = 'Nothing open']//a[normalize-space() = 'Imke Osei']");
        orla.SeeText("Where its dates come from");
        // Wherever a student and an item stand in one row, one key asks why.
        orla.Open("/editions/2/work?section=1&view=missing");
        orla.See("(//a[starts-with(@aria-label, 'why: ')])[1]");
        orla.Type("y");
        orla.SeeText("Where its dates come from");
        orla.HeardNoComplaint();
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void What_if_changes_nothing_and_says_for_whom_what_would_open(bool keys)
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/conditions");
        orla.Choose(keys, "//button[contains(@class, 'node') and contains(., '2.12')]");
        orla.Choose(keys, "//section[@aria-label = 'What if']//button[normalize-space() = 'it is given back to everyone who waits']");
        orla.SeeText("2.15 opens for");
        orla.SeeText("Nothing has been changed.");
        orla.Choose(keys, "//section[@aria-label = 'What if']//button[normalize-space() = 'it is dropped']");
        orla.SeeText("no longer waits for “2.12 Isobars by hand”");
        orla.Choose(keys, "(//ul[@aria-label = 'What would open and close']//button)[1]");
        orla.IsAccessible("what if");
        // A threshold is moved along the scores that were reached.
        orla.Open("/editions/2/conditions");
        orla.Choose(keys, "//button[contains(@class, 'node') and contains(., '3.12')]");
        orla.Choose(keys, "//section[@aria-label = 'What if']//button[normalize-space() = 'another score is asked for in 3.11']");
        orla.SeeText("Nobody in view has a score in 3.11 yet.");
        orla.HeardNoComplaint();
    }

    [Fact]
    public void Why_from_a_cell_of_scores_and_a_students_own()
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/scores?section=2");
        orla.See("//div[@role = 'table']//a[normalize-space() = 'Davit Lindqvist']");
        orla.Type(Keys.ArrowDown);
        orla.Until(() => orla.Focus().GetAttribute("data-cell") == "1:0", "the first cell");
        orla.Type(Keys.ArrowRight + Keys.ArrowRight + Keys.ArrowDown);
        orla.Until(() => orla.Focus().GetAttribute("data-cell") == "2:2", "two to the right and one down");
        orla.Type("y");
        orla.SeeText("2.12 Isobars by hand");
        orla.SeeText("Where its dates come from");
        orla.IsAccessible("why, beside the scores");
        orla.Type(Keys.Escape);
        orla.SeeNoText("Where its dates come from");
        // By mouse the word stands in the cell that is pointed at.
        orla.Press(orla.See("//span[@data-cell = '3:0']"));
        orla.Press(orla.See("//span[@data-cell = '3:0']//button[starts-with(@aria-label, 'why: 1.19')]"));
        orla.SeeText("Where its dates come from");
        orla.HeardNoComplaint();

        using var davit = new Person(school.Addresses[0]);
        davit.ComeIn("Davit Lindqvist");
        davit.Open("/sections/2");
        davit.Choose(true, "//button[starts-with(normalize-space(), 'why') and contains(., '2.15')]");
        davit.SeeText("2.12 Isobars by hand: you handed it in on");
        davit.SeeText("and your teacher has it.");
        davit.IsAccessible("a student's own why");
        davit.Press(davit.See("//div[@aria-label = 'Why']//a[normalize-space() = '2.12 Isobars by hand']"));
        davit.See("//h1[normalize-space() = 'Isobars by hand']");
        davit.HeardNoComplaint();
    }
}
