using System.IO.Compression;
using System.Text;
using System.Text.RegularExpressions;
using System.Xml.Linq;
using Polycline.Core.MarkFiles;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Formats;
using Polycline.Formats.Quizzes;
using Polycline.Formats.Quizzes.Qti;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Formats.Quizzes;

/// <summary>Quizzes as packages of QTI 2.2, out and in.</summary>
public sealed partial class QtiTests
{
    private const string Fits = """
        formatted: <p>A barometer <strong>falls</strong> &amp; <math data-tex="p"><mi>p</mi></math>.<br>What comes?</p>IMAGE
        + wind
        - calm
        > Calm comes after a slow rise.
        - fog
        points: 2
        after: Air flows in.

        Which are high?
        + cirrus
        > Cirrus is ice.
        + cirrostratus
        - stratus
        > Look at “strat” & no “cirr”.
        points: 3

        Which are low?
        + stratus
        + fog
        - cirrus
        all or nothing

        None of these is a cloud.
        - smoke
        - steam
        any number

        Cold air is denser.
        false

        How much does the air press?
        number: 1013.25 ± 0.5

        The cloud of the thunderstorm
        text: cumulonimbus / Cb
        not: cumulus

        From low to high:
        1. stratus
        2. altostratus
        3. cirrus
        all or nothing

        Match them.
        barometer = hPa
        thermometer = °C
        = kt
        points: 2

        Pressure [+falls / -rises], the wind [veers / turns right] and the sky is covered to [number: 8].
        points: 3

        page

        1 of the next 2

        Describe the sky.
        read

        Send a picture.
        file
        """;

    [Fact]
    public async Task What_fits_comes_back_as_it_was()
    {
        var paper = Paper(
            Fits.Replace("IMAGE", $"<p><img src=\"file:{Picture}\" alt=\"a &quot;dial&quot;\"></p>", StringComparison.Ordinal)
        );
        new QtiPackage("Clouds", paper).LeftOut.ShouldBeEmpty();
        var back = await QtiReader.Read(await Zipped(paper), TestContext.Current.CancellationToken);
        back.LeftOut.ShouldBeEmpty();
        (back.Title, back.Questions, back.Limit).ShouldBe(("Clouds", 12, 45));
        back.Files.Select(file => (file.Name[..4], Encoding.UTF8.GetString(file.Bytes))).ShouldBe([("0123", "PNG")]);
        // What comes back is our own form, which is read as any text is.
        var text = back.Text.Replace("package:0", $"file:{Picture}", StringComparison.Ordinal);
        var again = QuizText.Read(text);
        again.Lines.Where(line => line.IsFault).ShouldBeEmpty();
        // A formula comes without what somebody typed it as, and breaks and blanks as QTI writes them.
        Said(again.Questions!.Value, again.Draws)
            .ShouldBe(Said(paper.Questions, paper.Draws).Replace(" data-tex=\\u0022p\\u0022", "", StringComparison.Ordinal));
    }

    [Fact]
    public async Task An_item_scores_by_itself_as_it_is_marked_here()
    {
        var paper = Paper(
            Fits.Replace("IMAGE", $"<p><img src=\"file:{Picture}\" alt=\"a &quot;dial&quot;\"></p>", StringComparison.Ordinal)
        );
        var items = await Items(paper);
        Score("k1", ("RESPONSE", ["a1"])).ShouldBe(2);
        Score("k1", ("RESPONSE", ["a2"])).ShouldBe(0);
        Score("k2", ("RESPONSE", ["a1", "a2"])).ShouldBe(3);
        Score("k2", ("RESPONSE", ["a1"])).ShouldBe(1.5m);
        // Picking everything gains nothing.
        Score("k2", ("RESPONSE", ["a1", "a2", "a3"])).ShouldBe(0);
        Score("k3", ("RESPONSE", ["a2", "a1"])).ShouldBe(1);
        Score("k3", ("RESPONSE", ["a1"])).ShouldBe(0);
        Score("k4").ShouldBe(1);
        Score("k4", ("RESPONSE", ["a1"])).ShouldBe(0);
        Score("k5", ("RESPONSE", ["false"])).ShouldBe(1);
        Score("k6", ("RESPONSE", ["1013.75"])).ShouldBe(1);
        Score("k6", ("RESPONSE", ["1013.76"])).ShouldBe(0);
        Score("k7", ("RESPONSE", ["CUMULONIMBUS"])).ShouldBe(1);
        Score("k7", ("RESPONSE", ["cumulus"])).ShouldBe(0);
        Score("k8", ("RESPONSE", ["a1", "a2", "a3"])).ShouldBe(1);
        Score("k8", ("RESPONSE", ["a2", "a1", "a3"])).ShouldBe(0);
        Score("k9", ("RESPONSE", ["a1 a3", "a2 a5"])).ShouldBe(1);
        Score("k10", ("RESPONSE1", ["a1"]), ("RESPONSE2", ["turns right"]), ("RESPONSE3", ["8"])).ShouldBe(3);
        Score("k10", ("RESPONSE1", ["a2"]), ("RESPONSE2", ["Veers"])).ShouldBe(1);

        decimal Score(string item, params (string Name, string[] Given)[] answers) =>
            QtiScorer.Score(items[item], answers.ToDictionary(answer => answer.Name, answer => answer.Given));
    }

    [Fact]
    public async Task A_package_names_what_it_holds_and_an_item_declares_what_it_asks()
    {
        var paper = Paper(
            Fits.Replace("IMAGE", $"<p><img src=\"file:{Picture}\" alt=\"a &quot;dial&quot;\"></p>", StringComparison.Ordinal)
        );
        using var zip = new ZipArchive(await Zipped(paper), ZipArchiveMode.Read);
        var names = zip.Entries.Select(entry => entry.FullName).ToList();
        var manifest = Xml(zip, "imsmanifest.xml");
        manifest.Name.NamespaceName.ShouldBe("http://www.imsglobal.org/xsd/imscp_v1p1");
        manifest
            .Descendants()
            .Attributes("href")
            .Select(href => href.Value)
            .Distinct()
            .Order()
            .ShouldBe(names.Where(name => name != "imsmanifest.xml").Order());
        var ids = manifest.Descendants().Attributes("identifier").Select(id => id.Value).ToList();
        ids.Distinct().Count().ShouldBe(ids.Count);
        manifest.Descendants().Attributes("identifierref").ShouldAllBe(reference => ids.Contains(reference.Value));
        var test = Xml(zip, "test.xml");
        test.Descendants()
            .Where(element => element.Name.LocalName == "assessmentItemRef")
            .Select(item => (string)item.Attribute("href")!)
            .ShouldBe(paper.Questions.Select(question => $"items/{question.Question.Id}.xml"));
        test.Descendants().Single(element => element.Name.LocalName == "selection").Attribute("select")!.Value.ShouldBe("1");
        test.Descendants().Single(element => element.Name.LocalName == "timeLimits").Attribute("maxTime")!.Value.ShouldBe("2700");
        foreach (var item in names.Where(name => name.StartsWith("items/", StringComparison.Ordinal)).Select(name => Xml(zip, name)))
        {
            item.Name.ShouldBe(XName.Get("assessmentItem", "http://www.imsglobal.org/xsd/imsqti_v2p2"));
            item.DescendantsAndSelf().Attributes("identifier").ShouldAllBe(id => Identifier().IsMatch(id.Value));
            var declared = item.Elements()
                .Where(element => element.Name.LocalName == "responseDeclaration")
                .Select(element => (string)element.Attribute("identifier")!)
                .ToList();
            item.Descendants().Attributes("responseIdentifier").Select(asked => asked.Value).ShouldBe(declared);
            // In the order that the schema has, and in a body nothing but blocks.
            var order = item.Elements().Select(element => Array.IndexOf(Parts, element.Name.LocalName)).ToList();
            order.ShouldAllBe(place => place >= 0);
            order.ShouldBe(order.Order());
            item.Elements().Single(element => element.Name.LocalName == "itemBody").Nodes().ShouldAllBe(node => node is XElement);
        }
    }

    [Fact]
    public void What_has_no_place_there_is_said_before()
    {
        var paper = Paper(
            """
            How much?
            number: 5 km; 2 figures
            hint: Less than 10.

            How far?
            number: 6 km

            What?
            text: cirrus
            slips: 1
            extra

            Order them.
            1. a
            2. b
            """
        );
        new QtiPackage("", paper with { Attempts = null, Shown = AnswersShown.Never, OutOf = 10 }).LeftOut.ShouldBe([
            "Question 1: its hint is left out.",
            "Question 3: it is an ordinary question there, not a bonus.",
            "Questions 1 and 2: the units are left out: only the numbers are compared.",
            "Question 1: it doesn’t ask for significant figures there.",
            "Question 3: slips and accents are not overlooked there.",
            "Question 4: there are no points there for a part of the order.",
            "How many attempts there are, and which of them counts, is left out.",
            "When students see their score and the answers is left out.",
            "What the quiz is worth is left out; there the points of its questions are added up.",
        ]);
    }

    [Fact]
    public async Task What_we_do_not_have_is_left_out_and_named()
    {
        var read = await Read(
            Item("Spot", "<itemBody><p>Where?</p><hotspotInteraction responseIdentifier=\"RESPONSE\"/></itemBody>"),
            Item(
                "Pick",
                """
                <responseDeclaration identifier="RESPONSE" cardinality="single" baseType="identifier">
                <correctResponse><value>B</value></correctResponse></responseDeclaration>
                <itemBody><rubricBlock view="candidate"><p>Hm.</p></rubricBlock><div><p>Look: <img src="gone.png" alt="x"/></p></div>
                <choiceInteraction responseIdentifier="RESPONSE" maxChoices="1"><prompt>Which <em>one</em>?</prompt>
                <simpleChoice identifier="A"><p><strong>First</strong></p></simpleChoice>
                <simpleChoice identifier="B">Second</simpleChoice></choiceInteraction></itemBody>
                <responseProcessing template="http://www.imsglobal.org/question/qti_v2p2/rptemplates/match_correct"/>
                """
            )
        );
        read.LeftOut.ShouldBe(
            [
                "“Spot”: left out: a quiz here has no answers of the kind “hotspotInteraction”.",
                "Question 1: the formatting of its answers is left out.",
                "Question 1: “rubricBlock” in it is left out.",
                "Question 1: a picture, sound or film in it is not in the package, and is left out.",
            ],
            ignoreOrder: true
        );
        var question = QuizText.Read(read.Text).Questions!.Value.Single();
        QuizText.PlainText(question.Text).ShouldContain("Which one?");
        question.Question.Key.ShouldBeOfType<QuestionKey.OneKey>().Right.ShouldBe(["a2"]);
    }

    [Theory]
    [InlineData("<!DOCTYPE a [<!ENTITY x SYSTEM \"file:///etc/passwd\">]><assessmentItem>&x;</assessmentItem>", "document type")]
    [InlineData("<assessmentItem", "not sound XML")]
    [InlineData("<qti-assessment-item/>", "no question of QTI 2")]
    [InlineData("<assessmentItem><itemBody><p>Nothing.</p></itemBody></assessmentItem>", "it asks for no answer")]
    public async Task What_is_hostile_or_broken_is_refused(string item, string words) =>
        (await Should.ThrowAsync<PackageException>(() => Read(item))).Message.ShouldContain(words);

    [Fact]
    public async Task What_is_nested_too_deep_or_unpacks_to_too_much_is_refused()
    {
        string Often(string tag) => string.Concat(Enumerable.Repeat(tag, 5_000));
        var deep = $"<assessmentItem><itemBody>{Often("<div>")}{Often("</div>")}</itemBody></assessmentItem>";
        (await Should.ThrowAsync<PackageException>(() => Read(deep))).Message.ShouldContain("60 levels deep");
        (await Should.ThrowAsync<PackageException>(() => Read(new string(' ', 3_000_000)))).Message.ShouldContain("unpacks to too much");
        (await Should.ThrowAsync<PackageException>(() => QtiReader.Read(new MemoryStream("no zip"u8.ToArray())))).Message.ShouldContain(
            "not a zip file"
        );
        (await Should.ThrowAsync<PackageException>(() => QtiReader.Read(Zip(("a.txt", ""))))).Message.ShouldContain("imsmanifest.xml");
    }

    [Fact]
    public async Task What_xml_cannot_hold_is_left_out_of_a_package()
    {
        var paper = Paper("Which\u0001?\n+ a\u0002b\n- c\n\nWhat?\ntext: x\u0003y");
        var items = await Items(paper);
        items["k1"].Value.ShouldContain("Which?");
        items["k1"]
            .Descendants()
            .Where(element => element.Name.LocalName == "simpleChoice")
            .Select(choice => choice.Value)
            .ShouldBe(["ab", "c"]);
        QtiScorer.Score(items["k2"], new Dictionary<string, string[]> { ["RESPONSE"] = ["xy"] }).ShouldBe(1);
    }

    private static readonly string[] Parts =
    [
        "responseDeclaration",
        "outcomeDeclaration",
        "itemBody",
        "responseProcessing",
        "modalFeedback",
    ];
    private const string Picture = "0123456789abcdef0123456789abcdef0123456789abcdef0123456789abcdef";

    private static QuizPaper Paper(string text)
    {
        var read = QuizText.Read(text.ReplaceLineEndings("\n"));
        read.Lines.Where(line => line.IsFault).ShouldBeEmpty();
        return new()
        {
            Questions = read.Questions!.Value,
            Draws = read.Draws,
            Limit = 45,
            Grace = 0,
        };
    }

    private static string Said(IEnumerable<PaperQuestion> questions, IEnumerable<int> draws) =>
        QuizPaperFile.Write(new() { Questions = [.. questions], Draws = [.. draws] });

    private static async Task<MemoryStream> Zipped(QuizPaper paper)
    {
        var to = new MemoryStream();
        await new QtiPackage("Clouds", paper).Write(
            to,
            [(new PackedFile(Picture, false, () => new MemoryStream("PNG"u8.ToArray())), "image/png")],
            TestContext.Current.CancellationToken
        );
        to.Position = 0;
        return to;
    }

    private static async Task<Dictionary<string, XElement>> Items(QuizPaper paper)
    {
        using var zip = new ZipArchive(await Zipped(paper), ZipArchiveMode.Read);
        return paper.Questions.ToDictionary(question => question.Question.Id, question => Xml(zip, $"items/{question.Question.Id}.xml"));
    }

    private static XElement Xml(ZipArchive zip, string name)
    {
        using var from = zip.GetEntry(name).ShouldNotBeNull().Open();
        return XElement.Load(from, LoadOptions.PreserveWhitespace);
    }

    private static string Item(string title, string inside) =>
        $"<assessmentItem xmlns=\"http://www.imsglobal.org/xsd/imsqti_v2p1\" identifier=\"i\" title=\"{title}\">{inside}</assessmentItem>";

    private static Task<QtiQuiz> Read(params string[] items) =>
        QtiReader.Read(
            Zip([
                (
                    "imsmanifest.xml",
                    "<manifest><resources>"
                        + string.Concat(items.Select((_, n) => $"<resource type=\"imsqti_item_xmlv2p1\" href=\"i{n}.xml\"/>"))
                        + "</resources></manifest>"
                ),
                .. items.Select((item, n) => ($"i{n}.xml", item)),
            ]),
            TestContext.Current.CancellationToken
        );

    private static MemoryStream Zip(params (string Name, string Text)[] files)
    {
        var to = new MemoryStream();
        using (var zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (name, text) in files)
            {
                using var into = zip.CreateEntry(name).Open();
                into.Write(Encoding.UTF8.GetBytes(text));
            }
        to.Position = 0;
        return to;
    }

    [GeneratedRegex(@"^[A-Za-z_][A-Za-z0-9_.-]*$")]
    private static partial Regex Identifier();
}
