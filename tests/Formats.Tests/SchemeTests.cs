using Polycline.Core.Courses;
using Polycline.Formats.Schemes;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Formats;

/// <summary>Schemes of work, as teachers keep them.</summary>
public sealed class SchemeTests
{
    private const string Tides = """
        The moon's pull
          High water, low water   2 classes
            read  Twice a day, and a little later
            task  Mark the quay    due 2nd class after
          Springs and neaps
            quiz  Spring or neap?  for marks, a week
        Finding the channel   (6)
          Reading soundings   2
            Numbers on the water
            copy each: Harbour chart
          Buoys and beacons   1-2
            film https://films.fenwater.example/night
            Bring her in (task, 20 points)
          ??  Visit to the pilots
        Revision   optional
        """;

    private static Scheme Read(string text, params (int Line, SchemeLevel Level)[] answers) =>
        SchemeReader.Read(text, answers.ToDictionary(answer => answer.Line, answer => answer.Level));

    private static SchemeLine Item(string written) => Read($"Unit\n  Lesson\n    {written}").Lines[2];

    [Fact]
    public void Indented_text_is_read_line_by_line()
    {
        var lines = Read(Tides).Lines;
        lines
            .Select(line => $"{line.Level} {line.Title}")
            .ShouldBe([
                "Unit The moon's pull",
                "Lesson High water, low water",
                "Item Twice a day, and a little later",
                "Item Mark the quay",
                "Lesson Springs and neaps",
                "Item Spring or neap?",
                "Unit Finding the channel",
                "Lesson Reading soundings",
                "Item Numbers on the water",
                "Item Harbour chart",
                "Lesson Buoys and beacons",
                "Item films.fenwater.example/night",
                "Item Bring her in",
                "Lesson Visit to the pilots",
                "Unit Revision",
            ]);
        lines.Where(line => line.Asks).ShouldHaveSingleItem().Title.ShouldBe("Visit to the pilots");
        lines[6].Wrong.ShouldBe("6 said, lessons come to 5");
        (lines[10].Length, lines[10].Shortest).ShouldBe((2, 1));
        lines[14].Optional.ShouldBeTrue();
        lines
            .Where(line => line.Level == SchemeLevel.Item)
            .Select(line => (line.Kind, line.Purpose))
            .ShouldBe([
                (ItemKind.Page, Purpose.ToRead),
                (ItemKind.Task, Purpose.Practice),
                (ItemKind.Quiz, Purpose.ForMarks),
                (ItemKind.Page, Purpose.ToRead),
                (ItemKind.Handout, Purpose.Practice),
                (ItemKind.Link, Purpose.ToRead),
                (ItemKind.Task, Purpose.ForMarks),
            ]);
        (lines[3].Due!.Meetings, lines[3].Due!.At, lines[5].Due!.Days).ShouldBe((2, AnchorBase.LessonEnd, 7));
        (lines[11].Address, lines[12].Note).ShouldBe(("https://films.fenwater.example/night", "20 points"));
    }

    [Fact]
    public void What_is_answered_is_so()
    {
        Read(Tides, (14, SchemeLevel.Item))
            .Lines[13]
            .ShouldSatisfyAllConditions(line => line.Level.ShouldBe(SchemeLevel.Item), line => line.Kind.ShouldBe(ItemKind.Page));
        Read(Tides, (14, SchemeLevel.LeftOut)).Lines[13].Level.ShouldBe(SchemeLevel.LeftOut);
    }

    [Theory]
    [InlineData("task: Mark the quay", "Mark the quay", ItemKind.Task)]
    [InlineData("Task: Mark the quay", "Mark the quay", ItemKind.Task)]
    [InlineData("Reading the quay", "Reading the quay", ItemKind.Page)]
    [InlineData("Test match", "Test match", ItemKind.Page)]
    [InlineData("homework Mark the quay due next class", "Mark the quay", ItemKind.Task)]
    [InlineData("Mark the quay (homework)", "Mark the quay", ItemKind.Task)]
    [InlineData("• worksheet Mark the quay", "Mark the quay", ItemKind.Handout)]
    [InlineData("Night film https://films.fenwater.example/x", "Night film", ItemKind.Link)]
    [InlineData("discussion  Who owns the sea?", "Who owns the sea?", ItemKind.Discussion)]
    public void An_item_says_its_kind_in_many_ways(string written, string title, ItemKind kind)
    {
        var item = Item(written);
        (item.Title, item.Kind).ShouldBe((title, kind));
    }

    [Theory]
    [InlineData("due next class", 1, null)]
    [InlineData("due 2nd class after", 2, null)]
    [InlineData("due the third class after", 3, null)]
    [InlineData("+2 classes", 2, null)]
    [InlineData("due in 3 days", null, 3)]
    [InlineData("a week", null, 7)]
    [InlineData("2 weeks later", null, 14)]
    public void An_item_says_when_it_is_due(string written, int? classes, int? days)
    {
        var due = Item($"task Mark the quay ({written})").Due.ShouldNotBeNull();
        (due.Meetings, due.Days).ShouldBe((classes, days));
    }

    [Theory]
    [InlineData("Soundings 2 classes", 2, null, false)]
    [InlineData("Soundings (1-3)", 3, 1, false)]
    [InlineData("Soundings   90 min", 90, null, true)]
    [InlineData("Soundings: 2 hours", 120, null, true)]
    [InlineData("Room 101", null, null, false)]
    [InlineData("Soundings (in pairs)", null, null, false)]
    public void A_lesson_says_how_long_it_takes(string written, int? length, int? shortest, bool inMinutes)
    {
        var lesson = Read($"Unit\n\t{written}").Lines[1];
        (lesson.Length, lesson.Shortest, lesson.InMinutes).ShouldBe((length, shortest, inMinutes));
        if (length is null)
            lesson.Title.ShouldBe(written);
    }

    [Theory]
    [InlineData(
        "Unit\tLesson\tClasses\tItem\tKind\tDue\n"
            + "Tides\tHigh water\t2\tTwice a day\tpage\t\nTides\tHigh water\t2\tMark the quay\ttask\tnext class\n"
            + "\tSprings\t\tSpring or neap?\tquiz\ta week"
    )]
    [InlineData(
        "Tides\tHigh water\t2\tTwice a day\tpage\t\n\t\t\tMark the quay\ttask\tnext class\n\tSprings\t1\tSpring or neap?\tquiz\ta week"
    )]
    public void Rows_of_a_spreadsheet_are_read_with_and_without_headings(string text)
    {
        var lines = Read(text).Lines;
        lines
            .Select(line => $"{line.Level} {line.Title}")
            .ShouldBe([
                "Unit Tides",
                "Lesson High water",
                "Item Twice a day",
                "Item Mark the quay",
                "Lesson Springs",
                "Item Spring or neap?",
            ]);
        (lines[1].Length, lines[3].Kind, lines[3].Due!.Meetings, lines[5].Due!.Days).ShouldBe((2, ItemKind.Task, 1, 7));
    }

    [Fact]
    public void A_line_at_the_edge_that_is_hardly_a_unit_is_asked_about()
    {
        var line = Read("Tides\n  High water\ntask: Mark the quay").Lines[2];
        (line.Level, line.Asks).ShouldBe((SchemeLevel.Item, true));
    }

    [Fact]
    public void A_title_that_is_too_long_is_cut_and_kept_whole_beside_it()
    {
        var item = Item(new string('x', 300));
        (item.Title.Length, item.Note!.Length).ShouldBe((200, 300));
        item.Wrong.ShouldNotBeNull();
    }

    [Fact]
    public void A_line_without_end_is_read_as_far_as_a_line_goes()
    {
        var gaps = $"x{new string(' ', 100_000)}y  z";
        var lines = Read($"{gaps}\n  {new string('(', 100_000)}\n    {string.Concat(Enumerable.Repeat("a  ", 50_000))}").Lines;
        lines.Length.ShouldBe(3);
        lines.ShouldAllBe(line => line.Title.Length <= 200);
    }

    [Fact]
    public void What_nobody_can_see_is_no_title() => Read("Unit\n  \u200B\u200B").Lines[1].Level.ShouldBe(SchemeLevel.LeftOut);

    [Theory]
    [InlineData("")]
    [InlineData("\n\n  \n")]
    [InlineData("??")]
    public void Of_nothing_comes_nothing(string text) => Read(text).Lines.ShouldBeEmpty();
}
