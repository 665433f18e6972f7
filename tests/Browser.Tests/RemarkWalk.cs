using OpenQA.Selenium;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>A piece is remarked on by keys and with the mouse; its student reads each remark beside the words it is about.</summary>
public sealed class RemarkWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    [Fact]
    public void Beside_the_words_it_is_about()
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Press(orla.See("//nav//a[normalize-space() = 'Work']"));
        orla.Press(orla.See("//p[@aria-label = 'Sections']//button[contains(., '9 Birch')]"));
        orla.Press(orla.See("//li//button[contains(., 'Davit Lindqvist')][contains(., 'Isobars by hand')]"));
        orla.See("//h2[contains(., 'Davit Lindqvist')]");
        orla.SeeText("To write a remark, select some words");

        // By keys: the first sentence, then the second one instead.
        orla.Type("r");
        var first = Quote(orla);
        orla.Type(Keys.Alt + Keys.ArrowDown + Keys.Null);
        orla.Until(() => Quote(orla) != first, "the next sentence");
        var second = Quote(orla);
        orla.Type("Which one, and why?" + Keys.Enter);
        // Leaving the piece and coming back loses nothing.
        orla.Open(orla.Path);
        orla.Until(() => Written(orla).SequenceEqual(["Which one, and why?"]), "what was written");

        // With the mouse: some words of the first sentence.
        orla.Ask<bool>(
            "const text = document.querySelector('article [data-text] span').firstChild, range = document.createRange(); "
                + "range.setStart(text, 2); range.setEnd(text, 8); "
                + "const chosen = getSelection(); chosen.removeAllRanges(); chosen.addRange(range); return true"
        );
        orla.Press(orla.See("//button[normalize-space() = 'remark on this']"));
        // What was said in other pieces is offered while one types.
        orla.Type("keep time");
        orla.See("//li[@role = 'option'][contains(., 'Keep writing the time first')]");
        orla.IsAccessible("a piece with remarks");
        orla.Type(Keys.ArrowDown + Keys.Enter);
        orla.Until(() => Written(orla).Contains("Clear and complete. Keep writing the time first."), "what was taken");
        orla.Type(Keys.Enter);
        Apart(orla);
        orla.Press(orla.See("//button[normalize-space() = 'Give back']"));
        orla.Until(() => orla.All("//h2[contains(., 'Davit Lindqvist')]").Count == 0, "the next piece");
        orla.HeardNoComplaint();

        using var davit = new Person(school.Addresses[0]);
        davit.ComeIn("Davit Lindqvist");
        davit.Press(davit.See("//a[contains(., 'Isobars by hand')]"));
        davit.SeeText("Which one, and why?");
        davit.Ask<string>("return document.querySelector('[data-remark=\"1\"]').textContent").ShouldStartWith(second);
        davit.IsAccessible("remarks on what was handed in");
        Apart(davit);
        // On a telephone they stand below the text, after the words they are about.
        davit.Resize(390, 800);
        davit.See("//p[contains(@class, 'quote')][contains(., '“')]");
        davit.HeardNoComplaint();
    }

    [Fact]
    public void On_a_part_of_a_picture()
    {
        using var davit = new Person(school.Addresses[0]);
        davit.ComeIn("Davit Lindqvist");
        davit.Press(davit.See("//a[contains(., 'Cloud diary')]"));
        davit.See("#writing").SendKeys("Thursday: high and thin.");
        davit.All("input[type=file]").Single().SendKeys(Path.Combine(TestServer.Root, "docs/screenshots/now.png"));
        davit.See("//button[@aria-label = 'Remove now.png']");
        davit.SeeText("Saved.");
        davit.Press(davit.See("//button[normalize-space() = 'Hand in']"));
        davit.SeeText("with your teacher");

        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/work");
        orla.Press(orla.See("//p[@aria-label = 'Sections']//button[contains(., '9 Birch')]"));
        orla.Press(orla.See("//li//button[contains(., 'Davit Lindqvist')][contains(., 'Cloud diary')]"));
        orla.See("//article//img[@alt = 'now.png']");
        const string Middle =
            "(r => [r.left + r.width / 2, r.top + r.height / 3])(document.querySelector('.layer').getBoundingClientRect())";
        orla.Drag(Middle, 60, () => orla.See(".box.current"));
        orla.Until(() => orla.Focus().GetAttribute("aria-label") == "Remark on now.png", "the field of the remark");
        orla.Type("Heap, not sheet." + Keys.Enter);
        orla.Press(orla.See("//button[normalize-space() = 'mark without the rubric']"));
        orla.Press(orla.See("//button[normalize-space() = 'Give back']"));
        orla.Until(() => orla.All("//h2[contains(., 'Davit Lindqvist')]").Count == 0, "the next piece");
        orla.HeardNoComplaint();

        davit.Open(davit.Path);
        davit.SeeText("Heap, not sheet.");
        davit.See(".box[data-remark='0']");
        davit.IsAccessible("a remark on a picture");
        davit.HeardNoComplaint();
    }

    [Fact]
    public void Two_teachers_do_not_read_one_piece()
    {
        using var tomas = new Person(school.Addresses[0]);
        tomas.ComeIn("Tomas Reeve");
        tomas.Open("/editions/2/work");
        tomas.See("//p[@aria-label = 'Sections']//button[@aria-pressed = 'true' and contains(., '9 Dogwood')]");
        tomas.See("#feedback").SendKeys("Which dash do you mean?");
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/work");
        orla.Press(orla.See("//p[@aria-label = 'Sections']//button[contains(., '9 Dogwood')]"));
        orla.Press(orla.See("//li//button[contains(., 'being read')]"));
        orla.SeeText("Tomas Reeve is reading this piece");
        orla.All("#feedback").ShouldBeEmpty();
        orla.IsAccessible("a piece that a colleague reads");
        orla.Press(orla.See("//button[normalize-space() = 'read it all the same']"));
        orla.See("#feedback");
        orla.HeardNoComplaint();
        tomas.HeardNoComplaint();
    }

    // The words that the remark one is writing is about, as far as they are quoted.
    private static string Quote(Person at) =>
        at.Focus().GetAttribute("aria-label") is { } label
            ? label.Replace("Remark on “", "", StringComparison.Ordinal).TrimEnd('”', '…', ' ')
            : "";

    private static IEnumerable<string> Written(Person at) =>
        at.Ask<IReadOnlyCollection<object>>("return [...document.querySelectorAll('[data-said] textarea:first-of-type')].map(t => t.value)")
            .Cast<string>();

    // No remark covers another one.
    private static void Apart(Person at) =>
        at.Until(
            () =>
                at.Ask<bool>(
                    "const boxes = [...document.querySelectorAll('[data-said]')].map(e => e.getBoundingClientRect()); "
                        + "boxes.sort((a, b) => a.top - b.top); return boxes.length === 2 && boxes[0].bottom <= boxes[1].top"
                ),
            "remarks that stand apart"
        );
}
