using OpenQA.Selenium;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>A teacher asks why a student cannot see something, and opens it from there: by mouse and by keys.</summary>
public sealed class WhyWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void From_why_to_open(bool keys)
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/sections?section=2&shows=students");
        orla.Choose(keys, "//th//a[normalize-space() = 'Davit Lindqvist']");
        const string why = "//button[@aria-label = 'why: 2.15 Arrows on the chart']";
        if (keys)
        {
            // The key asks about the row that the focus is in.
            orla.Reach(element => element.GetAttribute("aria-label") == "why: 2.15 Arrows on the chart");
            orla.Type("y");
        }
        else
            orla.Press(orla.See(why));
        orla.SeeText("The item opens only when feedback on 2.12 Isobars by hand is given back.");
        orla.SeeText("give back 2.12 Isobars by hand to go on");
        orla.SeeText("Where its dates come from");
        orla.IsAccessible("why");
        // What is done about it is done from there, and undone like anything else.
        orla.Choose(keys, "//button[@aria-label = 'do it: open it for Davit Lindqvist alone']");
        orla.IsAccessible("a mend from there");
        orla.Choose(keys, "//aside//button[normalize-space() = 'Open' and not(@disabled)]");
        orla.Sure("Somebody opened it for this student, whatever the condition says.", keys);
        orla.SeeText("open to Davit Lindqvist since");
        orla.SeeNoText("To open it");
        if (keys)
            orla.Type(Keys.Control + "z");
        else
            orla.Press(orla.See("//button[normalize-space() = 'undo']"));
        orla.Sure("give back 2.12 Isobars by hand to go on", keys);
        // It stands in the address, so that a colleague can be sent there; from a list it is one press away.
        orla.Type(Keys.Escape);
        orla.Open("/editions/2/work?section=2&view=missing");
        orla.Press(orla.See("(//a[starts-with(@aria-label, 'why: ')])[1]"));
        orla.SeeText("Where its dates come from");
        orla.HeardNoComplaint();
    }
}
