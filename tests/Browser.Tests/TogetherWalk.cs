using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>Two of a class hand in one piece together, by keys, and their teacher gives it back to both at once.</summary>
public sealed class TogetherWalk(TwoInstances school) : IClassFixture<TwoInstances>
{
    [Fact]
    public void A_pair_hands_in_one_piece_and_both_have_it_back()
    {
        using var orla = new Person(school.Addresses[0]);
        using var imke = new Person(school.Addresses[0]);
        using var bashir = new Person(school.Addresses[1]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/outline");
        // A pair, named where the item says for whom it is, and filled in Sections.
        orla.Ask<object?>(
            """
            const send = (what, body) => fetch(`/api/editions/2/${what}`, { method: 'POST', body: JSON.stringify(body),
              headers: { 'Content-Type': 'application/json', 'X-Polycline': '1', 'Idempotency-Key': crypto.randomUUID() } })
            const post = (what, body) => send(`${what}?preview=true`, body).then(() => send(what, body))
            return post('add-group', { name: 'Pier pair' }).then(() => fetch('/api/editions/2/groups')).then((r) => r.json())
              .then((all) => post('put-in-group', { group: all.groups[0].id, members: all.sections[0].students
                .filter((one) => ['Imke Osei', 'Bashir Brennan'].includes(one.name)).map((one) => ({ student: one.id, in: true })) }))
            """
        );
        orla.Press(orla.See("//button[@data-stop and normalize-space() = 'Cloud diary']"));
        orla.Choose(true, "//button[normalize-space() = 'change what is handed in']");
        orla.Press(orla.See("//label[normalize-space() = 'a group hands in one piece']"));
        orla.Press(orla.See("//label[normalize-space() = 'Pier pair']"));
        orla.SeeText("Pier pair hands in one piece.");
        orla.IsAccessible("what a pair hands in");
        orla.Press(orla.See("//button[normalize-space() = 'Set what is handed in' and not(@disabled)]"));
        orla.Sure("You set what “Cloud diary” asks for");

        imke.ComeIn("Imke Osei");
        var item = orla.Ask<long>("return Number(/item-(\\d+)/.exec(location.href)[1])");
        imke.Open($"/sections/1/items/{item}");
        imke.SeeText("You hand this in together with Bashir Brennan: one of you does it for all.");
        imke.SeeNoText("Pier pair");
        imke.Choose(true, "//button[normalize-space() = 'hand in again']");
        imke.See("#writing").SendKeys("Ours: six eighths, and a mackerel sky.");
        imke.Choose(true, "//button[normalize-space() = 'Hand in' and not(@disabled)]");
        imke.SeeText("Your teacher has it.");
        imke.SeeText("with Bashir Brennan");

        bashir.Open("/sign-in");
        bashir.See("input[type=email]").SendKeys("bashir.brennan@fenwater.example");
        bashir.See("input[type=password]").SendKeys("harbour-light" + OpenQA.Selenium.Keys.Enter);
        bashir.Until(() => !bashir.Path.StartsWith("/sign-in", StringComparison.Ordinal), "he is in");
        bashir.Open($"/sections/1/items/{item}");
        bashir.SeeText("Ours: six eighths, and a mackerel sky.");
        bashir.SeeText("by Imke Osei");
        bashir.IsAccessible("a piece that somebody else handed in");
        bashir.SeeNoText("take back");

        orla.Open("/editions/2/work");
        orla.Press(orla.See("//li//button[contains(., 'Bashir Brennan') and contains(., 'Cloud diary')]"));
        orla.SeeText("together with Imke Osei");
        orla.See("#feedback").SendKeys("Well seen, both of you.");
        orla.SeeText("goes back to Bashir Brennan and Imke Osei");
        orla.Press(orla.See("//button[normalize-space() = 'Give back' and not(@disabled)]"));
        orla.SeeNoText("goes back to Bashir Brennan and Imke Osei");
        foreach (var student in new[] { imke, bashir })
        {
            student.Open($"/sections/1/items/{item}");
            student.SeeText("Well seen, both of you.");
            student.HeardNoComplaint();
        }
        orla.HeardNoComplaint();
    }
}
