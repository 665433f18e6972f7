using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>Keys belong to the field that has the focus: nothing of a screen's own fires while one is in it.</summary>
public sealed class KeysWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    private static readonly string[] Pressed =
    [
        Keys.ArrowDown,
        Keys.ArrowUp,
        Keys.ArrowLeft,
        Keys.ArrowRight,
        Keys.Home,
        Keys.End,
        Keys.Enter,
        Keys.Space,
        Keys.Delete,
        "h",
        "l",
        "t",
        "n",
        "?",
        "/",
    ];

    private static readonly string[] Undone = [Keys.Control + "z" + Keys.Null, Keys.Control + "y" + Keys.Null];

    // One of every kind, laid over the screen where its own would be; and a look after every key at what one of the screen's
    // could have brought about: another address, a row or panel open, a list unfolded, something asked or done.
    private const string Fields = """
        const place = document.querySelector('main') ?? document.body
        const box = document.createElement('div')
        box.id = 'fields-of-the-test'
        box.style.cssText = 'position:fixed;inset:0 0 auto 0;z-index:99;background:white'
        box.innerHTML = `<input type="text" value="a b"><input type="number" value="3">
          <input type="date" value="2026-10-12"><input type="checkbox"><input type="radio" name="x">
          <select><option>one</option><option>two</option><option>three</option></select>
            <textarea>a</textarea><div contenteditable="true">a b</div><div role="textbox" tabindex="0">a</div>`
        place.append(box)
        const standing = () => [location.href,
          document.querySelectorAll('[aria-expanded=true], aside, [role=dialog], [role=alertdialog], .history').length,
          document.querySelector('footer')?.innerText ?? ''].join('\n')
        const before = standing()
        window.fired = []
        let pressed = ''
        addEventListener('keydown', e => {
          pressed = `${e.ctrlKey ? 'Ctrl+' : ''}${e.key} in ${e.target.type ?? e.target.role ?? 'text'}`
        }, true)
        const look = () => standing() === before || fired.push(`${pressed}: ${standing()}`)
        // What a key brings about is there once the page has been drawn anew.
        addEventListener('keyup', () => { look(); requestAnimationFrame(look) })
        """;

    [Fact]
    public void In_no_kind_of_field_does_a_key_of_any_screen_fire()
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        foreach (var screen in new[] { "today", "outline", "dates", "work", "pace", "sections", "editions" })
        {
            orla.Open($"/editions/2/{screen}");
            orla.See("main");
            orla.Until(
                () => orla.All("main [role=status]").All(told => !told.Text.StartsWith("Reading", StringComparison.Ordinal)),
                "it has been read"
            );
            orla.Ask<object?>(Fields);
            var fields = orla.All("#fields-of-the-test > *");
            fields.Count.ShouldBe(9);
            foreach (var field in fields)
            {
                orla.Ask<object?>("arguments[0].focus()", field);
                orla.Type(string.Concat(Pressed));
                orla.Focus().Equals(field).ShouldBeTrue($"{field.GetAttribute("type") ?? field.TagName} on {screen} keeps the focus");
                // The browser's own undo goes to the field that was written in last.
                foreach (var back in Undone)
                    orla.Type(back);
            }
            orla.Ask<IReadOnlyCollection<object>>("return fired").ShouldBeEmpty(screen);
        }
        orla.HeardNoComplaint();
    }
}
