using Xunit;

namespace Polycline.Tests.Browser;

/// <summary>A teacher writes a quiz as plain text, and a student takes it on a phone.</summary>
public sealed class QuizWalk(PublishedSchool school) : IClassFixture<PublishedSchool>
{
    [Fact]
    public void From_the_plain_text_to_the_marked_attempt()
    {
        using var orla = new Person(school.Addresses[0]);
        using var imke = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/outline");
        orla.Press(orla.See("//button[@data-stop and normalize-space() = 'Reading scales']"));
        orla.Choose(true, "//button[normalize-space() = 'change the questions']");
        orla.Choose(true, "//button[normalize-space() = 'as plain text']");
        var text = orla.See("//textarea[@aria-label = 'Questions as plain text']");
        orla.SeeText("Question 6: matching, 2 points");
        text.SendKeys("\n\nHow sure can one be?\n+ never quite\n+ never quite");
        orla.SeeText("This answer is here twice.");
        orla.IsAccessible("the questions of a quiz");
        text.SendKeys(string.Concat(Enumerable.Repeat(OpenQA.Selenium.Keys.Backspace, 11)) + "quite sure\n\npage\n\nWhy?\nread\npoints: 2");
        orla.SeeText("Question 7: several of several, 2 right, 1 point");
        orla.SeeText("Question 8: a text that you read, 2 points");
        orla.SeeText("a new page");
        // Tried as a student has it, page by page; nothing of that is kept.
        orla.Choose(true, "//button[normalize-space() = 'Try it as a student']");
        orla.SeeText("Nothing is kept, and it counts nowhere.");
        orla.Press(orla.See("//label[normalize-space() = 'never quite']"));
        orla.IsAccessible("a quiz that is tried");
        orla.Choose(true, "//button[normalize-space() = 'On to page 2']");
        orla.Press(orla.See("//button[normalize-space() = 'Mark it']"));
        orla.SeeText("right: 6 litres");
        orla.Choose(true, "//button[normalize-space() = 'Back to the questions']");
        orla.Press(orla.See("//button[normalize-space() = 'Save the questions' and not(@disabled)]"));
        orla.Sure("You wrote the questions of “Reading scales”");

        imke.ComeIn("Imke Osei");
        imke.Choose(true, "//a[normalize-space() = 'Looking up']");
        imke.Choose(true, "//a[contains(., 'Reading scales')]");
        imke.Choose(true, "//button[normalize-space() = 'Begin another attempt']");
        imke.SeeText("How sure can one be?");
        imke.SeeText("8 questions have no answer.");
        imke.Press(imke.See("//label[normalize-space() = 'level with the top of the column']"));
        imke.Press(imke.See("//label[normalize-space() = 'never quite']"));
        imke.Choose(true, "//button[normalize-space() = 'On to page 2']");
        imke.See("//textarea[@aria-label]").SendKeys("Eyes differ.");
        imke.SeeText("5 questions have no answer.");
        imke.SeeText("Every answer is saved as you give it.");
        imke.IsAccessible("a quiz that is being taken");
        // Closed and opened again, it goes on where it was.
        imke.Open(imke.Path);
        imke.SeeText("5 questions have no answer.");
        imke.Press(imke.See("//button[normalize-space() = 'Hand in']"));
        imke.Press(imke.See("//button[normalize-space() = 'Hand in anyway']"));
        imke.SeeText("Your 2nd attempt");
        imke.SeeText("right: 6 litres");
        imke.SeeText("one answer is still to be read");
        imke.IsAccessible("a quiz that was marked");

        orla.Open("/editions/2/work?section=1");
        orla.Press(orla.See("//ul[@aria-label = 'Pieces of work']//button[contains(., 'Reading scales')]"));
        orla.SeeText("Eyes differ.");
        orla.See("input[aria-label = 'Points for answer 1, out of 2']").SendKeys("1,5");
        orla.See("//textarea[@aria-label = 'Comment on answer 1']").SendKeys("Do they?");
        orla.SeeText("in this attempt; nothing depends on it.");
        orla.IsAccessible("an answer to read");
        orla.Press(orla.See("//button[normalize-space() = 'Give the points']"));
        orla.SeeNoText("Eyes differ.");
        imke.Open(imke.Path);
        imke.SeeText("1.5 of 2");
        imke.SeeText("Do they?");
        foreach (var person in new[] { orla, imke })
            person.HeardNoComplaint();
    }

    [Fact]
    public void Questions_in_rows_by_keys_and_out_and_in_as_a_package()
    {
        using var orla = new Person(school.Addresses[0]);
        orla.ComeIn("Orla Tierney-Vance");
        orla.Open("/editions/2/outline");
        orla.Press(orla.See("//button[@data-stop and normalize-space() = 'Which warning?']"));
        orla.Choose(true, "//button[normalize-space() = 'save as QTI']");
        orla.SeeText("In a QTI 2.2 package");
        orla.See("//a[normalize-space() = 'Save the package' and contains(@href, 'questions.zip')]");
        orla.Press(orla.See("//button[normalize-space() = 'change the questions']"));
        orla.Choose(true, "//button[normalize-space() = 'Add a question']");
        orla.Pick("How question 4 is answered", "one of several");
        orla.See("//div[@role = 'textbox' and @contenteditable = 'true']").SendKeys("Which is the highest cloud?");
        orla.See("input[aria-label ^= 'Answer 1 to question']")
            .SendKeys($"cirrus{OpenQA.Selenium.Keys.Enter}stratus{OpenQA.Selenium.Keys.Enter}cumulus{OpenQA.Selenium.Keys.Enter}fog");
        orla.IsAccessible("questions in rows");
        // Closed before it is saved, it is there when one comes back.
        orla.Open("/editions/2/outline");
        orla.Press(orla.See("//button[@data-stop and normalize-space() = 'Which warning?']"));
        orla.Press(orla.See("//button[normalize-space() = 'change the questions']"));
        orla.SeeText("This is what you wrote earlier and have not saved yet.");
        // Another way of writing the same, and back.
        orla.Press(orla.See("//button[normalize-space() = 'as plain text']"));
        orla.SeeText("Question 4: one of several, 1 point");
        const string Written = "Which is the highest cloud?\n+ cirrus\n- stratus\n- cumulus\n- fog";
        orla.Until(
            () =>
                orla.See("//textarea[@aria-label = 'Questions as plain text']")
                    .GetAttribute("value")!
                    .EndsWith(Written, StringComparison.Ordinal),
            Written
        );
        orla.Press(orla.See("//button[normalize-space() = 'in rows' and not(@disabled)]"));
        orla.Press(orla.See("//button[normalize-space() = 'Save the questions' and not(@disabled)]"));
        orla.Sure("You wrote the questions of “Which warning?”");
        orla.SeeText("Which is the highest cloud?");
        orla.HeardNoComplaint();
    }
}
