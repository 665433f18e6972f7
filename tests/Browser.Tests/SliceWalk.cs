using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>One course through the whole job, as the three people who do it.</summary>
public sealed class SliceWalk(TwoInstances school) : IClassFixture<TwoInstances>
{
    [Fact]
    public void A_step_is_written_dated_conditioned_worked_on_given_back_and_rolled_over()
    {
        using var orla = new Person(school.Addresses[0]);
        using var davit = new Person(school.Addresses[1], "Asia/Tokyo");
        using var ines = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/outline");

        // A new task, with its instructions, its timing and its condition.
        orla.Ask<object?>("arguments[0].focus()", Row(orla, "Compare your charts"));
        orla.Type("n");
        orla.See("//input[@aria-label = 'Title of the new page']").SendKeys("task: Lows of the week" + Keys.Enter);
        // What is typed before the answer is there stays in the field for the next one.
        orla.Type("Typed ahead");
        orla.SeeText("You added the task “Lows of the week”");
        orla.Until(() => orla.Focus().GetAttribute("value") == "Typed ahead", "what was typed ahead");
        orla.Type(Keys.Escape);
        orla.Press(Row(orla, "Lows of the week"));
        orla.Press(Button(orla, "Write its instructions"));
        orla.See("[contenteditable]").SendKeys("Find three lows in this week's charts.");
        orla.Press(Button(orla, "Use this text"));
        orla.SeeText("You wrote the text of “Lows of the week”");
        // Something new opens with its lesson, and students see nothing of it before it is published.
        Button(orla, "at the start of the lesson");
        orla.SeeText("Unpublished: only the team sees it.");
        orla.Press(Button(orla, "No condition."));
        orla.Pick("Item 1", "2.12 Isobars by hand");
        orla.SeeText("Students see nothing of this yet");
        orla.Press(Button(orla, "Set this condition"));
        orla.Until(() => orla.All("//button[normalize-space() = 'Set this condition']").Count == 0, "the condition is set");
        orla.SeeText("Opens when feedback on 2.12 is given back. Students are told.");
        orla.Press(Button(orla, "publish"));
        orla.See("[role=alertdialog] .sentence").Text.ShouldContain("Is listed from now on in all 4 sections, for ");
        orla.IsAccessible("what is asked before it is done");
        orla.Press(Button(orla, "Show names"));
        orla.SeeText("Davit Lindqvist");
        orla.Press(Button(orla, "Publish in 4 sections"));
        orla.SeeText("You published “Lows of the week”");
        orla.IsAccessible("an item that was written");

        // Moved by keys, and back again.
        orla.Type(Keys.Escape);
        orla.Until(() => orla.Focus().Text == "Lows of the week", "the focus is back on the row");
        orla.Type(Keys.Alt + Keys.ArrowUp + Keys.Null);
        orla.SeeText("You moved “Lows of the week”");
        orla.Press(Button(orla, "undo"));
        orla.SeeText("You undid: moved “Lows of the week”");

        // The student reads what would open it, and on a clock elsewhere the same times.
        davit.ComeIn("Davit Lindqvist");
        davit.SeeText("Opens when feedback on 2.12 Isobars by hand is given back.");
        davit.SeeText("Thu 8 Oct, 1");
        davit.SeeText("due Tue 20 Oct, 11:30");
        davit.IsAccessible("now and next");
        ines.Open("/sign-in");
        ines.See("[type=email]").SendKeys("ines.kowal@fenwater.example");
        ines.See("[type=password]").SendKeys("harbour-light" + Keys.Enter);
        ines.SeeText("Opens when feedback on 2.12 Isobars by hand is given back.");

        // One due is changed for one section, and put back.
        orla.Press(orla.See("//nav//a[normalize-space() = 'Dates']"));
        orla.See("//input[@aria-label = 'Part of a code or title']").SendKeys("cloud diary");
        orla.Press(orla.See("//button[@data-cell = '3.03 due 9 Birch']"));
        orla.Write("Date", "19/10");
        orla.SeeText("1 date moves in 9 Birch, for 23 students.");
        orla.Press(Button(orla, "Set this date"));
        orla.SeeText("You changed dates of “Cloud diary” in 9 Birch");
        davit.Open(davit.Path);
        davit.SeeText("due Mon 19 Oct, 11:30");
        orla.Press(orla.See("//button[@data-cell = '3.03 due 9 Birch' and contains(., 'differs')]"));
        orla.Press(orla.See("//button[contains(., 'Put back: Tue 20 Oct, 11:30')]"));
        orla.Sure("You put back “Cloud diary” in 9 Birch");

        // The same for all at once, with its reach before and its undo after.
        orla.Press(orla.See("//button[@data-cell = '3.03 due 9 Alder']"));
        orla.Press(orla.See("//aside//button[normalize-space() = 'all sections']"));
        orla.Write("Date", "Fri 20 Nov");
        orla.SeeText("4 dates move in all 4 sections, for 93 students.");
        orla.Press(Button(orla, "Set 4 dates"));
        orla.SeeText("You changed dates of “Cloud diary” in 9 Alder, 9 Birch, 9 Cedar and 9 Dogwood");
        orla.IsAccessible("dates");
        orla.Press(Button(orla, "undo"));
        orla.Sure("You undid: changed dates of “Cloud diary”");

        // Feedback opens the step for this student; what they write is kept while they write, and handed in.
        orla.Press(orla.See("//nav//a[normalize-space() = 'Work']"));
        orla.Press(orla.See("//p[@aria-label = 'Sections']//button[contains(., '9 Birch')]"));
        orla.Press(orla.See("//li//button[contains(., 'Davit Lindqvist') and contains(., 'Isobars by hand')]"));
        // The form of the piece that was open before may stand there for a moment.
        orla.Until(() => orla.TypedInto("#feedback", "Your low is where it should be."), "the feedback is written");
        orla.SeeText("2.12 goes back to Davit Lindqvist, for whom 2.13a Lows of the week and 2.15 Arrows on the chart open.");
        orla.IsAccessible("work");
        orla.Press(Button(orla, "Give back"));
        orla.Until(() => orla.All("//li//button[contains(., 'Davit Lindqvist') and contains(., 'Isobars by hand')]").Count == 0);
        ines.Open(ines.Path);
        ines.SeeText("Opens when feedback on 2.12 Isobars by hand is given back.");
        davit.Open(davit.Path);
        davit.SeeText("Your low is where it should be.");
        davit.Press(davit.See("//a[contains(., 'Lows of the week')]"));
        davit.SeeText("Find three lows in this week's charts.");
        davit.See("#writing").SendKeys("Monday, Wednesday, Thursday.");
        davit.SeeText("Saved.");
        davit.Open(davit.Path);
        davit.Until(() => davit.See("#writing").GetAttribute("value") == "Monday, Wednesday, Thursday.", "the draft is there again");
        davit.Press(Button(davit, "Hand in"));
        davit.SeeText("with your teacher");
        davit.IsAccessible("an item handed in");
        // On second thoughts it is taken back, written on, and handed in again.
        davit.Press(Button(davit, "take back"));
        davit.Until(() => davit.See("#writing").GetAttribute("value") == "Monday, Wednesday, Thursday.", "it is being written again");
        davit.See("#writing").SendKeys(" Friday too.");
        davit.Press(Button(davit, "Hand in"));
        davit.SeeText("Your teacher has it.");

        // As that student next Thursday at 10:00.
        orla.Press(orla.See(".lens button"));
        orla.See("#lens-name").SendKeys("davit");
        orla.Press(orla.See("//button[normalize-space() = 'Davit Lindqvist']"));
        orla.SeeText("As Davit Lindqvist");
        orla.Press(orla.See("//button[@title = 'Look at another moment']"));
        orla.Write("Date to look at", "15 Oct");
        orla.Write("Time to look at", "10");
        orla.Press(Button(orla, "done"));
        orla.SeeText("Thu 15 Oct, 10:00 – in 7 days");
        // What opens on Tuesday can be opened then.
        orla.See("//a[contains(., 'How logs are marked')]");
        orla.IsAccessible("through a student's eyes");
        orla.Press(Button(orla, "back to now"));
        orla.SeeText("· now");

        // The demo's clock is moved to then, for everybody, and back.
        orla.Press(orla.See(".you .who"));
        orla.Press(Button(orla, "A week later"));
        orla.SeeText("Thu 15 Oct, 1");
        orla.IsAccessible("the demo's clock");
        ines.Open(ines.Path);
        ines.SeeText("Thu 15 Oct, 1");
        orla.Press(Button(orla, "Back to Thu 8 Oct, 10:15"));
        orla.SeeText("Thu 8 Oct, 10:1");
        orla.Type(Keys.Escape);
        ines.Open(ines.Path);
        ines.SeeText("Thu 8 Oct, 10:1");

        // Rolled over, looked at, undone.
        orla.Press(orla.See("//nav//a[normalize-space() = 'Editions']"));
        orla.See("//input[@aria-label = 'Name of section 1']").SendKeys("9 Elm");
        orla.SeeText("Carries 6 units, 38 lessons and 111 items, and no student work. edition 2026 goes on as it is.");
        orla.IsAccessible("editions");
        orla.Press(Button(orla, "Roll over"));
        orla.Until(() => orla.Path.EndsWith("/dates", StringComparison.Ordinal), "the dates of the new edition");
        orla.SeeText("Mon 11 Jan, 08:40");
        orla.SeeText("9 Elm");
        orla.Press(orla.See("//nav//a[normalize-space() = 'Editions']"));
        orla.Press(Button(orla, "undo the roll-over"));
        orla.Press(Button(orla, "Undo it and remove that edition"));
        orla.SeeText("Roll over into the next edition");
        orla.SeeNoText("edition 2027\ncoming");
        orla.HeardNoComplaint();
        davit.HeardNoComplaint();
        ines.HeardNoComplaint();
    }

    [Fact]
    public void Two_who_change_one_timing_and_one_date_are_told_and_shown_both_and_lose_nothing()
    {
        using var orla = new Person(school.Addresses[0]);
        using var tomas = new Person(school.Addresses[1]);
        foreach (var person in new[] { orla, tomas })
        {
            person.Expected.Add(409);
            person.ComeIn(person == orla ? "Orla Tierney-Vance" : "Tomas Reeve");
            person.Open("/editions/2/outline");
            person.Press(Row(person, "Label the ramp"));
            person.SeeText("move down");
            person.Press(Button(person, "at the start of the 2nd class after the lesson"));
        }
        Fill(orla, "//input[@aria-label = 'How many']", "3");
        orla.Press(Button(orla, "Save"));
        orla.Sure("due at the start of the 3rd class after the lesson");
        tomas.SeeText("due at the start of the 3rd class after the lesson");
        Fill(tomas, "//input[@aria-label = 'How many']", "4");
        tomas.Press(Button(tomas, "Save"));
        tomas.SeeText("Orla Tierney-Vance changed this in the meantime.");
        tomas.SeeText("Now it says: at the start of the 3rd class after the lesson.");
        tomas.See("//input[@aria-label = 'How many']").GetAttribute("value").ShouldBe("4");
        tomas.Press(Button(tomas, "Use mine instead"));
        tomas.Sure("due at the start of the 4th class after the lesson");
        orla.SeeText("due at the start of the 4th class after the lesson");

        foreach (var person in new[] { orla, tomas })
        {
            person.Press(person.See("//nav//a[normalize-space() = 'Dates']"));
            person.See("//input[@aria-label = 'Part of a code or title']").SendKeys("label the");
            person.Press(person.See("//button[@data-cell = '4.06 due 9 Dogwood']"));
            person.Write("Date", person == orla ? "16 Nov" : "17 Nov");
        }
        orla.Press(Button(orla, "Set this date"));
        orla.Sure("You changed dates of “Label the ramp” in 9 Dogwood");
        tomas.SeeText("Mon 16 Nov");
        tomas.Press(Button(tomas, "Set this date"));
        tomas.SeeText("Orla Tierney-Vance changed this in the meantime.");
        tomas.See("//aside//input[@aria-label = 'Date']").GetAttribute("value").ShouldBe("Tue 17 Nov");
        tomas.Press(Button(tomas, "Use mine instead"));
        tomas.Sure("Tue 17 Nov");
        orla.SeeText("Tue 17 Nov");
        orla.HeardNoComplaint();
        tomas.HeardNoComplaint();
    }

    private static IWebElement Row(Person person, string title) => person.See($"//button[@data-stop and normalize-space() = '{title}']");

    private static IWebElement Button(Person person, string words) => person.See($"//button[normalize-space() = '{words}']");

    private static void Fill(Person person, string input, string value) =>
        person.Ask<object?>(
            "const e = arguments[0]; Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(e, arguments[1]); "
                + "e.dispatchEvent(new Event('input', { bubbles: true })); e.dispatchEvent(new Event('change', { bubbles: true }))",
            person.See(input),
            value
        );
}
