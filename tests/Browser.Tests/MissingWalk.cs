using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>A teacher looks who has not handed in, reminds them, and gives the others more time.</summary>
public sealed class MissingWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    [Fact]
    public void From_who_has_not_to_what_is_done_about_it()
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/work?section=1");
        orla.Press(orla.See("//button[normalize-space() = 'not handed in']"));
        orla.Press(orla.See("//ul[@aria-label = 'Not handed in, by item']//button[contains(., 'Cloud diary')]"));
        orla.SeeText("in 9 Alder have not handed it in.");
        orla.IsAccessible("who has not handed in");
        // Those who are late are chosen to begin with.
        orla.See("//button[normalize-space() = 'Remind 5 students']");
        orla.Press(orla.See("(//section[contains(@aria-label, 'Cloud diary')]//li//label)[1]"));
        orla.SeeText("A letter about 3.03 goes to");
        orla.Press(orla.See("//button[normalize-space() = 'Remind 4 students']"));
        orla.SeeText("reminded today");
        orla.Press(orla.See("//button[normalize-space() = 'More time, excused …']"));
        orla.SeeText("4 dates move for 4 students.");
        orla.IsAccessible("more time for several at once");
        orla.Press(orla.See("//button[normalize-space() = 'Give more time']"));
        orla.Sure(
            () =>
                orla.Ask<bool>(
                    "return [...document.querySelectorAll('ul button')].map(row => row.innerText)"
                        + ".some(text => /Cloud diary/.test(text) && /1 overdue/.test(text))"
                ),
            "one of them late still"
        );
        orla.HeardNoComplaint();
    }
}
