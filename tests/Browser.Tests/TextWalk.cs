using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>Two colleagues write in one text at the same time, one of them by keys; students read it once it is in use.</summary>
public sealed class TextWalk(TwoInstances school) : IClassFixture<TwoInstances>
{
    private const string Guide = "//button[@data-stop and normalize-space() = 'Guide: the rain gauge']";

    [Fact]
    public void Two_write_in_one_text_and_students_read_it_once_it_is_in_use()
    {
        using var orla = new Person(school.Addresses[0]);
        using var tomas = new Person(school.Addresses[1]);
        using var imke = new Person(school.Addresses[0]);
        foreach (var (person, name) in new[] { (orla, "Orla Tierney-Vance"), (tomas, "Tomas Reeve") })
        {
            person.ComeIn(name);
            person.Open("/editions/2/outline");
            person.Press(person.See(Guide));
            person.Choose(person == tomas, "//button[normalize-space() = 'Change the text']");
            person.See("[contenteditable]");
        }
        orla.SeeText("Tomas Reeve is writing in this text too.");
        tomas.SeeText("Orla Tierney-Vance is writing in this text too.");

        // Each in another paragraph, at the same time.
        Caret(orla, first: true);
        Caret(tomas, first: false);
        orla.Type("Read it at eight. ");
        tomas.Type("Less than a mark is a trace.");
        foreach (var person in new[] { orla, tomas })
        {
            person.Until(() => Reads(person, "Read it at eight. The gauge"), "what Orla wrote");
            person.Until(() => Reads(person, "Less than a mark is a trace."), "what Tomas wrote");
            person.SeeText("Saved.");
        }
        orla.IsAccessible("a text that two write in");

        // In the same paragraph: both stand there, and somebody says which is to stay.
        Caret(orla, first: true);
        Caret(tomas, first: true);
        orla.SetOffline(true);
        orla.Type("Every day: ");
        orla.SeeText("Polycline does not answer.");
        tomas.Type("At the gate: ");
        tomas.SeeText("Saved.");
        orla.SetOffline(false);
        orla.SeeText("Both versions are in the text now: keep the better one.");
        tomas.Until(() => Reads(tomas, "Every day: ") && Reads(tomas, "At the gate: "), "both");

        // One leaves it for later, and finds it again as it was.
        tomas.Choose(true, "//button[normalize-space() = 'Finish later']");
        tomas.SeeText("is not in use yet.");
        imke.ComeIn("Imke Osei");
        var item = orla.Ask<long>("return Number(/item-(\\d+)/.exec(location.href)[1])");
        imke.Open($"/sections/1/items/{item}");
        imke.SeeText("The gauge is a funnel");
        imke.SeeNoText("Read it at eight.");
        orla.Press(orla.See("//button[normalize-space() = 'Use this text']"));
        orla.Press(orla.See("//button[normalize-space() = 'Do it']"));
        orla.SeeText("You wrote the text of “Guide: the rain gauge”");
        imke.Open($"/sections/1/items/{item}");
        imke.SeeText("Read it at eight.");
        foreach (var person in new[] { orla, tomas, imke })
            person.HeardNoComplaint();
    }

    private static bool Reads(Person person, string text) => person.See("[contenteditable]").Text.Contains(text, StringComparison.Ordinal);

    private static void Caret(Person person, bool first) =>
        person.Ask<object?>(
            """
            const text = document.querySelector('[contenteditable]')
            text.focus()
            getSelection().selectAllChildren(arguments[0] ? text.firstElementChild : text.lastElementChild)
            arguments[0] ? getSelection().collapseToStart() : getSelection().collapseToEnd()
            """,
            first
        );
}
