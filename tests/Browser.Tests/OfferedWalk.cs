using System.Text.RegularExpressions;
using OpenQA.Selenium;
using Polycline.Testing;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>
/// The registry of what screens offer: every command that a part of a screen can send, done there as one does it. Each was
/// looked at beforehand in the very same form. A part that offers a command and has no row here fails.
/// </summary>
public sealed partial class OfferedWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    private sealed record Offer(string Part, string Command, string At, params Action<Person>[] Do);

    // In this order: what comes later may stand on what came before.
    private static readonly Offer[] OfLead =
    [
        new("outline/useOutlineEdits", "add-unit", "outline", p => Fill(p, "#new-unit", "A unit offered"), p => Button(p, "Add the unit")),
        new(
            "outline/GroupPanel",
            "add-lesson",
            "outline?row=unit:A unit offered",
            p => Fill(p, "#new-lesson", "A lesson offered"),
            p => Button(p, "Add the lesson")
        ),
        new(
            "outline/GroupPanel",
            "add-item",
            "outline?row=unit:A unit offered",
            p => Fill(p, "#new-item", "An item offered"),
            p => Button(p, "Add the item")
        ),
        new(
            "outline/GroupPanel",
            "change-unit",
            "outline?row=unit:A unit offered",
            p => Tick(p, "//label[normalize-space() = 'published']/input"),
            p => Button(p, "Keep")
        ),
        new(
            "outline/GroupPanel",
            "change-lesson",
            "outline?row=lesson:The warm front",
            p => Fill(p, "#group-classes", "2"),
            p => Button(p, "Keep")
        ),
        new(
            "outline/editors/PublishTogether",
            "publish-items",
            "outline?row=unit:A unit offered",
            p => Button(p, "publish 1 item"),
            p => Button(p, "Publish 1 item")
        ),
        new(
            "outline/useRename",
            "rename-item",
            "outline?row=item:An item offered",
            p => Fill(p, ".title-form input", "An item renamed"),
            p => Meant(p, ".title-form")
        ),
        new("outline/ItemPanel", "describe-item", "outline?row=item:An item renamed", p =>
            Select(p, ".parts select", "to-read", "for-marks")
        ),
        new("outline/ItemPanel", "publish-item", "outline?row=item:An item renamed", p => Button(p, "unpublish")),
        new(
            "outline/editors/TimingEditor",
            "time-item",
            "outline?row=item:An item renamed",
            p => Press(p, "(//p[@class = 'sentence']//button)[2]"),
            p => Select(p, ".editor select", "term-end", "lesson-end"),
            p => Button(p, "Set it so")
        ),
        new("outline/editors/ConditionEditor", "condition-item", "outline?row=item:Isobars by hand", SetCondition),
        new(
            "outline/editors/ForWhomEditor",
            "add-group",
            "outline?row=item:An item renamed",
            p => Press(p, "(//p[@class = 'sentence']//button)[5]"),
            p => Fill(p, ".editor input[type=text]", "Field team"),
            p => Button(p, "name it")
        ),
        new("outline/editors/ForWhomEditor", "for-whom", "outline?row=item:Isobars by hand", SetForWhom),
        new(
            "outline/editors/TextEditor",
            "write-item",
            "outline?row=item:Isobars by hand",
            p => Press(p, "//button[contains(., 'instructions') or contains(., 'Change the text')]"),
            p => p.See("[contenteditable]").SendKeys("Look twice. "),
            p => Button(p, "Keep this text")
        ),
        new(
            "outline/CoursePanel",
            "change-course",
            "outline",
            p => Press(p, "//button[contains(., 'numbered')]"),
            p => Tick(p, "//aside//input[@value = 'unseen']"),
            p => Button(p, "Have the course so")
        ),
        new(
            "outline/JoinSection",
            "join-section",
            "outline",
            p => Button(p, "let a section follow"),
            p => Press(p, "//button[@role = 'menuitem']")
        ),
        new("outline/useOutlineEdits", "move-unit", "outline?row=unit:A unit offered", p => Button(p, "move up")),
        new("outline/useOutlineEdits", "move-lesson", "outline?row=lesson:The warm front", p => Button(p, "move down")),
        new("outline/useOutlineEdits", "move-item", "outline?row=item:Isobars by hand", p => Button(p, "move down")),
        new("outline/useOutlineEdits", "remove-item", "outline?row=item:An item renamed", p => Button(p, "remove")),
        new("outline/useOutlineEdits", "remove-lesson", "outline?row=lesson:A lesson offered", p => Button(p, "remove")),
        new("outline/useOutlineEdits", "remove-unit", "outline?row=unit:A unit offered", p => Button(p, "remove")),
        new("today/ToConfirm", "confirm-taught", "today", p => Button(p, "not finished")),
        new(
            "dates/DatePanel",
            "differ",
            "dates?words=cloud%20diary",
            p => Press(p, "//button[contains(@data-cell, ' opens 9 Alder')]"),
            p => Button(p, "keep back")
        ),
        new("dates/PastePanel", "differ", "dates?words=isobars", PasteDate),
        new("pace/TaughtPanel", "confirm-taught", "pace", p => Take(p), p => Button(p, "Note as taught")),
        new(
            "pace/ShapePanel",
            "differ",
            "pace",
            p => Take(p),
            p => Button(p, "change its length"),
            p => Fill(p, "aside input[aria-label=Length]", "3"),
            p => Button(p, "Have it so here")
        ),
        new("pace/PaceScreen", "differ", "pace", DragEnd),
        new(
            "sections/LostPanel",
            "lose-classes",
            "sections?section=2",
            p => Press(p, "//button[normalize-space() = 'cancel']"),
            p => Button(p, "Cancel this class")
        ),
        new(
            "sections/ClassPanel",
            "change-classes",
            "sections?section=2",
            p => Button(p, "add a class"),
            p => Fill(p, "aside input[type=date]", "2026-11-23"),
            p => Button(p, "Add this class")
        ),
        new(
            "sections/TimetablePanel",
            "change-timetable",
            "sections?section=2&shows=timetable",
            p => Button(p, "one more time"),
            p => Button(p, "Meet at these times")
        ),
        new("sections/HerePanel", "differ", "sections?section=2&shows=lessons", p => Here(p, "lesson", "Choosing a form", "skip")),
        new("sections/HerePanel", "order-lesson", "sections?section=2&shows=lessons", p => Here(p, "lesson", "The cold front", "place")),
        new("sections/HerePanel", "order-unit", "sections?section=2&shows=lessons", p => Here(p, "unit", "Storm season", "place")),
        new(
            "sections/GroupsHere",
            "add-group",
            "sections?section=2",
            p => Button(p, "Groups"),
            p => Fill(p, "form.add input", "Second team"),
            p => Button(p, "Name it")
        ),
        new(
            "sections/GroupsHere",
            "put-in-group",
            "sections?section=2",
            p => Button(p, "Groups"),
            p => Tick(p, "(//td/input[@type = 'checkbox'])[1]")
        ),
        new(
            "sections/GroupsHere",
            "remove-group",
            "sections?section=2",
            p => Button(p, "Groups"),
            p => Press(p, "//button[starts-with(normalize-space(), 'remove')]")
        ),
        new("sections/PutBack", "change-classes", "sections?section=2", p => PutBack(p, "A class")),
        new("sections/PutBack", "differ", "sections?section=2", p => PutBack(p, "Choosing a form")),
        new("sections/PutBack", "order-lesson", "sections?section=2", p => PutBack(p, "The cold front")),
        new("sections/PutBack", "order-unit", "sections?section=2", p => PutBack(p, "Storm season")),
        Own("item", "new-item", "Own item", "Add the item", "add-item"),
        new("sections/PutBack", "remove-item", "sections?section=2", p => PutBack(p, "Own item")),
        Own("lesson", "new-lesson", "Own lesson", "Add the lesson", "add-lesson"),
        new("sections/PutBack", "remove-lesson", "sections?section=2", p => PutBack(p, "Own lesson")),
        Own("unit", "new-unit", "Own unit", "Add the unit", "add-unit"),
        new("sections/PutBack", "remove-unit", "sections?section=2", p => PutBack(p, "Own unit")),
        new("parts/useHistory", "undo", "dates", p => Button(p, "undo")),
    ];

    private static readonly Offer[] OfOffice =
    [
        new(
            "calendar/DaysPanel",
            "mark-days",
            "calendar",
            p => Press(p, "[data-date='2026-11-17']"),
            p => p.Ask<object?>("document.querySelector(\"[data-date='2026-11-17']\").focus(); return null"),
            p => p.Type(Keys.Enter),
            p => Fill(p, "aside input[autofocus], aside input[maxlength='120']", "Polling day"),
            p => Meant(p, "aside")
        ),
        new("calendar/CalendarScreen", "mark-days", "calendar", p =>
            Press(p, "(//li[contains(., 'Polling day')] | //tr[contains(., 'Polling day')])//button[2]")
        ),
        new(
            "calendar/TermPanel",
            "set-term",
            "calendar",
            p => Button(p, "change the term"),
            p => Fill(p, "(//aside//input[@type = 'date'])[2]", "2026-12-17"),
            p => Button(p, "Set the term so")
        ),
        new("calendar/FilePanel", "mark-days", "calendar", CloseByFile),
        new("parts/useHistory", "undo", "calendar", p => Button(p, "undo")),
    ];

    [Fact]
    public void Every_command_that_a_part_of_a_screen_can_send_stands_in_the_registry_and_goes_the_one_way()
    {
        var web = Path.Combine(TestServer.Root, "web/src");
        var offered = new List<string>();
        foreach (
            var file in Directory
                .EnumerateFiles(web, "*", SearchOption.AllDirectories)
                .Where(file =>
                    file.EndsWith(".vue", StringComparison.Ordinal)
                    || (
                        file.EndsWith(".ts", StringComparison.Ordinal)
                        && !file.Contains("foundation/api", StringComparison.Ordinal)
                        && !file.EndsWith(".test.ts", StringComparison.Ordinal)
                    )
                )
        )
        {
            var text = File.ReadAllText(file);
            var part = Path.ChangeExtension(Path.GetRelativePath(web, file).Replace("screens/", "", StringComparison.Ordinal), null);
            var sent = Sent().Matches(text).Select(match => match.Groups[2].Value).ToList();
            offered.AddRange(sent.Distinct().Select(command => $"{part} {command}"));
            // Whatever is posted beside it is no command.
            foreach (Match posted in Posted().Matches(text))
                OfLead
                    .Concat(OfOffice)
                    .ShouldNotContain(offer => offer.Command == posted.Groups[1].Value, $"{part} posts {posted.Groups[1].Value} by itself");
        }
        offered.Order().ShouldBe(OfLead.Concat(OfOffice).Select(offer => $"{offer.Part} {offer.Command}").Distinct().Order());
    }

    [Fact]
    public void Every_command_on_every_screen_that_offers_it_is_preceded_by_its_preview_in_the_same_form()
    {
        Walk("Orla Tierney-Vance", OfLead);
        Walk("Fintan Marsh", OfOffice);
    }

    private void Walk(string name, Offer[] offers)
    {
        using var person = new Person(school.Addresses[0]);
        person.Expected.AddRange([409, 422]);
        person.ComeIn(name);
        person.Until(() => person.All("main a, nav a, a").Count > 0);
        var calendar = name == "Fintan Marsh" ? person.See("//a[contains(., 'Autumn term 2026')]").GetAttribute("href") : null;
        person.Commands();
        foreach (var offer in offers)
        {
            try
            {
                person.Open(calendar is null ? $"/editions/2/{Named(person, offer.At)}" : new Uri(calendar).PathAndQuery);
                person.Until(
                    () => person.All("main [role=status]").All(told => !told.Text.StartsWith("Reading", StringComparison.Ordinal)),
                    "it has been read"
                );
                string Told() => person.Ask<string>("return document.querySelector('footer')?.innerText ?? ''");
                person.Until(() => Told().Contains("all changes", StringComparison.Ordinal), "what was changed last");
                var told = Told();
                foreach (var step in offer.Do)
                    step(person);
                var done = new List<string>();
                person.Sure(
                    () =>
                    {
                        done.AddRange(person.Commands());
                        return done.Count > 0 && Told() != told;
                    },
                    "it is done"
                );
                done.ShouldBe([offer.Command]);
            }
            catch (Exception fault) when (fault is not OperationCanceledException)
            {
                throw new InvalidOperationException($"{offer.Part} {offer.Command}", fault);
            }
        }
    }

    private static void SetCondition(Person p)
    {
        Press(p, "(//p[@class = 'sentence']//button)[4]");
        Press(p, "//button[normalize-space() = 'set a condition' or normalize-space() = 'and something else']");
        p.Ask<object?>(
            "const s = document.querySelector('.editor select.wide'); s.value = "
                + "s.options[1].value; s.dispatchEvent(new Event('change')); return null"
        );
        Select(p, "select[aria-label^='What must be so']", "opened", "submitted");
        Button(p, "Set this condition");
    }

    private static void SetForWhom(Person p)
    {
        Press(p, "(//p[@class = 'sentence']//button)[5]");
        Tick(p, "//label[normalize-space() = 'only for those in']/input");
        Tick(p, "(//label[normalize-space() = 'Field team']/input)[1]");
        Button(p, "Have it so");
    }

    private static void PasteDate(Person p)
    {
        Press(p, "//button[contains(@data-cell, ' due 9 Alder')]");
        p.Type(Keys.Escape);
        p.Ask<object?>(
            "const d = new DataTransfer(); d.setData('text/plain', '2026-11-12 18:00'); document.activeElement.dispatchEvent(new "
                + "ClipboardEvent('paste', { clipboardData: d, bubbles: true, cancelable: true })); return null"
        );
        Button(p, "Set 1 dates");
    }

    private static void DragEnd(Person p)
    {
        p.See(".frame path.forecast");
        p.Drag(PaceWalk.FirstEnd, 60, () => p.SeeText(" in 9 Alder"));
        Button(p, "Have it so here");
    }

    private static void CloseByFile(Person p)
    {
        Button(p, "closures of a calendar file");
        var file = Path.Combine(Path.GetTempPath(), $"closures-{Guid.NewGuid()}.ics");
        File.WriteAllText(
            file,
            "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//x//EN\r\nBEGIN:VEVENT\r\nUID:1\r\n"
                + "DTSTAMP:20260901T000000Z\r\nDTSTART;VALUE=DATE:20261124\r\nSUMMARY:Regatta\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
        );
        p.All("input[type=file]")[0].SendKeys(file);
        Button(p, "Close the school on these (1)");
        File.Delete(file);
    }

    // A row by its title: item-12.
    private static string Named(Person person, string at) =>
        Row()
            .Replace(at, match =>
            {
                var (table, title) = (match.Groups[1].Value, match.Groups[2].Value);
                return $"row={table}-"
                    + person.Ask<long>(
                        """
                        return fetch('/api/editions/2/outline').then((r) => r.json()).then((outline) => {
                          const [table, title] = arguments
                          const lessons = outline.units.flatMap((unit) => unit.lessons)
                          const items = [...outline.units, ...lessons].flatMap((one) => one.items)
                          const all = { unit: outline.units, lesson: lessons, item: items }
                          return all[table].find((one) => one.title === title)?.id ?? 0
                        })
                        """,
                        table,
                        title
                    );
            });

    private static Offer Own(string level, string field, string title, string button, string command) =>
        new(
            level == "unit" ? "outline/useOutlineEdits" : "outline/GroupPanel",
            command,
            level == "unit" ? "outline" : "outline?row=unit:Fronts",
            p => Fill(p, $"#{field}", title),
            p => ForBirch(p, field),
            p => Button(p, button)
        );

    private static void ForBirch(Person p, string field) =>
        p.Ask<object?>(
            "const s = arguments[0]; s.selectedIndex = 2; s.dispatchEvent(new Event('change')); return null",
            p.See($"//form[.//input[@id = '{field}']]//select[@aria-label = 'Whose it is to be']")
        );

    private static void Button(Person p, string text) => Press(p, $"//button[normalize-space() = '{text}' and not(@disabled)]");

    private static void Meant(Person p, string within) => Press(p, $"{within} .meant:not([disabled])");

    private static void Press(Person p, string selector) => p.Press(p.See(selector));

    private static void Fill(Person p, string selector, string text) =>
        p.Ask<object?>(
            "const [f, v] = arguments; f.focus(); f.value = v; for (const e of ['input', "
                + "'change']) f.dispatchEvent(new Event(e, { bubbles: true })); return null",
            p.See(selector),
            text
        );

    private static void Tick(Person p, string selector) => p.Ask<object?>("arguments[0].click(); return null", p.See(selector));

    // The first of these choices that it does not have yet.
    private static void Select(Person p, string selector, params string[] choices) =>
        p.Ask<object?>(
            "const [s, ...all] = arguments; s.value = all.find((v) => v !== s.value && [...s.options].some((o) => o.value === "
                + "v)) ?? s.value; for (const e of ['input', 'change']) s.dispatchEvent(new Event(e, { bubbles: true })); return null",
            [p.See(selector), .. choices]
        );

    // The first lesson of the first section that nothing is noted of, in the table.
    private static void Take(Person p)
    {
        Press(p, "//button[contains(., 'table')]");
        p.Until(() => p.All("table button.run").Count > 0);
        Press(
            p,
            "(//td[2]/button[contains(@class, 'run') and not(contains(., 'taught')) and not(contains(., 'begun'))])[1] "
                + "| (//td[1]/button[contains(@class, 'run') and not(contains(., 'taught')) and not(contains(., 'begun'))])[1]"
        );
    }

    private static void Here(Person p, string of, string title, string what)
    {
        Press(p, $"//button[contains(., 'otherwise here: {title}')]");
        Select(p, "select[aria-label='What is otherwise']", what);
        if (what == "place" && of == "unit")
            Fill(p, "input[aria-label=Place]", "3");
        else if (what == "place")
            p.Ask<object?>(
                "const all = document.querySelectorAll('aside select'); const s = all[all.length "
                    + "- 1]; s.selectedIndex = 1; s.dispatchEvent(new Event('change')); return null"
            );
        Button(p, "Have it so here");
    }

    private static void PutBack(Person p, string title) =>
        Press(p, $"(//button[(contains(., 'put back') or contains(., 'take out')) and contains(., '{title}')])[1]");

    [GeneratedRegex(
        @"use(Edition|Term)Command\(.{0,120}?'/api/(?:editions/\{edition\}|terms/\{term\})/([a-z-]+)'",
        RegexOptions.Singleline
    )]
    private static partial Regex Sent();

    [GeneratedRegex(@"\.POST\(\s*'/api/(?:editions|terms)/\{[a-z]+\}/([a-z-]+)'")]
    private static partial Regex Posted();

    [GeneratedRegex("row=(unit|lesson|item):([^&]+)")]
    private static partial Regex Row();
}
