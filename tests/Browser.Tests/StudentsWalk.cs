using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>
/// Whoever joins in mid-term catches up, and a section that stops following and follows again loses nothing: by mouse and by keys.
/// </summary>
public sealed class StudentsWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    [Theory]
    [InlineData(false, 0)]
    [InlineData(true, 1)]
    public void Somebody_joins_in_week_six_nothing_is_missing_and_a_catch_up_is_agreed(bool keys, int place)
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        // One of the adults of the evening comes into a class.
        var name = orla.Ask<string>(
            "return fetch('/api/editions/4/class-lists').then((r) => r.json()).then((all) => all.sections[0].students[arguments[0]].name)",
            place
        );
        // What was due before they come has closed by now in that class.
        orla.Ask<object?>(
            """
            return fetch('/api/editions/2/outline').then((r) => r.json()).then((all) => {
              const items = all.units.flatMap((unit) => [...unit.items, ...unit.lessons.flatMap((lesson) => lesson.items)])
              const target = items.find((item) => item.title === 'Reading scales').id
              const value = { at: 'fixed', date: '2026-09-25', time: '18:00' }
              const change = { section: 2, of: 'item', target, field: 'closes', putBack: false, value, version: 0 }
              const headers = { 'Content-Type': 'application/json', 'X-Polycline': '1', 'Idempotency-Key': crypto.randomUUID() }
              const post = (query) =>
                fetch(`/api/editions/2/differ${query}`, { method: 'POST', headers, body: JSON.stringify({ changes: [change] }) })
              return post('?preview=true').then(() => post('')).then(() => null)
            })
            """
        );
        orla.Open("/editions/2/sections?section=2&shows=students");
        orla.Choose(keys, "//button[normalize-space() = 'have students join']");
        orla.See("textarea[aria-label='Mail addresses']").SendKeys($"{name.ToLowerInvariant().Replace(' ', '.')}@fenwater.example");
        orla.IsAccessible("students join");
        orla.Choose(keys, "//button[normalize-space() = 'Have them join 9 Birch' and not(@disabled)]");
        orla.Sure("You had 1 student join 9 Birch", keys);
        orla.Choose(keys, $"//th//a[normalize-space() = '{name}']");
        orla.SeeText("None of it is overdue for them.");
        orla.Text().ShouldNotContain("overdue\n");
        orla.Choose(keys, "//button[normalize-space() = 'propose a catch-up']");
        orla.SeeText("what others need first");
        orla.IsAccessible("a catch-up");
        // Another attempt at it is asked for like the others.
        orla.Choose(keys, "//li[contains(., 'Reading scales')]//button[starts-with(normalize-space(), 'give another attempt')]");
        orla.IsAccessible("another attempt");
        orla.Choose(keys, "//aside//button[normalize-space() = 'Open' and not(@disabled)]");
        orla.Sure("You opened “Reading scales” for 1 student", keys);
        orla.See("//tr[contains(., 'Reading scales')]");
        orla.Choose(keys, "//button[normalize-space() = 'Agree on the catch-up' and not(@disabled)]");
        orla.Sure("agreed on a catch-up with 1 student", keys);
        orla.See("[aria-label='differs']");
        orla.SeeNoText("propose a catch-up");
        orla.IsAccessible("one student");
        orla.HeardNoComplaint();
    }

    [Theory]
    [InlineData(false, 4, "9 Dogwood", "Sunniva Adeyemi")]
    [InlineData(true, 2, "9 Birch", null)]
    public void A_section_stops_following_and_follows_again_with_all_its_work(bool keys, int section, string name, string? inTwo)
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open($"/editions/2/sections?section={section}");
        orla.Choose(keys, "//button[normalize-space() = 'stop following the course']");
        orla.SeeText($"{name} keeps the course as it stands, as its own");
        orla.IsAccessible("stops following");
        orla.Choose(keys, $"//button[normalize-space() = 'Have {name} stop following' and not(@disabled)]");
        orla.Sure($"You had {name} stop following", keys);
        orla.Open($"/editions/2/joining?section={section}");
        orla.SeeText("What becomes of what it holds");
        if (inTwo is not null)
        {
            orla.SeeText(inTwo);
            orla.Pick($"Home section of {inTwo}", name, keys);
        }
        // As much work with the course afterwards as there is now.
        var work = orla.Ask<string>("return document.querySelector('#holds ~ table tbody').innerText");
        foreach (var line in work.Split('\n', StringSplitOptions.RemoveEmptyEntries))
            line.Split('\t')[^3].ShouldBe(line.Split('\t')[^2], line);
        orla.IsAccessible("the check");
        orla.Choose(keys, $"//button[normalize-space() = 'Have {name} follow' and not(@disabled)]");
        orla.Sure($"You added {name}", keys);
        orla.SeeText("What differs from the course");
        orla.HeardNoComplaint();
    }

    [Theory]
    [InlineData(false, "Imke Osei", "9 Alder", "9 Birch")]
    [InlineData(true, "Noor Salazar", "9 Cedar", "9 Birch")]
    public void Somebody_in_two_sections_is_named_with_both_and_mended_there_and_what_they_hand_in_counts_once(
        bool keys,
        string name,
        string here,
        string there
    )
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        var both = string.Join(" and ", new[] { here, there }.Order(StringComparer.Ordinal));
        orla.Open($"/editions/2/sections?section={Section(orla, there)}&shows=students");
        orla.Choose(keys, "//button[normalize-space() = 'have students join']");
        orla.See("textarea[aria-label='Mail addresses']").SendKeys($"{name.ToLowerInvariant().Replace(' ', '.')}@fenwater.example");
        orla.Choose(keys, $"//button[normalize-space() = 'Have them join {there}' and not(@disabled)]");
        orla.Sure($"You had 1 student join {there}", keys);
        orla.Open("/editions/2/today");
        orla.SeeText($"{name} is in {both}");
        orla.IsAccessible("somebody in two sections");
        // From there one comes to where it is mended.
        orla.Choose(keys, $"//li[contains(., '{name} is in')]//a");
        orla.SeeText("They are in two sections at once.");
        if (keys)
        {
            // One of the two places ends.
            orla.Choose(keys, $"//li[contains(., '{there}')]//button[starts-with(normalize-space(), 'leave')]");
            orla.Choose(keys, $"//button[normalize-space() = 'Leave {there}' and not(@disabled)]");
            orla.Sure($"You had 1 student leave {there}", keys);
        }
        else
        {
            orla.Choose(keys, $"//li[contains(., '{here}')]//button[normalize-space() = 'make it the home section']");
            orla.Sure(() => orla.Text().Contains("home section", StringComparison.Ordinal), "the home section", keys);
        }
        orla.SeeNoText("They are in two sections at once.");
        orla.Open("/editions/2/today");
        orla.SeeText("Waits for you");
        orla.Until(() => !orla.Text().Contains($"{name} is in {both}", StringComparison.Ordinal), "mended");

        // Their work is read once, wherever they are listed.
        var pieces = orla.Ask<long>(
            "return fetch('/api/editions/2/work').then((r) => r.json()).then((all) => { const own = all.sections.flatMap((s) => s.pieces)"
                + ".filter((p) => p.name === arguments[0]).map((p) => p.item); return own.length - new Set(own).size })",
            name
        );
        pieces.ShouldBe(0);
        orla.HeardNoComplaint();
    }

    private static long Section(Person person, string name) =>
        person.Ask<long>(
            "return fetch('/api/editions/2/class-lists').then((r) => r.json())"
                + ".then((all) => all.sections.find((s) => s.name === arguments[0]).section)",
            name
        );
}
