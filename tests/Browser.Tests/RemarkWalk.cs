using OpenQA.Selenium;
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
        orla.SeeText("or press R, to write a remark");

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
                + "range.setStart(text, 2); range.setEnd(text, 8); const s = getSelection(); s.removeAllRanges(); s.addRange(range); return true"
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
                    "const boxes = [...document.querySelectorAll('[data-said]')].map(e => e.getBoundingClientRect()).sort((a, b) => a.top - b.top); "
                        + "return boxes.length === 2 && boxes[0].bottom <= boxes[1].top"
                ),
            "remarks that stand apart"
        );
}
