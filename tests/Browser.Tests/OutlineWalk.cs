using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>The outline in the hand: rows written where they belong, moved with the mouse, and anything found from anywhere.</summary>
public sealed class OutlineWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    [Fact]
    public void Rows_are_added_in_the_order_in_which_they_are_written_dragged_and_found()
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/outline");
        string[] Titles() => [.. orla.All("[data-stop]").Select(row => row.GetAttribute("title")!)];
        int At(string title) => Array.IndexOf(Titles(), title);
        orla.See("//button[@data-stop and normalize-space() = 'A slow ramp']").SendKeys("n");
        foreach (var title in new[] { "First written", "Second written" })
        {
            orla.Until(() => orla.Focus().GetAttribute("aria-label") == "Title of the new page", "a title can be written");
            orla.Type(title + Keys.Enter);
            orla.Until(() => At(title) > 0, title);
        }
        (At("First written"), At("Second written")).ShouldBe((At("A slow ramp") + 1, At("A slow ramp") + 2));
        orla.Type(Keys.Escape);
        // A row that stands open above does not put what is dragged elsewhere.
        orla.Press(orla.See("//button[@data-stop and normalize-space() = 'A slow ramp']"));
        orla.SeeText("move down");
        // In the middle of the list: near its edge it would begin to scroll.
        var target = orla.See("//button[@data-stop and normalize-space() = 'Second written']");
        orla.Ask<object?>("arguments[0].scrollIntoView({ block: 'center' })", target);
        orla.DragOnto(orla.See("//button[@data-stop and normalize-space() = 'First written']"), target);
        orla.Sure("You moved “First written”");
        orla.Until(() => At("First written") > At("Second written"), "it stands further down");
        Titles()[At("A slow ramp")..][..4].ShouldBe(["A slow ramp", "Second written", "First written", "Cross-section, a copy each"]);

        // What is found is gone to, and done, from wherever one is.
        orla.Open("/editions/2/sections?section=2");
        orla.SeeText("36 classes");
        orla.Ask<object?>("document.activeElement.blur()");
        orla.Type("/");
        orla.See("//input[@aria-label = 'Find']").SendKeys("timetable" + Keys.Enter);
        orla.SeeText("Save the timetable");
        orla.Press(orla.See("//button[normalize-space() = 'every time in detail']"));
        orla.Write("From, time 1", "whenever");
        orla.SeeText("Write a date such as");
        orla.Path.ShouldContain("section=2");
        orla.HeardNoComplaint();
    }

    [Fact]
    public void A_lesson_is_chosen_whole_and_goes_to_another_unit_with_what_is_in_it()
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/outline");
        string[] Titles() => [.. orla.All("[data-stop]").Select(row => row.GetAttribute("title")!)];
        var warnings = orla.See("//button[@data-stop and normalize-space() = 'Warnings']");
        var before = Titles();
        var lesson = before[Array.IndexOf(before, "Warnings")..][..4];
        warnings.SendKeys("x");
        orla.SeeText("1 lesson and 3 items chosen");
        orla.Press(orla.See("//aside//button[normalize-space() = 'move']"));
        orla.Pick("Move to", "Fronts");
        orla.Press(orla.See("//aside//button[contains(., 'Change 1 lesson')]"));
        orla.Sure("You moved 1 lesson");
        orla.Until(() => Array.IndexOf(Titles(), "Warnings") < Array.IndexOf(Titles(), "A forecast of our own"), "it stands in Fronts");
        var after = Titles();
        after[Array.IndexOf(after, "Warnings")..][..4].ShouldBe(lesson);
        orla.Press(orla.See("//button[normalize-space() = 'undo']"));
        orla.Sure("You undid");
        orla.Until(() => Titles().SequenceEqual(before), "all is as it was");
        orla.HeardNoComplaint();
    }
}
