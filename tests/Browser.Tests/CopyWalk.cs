using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>
/// A student opens an item with a copy each, works in theirs on the page and hands it in: by mouse, and by keys on a narrow screen.
/// </summary>
public sealed class CopyWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    [Theory]
    [InlineData(false, "Imke Osei")]
    [InlineData(true, "Noor Salazar")]
    public void A_copy_is_worked_in_and_handed_in(bool keys, string name)
    {
        using var student = new Person(school.Addresses[0]);
        if (keys)
            student.Resize(390, 800);
        student.ComeIn(name);
        var (section, item) = Log(student);
        student.Open($"/sections/{section}/items/{item}");
        student.SeeText($"station log – {name}.csv");
        student.IsAccessible("a copy of one’s own");
        // As it came, it is not yet work.
        student.Choose(keys, "//button[normalize-space() = 'Hand in' and not(@disabled)]");
        student.SeeText("is missing. Hand in anyway?");
        student.Choose(keys, "//button[normalize-space() = 'Not yet']");
        student.Choose(keys, "//button[normalize-space() = 'work in it']");
        var cell = student.See("input[data-cell='1-2']");
        if (keys)
            student.Reach(element => element.GetDomAttribute("data-cell") == "1-2");
        cell.SendKeys("11.4" + Keys.ArrowDown);
        student.Type("12.9");
        student.SeeText("Saved.");
        student.IsAccessible("a table being worked in");
        student.Choose(keys, "//button[normalize-space() = 'Hand in' and not(@disabled)]");
        student.SeeText("Your teacher has it.");
        var handed = student.Ask<string>(
            """
            return fetch(`/api/sections/${arguments[0]}/items/${arguments[1]}`).then((r) => r.json())
              .then((all) => fetch(all.history[0].files[0].address)).then((r) => r.text())
            """,
            section,
            item
        );
        handed.ShouldContain(",08:30,11.4,");
        handed.ShouldContain(",08:30,12.9,");
        student.HeardNoComplaint();
    }

    [Fact]
    public async Task A_photograph_chosen_while_nobody_answers_goes_on_by_itself_when_the_page_is_opened_again()
    {
        var folder = Directory.CreateTempSubdirectory("polycline-").FullName;
        await File.WriteAllTextAsync(Path.Combine(folder, "sky.txt"), "seven eighths", TestContext.Current.CancellationToken);
        using var student = new Person(school.Addresses[0]);
        student.ComeIn("Davit Lindqvist");
        var (section, item) = Log(student);
        student.Failing("begin-upload");
        student.Open($"/sections/{section}/items/{item}");
        student.See("[aria-label='Your files']");
        student.All("input[type=file][aria-label='Your files']").Single().SendKeys(Path.Combine(folder, "sky.txt"));
        student.SeeText("It will carry on by itself.");
        // To another page and back within the application, it is still there.
        student.Press(student.See("//a[normalize-space() = 'Now and next']"));
        student.See("//h1[normalize-space() = 'Now and next']");
        student.Ask<object?>("window.history.back()");
        student.SeeText("It will carry on by itself.");
        student.Failing();
        student.Open("/account");
        student.Open($"/sections/{section}/items/{item}");
        student.SeeText("Saved.");
        student.See("//ol[@aria-label='Your files']//b[. = 'sky.txt']");
        // Once: opened again there is still one, and nothing is kept here any more.
        student.Open($"/sections/{section}/items/{item}");
        student.See("//ol[@aria-label='Your files']//b[. = 'sky.txt']");
        student.All("//ol[@aria-label='Your files']//b[. = 'sky.txt']").Count.ShouldBe(1);
        student
            .Ask<long>(
                """
                const asked = indexedDB.open('polycline-files', 1)
                return new Promise((done) => { asked.onsuccess = () => {
                  const count = asked.result.transaction('files').objectStore('files').count()
                  count.onsuccess = () => done(count.result)
                } })
                """
            )
            .ShouldBe(0);
    }

    private static (long Section, long Item) Log(Person student)
    {
        var section = student.Ask<long>("return fetch('/api/places').then((r) => r.json()).then((all) => all.sections[0].section)");
        var item = student.Ask<long>(
            """
            return fetch(`/api/sections/${arguments[0]}/now`).then((r) => r.json()).then((all) =>
              Number(/"item":(\d+)[^{}]*?"title":"Station log, a copy each"/.exec(JSON.stringify(all))[1]))
            """,
            section
        );
        return (section, item);
    }
}
