using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>A teacher says what a choice offers and ties something to it; a student picks, and another is picked for.</summary>
public sealed class ChoiceWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    private const string Title = "Your project: instrument or harbour briefing";

    // It comes later in the term: for this section it is opened now, looked at before.
    private const string OpenNow = """
        const headers = () => ({ 'Content-Type': 'application/json', 'X-Polycline': '1', 'Idempotency-Key': crypto.randomUUID() })
        const json = (route) => fetch('/api/editions/2/' + route).then((reply) => reply.json())
        const find = (one) =>
          one?.title === arguments[0] && one.kind
            ? one.id
            : one && typeof one === 'object'
              ? Object.values(one).map(find).find(Boolean)
              : null
        const item = find(await json('outline'))
        const picks = await json(`items/${item}/picks`)
        const students = picks.sections[0].students.map((one) => one.student)
        const body = JSON.stringify({ students, items: [item], change: 'open', days: null, until: null })
        for (const preview of ['?preview=true', ''])
          await fetch('/api/editions/2/for-students' + preview, { method: 'POST', headers: headers(), body })
        return item
        """;

    [Fact]
    public void From_what_is_offered_to_what_is_picked_and_opens()
    {
        using var orla = new Person(school.Addresses[0]);
        using var imke = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/outline");
        var item = orla.Ask<long>($"return (async function () {{ {OpenNow} }}).apply(null, arguments)", Title);
        orla.Open($"/editions/2/outline?row=item-{item}");
        orla.SeeText("Each student picks one of these, and can change it until it closes.");
        orla.Press(orla.See("//button[normalize-space() = 'change the options']"));
        orla.See("input[aria-label = 'Room in option 2']").SendKeys("1");
        orla.IsAccessible("what a choice offers");
        orla.Press(orla.See("//button[normalize-space() = 'Save the options' and not(@disabled)]"));
        orla.Sure($"You set the options of “{Title}”: one of An instrument of your own and A harbour briefing");

        // What hangs on it: a row's condition asks for an option.
        orla.Open("/editions/2/outline");
        orla.Press(orla.See("//button[@data-stop and normalize-space() = 'A cloud in a bottle']"));
        orla.Press(orla.See("//button[contains(normalize-space(), 'Opens when')]"));
        orla.Press(orla.See("//button[normalize-space() = 'and something else']"));
        // Of a choice, what must have happened is that one of its options is picked.
        orla.Pick("Item 2", "5.04");
        orla.SeeText("has “An instrument of your own” picked");
        orla.Press(orla.See("//button[normalize-space() = 'Set this condition' and not(@disabled)]"));
        orla.Sure("You set a condition on “A cloud in a bottle”");
        orla.SeeText("“An instrument of your own” is picked in 5.04");

        imke.ComeIn("Imke Osei");
        imke.Open($"/sections/1/items/{item}");
        imke.Press(imke.See("//button[contains(., 'A harbour briefing')]"));
        imke.SeeText("Nothing depends on it yet.");
        imke.IsAccessible("a choice");
        imke.Press(imke.See("//button[normalize-space() = 'Pick this']"));
        imke.SeeText("you have picked this");

        orla.Open($"/editions/2/outline?row=item-{item}");
        orla.Press(orla.See("//section[@aria-label = 'Who has picked what']//button[normalize-space() = '9 Alder']"));
        orla.SeeText("1 student, full");
        orla.Press(orla.See("//dd//button[normalize-space() = 'Aino Abara']"));
        orla.Press(orla.See("//form[@aria-label = 'Pick for Aino Abara']//label[normalize-space() = 'A harbour briefing']"));
        orla.SeeText("“A harbour briefing” is full already; Aino Abara gets it all the same.");
        orla.IsAccessible("who has picked what");
        orla.Press(orla.See("//button[normalize-space() = 'Pick for Aino Abara']"));
        orla.SeeText("2 students, full");

        // Whoever gave it up and wants it again waits for it, and gets it when it comes free.
        imke.Press(imke.See("//button[contains(., 'An instrument of your own')]"));
        imke.Press(imke.See("//button[normalize-space() = 'Pick this instead' and not(@disabled)]"));
        imke.Press(imke.See("//button[@aria-label = 'join the queue for A harbour briefing']"));
        imke.SeeText("You are first in the queue for “A harbour briefing”");
        imke.SeeText("full; you are first in the queue");
        imke.IsAccessible("a queue");
        orla.Open($"/editions/2/outline?row=item-{item}");
        orla.Press(orla.See("//section[@aria-label = 'Who has picked what']//button[normalize-space() = '9 Alder']"));
        orla.SeeText("in the queue: Imke Osei");
        orla.Press(orla.See("//dd//button[normalize-space() = 'Aino Abara']"));
        orla.Press(orla.See("//form[@aria-label = 'Pick for Aino Abara']//label[normalize-space() = 'An instrument of your own']"));
        orla.SeeText("Imke Osei was in the queue for “A harbour briefing” and gets it.");
        orla.Press(orla.See("//button[normalize-space() = 'Pick for Aino Abara' and not(@disabled)]"));
        imke.Open($"/sections/1/items/{item}");
        imke.SeeText("a place came free: yours since");
        foreach (var person in new[] { orla, imke })
            person.HeardNoComplaint();
    }
}
