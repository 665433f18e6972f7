using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>
/// A team member notes by keys alone what a lesson took, and a colleague sees the section's line move; a class is moved and put back.
/// </summary>
public sealed class PaceWalk(TwoInstances school) : IClassFixture<TwoInstances>
{
    [Fact]
    public void What_was_taught_is_noted_by_keys_and_moves_the_line_on_a_colleagues_screen()
    {
        using var lead = new Person(school.Addresses[0]);
        using var colleague = new Person(school.Addresses[1]);
        foreach (var (person, name) in new[] { (lead, "Orla Tierney-Vance"), (colleague, "Tomas Reeve") })
        {
            person.Open("/sign-in");
            person.ComeIn(name);
            person.Open("/editions/2/pace");
            person.See(".frame svg");
        }
        Standing(lead, "9 Alder").ShouldContain("on plan");
        // To the line by the tab key, along it to the first lesson that is not noted yet.
        lead.Ask<object?>("document.querySelector('.frame').focus(); return null");
        for (
            var n = 0;
            n < 40
                && lead.See(".readout").Text is var read
                && (!read.StartsWith("9 Alder", StringComparison.Ordinal) || read.EndsWith(", taught", StringComparison.Ordinal));
            n++
        )
            lead.Type(Keys.ArrowRight);
        lead.Type(Keys.Enter);
        lead.SeeText("Mark as taught");
        lead.SeeText("Nothing changes for anyone.");
        var took = lead.See(".panel input[aria-label=Took]");
        took.SendKeys(Keys.Control + "a");
        took.SendKeys("3");
        lead.SeeText("in 9 Alder");
        took.SendKeys(Keys.Enter);
        lead.Sure(() => Standing(lead, "9 Alder").Contains("2 classes behind"), "the line has moved", keys: true);
        colleague.Until(() => Standing(colleague, "9 Alder").Contains("2 classes behind"), "the colleague sees it");
        lead.Type(Keys.Control + "z");
        lead.Sure(() => Standing(lead, "9 Alder").Contains("on plan"), "undone", keys: true);
        lead.HeardNoComplaint();
        colleague.HeardNoComplaint();
    }

    [Fact]
    public void A_class_is_moved_with_what_it_does_shown_before_and_put_back_with_one_click()
    {
        using var lead = new Person(school.Addresses[0]);
        lead.Open("/sign-in");
        lead.ComeIn("Orla Tierney-Vance");
        lead.Expected.Add(422);
        lead.Open("/editions/2/sections");
        lead.Press(lead.See("//nav[@aria-label = 'Section']//button[contains(., '9 Dogwood')]"));
        lead.SeeText("30 classes");
        lead.Press(lead.See("//button[normalize-space() = 'cancel']"));
        lead.SeeText("9 Dogwood meets 29 times instead of 30.");
        lead.Press(lead.See("//button[normalize-space() = 'Cancel this class']"));
        lead.Sure("29 classes");
        lead.Press(lead.See("//button[contains(., 'put back: A class')]"));
        lead.Sure(() => lead.All("//button[contains(., 'put back: A class')]").Count == 0, "it is put back");
        lead.SeeText("30 classes");
        lead.HeardNoComplaint();
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void The_lessons_of_a_cancelled_week_move_on_in_one_section_and_no_other(bool keys)
    {
        using var lead = new Person(school.Addresses[0]);
        lead.ComeIn("Orla Tierney-Vance");
        lead.Open("/editions/2/dates?words=fog%20signals");
        var before = Cells(lead);
        // A way that there is not is refused by the server, and said so.
        lead.Expected.Add(422);
        lead.Open("/editions/2/sections?section=4");
        lead.SeeText("30 classes");
        lead.Choose(keys, "//button[normalize-space() = 'cancel']");
        lead.SeeText("Everything moves on");
        lead.Pick("Last class that is lost", "class 13", keys);
        lead.SeeText("9 Dogwood meets 28 times instead of 30.");
        // A spare class there is none of: nothing of this section fits.
        lead.SeeText("There are not enough spare classes");
        lead.IsAccessible("a lost class");
        lead.Choose(keys, "//button[normalize-space() = 'Cancel 2 classes']");
        lead.Sure("28 classes", keys);
        lead.SeeText("cancelled on Thu 8 Oct");
        lead.Open("/editions/2/dates?words=fog%20signals");
        var after = Cells(lead);
        after[..3].ShouldBe(before[..3]);
        after[3].ShouldNotBe(before[3]);
        lead.Choose(keys, "//button[normalize-space() = 'undo']");
        lead.Sure(() => Cells(lead).SequenceEqual(before), "as it was", keys);
        lead.HeardNoComplaint();
    }

    [Fact]
    public void A_lesson_is_taken_by_its_end_and_stretched_with_what_it_moves_shown_while_it_is_dragged_and_by_keys_fixed_to_a_date()
    {
        using var lead = new Person(school.Addresses[0]);
        lead.ComeIn("Orla Tierney-Vance");
        lead.Open("/editions/2/pace");
        lead.See(".frame path.forecast");
        lead.Drag(FirstEnd, 60, () => lead.SeeText("dates move in 9 Alder"));
        lead.SeeText("Change for this section");
        lead.Press(lead.See("//button[normalize-space() = 'Change for this section']"));
        lead.Sure(() => lead.Text().Contains("You changed the length of") || lead.Text().Contains("You fixed the date of"), "it is so");
        lead.Press(lead.See("//button[normalize-space() = 'undo']"));
        lead.Sure(
            () => lead.Text().Contains("You undid: changed the length of") || lead.Text().Contains("You undid: fixed the date of"),
            "undone"
        );
        lead.Reach(element => element.GetAttribute("role") == "application");
        lead.Type(Keys.ArrowRight);
        for (var n = 0; n < 8; n++)
            lead.Type(Keys.ArrowRight);
        lead.Type(Keys.Enter);
        lead.Reach(element => element.Text == "fix its date");
        lead.Type(Keys.Enter);
        lead.Write("Date", "20 Nov");
        lead.SeeText("dates move in 9 Alder");
        lead.Reach(element => element.Text == "Change for this section");
        lead.Type(Keys.Enter);
        lead.Sure("You fixed the date of", keys: true);
        // The other walks go on from where the demo stands.
        lead.Press(lead.See("//button[normalize-space() = 'undo']"));
        lead.Sure("You undid: fixed the date of");
        lead.HeardNoComplaint();
    }

    /// <summary>Where the first lesson to come in the first section ends on the page of Pace, as a script.</summary>
    public const string FirstEnd =
        "(f => document.querySelector('path.forecast').getAttribute('d').match(/[ML][0-9.]+,[0-9.]+/g)[3].slice(1).split(',')"
        + ".map((n, i) => Number(n) + (i ? f.top : f.left) + 0.5))(document.querySelector('.frame').getBoundingClientRect())";

    private static string[] Cells(Person person)
    {
        person.See("[data-cell]");
        return [.. person.All("[data-cell*=' opens ']").Select(cell => cell.Text)];
    }

    private static string Standing(Person person, string section) =>
        person.All(".sections li").Select(row => row.Text).FirstOrDefault(text => text.Contains(section, StringComparison.Ordinal)) ?? "";
}
