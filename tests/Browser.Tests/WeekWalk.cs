using System.Globalization;
using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>
/// A team's Sunday evening, a step dropped in one section, a look through a student's eyes: each by mouse, and again by keys alone.
/// </summary>
public sealed class WeekWalk(TwoInstances school) : IClassFixture<TwoInstances>
{
    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void The_weeks_items_of_four_sections_are_set_to_open_at_their_lessons_and_nothing_shows_before(bool keys)
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/dates?unit=4&kind=page");
        orla.SeeText("Overview: fronts");
        string Opening() => orla.See("//button[contains(@data-cell, '4.01 opens 9 Alder')]").Text;
        var atStart = Opening();
        // All their openings, in all four sections.
        var rows = orla.All(".line[role=row]").Count;
        if (keys)
        {
            orla.Reach(element => element.GetAttribute("data-cell") is not null);
            for (var n = 1; n < rows; n++)
                orla.Type(Keys.Shift + Keys.ArrowDown);
            orla.Type(Keys.Shift + Keys.End);
            orla.Until(() => orla.All(".date.in").Count == 4 * rows, "all of them");
            orla.Type(Keys.Enter);
        }
        else
        {
            orla.Press(orla.See("//button[contains(@data-cell, ' opens 9 Alder')]"));
            orla.PressWithShift(orla.All("//button[contains(@data-cell, ' opens 9 Dogwood')]")[^1]);
        }
        orla.SeeText($"{rows} items from 4.01");
        orla.Pick("opens", "at the end of the lesson", keys);
        orla.SeeText(" dates move in all 4 sections");
        Choose(orla, keys, $"Set {4 * rows} dates");
        orla.SeeText($"You changed dates of {rows} items in 9 Alder, 9 Birch, 9 Cedar and 9 Dogwood");
        // The week ahead says what will open, to the minute; until then a student sees that it comes, and no more.
        orla.Until(() => Opening() != atStart, "the table is read anew");
        var opens = Opening().Split('\n').First(line => line.Contains(':', StringComparison.Ordinal)).Trim();
        var day = DateTime.ParseExact($"{opens} 2026", "ddd d MMM, HH:mm yyyy", CultureInfo.InvariantCulture);
        orla.Open($"/editions/2/today?at={day.AddDays(-3):yyyy-MM-dd}T20:00");
        orla.SeeText("Overview: fronts");
        orla.Text().ShouldContain($"{opens}\n4.01 Overview: fronts opens in 3 days");
        orla.Open($"/editions/2/seen/1?at={day.AddMinutes(-1):yyyy-MM-ddTHH:mm}&as=pretend:1");
        orla.SeeText("Overview: fronts");
        List(orla, "Next").ShouldContain($"opens {opens}");
        List(orla, "Now").ShouldNotContain("Overview: fronts");
        orla.Open($"/editions/2/seen/1?at={day:yyyy-MM-ddTHH:mm}&as=pretend:1");
        orla.Until(() => List(orla, "Now").Contains("Overview: fronts", StringComparison.Ordinal), "it is open");
        orla.Open("/editions/2/dates?unit=4&kind=page");
        Choose(orla, keys, "undo");
        orla.Sure("You undid", keys);
        orla.HeardNoComplaint();
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void A_step_dropped_in_one_section_is_to_check_in_that_one_and_nobody_is_stuck(bool keys)
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/dates?words=cloud%20diary");
        orla.SeeText("Cloud diary");
        if (keys)
        {
            orla.Reach(element => element.GetAttribute("data-cell") is not null);
            orla.Type(Keys.ArrowRight);
            orla.Type(Keys.ArrowRight);
            orla.Type(Keys.Enter);
        }
        else
            orla.Press(orla.See("//button[contains(@data-cell, ' opens 9 Cedar')]"));
        Choose(orla, keys, "drop here");
        orla.Sure("You dropped “Cloud diary” in 9 Cedar", keys);
        orla.Open("/editions/2/today");
        orla.SeeText("no longer waits for");
        orla.All("//section[contains(@class, 'section')][.//li[contains(., 'no longer waits for')]]//h2")
            .Select(head => head.Text.Trim())
            .ShouldHaveSingleItem()
            .ShouldContain("9 Cedar");
        orla.Text().ShouldNotContain("nobody can meet");
        // It says where it is mended, and leads there.
        orla.Choose(keys, "//a[normalize-space() = 'change its condition']");
        orla.Until(
            () =>
                orla.All(".item.opened")
                    .Select(row => row.Text)
                    .SingleOrDefault()
                    ?.Contains("A cloud in a bottle", StringComparison.Ordinal) == true,
            "the row is open"
        );
        // Whoever had not come so far comes on in 9 Cedar; in 9 Alder it is waited for as before.
        foreach (var (section, list) in new[] { (3, "Now"), (1, "Waiting") })
        {
            orla.Open($"/editions/2/seen/{section}?at=2026-12-17T20:00&as=pretend:{section}");
            orla.Until(() => List(orla, list).Contains("A cloud in a bottle", StringComparison.Ordinal), $"{list} in section {section}");
        }
        orla.Open("/editions/2/dates?words=cloud%20diary");
        Choose(orla, keys, "undo");
        orla.Sure("You undid", keys);
        orla.HeardNoComplaint();
    }

    [Fact]
    public void Links_from_today_lead_to_the_very_section_week_item_and_piece_they_speak_of()
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        string In(string section, string rest) => $"//section[.//h2[contains(., '{section}')]]{rest}";
        orla.Open("/editions/2/today");
        orla.Press(orla.See(In("9 Cedar", "//a[normalize-space() = 'all of this week']")));
        orla.Until(
            () => orla.All("input[aria-label = 'Section']").SingleOrDefault()?.GetAttribute("value") == "in 9 Cedar",
            "the section is chosen"
        );
        var shown = orla.All("[data-cell]")
            .Select(cell => cell.GetAttribute("data-cell"))
            .Where(cell => cell!.EndsWith("due 9 Cedar", StringComparison.Ordinal))
            .ToList();
        shown.Count.ShouldBeInRange(1, 20);
        orla.Open("/editions/2/today");
        var date = orla.See(In("9 Birch", "//li[contains(@class, 'date')]//a"));
        var code = date.Text.Split(' ')[0];
        orla.Press(date);
        orla.Until(
            () =>
                orla.All("aside.panel").Count == 1
                && orla.Text().Contains($"{code} ", StringComparison.Ordinal)
                && orla.Path.Contains("section=2", StringComparison.Ordinal),
            "its cell is open"
        );
        orla.Open("/editions/2/today");
        orla.Press(orla.See(In("9 Dogwood", "//a[contains(., 'to read')]")));
        orla.Until(
            () => orla.All("button[aria-pressed = 'true']").Any(button => button.Text.Contains("9 Dogwood", StringComparison.Ordinal)),
            "the section's work"
        );
        orla.Open("/editions/2/today");
        var frees = orla.See("//a[starts-with(normalize-space(), 'giving back ')]");
        var (piece, many) = (
            frees.Text.Split(' ')[2],
            int.Parse(frees.Text.Split(' ')[4], System.Globalization.CultureInfo.InvariantCulture)
        );
        orla.Press(frees);
        // Of that item alone, and as many of it free something.
        orla.Until(
            () =>
                orla.All("[aria-current = 'true']").SingleOrDefault()?.Text.Contains(piece, StringComparison.Ordinal) == true
                && orla.All("//ul[@aria-label = 'Pieces of work']/li[contains(., 'frees ')]").Count == many,
            $"{many} pieces of {piece}"
        );
        orla.HeardNoComplaint();
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void Next_Thursday_at_ten_through_a_students_eyes_and_the_view_is_sent_to_a_colleague(bool keys)
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/today?at=2026-10-15T10:00");
        orla.SeeText("Thu 15 Oct, 10:00 – in 7 days");
        Choose(orla, keys, "the team");
        var name = orla.See("#lens-name");
        if (keys)
            orla.Reach(element => element.Equals(name));
        name.SendKeys("Davit");
        Choose(orla, keys, "Davit Lindqvist");
        orla.SeeText("As Davit Lindqvist");
        orla.SeeText("Thu 15 Oct, 10:00");
        var seen = orla.See(".sheet-of-work").Text;
        seen.ShouldContain("Opens when feedback on");
        // The address is the view: a colleague who teaches him sees the same, whoever does not sees nothing.
        using var tomas = new Person(school.Addresses[1]);
        tomas.Expected.Add(404);
        tomas.ComeIn("Tomas Reeve");
        tomas.Open(orla.Path);
        tomas.SeeText("There is nothing here.");
        using var again = new Person(school.Addresses[1]);
        again.ComeIn("Orla Tierney-Vance");
        again.Open(orla.Path);
        again.SeeText("As Davit Lindqvist");
        again.See(".sheet-of-work").Text.ShouldBe(seen);
        again.IsAccessible("through a student's eyes next week");
        orla.Reach(element => element.Text == "back to now");
        orla.Type(Keys.Enter);
        orla.SeeText("· now");
        orla.HeardNoComplaint();
    }

    private static string List(Person person, string title) =>
        person.All($"//section[@aria-label = '{title}']") is [var list, ..] ? list.Text : "";

    private static void Choose(Person person, bool keys, string words) =>
        person.Choose(keys, $"//button[normalize-space() = '{words}' and not(@disabled)]");
}
