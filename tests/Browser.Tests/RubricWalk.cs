using System.Text.RegularExpressions;
using OpenQA.Selenium;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>A rubric is pasted, read by a student, marked with, and changed after that.</summary>
public sealed class RubricWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    private const string Table = "Criterion\tNo (0)\tMost (1–2)\tAll (3)\nLines closed\tNone.\tSome.\tEvery one.\nLabelled\t\t\t\n";

    [Fact]
    public void From_a_table_to_a_mark_that_keeps_it()
    {
        using var orla = new Person(school.Addresses[0]);
        using var davit = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/outline");
        orla.Press(orla.See("//*[contains(@class, 'title') and normalize-space() = 'Isobars by hand']"));
        orla.Press(orla.See("//section[@aria-label = 'Rubric']//button[normalize-space() = 'make one']"));
        orla.IsAccessible("making a rubric");
        orla.Press(orla.See("//button[normalize-space() = 'paste a table']"));
        Paste(Table.Replace("(3)", "", StringComparison.Ordinal));
        orla.SeeText("Row 2, “All”: How many points is this?");
        Paste(Table);
        orla.SeeText("2 criteria with up to 3 levels.");
        orla.IsAccessible("a table that is understood");
        orla.Press(orla.See("//button[normalize-space() = 'Use this table' and not(@disabled)]"));
        orla.SeeText("6 points in all");
        orla.Press(orla.See("//button[normalize-space() = 'Save the rubric' and not(@disabled)]"));
        orla.Sure("It is marked by the rubric “Isobars by hand”: 2 criteria, 6 points.");

        // A copy of it is kept, and taken off the shelf and put back where one looks for a rubric.
        orla.Press(orla.See("//button[normalize-space() = 'keep a copy on your shelf']"));
        orla.SeeText("“Isobars by hand” is on your shelf.");
        orla.Press(orla.See("//section[@aria-label = 'Rubric']//button[normalize-space() = 'change it']"));
        orla.Press(orla.See("//button[normalize-space() = 'take one from your shelf or courses']"));
        orla.SeeText("on your shelf since");
        orla.IsAccessible("rubrics on the shelf and of one’s courses");
        orla.Press(orla.See("//button[@aria-label = 'take it off: A forecast from a chart']"));
        orla.SeeText("“A forecast from a chart” is off your shelf.");
        orla.Press(orla.See("//button[normalize-space() = 'put it back']"));
        orla.See("//button[@aria-label = 'take it off: A forecast from a chart']");
        orla.Press(orla.See("//button[normalize-space() = 'Leave it as it is']"));

        // Students say first what they think of their own piece.
        orla.Press(orla.See("//button[normalize-space() = 'change what is handed in']"));
        orla.Press(orla.See("//label[normalize-space() = 'students judge their own piece against the rubric first']"));
        orla.Press(orla.See("//button[@type = 'submit' and not(@disabled) and starts-with(normalize-space(), 'Set ')]"));
        orla.Sure("their own judgement of it");
        orla.SeeText("They judge their own piece against the rubric first.");

        davit.ComeIn("Davit Lindqvist");
        davit.Open($"/sections/2/items/{Regex.Match(orla.Path, @"item-(\d+)").Groups[1].Value}");
        davit.SeeText("How it is marked");
        davit.SeeText("Every one.");
        davit.SeeNoText("Nothing is written here yet.");
        davit.Press(davit.See("//button[normalize-space() = 'hand in again']"));
        davit.See("textarea").SendKeys("Drawn once more.");
        davit.SeeText("Saved.");
        davit.Press(davit.See("//button[normalize-space() = 'Hand in']"));
        davit.SeeText("Your own judgement of it is missing.");
        davit.Press(davit.See("//button[normalize-space() = 'Not yet']"));
        davit.Press(davit.See("//section[@aria-labelledby = 'judging']//button[normalize-space() = 'Most (1–2)']"));
        davit.See("input[aria-label = 'Points for Lines closed']").SendKeys("2");
        davit.Press(davit.See("(//section[@aria-labelledby = 'judging']//button[normalize-space() = 'All (3)'])[2]"));
        davit.SeeText("5 of 6");
        davit.IsAccessible("a piece that is judged by whoever made it");
        davit.SeeText("Saved.");
        davit.Press(davit.See("//button[normalize-space() = 'Hand in']"));
        davit.SeeText("Your own judgement:");

        orla.Open("/editions/2/work?section=2");
        orla.Press(orla.See("//button[.//span[normalize-space() = 'Davit Lindqvist']]"));
        orla.See("//article//h2[normalize-space() = 'Davit Lindqvist']");
        orla.See("//button[contains(., 'Most (1–2)') and contains(., 'their own')]");
        orla.Press(orla.See("//button[normalize-space() = '3 All (3)']"));
        orla.SeeText("3 of 6");
        orla.Type("2");
        orla.See("input[aria-label = 'Points for Labelled']").SendKeys("1,5" + Keys.Enter);
        orla.SeeText("4.5 of 6");
        orla.IsAccessible("marking by a rubric");
        orla.SeeText("goes back to Davit Lindqvist with 7.5 of 10 (4.5 of 6 by the rubric)");
        orla.Type(Keys.Enter);
        orla.SeeNoText("goes back to Davit Lindqvist with 7.5 of 10");

        davit.Open(davit.Path);
        davit.SeeText("7.5 of 10 (4.5 of 6 by the rubric)");
        davit.See("//blockquote//dd[contains(@class, 'given') and contains(., 'All (3)')]");
        davit.See("//blockquote//dd[contains(., 'Most (1–2)') and contains(., 'you said')]");
        davit.IsAccessible("what came back by a rubric");

        // Put right: what was given stands there, and the later one counts.
        orla.Press(orla.See("//label[normalize-space() = 'show what was given back']"));
        orla.Press(orla.See("//li[.//span[normalize-space() = 'given back']]//button[.//span[normalize-space() = 'Davit Lindqvist']]"));
        orla.Press(orla.See("//blockquote//button[normalize-space() = 'put it right']"));
        orla.SeeText("4.5 of 6");
        orla.Press(orla.See("//li[contains(., 'Labelled')]//button[contains(., 'All (3)')]"));
        orla.SeeText("6 of 6");
        orla.IsAccessible("a mark that is put right");
        orla.Press(orla.See("//button[normalize-space() = 'Give it back again']"));
        orla.SeeNoText("Give it back again");
        davit.Open(davit.Path);
        davit.SeeText("10 of 10 (6 of 6 by the rubric)");
        foreach (var person in new[] { orla, davit })
            person.HeardNoComplaint();

        void Paste(string table)
        {
            var field = orla.See("textarea[aria-label = 'Table from a spreadsheet']");
            orla.Ask<bool>(
                "const f = arguments[0]; f.value = arguments[1]; f.dispatchEvent(new Event('input', { bubbles: true })); return true",
                field,
                table
            );
        }
    }
}
