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
        new("outline/adding/AddRow", "add-unit", "outline?do=add", p => Add(p, "unit", "A unit offered")),
        new("outline/adding/AddRow", "add-lesson", "outline", p => Add(p, "lesson", "A lesson offered", under: "A unit offered")),
        new("outline/adding/AddRow", "add-item", "outline", p => Add(p, "item", "An item offered", under: "A unit offered")),
        new(
            "outline/GroupPanel",
            "change-unit",
            "outline?row=unit:A unit offered",
            p => Press(p, "//label[normalize-space() = 'published']"),
            p => Button(p, "Save")
        ),
        new(
            "outline/GroupPanel",
            "change-lesson",
            "outline?row=lesson:The warm front",
            p => Fill(p, "input[aria-label=Classes]", "2"),
            p => Button(p, "Save")
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
            p => Button(p, "rename"),
            p => Fill(p, ".title-form input", "An item renamed"),
            p => Meant(p, ".title-form")
        ),
        new("outline/PurposeLine", "describe-item", "outline?row=item:An item renamed", p => Select(p, "Purpose", "to read", "for marks")),
        new("outline/ItemPanel", "publish-item", "outline?row=item:An item renamed", p => Button(p, "unpublish")),
        new("outline/files/ItemFiles", "attach-files", "outline?row=item:An item renamed", p =>
            Send(p, "Add files", ("one.txt", "calm"), ("two.csv", "day,wind\nMon,3"))
        ),
        new(
            "outline/files/ItemFiles",
            "replace-file",
            "outline?row=item:An item renamed",
            p => Press(p, "//button[@aria-label='Replace one.txt']"),
            p => Send(p, "Replacement for one.txt", ("three.txt", "a fresh breeze"))
        ),
        new(
            "outline/files/ItemFiles",
            "rename-file",
            "outline?row=item:An item renamed",
            p => Press(p, "//button[@aria-label='Rename three.txt']"),
            p => Fill(p, "li form input", "the wind.txt"),
            p => Button(p, "Rename it")
        ),
        new(
            "outline/files/FileGiving",
            "give-file",
            "outline?row=item:Station log, a copy each",
            p => Press(p, "//button[@aria-label='Change how station log.csv is given']"),
            p => Fill(p, "[aria-label='Name of the copies']", "{code} {file}, {student}"),
            p => Button(p, "Give each a copy")
        ),
        new("outline/files/ItemFiles", "move-file", "outline?row=item:An item renamed", p =>
            Press(p, "//button[@aria-label='Move two.csv up']")
        ),
        new("outline/files/ItemFiles", "remove-file", "outline?row=item:An item renamed", p =>
            Press(p, "//button[@aria-label='Remove two.csv']")
        ),
        new(
            "outline/editors/TimingEditor",
            "time-item",
            "outline?row=item:An item renamed",
            p => Press(p, "(//p[@class = 'sentence']//button)[2]"),
            p => Select(p, "Is due", "at the end of the lesson"),
            p => Button(p, "Save")
        ),
        new("outline/editors/ConditionEditor", "condition-item", "outline?row=item:Isobars by hand", SetCondition),
        new(
            "outline/editors/ConditionEditor",
            "set-conditions",
            "outline?row=unit:Storm season",
            p => Button(p, "No condition."),
            p => p.Pick("Item 1", "2.04"),
            p => Button(p, "Set this condition")
        ),
        new(
            "outline/editors/CopyCondition",
            "set-conditions",
            "outline?row=item:Isobars by hand",
            p => Press(p, "(//p[@class = 'sentence']//button)[4]"),
            p => p.Pick("Set it on others as well", "4.04"),
            p => Button(p, "Set it there too")
        ),
        new(
            "outline/editors/ForWhomEditor",
            "add-group",
            "outline?row=item:An item renamed",
            p => Press(p, "(//p[@class = 'sentence']//button)[5]"),
            p => Fill(p, "input[aria-label='A new group']", "Field team"),
            p => Button(p, "add it")
        ),
        new("outline/editors/ForWhomEditor", "for-whom", "outline?row=item:Isobars by hand", SetForWhom),
        new(
            "outline/outcomes/ItemOutcomes",
            "tie-outcomes",
            "outline?row=item:Which storey?",
            p => Button(p, "Change its outcomes"),
            p => Press(p, "//label[contains(., 'E2.1 Describe something seen')]"),
            p => Button(p, "Set its outcomes")
        ),
        new("outline/ItemPanel", "say-about-teacher", "outline?row=item:An item renamed", p =>
            Press(p, "//label[contains(., 'about the teacher')]")
        ),
        new(
            "outline/notes/NotesHere",
            "add-note",
            "outline?row=item:An item renamed",
            p => Button(p, "Leave a note for the team"),
            p => Fill(p, "textarea[aria-label='The note']", "Print the sheets."),
            p => Button(p, "Save the note")
        ),
        new(
            "outline/notes/NotesHere",
            "change-note",
            "outline?row=item:An item renamed",
            p => Button(p, "reword"),
            p => Fill(p, "textarea[aria-label='The note']", "Print the sheets, 94 of them."),
            p => Button(p, "Save the note")
        ),
        new("outline/notes/NotesHere", "remove-note", "outline?row=item:An item renamed", p =>
            Press(p, "//section[@aria-label='Team notes']//button[normalize-space()='remove']")
        ),
        new(
            "outline/editors/AsksEditor",
            "ask-item",
            "outline?row=item:Isobars by hand",
            p => Button(p, "change what is handed in"),
            p => Button(p, "Ask for a file by name"),
            p => Fill(p, "input[aria-label='What the file is']", "the chart"),
            p => Button(p, "Set what is handed in")
        ),
        new(
            "outline/quiz/QuizEditor",
            "write-quiz",
            "outline?row=item:Reading scales",
            p => Button(p, "change the questions"),
            p => Button(p, "as plain text"),
            p => Fill(p, "textarea[aria-label='Questions as plain text']", "Which is colder?\n+ -3 °C\n- 3 °C"),
            p => Button(p, "Save the questions")
        ),
        new(
            "outline/choice/OfferPart",
            "offer-options",
            "outline?row=item:Your project: instrument or harbour briefing",
            p => Button(p, "change the options"),
            p => Fill(p, "input[aria-label='Room in option 2']", "9"),
            p => Button(p, "Save the options")
        ),
        new(
            "outline/editors/MarkedEditor",
            "mark-item-as",
            "outline?row=item:Isobars by hand",
            p => Button(p, "change how it is marked"),
            p => Press(p, "//label[normalize-space()='in points']"),
            p => Fill(p, "input[aria-label='Full points']", "12"),
            p => Button(p, "Set how it is marked")
        ),
        new(
            "outline/rubric/RubricEditor",
            "write-rubric",
            "outline?row=item:Isobars by hand",
            p => Press(p, "//section[@aria-label='Rubric']//button[normalize-space()='make one']"),
            p => Fill(p, "input[aria-label='Criterion 1']", "Every line closed"),
            p => Button(p, "Save the rubric")
        ),
        new(
            "outline/editors/AddressEditor",
            "point-link",
            "outline?row=item:Film: how a low goes by",
            p => Press(p, "//form[@aria-label = 'Where it leads']//button[normalize-space() = 'change']"),
            p => Fill(p, "input[aria-label='Its address']", "https://films.fenwater.example/another-low"),
            p => Button(p, "Set the address")
        ),
        new(
            "outline/text/TextEditor",
            "write-item",
            "outline?row=item:Isobars by hand",
            p => Press(p, "//button[contains(., 'instructions') or contains(., 'Change the text')]"),
            p => p.See("[contenteditable]").SendKeys("Look twice. "),
            p => Button(p, "Formula"),
            p => Fill(p, "#formula-tex", "\\frac{p}{h}"),
            p => Button(p, "Put it in"),
            p => p.See("[contenteditable] mfrac"),
            p => Button(p, "Use this text")
        ),
        new(
            "outline/CoursePanel",
            "change-course",
            "outline",
            p => Button(p, "course settings"),
            p => Press(p, "//aside//label[normalize-space() = 'unseen']"),
            p => Button(p, "Save")
        ),
        new(
            "scores/AddingUpPanel",
            "add-up-scores",
            "scores",
            p => Button(p, "how it adds up"),
            p => Press(p, "//label[normalize-space() = 'counts as 0']"),
            p => Button(p, "Set how scores are added up")
        ),
        new("joining/JoiningScreen", "join-section", "joining", p => Button(p, "Have Evening watch follow")),
        new("outline/chosen/ChosenPanel", "change-items", "outline", Chosen, p =>
            Press(p, "//aside//button[normalize-space() = 'unpublish']")
        ),
        new(
            "outline/chosen/ChosenPanel",
            "differ",
            "outline",
            Chosen,
            p => Button(p, "keep back"),
            p => Press(p, "//aside//label[contains(., '9 Birch')]"),
            p => Button(p, "Change 2 items")
        ),
        new(
            "outline/chosen/ChosenPanel",
            "set-conditions",
            "outline",
            Chosen,
            p => Button(p, "one after another"),
            p => Button(p, "Change 2 items")
        ),
        new(
            "outline/branches/useBranches",
            "set-conditions",
            "outline?row=item:Reading scales",
            p => Button(p, "what its score opens"),
            p => p.Pick("What opens, 1", "4.04"),
            p => Button(p, "Set what it opens")
        ),
        new("outline/useOutlineEdits", "move-unit", "outline?row=unit:A unit offered", p => Button(p, "move up")),
        new("outline/useOutlineEdits", "move-lesson", "outline?row=lesson:The warm front", p => Button(p, "move down")),
        new("outline/useOutlineEdits", "move-item", "outline?row=item:Isobars by hand", p => Button(p, "move down")),
        new("outline/useOutlineEdits", "remove-item", "outline?row=item:An item renamed", p =>
            Press(p, "//button[normalize-space() = 'remove' and not(@aria-label)]")
        ),
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
        new("pace/TaughtPanel", "confirm-taught", "pace", p => Take(p), p => Button(p, "Mark as taught")),
        new(
            "pace/ShapePanel",
            "differ",
            "pace",
            p => Take(p),
            p => Button(p, "change its length"),
            p => Fill(p, "aside input[aria-label=Length]", "3"),
            p => Button(p, "Change for this section")
        ),
        new("pace/usePaceScreen", "differ", "pace", DragEnd),
        new(
            "sections/lost/LostPanel",
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
            p => p.Write("Date", "23 Nov"),
            p => Button(p, "Add this class")
        ),
        new(
            "sections/TimetablePanel",
            "change-timetable",
            "sections?section=2&shows=timetable",
            p => Button(p, "add a time of its own"),
            // What it does is said under the button, which moves as it comes.
            p => p.SeeText("dates move in 9 Birch"),
            p => Button(p, "Save the timetable")
        ),
        new(
            "sections/pretend/NewPretendSection",
            "make-pretend-section",
            "sections",
            p => Button(p, "add a pretend section"),
            p => Button(p, "Make the pretend section")
        ),
        new(
            "sections/pretend/MadeUpStudents",
            "make-up-students",
            "sections?shows=students",
            p => Press(p, "//nav//button[contains(., 'Try-out')]"),
            p => Fill(p, "input[aria-label='Name of the made-up student']", "Quick"),
            p => Button(p, "Add the student")
        ),
        new(
            "parts/shell/PretendBar",
            "make-up-students",
            "sections?shows=students",
            p => Press(p, "//nav//button[contains(., 'Try-out')]"),
            p => Press(p, "//a[contains(., 'look through their eyes')]"),
            p => Fill(p, "section[aria-label='A pretend student'] input[aria-label='Name of the made-up student']", "Slow"),
            p => Button(p, "Keep them")
        ),
        new(
            "sections/SectionFacts",
            "remove-pretend-section",
            "sections",
            p => Press(p, "//nav//button[contains(., 'Try-out')]"),
            p => Button(p, "remove this pretend section")
        ),
        new("sections/HerePanel", "differ", "sections?section=2&shows=lessons", p =>
            Here(p, "lesson", "Choosing a form", "is dropped here")
        ),
        new("sections/HerePanel", "order-lesson", "sections?section=2&shows=lessons", p =>
            Here(p, "lesson", "The cold front", "comes after")
        ),
        new("sections/HerePanel", "order-unit", "sections?section=2&shows=lessons", p =>
            Here(p, "unit", "Storm season", "comes as number")
        ),
        new(
            "sections/groups/GroupsHere",
            "add-group",
            "sections?section=2",
            p => Button(p, "Groups"),
            p => Fill(p, "input[aria-label='A new group']", "Second team"),
            p => Button(p, "Add it")
        ),
        new(
            "sections/groups/GroupsHere",
            "put-in-group",
            "sections?section=2",
            p => Button(p, "Groups"),
            p => Tick(p, "(//td//input[@type = 'checkbox'])[1]")
        ),
        new(
            "sections/groups/GroupPanel",
            "group-students",
            "sections?section=2",
            p => Button(p, "Groups"),
            p => Button(p, "draw groups by lot"),
            p => Press(p, "//aside//button[starts-with(normalize-space(), 'Put ')]")
        ),
        new(
            "sections/groups/GroupsHere",
            "remove-group",
            "sections?section=2",
            p => Button(p, "Groups"),
            p => Press(p, "//button[starts-with(normalize-space(), 'remove')]")
        ),
        new("sections/PutBack", "change-classes", "sections?section=2", p => PutBack(p, "A class")),
        new("sections/PutBack", "differ", "sections?section=2", p => PutBack(p, "Choosing a form")),
        new("sections/PutBack", "order-lesson", "sections?section=2", p => PutBack(p, "The cold front")),
        new("sections/PutBack", "order-unit", "sections?section=2", p => PutBack(p, "Storm season")),
        Own("item", "Own item", "add-item"),
        new("sections/PutBack", "remove-item", "sections?section=2", p => PutBack(p, "Own item")),
        Own("lesson", "Own lesson", "add-lesson"),
        new("sections/PutBack", "remove-lesson", "sections?section=2", p => PutBack(p, "Own lesson")),
        Own("unit", "Own unit", "add-unit"),
        new("sections/PutBack", "remove-unit", "sections?section=2", p => PutBack(p, "Own unit")),
        new(
            "parts/why/SectionMend",
            "differ",
            "students/@Davit Lindqvist",
            p => Press(p, "//button[starts-with(@aria-label, 'why:') and contains(@aria-label, 'Heat, damp and a push')]"),
            p => Press(p, "//button[starts-with(@aria-label, 'do it: publish')]"),
            p => Button(p, "Publish it here")
        ),
        new(
            "parts/ForStudentPanel",
            "for-students",
            "students/@Imke Osei",
            p => Tick(p, "input[aria-label$='Arrows on the chart']"),
            p => Button(p, "Give more time")
        ),
        new(
            "one-student/AgreedTime",
            "arrange",
            "students/@Imke Osei",
            p => Press(p, "//p[contains(., 'Agreed for everything')]//button"),
            p => Fill(p, "input[aria-label='Days later']", "3"),
            p => Button(p, "Agree on it")
        ),
        new("one-student/CatchUpList", "accept-catch-up", "students/@Noor Salazar?shows=catch-up", p => Button(p, "Agree on the catch-up")),
        new("one-student/MoveTable", "move-students", "students/@Davit Lindqvist?shows=move", p => Button(p, "Move to 9 Alder")),
        new("one-student/StudentPlaces", "set-home", "students/@Sunniva Adeyemi", p =>
            Press(p, "//li[contains(., '9 Alder')]//button[normalize-space() = 'make it the home section']")
        ),
        new(
            "one-student/StudentPlaces",
            "leave-section",
            "students/@Sunniva Adeyemi",
            p => Press(p, "//li[contains(., '9 Dogwood')]//button[starts-with(normalize-space(), 'leave')]"),
            p => Button(p, "Leave 9 Dogwood")
        ),
        new(
            "sections/PlacesPanel",
            "join-students",
            "sections?section=2&shows=students",
            p => Button(p, "have students join"),
            p => Fill(p, "textarea[aria-label='Mail addresses']", "imke.osei@fenwater.example"),
            p => Button(p, "Have them join 9 Birch")
        ),
        new(
            "sections/PlacesPanel",
            "leave-section",
            "sections?section=2&shows=students",
            p => Tick(p, "input[aria-label='Choose Imke Osei']"),
            p => Select(p, "What they do", "leaves after"),
            p => Button(p, "Have them leave 9 Birch")
        ),
        new(
            "sections/PlacesPanel",
            "move-students",
            "sections?section=2&shows=students",
            p => Tick(p, "(//table//input[@type = 'checkbox'])[1]"),
            p => Button(p, "Move them to 9 Alder")
        ),
        new(
            "sections/PlacesPanel",
            "join-students",
            "sections?section=4&shows=students",
            p => Button(p, "have students join"),
            p => Fill(p, "textarea[aria-label='Mail addresses']", "noor.salazar@fenwater.example"),
            p => Button(p, "Have them join 9 Dogwood")
        ),
        new(
            "sections/StopFollowing",
            "stop-following",
            "sections?section=4",
            p => Button(p, "stop following the course"),
            p => Button(p, "Have 9 Dogwood stop following")
        ),
        new("joining/InTheWay", "leave-section", "joining?section=4", p => Button(p, "end their place in 9 Cedar")),
        new("joining/JoiningScreen", "join-section", "joining?section=4", p => Button(p, "Have 9 Dogwood follow")),
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
            p => Fill(p, "aside input[aria-label=Name]", "Polling day"),
            p => Meant(p, "aside")
        ),
        new("calendar/MarksInTerm", "mark-days", "calendar", p =>
            Press(p, "(//li[contains(., 'Polling day')] | //tr[contains(., 'Polling day')])//button[2]")
        ),
        new(
            "calendar/SectionPanel",
            "change-section",
            "calendar",
            p => Press(p, "//button[contains(@class, 'section')][contains(., '9 Cedar')]"),
            p => p.Write("Subject", "Geography"),
            p => Button(p, "Save the section")
        ),
        new(
            "calendar/EndPanel",
            "end-section",
            "calendar",
            p => Press(p, "//button[contains(@class, 'section')][contains(., '9 Cedar')]"),
            p => Button(p, "end it before the term"),
            p => p.Write("Last day of 9 Cedar", "20 Nov"),
            p => Button(p, "End 9 Cedar")
        ),
        new(
            "calendar/TermPanel",
            "set-term",
            "calendar",
            p => Button(p, "change the term"),
            p => p.Write("Last day of the term", "17 Dec"),
            p => Button(p, "Save the term")
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
        p.Pick("Item 1", "3.03");
        Select(p, "What must have happened, 1", "is opened", "is handed in");
        Button(p, "Set this condition");
    }

    private static void SetForWhom(Person p)
    {
        Press(p, "(//p[@class = 'sentence']//button)[5]");
        Press(p, "//label[normalize-space() = 'only for those in']");
        Press(p, "(//label[normalize-space() = 'Field team'])[1]");
        Button(p, "Save");
    }

    // Two rows are taken: one by its box, the next with Shift.
    private static void Chosen(Person p)
    {
        p.See("//button[@data-stop and normalize-space() = 'A slow ramp']").SendKeys("x");
        p.Type(Keys.Shift + Keys.ArrowDown + Keys.Null);
        p.SeeText("2 items chosen");
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
        Button(p, "Change for this section");
    }

    private static void CloseByFile(Person p)
    {
        Button(p, "import closures from a file");
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
            .Replace(OfStudent().Replace(at, match => $"{StudentOf(person, match.Groups[1].Value)}"), match =>
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

    // A student by their name: students/12.
    private static long StudentOf(Person person, string name) =>
        person.Ask<long>(
            """
            return fetch('/api/editions/2/class-lists').then((r) => r.json()).then((lists) =>
              lists.sections.flatMap((one) => one.students).find((one) => one.name === arguments[0]).student)
            """,
            name
        );

    private static Offer Own(string level, string title, string command) =>
        new("outline/adding/AddRow", command, level == "unit" ? "outline?do=add" : "outline", p =>
            Add(p, level, title, under: level == "unit" ? null : "Fronts", owner: "only in 9 Birch")
        );

    // Something new under a row, where it belongs; without one, at the end.
    private static void Add(Person p, string level, string title, string? under = null, string? owner = null)
    {
        if (under is not null)
        {
            p.Ask<object?>("arguments[0].focus()", p.See($"//button[@data-stop and normalize-space() = '{under}']"));
            p.Type("n");
        }
        p.See(".add input").SendKeys(level == "item" ? $"page: {title}" : $"{level}: {title}");
        if (owner is not null)
            p.Pick("Who gets it", owner);
        Meant(p, ".add");
    }

    private static void Button(Person p, string text) => Press(p, $"//button[normalize-space() = '{text}' and not(@disabled)]");

    private static void Meant(Person p, string within) => Press(p, $"{within} .meant:not([disabled])");

    private static void Press(Person p, string selector) => p.Press(p.See(selector));

    // Files as they lie on one's own machine.
    private static void Send(Person person, string into, params (string Name, string Text)[] files)
    {
        var folder = Directory.CreateTempSubdirectory("polycline-").FullName;
        foreach (var (name, text) in files)
            File.WriteAllText(Path.Combine(folder, name), text);
        // The field itself is not seen: a button opens it.
        person.See($"div[role=group][aria-label='{into}']");
        person
            .All($"input[type=file][aria-label='{into}']")
            .Single()
            .SendKeys(string.Join('\n', files.Select(file => Path.Combine(folder, file.Name))));
    }

    private static void Fill(Person p, string selector, string text) =>
        p.Ask<object?>(
            "const [f, v] = arguments; f.focus(); f.value = v; for (const e of ['input', "
                + "'change']) f.dispatchEvent(new Event(e, { bubbles: true })); return null",
            p.See(selector),
            text
        );

    // The box itself is drawn beside its field, which is not seen.
    private static void Tick(Person p, string selector)
    {
        p.Until(() => p.All(selector).Count > 0, selector);
        p.Ask<object?>("arguments[0].click(); return null", p.All(selector)[0]);
    }

    // The first of these choices that it does not have yet.
    private static void Select(Person p, string label, params string[] choices)
    {
        p.See($"//div[contains(@class, 'v-field ')][.//input[@aria-label = '{label}']]");
        var now = p.All($"//input[@aria-label = '{label}']")[0].GetAttribute("value");
        p.Pick(label, choices.First(choice => choice != now));
    }

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
        Press(p, $"//button[@class = 'title' and contains(., '{title}')]");
        p.Pick("What changes", what);
        if (of == "unit")
            Fill(p, "input[aria-label=Place]", "3");
        else if (what.StartsWith("comes", StringComparison.Ordinal))
            p.Pick("Comes after", "What weather is made of");
        Button(p, "Change for this section");
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

    [GeneratedRegex("@([^?]+)")]
    private static partial Regex OfStudent();
}
