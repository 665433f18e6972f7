using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>Pieces are read one after another, and go back together, to students who saw nothing of it before.</summary>
public sealed class ReadyWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    [Fact]
    public void Read_one_by_one_and_given_back_together()
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/work");
        orla.Press(orla.See("//p[@aria-label = 'Sections']//button[contains(., '9 Birch')]"));
        orla.Press(orla.See("//li//button[contains(., 'Davit Lindqvist')][contains(., 'Isobars by hand')]"));
        orla.See("//h2[contains(., 'Davit Lindqvist')]");
        orla.Until(() => orla.TypedInto("#feedback", "Say which line you mean."), "the feedback");
        orla.Press(orla.See("//button[normalize-space() = 'Ready, give back later']"));
        // The next one comes up by itself.
        orla.Until(() => orla.All("//h2[contains(., 'Davit Lindqvist')]").Count == 0, "the next piece");
        var next = orla.See("article h2").Text;
        orla.Until(() => orla.TypedInto("#feedback", "Good."), "the feedback");
        orla.Press(orla.See("//button[normalize-space() = 'Ready, give back later']"));
        orla.SeeText("2 ready: give back together");

        using var davit = new Person(school.Addresses[0]);
        davit.ComeIn("Davit Lindqvist");
        davit.SeeText("Isobars by hand");

        // What is ready can still be changed.
        orla.Press(orla.See("//li//button[contains(., 'Davit Lindqvist')][contains(., 'ready')]"));
        orla.SeeText("The student sees none of it yet.");
        orla.IsAccessible("a piece that is ready");
        orla.Press(orla.See("//button[normalize-space() = 'change it, or give it back now']"));
        orla.Until(() => orla.See("#feedback").GetAttribute("value") == "Say which line you mean.", "what was written");
        orla.Press(orla.See("//button[normalize-space() = 'Leave it as it is']"));

        orla.Press(orla.See("//button[normalize-space() = '2 ready: give back together']"));
        orla.SeeText("2 pieces go back.");
        orla.SeeText("2.15 Arrows on the chart opens for");
        orla.IsAccessible("what is ready to go back");
        // One stays, and the sentence follows.
        orla.Press(orla.See($"//label[starts-with(normalize-space(), '{next}')]"));
        orla.SeeText("2.15 Arrows on the chart opens for Davit Lindqvist.");
        orla.Press(orla.See("//button[normalize-space() = 'Give back 1 piece']"));
        orla.SeeText("1 ready: give back together");
        orla.HeardNoComplaint();

        davit.Press(davit.See("//a[contains(., 'Isobars by hand')]"));
        davit.SeeText("Say which line you mean.");
        davit.HeardNoComplaint();
    }
}
