using CsCheck;
using Polycline.Core.Json;
using Polycline.Core.MarkFiles;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Formats.Quizzes;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Formats;

/// <summary>Quizzes written as plain text, and as they are stored.</summary>
public sealed class QuizTextTests
{
    private const string Every = """
        A barometer falls quickly. What comes?
        + wind and rain
        - a calm day
        > That comes after a slow rise.
        - fog
        > Fog needs still air.
        points: 2
        hint: Think of 2.04.
        after: Air flows in from all round.

        Which of these are high clouds?
        + cirrus
        + cirrostratus
        - stratus
        all or nothing

        None of these is a cloud.
        - smoke
        - steam
        any number
        extra

        Cold air is denser than warm air.
        true
        faulty: full points

        How much does the air press at the sea, usually?
        number: 1013.25 ± 0.5 hPa, mbar; 3 figures; 50 % with the wrong unit or figures

        The cloud of the thunderstorm is called
        text: cumulonimbus / cumulo-nimbus
        not: cumulus
        slips: 1

        From low to high:
        1. stratus
        2. altostratus
        3. cirrus

        Which unit belongs to which instrument?
        barometer = hPa
        thermometer = °C
        = kt

        Pressure [+falls / -rises], the wind [veers / turns right] and the sky is covered to [number: 8 oktas].

        Describe the sky.
        read

        Bring your drawing.
        file

        page

        1 of the next 2

        Hot air rises.
        true

        A cloud weighs
        + more than a bus
        - nothing
        in this order
        """;

    private static QuizPaper Paper(string text) => Paper(QuizText.Read(text));

    private static QuizPaper Paper(QuizText read) => new() { Questions = read.Questions!.Value, Draws = read.Draws };

    [Fact]
    public void Every_kind_is_understood_and_said_line_by_line()
    {
        var read = QuizText.Read(Every);
        read.Lines.Where(line => line.IsFault).ShouldBeEmpty();
        read.Lines.Select(line => line.Words)
            .Where(words => words.StartsWith("Question", StringComparison.Ordinal))
            .ShouldBe([
                "Question 1: one of several, 2 points",
                "Question 2: several of several, 2 right, 1 point",
                "Question 3: several of several, 0 right, 1 point, extra",
                "Question 4: true or false, 1 point",
                "Question 5: a number, 1 point",
                "Question 6: a short text, 1 point",
                "Question 7: putting in order, 1 point",
                "Question 8: matching, 1 point",
                "Question 9: 3 gaps in a text, 1 point",
                "Question 10: a text that you read, 1 point",
                "Question 11: a file that you look at, 1 point",
                "Question 12: true or false, 1 point",
                "Question 13: one of several, 1 point",
            ]);
        read.Lines.Select(line => line.Words).ShouldContain("each attempt gets 1 of these 2 questions, drawn by lot");
        read.Questions!.Value.Select(question => question.Pool).ShouldBe([0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 1, 1]);
        read.Questions!.Value.Select(question => question.BeginsPage).ToList().IndexOf(true).ShouldBe(11);
        read.Lines[1].Words.ShouldBe("right");
        var pressure = read.Questions!.Value[4].Question.Key.ShouldBeOfType<QuestionKey.NumberKey>();
        pressure.Units.ShouldBe(["hPa", "mbar"]);
        pressure.Slip.ShouldBe((Fraction)1 / 2);
        read.Questions!.Value.Select(question => question.Question.Voided).Distinct().ShouldBe([Voided.No, Voided.Full]);
        read.Questions!.Value[8].Text.ShouldBe("<p>Pressure [1], the wind [2] and the sky is covered to [3].</p>");
    }

    [Fact]
    public void Written_out_and_read_again_it_is_the_same_and_so_it_is_as_it_is_stored()
    {
        var paper = Paper(Every);
        QuizText.Write(paper).ShouldBe(Every.ReplaceLineEndings("\n"));
        var stored = QuizPaperFile.Write(
            paper with
            {
                Limit = 20,
                Attempts = 2,
                OutOf = 10,
                Shown = AnswersShown.AfterDue,
                ScoreShown = AnswersShown.AtOnce,
                MixesOptions = true,
            }
        );
        QuizPaperFile.Write(QuizPaperFile.Read(stored)).ShouldBe(stored);
        QuizText.Write(QuizPaperFile.Read(stored)).ShouldBe(QuizText.Write(paper));
    }

    [Theory]
    [InlineData("Why?", 0, "no answer")]
    [InlineData("+ yes", 0, "no question here")]
    [InlineData("Why?\n- yes\n- no", 0, "Mark the right answer")]
    [InlineData("Why?\n+ yes\n+ yes", 2, "twice")]
    [InlineData("Why?\n+ yes\ntrue", 0, "mixes two kinds")]
    [InlineData("Why?\n+ yes\n> So it is.\n> Really.", 3, "already")]
    [InlineData("Why?\n+ yes\n>", 2, "said to whoever chooses this")]
    [InlineData("Why?\n1. one\n3. three", 2, "this should be 2")]
    [InlineData("Why?\n+ yes\nand more", 2, "above its answers")]
    [InlineData("Why?\nnumber: about five", 1, "Write the number like this")]
    [InlineData("Why?\n+ yes\npoints: none", 2, "from 0.01 to 10,000")]
    [InlineData("Why?\n= kt", 0, "There is nothing to match")]
    [InlineData("Why [+low / +low]?", 0, "[+low / +low]")]
    [InlineData("2 of the next 3\n\nIs it?\ntrue", 0, "Only 1 question follows.")]
    [InlineData("3 of the next 2\n\nIs it?\ntrue", 0, "4 of the next 9")]
    [InlineData("1 of the next 2\n\nIs it?\ntrue\n\n1 of the next 2", 5, "only 1 comes before")]
    [InlineData("1 of the next 2\n\nIs it?\ntrue\n\npage\n\nIs it?\nfalse", 5, "among questions from which some are drawn")]
    [InlineData("1 of the next 2\n\nIs it?\ntrue\n\nIs it?\nfalse\npoints: 2", 5, "worth the same")]
    [InlineData("1 of the next 1\n\nIs it?\ntrue\nextra", 2, "can’t be a bonus")]
    [InlineData("1 of the next 1\n\nIs it?\ntrue\nfaulty: left out", 2, "can’t be marked as faulty")]
    [InlineData("Is it?\ntrue\nfaulty: yes", 2, "“full points”")]
    [InlineData("Why?\nnumber: 5 km; 101 % with the wrong unit or figures", 1, "Write the number like this")]
    public void What_is_not_understood_says_what_to_do(string text, int line, string words)
    {
        var read = QuizText.Read(text);
        read.Questions.ShouldBeNull();
        (read.Lines[line].IsFault, read.Lines[line].Words).ShouldSatisfyAllConditions(
            found => found.IsFault.ShouldBeTrue(found.Words),
            found => found.Words.ShouldContain(words)
        );
    }

    [Fact]
    public void Whatever_is_written_is_answered_line_by_line_and_what_is_understood_can_be_stored()
    {
        string[] pieces =
        [
            .. Every.ReplaceLineEndings("\n").Split('\n'),
            "",
            "",
            "[",
            "= ",
            "+",
            "number: ± 5",
            "text: /",
            "1.",
            "points:",
            "2 of the next 3",
        ];
        var understood = 0;
        Gen.Int[0, pieces.Length - 1]
            .Array[1, 14]
            .Sample(
                some =>
                {
                    var text = string.Join('\n', some.Select(n => pieces[n]));
                    var read = QuizText.Read(text);
                    read.Lines.Select(line => line.Text).ShouldBe(text.Split('\n'));
                    if (read.Questions is null)
                        return;
                    Interlocked.Increment(ref understood);
                    var stored = QuizPaperFile.Write(Paper(read));
                    QuizPaperFile.Write(QuizPaperFile.Read(stored)).ShouldBe(stored);
                },
                iter: 3_000
            );
        understood.ShouldBeGreaterThan(30);
    }

    [Fact]
    public void A_question_keeps_its_ids_while_it_takes_the_same_answers()
    {
        var first = Paper("One?\n+ yes\n- no\n\nTwo?\ntext: a\n\nThree?\n1. x\n2. y");
        // Another before it, the key turned, an answer moved, what is asked reworded: what was answered can still be read.
        var again = Paper("New?\nfalse\n\nOne?\n- yes\n+ no\n\nTwo, said better?\ntext: b\n\nThree?\n1. y\n2. x").KeepingIds(first);
        again.Questions.Select(question => question.Question.Id).ShouldBe(["k4", "k1", "k5", "k3"]);
        var one = again.Questions[1];
        var key = one.Question.Key.ShouldBeOfType<QuestionKey.OneKey>();
        one.Words[key.Right[0]].ShouldBe("no");
        first.Questions[0].Words[key.Right[0]].ShouldBe("no");
        again.Questions[3].Question.Key.ShouldBeOfType<QuestionKey.OrderKey>().Sequence.ShouldBe(["a2", "a1"]);
        // One more option is another question.
        Paper("One?\n+ yes\n- no\n- maybe").KeepingIds(first).Questions[0].Question.Id.ShouldBe("k4");
        // Where only the words of what is asked are new, it is still the same.
        Paper("One, said better?\n+ yes\n- no").KeepingIds(first).Questions[0].Question.Id.ShouldBe("k1");
    }

    [Theory]
    [InlineData("{\"questions\":[]}", "$.questions")]
    [InlineData("""{"questions":[{"id":"k1","kind":"truth","points":1,"right":true}]}""", "$.questions[0].text")]
    [InlineData(
        """{"questions":[{"id":"k1","kind":"one","points":1,"options":["a","b"],"right":["a"],"text":"","words":{"a":"x"}}]}""",
        "$.questions[0].words"
    )]
    [InlineData(
        """{"questions":[{"id":"k1","kind":"one","points":1,"options":["a"],"right":["a"],"text":"","words":{"a":"x","c":"y"}}]}""",
        "$.questions[0].words.c"
    )]
    [InlineData(
        """{"questions":[{"id":"k1","kind":"free","points":1,"text":""},{"id":"k1","kind":"free","points":1,"text":""}]}""",
        "$.questions[1].id"
    )]
    [InlineData("""{"questions":[{"id":"k1","kind":"free","points":1,"text":"","pool":1}]}""", "$.draws")]
    [InlineData("""{"questions":[{"id":"k1","kind":"free","points":1,"text":"","pool":1}],"draws":[2]}""", "$.draws[0]")]
    [InlineData("""{"questions":[{"id":"k1","kind":"free","points":1,"text":"","pool":2}],"draws":[1]}""", "$.questions[0].pool")]
    public void What_is_stored_is_read_with_care(string json, string path) =>
        Should.Throw<FileRefusedException>(() => QuizPaperFile.Read(json)).Path.ShouldBe(path);

    [Fact]
    public void What_is_asked_keeps_its_formatting_and_gaps_are_found_in_its_words_only()
    {
        const string Text = """
            formatted: <p>Air <em>falls</em> [+down / -up], by <math data-tex="[0,1]"><mi>x</mi><mo>[</mo></math>&nbsp;[R&amp;D].</p>PICTURE
            points: 2

            formatted: <p>Is it so?</p><p>true</p>
            true

            formatted: <p>Only plain &lt;words&gt;</p>
            read
            """;
        var text = Text.Replace("PICTURE", "<p><img src=\"file:ab\" alt=\"[not this]\"></p>", StringComparison.Ordinal);
        var questions = QuizText.Read(text).Questions.ShouldNotBeNull();
        questions[0]
            .Text.ShouldBe(
                "<p>Air <em>falls</em> [1], by <math data-tex=\"[0,1]\"><mi>x</mi><mo>[</mo></math>&nbsp;[2].</p>"
                    + "<p><img src=\"file:ab\" alt=\"[not this]\"></p>"
            );
        questions[0]
            .Question.Key.ShouldBeOfType<QuestionKey.GapsKey>()
            .Parts[1]
            .ShouldBeOfType<QuestionKey.TextKey>()
            .Accepted.ShouldBe(["R&D"]);
        // Written again, what can be plain is plain, and what would be read as an answer is not.
        QuizText
            .Write(new() { Questions = questions })
            .ShouldBe(text.ReplaceLineEndings("\n").Replace("formatted: <p>Only plain &lt;words&gt;</p>", "Only plain <words>").TrimEnd());
        QuizText.PlainText(questions[0].Text).ShouldBe("Air falls [1], by [0,1]\u00a0[2].");
    }

    [Fact]
    public void What_is_asked_is_there_once_and_not_too_long()
    {
        QuizText.Read("formatted:\nread").Lines[0].Words.ShouldBe("Write what is asked.");
        QuizText.Read($"formatted: {new string('a', 20_001)}\nread").Lines[0].Words.ShouldStartWith("This is too long");
        QuizText.Read("formatted: <p>Why?</p>\nAnd how?\nread").Lines[1].IsFault.ShouldBeTrue();
    }

    [Fact]
    public void Rows_say_what_the_text_says()
    {
        var read = QuizText.Read(Every);
        var rows = QuestionForm.Of([.. read.Questions!.Value], [.. read.Draws]);
        rows.Select(row => row.Kind)
            .ShouldBe(["one", "many", "many", "truth", "number", "text", "order", "match", "gaps", "free", "file", "truth", "one"]);
        rows[0]
            .Answers.ShouldBe([
                new("wind and rain", "", true),
                new("a calm day", "", false, "That comes after a slow rise."),
                new("fog", "", false, "Fog needs still air."),
            ]);
        (rows[0].Points, rows[0].Hint, rows[0].After).ShouldBe((2, "Think of 2.04.", "Air flows in from all round."));
        (rows[1].AllOrNothing, rows[2].IsExtra, rows[3].Right).ShouldBe((true, true, "true"));
        rows[4].Right.ShouldBe("1013.25 ± 0.5 hPa, mbar; 3 figures; 50 % with the wrong unit or figures");
        rows.Select(row => row.Faulty).ShouldBe(["", "", "", "full points", "", "", "", "", "", "", "", "", ""]);
        (rows[5].Right, rows[5].Wrong, rows[5].Slips).ShouldBe(("cumulonimbus / cumulo-nimbus", "cumulus", 1));
        rows[7].Answers.ShouldContain(new AnswerForm("", "kt", false));
        rows[8]
            .Html.ShouldBe(
                "<p>Pressure [+falls / -rises], the wind [veers / turns right] and the sky is covered to [number: 8 oktas].</p>"
            );
        var drawn = QuizText.Read("page\n\n1 of the next 2\n\nA?\ntrue\n\nB?\nfalse");
        QuestionForm
            .Of([.. drawn.Questions!.Value], [.. drawn.Draws])
            .Select(row => (row.BeginsPage, row.Draw, row.DrawOf))
            .ShouldBe([(true, 1, 2), (false, 0, 0)]);
    }

    // It may be anybody's: tags and formulas that do not end are words, and reading them takes no more time than reading words.
    [Theory]
    [InlineData("<a \"", "")]
    [InlineData("<math data-tex=", "")]
    [InlineData("<math data-tex=\"", "\">")]
    [InlineData("<", "")]
    [InlineData("</p> ", "x")]
    [InlineData("<img ", "\"")]
    public void However_what_is_asked_is_made_it_is_read(string often, string last)
    {
        var html = string.Concat(Enumerable.Repeat(often, 19_000 / often.Length)) + last;
        var read = QuizText.Read($"formatted: {html}\nread");
        read.Questions!.Value.Single().Text.ShouldBe(html);
        QuizText.Read(QuizText.Write(new() { Questions = read.Questions.Value })).Lines.Where(line => line.IsFault).ShouldBeEmpty();
    }

    [Fact]
    public void A_question_in_words_has_a_line_for_each_paragraph_and_its_formulas_as_they_were_typed()
    {
        QuizText
            .PlainText(
                "<h2>Air</h2>\n<ul><li><p>warm &amp; <em>wet</em></p></li><li>a&lt;b<br>c</li></ul><p></p>"
                    + "<p><math><mi>p</mi></math> or <math data-tex=\"F/A\"><mi>x</mi></math></p>"
            )
            .ShouldBe("Air\nwarm & wet\na<b\nc\np or F/A");
    }
}
