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
}
