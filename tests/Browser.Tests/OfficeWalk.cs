using System.Text.RegularExpressions;
using OpenQA.Selenium;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>What the office does with people, sections and rosters, by mouse and by keys; and how people come in.</summary>
public sealed partial class OfficeWalk(TwoInstances school) : IClassFixture<TwoInstances>
{
    [Theory]
    [InlineData(false, "Marit Oyelaran", "9 Alder")]
    [InlineData(true, "Bo Castellan", "9 Cedar")]
    public void Somebody_comes_by_mail_is_joined_with_another_account_separated_and_erased_and_a_section_ends(
        bool keys,
        string name,
        string section
    )
    {
        var address = $"{name.ToLowerInvariant().Replace(' ', '.')}@tern.example";
        using var office = new Person(school.Addresses[0]);
        office.ComeIn("Fintan Marsh");
        office.Open("/people");
        office.Choose(keys, "//button[normalize-space() = 'add people']");
        office.See("#pasted").SendKeys($"{name}, {address}\n{name}, second.{address}");
        office.Choose(keys, "//button[normalize-space() = 'Add 2 people']");
        office.SeeText("2 people are invited.");

        // The letter comes, and its link sets a password.
        // Whichever instance sent it has it; the link may lead to either.
        var letter = $"//li[contains(., 'to {address}')]";
        using var somebody = new Person(school.Addresses[0]);
        using var there = new Person(school.Addresses[1]);
        var link = "";
        there.Until(
            () =>
            {
                foreach (var one in new[] { somebody, there })
                {
                    one.Open("/demo/mail");
                    one.SeeText("Caught mail");
                    one.SeeNoText("Reading");
                    if (one.All(letter) is [var found, ..])
                        link = Welcome().Match(found.Text).Value;
                }
                return link.Length > 0;
            },
            "the letter",
            TimeSpan.FromSeconds(60)
        );
        there.IsAccessible("caught mail");
        somebody.Open(link);
        somebody.SeeText($"Welcome, {name}");
        somebody.ComeInBy(link, "a tern on one leg", keys);
        somebody.SeeNoText("Welcome");

        // Their two accounts are one, and are two again.
        office.Open($"/people?words={Uri.EscapeDataString(name)}");
        office.Choose(keys, $"//button[contains(., '{address}') and not(contains(., 'second.'))]");
        office.Choose(keys, "//button[normalize-space() = 'join with another account']");
        office.Choose(keys, $"//ul[contains(@class, 'found')]//button[normalize-space() = '{name}']");
        office.SeeText("What happens");
        office.IsAccessible("two accounts are joined");
        office.Choose(keys, "//button[normalize-space() = 'Join the two accounts' and not(@disabled)]");
        office.SeeText("joined with another account");
        office.Choose(keys, "//button[contains(., 'joined with another account')]");
        office.Choose(keys, "//button[normalize-space() = 'separate them again']");
        office.SeeText($"{name} has this account again");

        // One of them is erased: the name is typed.
        office.Choose(keys, $"//button[contains(., 'second.{address}')]");
        if (office.All("//button[normalize-space() = 'erase']").Count == 0)
            office.Choose(keys, $"//button[contains(., 'second.{address}')]");
        office.Choose(keys, "//button[normalize-space() = 'erase']");
        office.SeeText("This cannot be undone.");
        office.IsAccessible("somebody is erased");
        office.See($"input[aria-label='Type {name}']").SendKeys(name);
        office.Choose(keys, $"//button[normalize-space() = 'Erase {name} for good' and not(@disabled)]");
        office.Until(() => office.All($"//button[contains(., 'second.{address}')]").Count == 0, "erased");
        office.Open("/people/record");
        office.SeeText("erased what was kept about somebody");
        office.IsAccessible("who did what");

        // A section ends before its term, and goes on after all.
        office.Open("/");
        office.Choose(keys, "//a[contains(., 'Autumn term 2026')]");
        office.Choose(keys, $"//button[contains(@class, 'section')][contains(., '{section}')]");
        office.Choose(keys, "//button[normalize-space() = 'end it before the term']");
        office.Write($"Last day of {section}", "20 Nov");
        office.SeeText($"The last day of {section} is Fri 20 Nov");
        office.IsAccessible("a section ends");
        office.Choose(keys, $"//button[normalize-space() = 'End {section}' and not(@disabled)]");
        office.Sure($"You ended {section} after Fri 20 Nov", keys);
        office.SeeText("last day Fri 20 Nov");
        office.Choose(keys, "//footer//button[normalize-space() = 'undo']");
        office.Sure(
            () => !office.Text().Contains("last day Fri 20 Nov", StringComparison.Ordinal),
            "it goes on to the end of the term",
            keys
        );
        office.HeardNoComplaint();
        somebody.HeardNoComplaint();
    }

    [Theory]
    [InlineData(false, "Ada Quill")]
    [InlineData(true, "Ben Quarry")]
    public void An_adult_joins_by_a_section_code_and_is_let_in_and_a_fetched_roster_waits_for_a_yes(bool keys, string name)
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/4/sections?shows=students");
        orla.Choose(keys, "//button[normalize-space() = 'section codes']");
        var known = orla.All("aside li b").Select(code => code.Text).ToList();
        orla.Choose(keys, "//button[normalize-space() = 'Make it' and not(@disabled)]");
        orla.Until(() => orla.All("aside li b").Count > known.Count, "a code");
        var made = orla.All("aside li b").Select(code => code.Text).Except(known).First();
        orla.IsAccessible("section codes");

        using var adult = new Person(school.Addresses[1]);
        adult.Open("/join");
        adult.See("input").SendKeys(made.ToLowerInvariant() + Keys.Enter);
        adult.SeeText("Evening watch");
        adult.See("input[autocomplete=name]").SendKeys(name);
        adult.See("input[autocomplete=email]").SendKeys($"{name.ToLowerInvariant().Replace(' ', '.')}@tern.example");
        adult.IsAccessible("joining by a code");
        adult.Choose(keys, "//button[@type = 'submit' and not(@disabled)]");
        adult.SeeText("A letter is on its way");
        orla.Open("/editions/4/sections?shows=students");
        orla.Choose(keys, "//button[normalize-space() = 'section codes']");
        orla.Choose(keys, $"//li[contains(., '{name}')]//button[starts-with(normalize-space(), 'let in')]");
        orla.SeeText($"{name}");
        orla.Until(() => orla.All($"//th//a[normalize-space() = '{name}']").Count == 1, "they are in the list");
        orla.HeardNoComplaint();
        adult.HeardNoComplaint();

        using var office = new Person(school.Addresses[0]);
        office.ComeIn("Fintan Marsh");
        office.Open("/");
        office.Choose(keys, "//a[contains(., 'Autumn term 2026')]");
        office.Choose(keys, "//a[normalize-space() = 'import a roster']");
        office.Choose(keys, "//button[normalize-space() = 'fetch it now' and not(@disabled)]");
        office.Choose(keys, "//button[normalize-space() = 'Look at it' and not(@disabled)]");
        office.See("//button[normalize-space() = 'Import the roster' and not(@disabled)]");
        office.IsAccessible("a fetched roster");
        office.Open(office.Path);
        office.Choose(keys, "//button[normalize-space() = 'set it aside' and not(@disabled)]");
        office.SeeText("it was set aside");
        office.HeardNoComplaint();
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void Whoever_the_schools_provider_vouches_for_is_signed_in(bool keys)
    {
        using var imke = new Person(school.Addresses[0]);
        imke.Open("/sign-in");
        imke.Choose(keys, "//a[starts-with(normalize-space(), 'with ')]");
        imke.Choose(keys, "//a[contains(., 'Imke Osei')]");
        imke.SeeText("Imke Osei");
        imke.SeeText("Your sections");
    }

    [GeneratedRegex("/welcome/[A-Za-z0-9_-]+")]
    private static partial Regex Welcome();
}
