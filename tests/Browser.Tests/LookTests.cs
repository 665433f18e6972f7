using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>The look: everything that is seen comes from the theme, on both papers; and everybody can use it.</summary>
public sealed class LookTests(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    // Holds what the browser computed for every element against the theme's own properties.
    private const string OffTheme = """
        const root = getComputedStyle(document.documentElement)
        const names = [...document.adoptedStyleSheets].flatMap(s => [...s.cssRules]).flatMap(r => [...r.style])
        const values = start => new Set(names.filter(n => n.startsWith(start)).map(n => parseFloat(root.getPropertyValue(n))))
        const [spaces, radii, sizes] = [values('--space-'), values('--radius-'), values('--size-')]
        const probe = document.createElement('i')
        document.body.append(probe)
        const inks = new Set(['rgba(0, 0, 0, 0)'])
        for (const name of names.filter(n => /^#/.test(root.getPropertyValue(n).trim()))) {
          probe.style.color = `var(${name})`
          inks.add(getComputedStyle(probe).color)
        }
        probe.remove()
        const found = new Set()
        for (const e of document.querySelectorAll('#app *, .v-overlay-container *')) {
          if (e instanceof SVGElement && !(e instanceof SVGSVGElement)) continue
          const s = getComputedStyle(e)
          if (s.display === 'none' || !e.getClientRects().length) continue
          const classes = [...e.classList].filter(c => !/data-v/.test(c)).join('.')
          const say = (what, value) => found.add(`${e.tagName.toLowerCase()}.${classes}: ${what} ${value}`)
          if (!/^"?(Atkinson Hyperlegible Next Variable|Fraunces Variable)/.test(s.fontFamily)) say('face', s.fontFamily)
          if (s.textTransform === 'uppercase') say('uppercase', e.textContent)
          if (s.boxShadow !== 'none') say('shadow', s.boxShadow)
          const text = [...e.childNodes].some(n => n.nodeType === 3 && n.textContent.trim())
          if (text && !sizes.has(parseFloat(s.fontSize))) say('size', s.fontSize)
          if (text && !inks.has(s.color)) say('ink', s.color)
          if (!inks.has(s.backgroundColor) && !e.classList.contains('v-overlay__scrim')) say('ground', s.backgroundColor)
          for (const side of ['Top', 'Right', 'Bottom', 'Left']) {
            if (parseFloat(s[`border${side}Width`]) && s[`border${side}Style`] !== 'none' && !inks.has(s[`border${side}Color`]))
              say('line', s[`border${side}Color`])
            if (!spaces.has(parseFloat(s[`padding${side}`])) && !/columns|panel/.test(e.className))
              say(`padding-${side}`, s[`padding${side}`])
            if (/Top|Bottom/.test(side) && !spaces.has(Math.abs(parseFloat(s[`margin${side}`])))) say(`margin-${side}`, s[`margin${side}`])
          }
          if (e.type !== 'radio') for (const corner of ['TopLeft', 'BottomRight'])
            if (!radii.has(parseFloat(s[`border${corner}Radius`]))) say('radius', s[`border${corner}Radius`])
          for (const gap of [s.rowGap, s.columnGap])
            if (gap !== 'normal' && !spaces.has(parseFloat(gap)) && !e.classList.contains('columns'))
            say('gap', gap)
        }
        return [...found]
        """;

    [Fact]
    public void Every_view_is_drawn_from_the_theme_on_either_paper_and_can_be_used_by_everybody()
    {
        using var person = new Person(school.Addresses[0]);
        person.Expected.AddRange([401, 404]);
        person.Open("/sign-in");
        person.See(".person");
        Holds("sign-in");

        person.ComeIn("Orla Tierney-Vance");
        person.SeeText("Waits for you");
        person.Press(person.See("//a[@aria-label = 'Polycline, all your courses']"));
        person.SeeText("edition 2025");
        Holds("places");

        person.Open("/editions/2/outline");
        person.See("[data-stop]");
        Holds("outline");
        person.Press(person.All("[data-stop]")[2]);
        person.SeeText("Change the text");
        Holds("outline, an item open");
        person.Press(person.All("[data-stop]")[2]);
        person.Until(() => person.Focus().TagName == "input");
        person.Type(" again");
        person.SeeText("Changes in all 4 sections");
        Holds("outline, a row open");
        person.Type(Keys.Enter);
        person.SeeText("You renamed");
        person.Press(person.See("//button[normalize-space() = 'all changes']"));
        Holds("outline, all changes");
        person.Press(person.See("//button[normalize-space() = 'hide changes']"));
        person.Open("/editions/2/sections?section=4&shows=students");
        person.SeeText("also in 9 Alder");
        Holds("sections, students");
        person.Press(person.See("//a[normalize-space() = 'Sunniva Adeyemi']"));
        person.SeeText("They are in two sections at once.");
        person.Press(person.See("//button[starts-with(normalize-space(), 'move to another section')]"));
        person.SeeText("What they handed in is theirs");
        Holds("one student, a move");
        person.Open("/editions/2/joining");
        person.SeeText("Stays its own:");
        Holds("joining");
        person.Open("/editions/2/team");
        person.SeeText("Who may do what");
        person.Press(person.See("//button[normalize-space() = 'add somebody']"));
        Holds("team");
        person.Open("/editions/2/editions");
        person.SeeText("Roll over into the next edition");
        person.Press(person.See(".who"));
        person.See("[role=menu]");
        Holds("menu");
        person.Press(person.See("//button[normalize-space() = 'Keys and marks']"));
        person.SeeText("kept back");
        Holds("keys and marks");

        person.Open("/editions/2/outline");
        person.Press(person.See("//button[@data-stop and normalize-space() = 'Fronts']"));
        person.SeeText("before it opens");
        person.Type("n");
        person.See(".add input");
        Holds("outline, a unit open and a row being added");
        person.Open("/editions/2/outline?show=handed-in");
        person.SeeText("23 of 24");
        person.See("//button[@data-stop and normalize-space() = 'A slow ramp']").SendKeys("x");
        person.SeeText("1 item chosen");
        person.Press(person.See("//aside//button[normalize-space() = 'keep back']"));
        Holds("outline, items chosen");
        person.Type("/");
        person.SeeText("what there is to read");
        Holds("finding");
        // What stands in a text is found as well, with the passage.
        person.See("input[aria-label='Find']").SendKeys("thermometer, a rain");
        person.SeeText("Overview: looking up");
        person.See("//mark[normalize-space() = 'thermometer']");
        Holds("finding in texts");
        person.Open("/editions/2/dates?words=cloud");
        person.Press(person.See("//button[@data-cell = '3.03 due 9 Alder']"));
        person.SeeText("Set this date");
        Holds("dates, a date open");
        person.Open("/editions/2/work");
        person.SeeText("Give back");
        Holds("work");
        // On paper each piece has a page of its own; what is printed is what is listed.
        person.Ask<object?>(
            "window.print = () => { window.onPaper = document.querySelectorAll('.printed-work article').length }; return null"
        );
        person.Press(person.See("//button[starts-with(normalize-space(), 'print these')]"));
        person.Until(
            () => person.Ask<long>("return window.onPaper ?? 0") == person.All("//ul[@aria-label = 'Pieces of work']/li").Count,
            "every piece is printed"
        );
        person.Ask<object?>("window.dispatchEvent(new Event('afterprint')); return null");
        person.Until(() => person.All(".printed-work").Count == 0, "what was printed is gone");
        person.Open("/editions/2/today");
        person.SeeText("took place");
        Holds("today");
        person.Open("/editions/2/pace");
        person.See(".frame svg");
        Holds("pace");
        person.Press(person.See("//button[normalize-space() = 'as a table']"));
        person.SeeText("Welcome to the watch");
        Holds("pace, as a table");
        person.Open("/editions/2/sections");
        person.Press(person.See("//button[normalize-space() = 'move']"));
        person.SeeText("Move the class");
        Holds("sections, a class open");
        person.Press(person.See("//button[normalize-space() = 'Groups']"));
        person.SeeText("There are no groups yet.");
        Holds("sections, groups");
        person.Open("/editions/2/editions");
        person.SeeText("Roll over into the next edition");
        Holds("editions");
        person.Open("/editions/2/seen/1?as=pretend:1");
        person.Press(person.See("//button[normalize-space() = 'make something up']"));
        Holds("a pretend student");
        person.Press(person.See(".lens button"));
        person.SeeText("Davit Lindqvist");
        Holds("the lens");
        person.Press(person.See("//button[normalize-space() = 'Davit Lindqvist']"));
        person.SeeText("As Davit Lindqvist");
        person.SeeText("Opens when feedback on");
        Holds("through a student's eyes");

        person.Open("/editions/1/outline");
        person.SeeText("A past edition");
        Holds("an edition at rest");
        person.Open("/editions/3/outline");
        person.SeeText("There is nothing here.");
        Holds("a problem");

        // From a page that holds nothing open, as one is on when one has signed out.
        person.Open("/health/live");
        person.Ask<object?>("fetch('/api/sign-out', { method: 'POST', headers: { 'X-Polycline': '1' } })");
        person.ComeIn("Fintan Marsh");
        person.Press(person.See("//a[contains(., 'Autumn term 2026')]"));
        person.SeeText("75 class days");
        Holds("calendar");
        person.Press(person.See("[data-date='2026-10-09']"));
        person.SeeText("in periods of its own");
        Holds("calendar, a special day open");

        person.Resize(390, 800);
        // From a page that holds nothing open, as one is on when one has signed out.
        person.Open("/health/live");
        person.Ask<object?>("fetch('/api/sign-out', { method: 'POST', headers: { 'X-Polycline': '1' } })");
        person.ComeIn("Imke Osei");
        person.SeeText("9 Alder");
        Holds("now and next at 390");
        person.Ask<long>("return document.documentElement.scrollWidth").ShouldBeLessThanOrEqualTo(390);
        person.Press(person.See("//a[contains(@aria-label, 'Cloud diary')]"));
        person.SeeText("For a week, once a day");
        // A file that is put with the work, looked into where it stands.
        var sky = Path.Combine(Directory.CreateTempSubdirectory("polycline-").FullName, "the sky over the harbour, week 41.csv");
        File.WriteAllText(sky, "day,low,middle,high\nMonday,6,1,0\nTuesday,3,4,1\n");
        person.Press(person.See("//button[normalize-space() = 'hand in again']"));
        person.All("input[type=file]").Single().SendKeys(sky);
        person.Press(person.See("//button[starts-with(@aria-label, 'Show ')]"));
        person.SeeText("Tuesday");
        Holds("an item at 390");
        person.Ask<long>("return document.documentElement.scrollWidth").ShouldBeLessThanOrEqualTo(390);
        person.HeardNoComplaint();

        void Holds(string where)
        {
            foreach (var paper in new[] { "night", "day" })
            {
                person.Paper(paper);
                person.Ask<IReadOnlyCollection<object>>(OffTheme).Select(fault => (string)fault).ShouldBeEmpty($"{where}, {paper}");
                // Only the colours differ at night.
                person.IsAccessible($"{where}, {paper}", colours: paper == "night");
            }
        }
    }

    [Fact]
    public void Nothing_is_cut_or_covered_from_1280_to_1920()
    {
        using var person = new Person(school.Addresses[0]);
        person.ComeIn("Orla Tierney-Vance");
        foreach (var (width, height) in new[] { (1280, 800), (1920, 1080) })
        {
            person.Resize(width, height);
            person.Open("/editions/2/outline");
            person.See("[data-stop]");
            person.Ask<long>("return document.documentElement.scrollWidth").ShouldBeLessThanOrEqualTo(width);
            // The last row comes clear of the title block, and no two names of weeks run into each other.
            person.Ask<object?>("document.querySelector('.scroll').scrollTo(0, 1e6)");
            person
                .Ask<bool>(
                    "return [...document.querySelectorAll('.row')].at(-1).getBoundingClientRect().bottom "
                        + "<= document.querySelector('footer').getBoundingClientRect().top"
                )
                .ShouldBeTrue();
            foreach (
                var (screen, there) in new[]
                {
                    ("outline", "[data-stop]"),
                    ("today", ".section"),
                    ("sections", ".choice"),
                    ("sections?section=2&shows=lessons", ".choice"),
                    ("sections?section=2&shows=students", ".choice"),
                    ("joining", "table"),
                    ("dates", "[data-cell]"),
                    ("pace", ".frame svg"),
                }
            )
            {
                person.Open($"/editions/2/{screen}");
                person.See(there);
                person.Ask<long>("return document.documentElement.scrollWidth").ShouldBeLessThanOrEqualTo(width, screen);
                // What has the focus, wherever it stands, scrolls its list and never the whole page.
                person.Ask<long>("return document.documentElement.scrollHeight").ShouldBeLessThanOrEqualTo(height, screen);
                person
                    .Ask<bool>("return (document.querySelector('.frame')?.getBoundingClientRect().bottom ?? 0) <= innerHeight")
                    .ShouldBeTrue(screen);
                // At 1280 the views are looked through above.
                foreach (var paper in width == 1920 ? new[] { "night", "day" } : [])
                {
                    person.Paper(paper);
                    person.IsAccessible($"{screen} at {width}, {paper}", colours: paper == "night");
                }
            }
            person
                .Ask<bool>(
                    "const b = [...document.querySelectorAll('.week-name')].map(e => "
                        + "e.getBoundingClientRect()); return b.every((r, n) => !n || b[n - 1].right <= r.left)"
                )
                .ShouldBeTrue();
        }
        // With text at 200 % the window is half as wide and high: the page scrolls, never sideways, and no two weeks run together.
        person.Resize(640, 400);
        foreach (var (screen, there) in new[] { ("outline", "[data-stop]"), ("today", ".section"), ("dates", "[data-cell]") })
        {
            person.Open($"/editions/2/{screen}");
            person.See(there);
            person.Ask<long>("return document.documentElement.scrollWidth").ShouldBeLessThanOrEqualTo(640, screen);
            person.Ask<bool>("return document.documentElement.scrollHeight > innerHeight").ShouldBeTrue(screen);
            person
                .Ask<bool>(
                    "const b = [...document.querySelectorAll('.week-name')].map(e => e.getBoundingClientRect()).filter(r => r.width); "
                        + "return b.length > 2 && b.every((r, n) => !n || b[n - 1].right <= r.left)"
                )
                .ShouldBeTrue(screen);
        }
        person.HeardNoComplaint();
    }
}
