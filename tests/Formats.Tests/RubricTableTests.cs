using System.Text;
using CsCheck;
using Polycline.Core.Marking.Papers;
using Polycline.Formats;
using Polycline.Formats.Rubrics;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Formats;

/// <summary>Rubrics as tables: what a teacher copies from a spreadsheet, and what goes out.</summary>
public sealed class RubricTableTests
{
    private static IReadOnlyList<WrittenCriterion> Read(string text)
    {
        var read = RubricTable.Read(text);
        read.Faults.ShouldBeEmpty();
        return read.Criteria.ShouldNotBeNull();
    }

    [Fact]
    public void A_table_from_a_spreadsheet_is_read_as_it_is_meant()
    {
        var criteria = Read(
            "What I look at\tWeight\tOptional\tNot yet (0)\tNearly (1–2)\tThere [3 points]\n"
                + "Seven entries\t2\t\tNone.\tSome.\t\"All seven,\non seven days.\"\n"
                + "\t\t\t\t\t\n"
                + "A drawing\t\tyes\t–\t(0.5) One.\t(1 to 2) More.\n"
        );
        criteria.Select(one => (one.Title, one.Weight, one.IsOptional)).ShouldBe([("Seven entries", 2m, false), ("A drawing", 1m, true)]);
        criteria[0]
            .Levels.ShouldBe([
                new("", "Not yet", 0, 0, false) { Words = "None." },
                new("", "Nearly", 1, 2, true) { Words = "Some." },
                new("", "There", 3, 3, false) { Words = "All seven, on seven days." },
            ]);
        criteria[1]
            .Levels.ShouldBe([new("", "Nearly", 0.5m, 0.5m, false) { Words = "One." }, new("", "There", 1, 2, true) { Words = "More." }]);
    }

    [Fact]
    public void Points_alone_name_a_level_and_an_empty_cell_has_no_words()
    {
        var levels = Read("Criterion;0;1,5;2-3;4 pts\nTime;;late;;\n").ShouldHaveSingleItem().Levels;
        levels
            .Select(level => (level.Name, level.From, level.To, level.IsRange, level.Words))
            .ShouldBe([("", 0m, 0m, false, ""), ("", 1.5m, 1.5m, false, "late"), ("", 2m, 3m, true, ""), ("", 4m, 4m, false, "")]);
    }

    [Theory]
    [InlineData("Criterion\nTime", null, null, "no levels")]
    [InlineData("Criterion,0,1", null, null, "nothing below")]
    [InlineData("Criterion,Good\nTime,yes", 2, "Good", "How many points")]
    [InlineData("Criterion,Good (3–1)\nTime,yes", 1, "Good (3–1)", "lower number")]
    [InlineData("Criterion,Good (20000)\nTime,yes", 1, "Good (20000)", "Points are numbers")]
    [InlineData("Criterion,0,1\n,a,b", 2, "Criterion", "no criterion")]
    [InlineData("Criterion,0,1\nTime,a,b\ntime,c,d", 3, "Criterion", "already in row 2")]
    [InlineData("Criterion,Weight,0\nTime,much,a", 2, "Weight", "“much” isn’t a weight")]
    [InlineData("Criterion,Optional,0\nTime,perhaps,a", 2, "Optional", "neither yes nor no")]
    [InlineData("Criterion,0,1\nTime,–,–", 2, null, "has no level")]
    [InlineData("Criterion,0\nTime,=HYPERLINK(\"x\")", 2, "0", "is a formula")]
    public void What_is_at_fault_is_said_with_its_row_and_column(string text, int? row, string? column, string words)
    {
        var read = RubricTable.Read(text);
        read.Criteria.ShouldBeNull();
        var fault = read.Faults[0];
        (fault.Row, fault.Column).ShouldBe((row, column));
        fault.Words.ShouldContain(words, Case.Sensitive);
    }

    private static readonly Gen<string> SomeWords = Gen.OneOf(
        Gen.Const(""),
        Gen.Const("–"),
        Gen.Const("(3) of them"),
        Gen.Const("-5 °C or less"),
        Gen.Const("yes, and \"more\"; or less"),
        Gen.String[Gen.Char["abc ü,;=@"], 1, 12].Select(text => string.Join(' ', text.Split(' ', StringSplitOptions.RemoveEmptyEntries)))
    );

    private static readonly Gen<WrittenLevel> SomeLevel = Gen.Select(
        Gen.OneOf(Gen.Const(""), Gen.Const("good"), Gen.Const("fair (mostly)")),
        Gen.Int[0, 9],
        Gen.Int[0, 3],
        SomeWords,
        (name, from, more, words) => new WrittenLevel("", name, from, from + more, more > 0) { Words = words }
    );

    private static readonly Gen<WrittenRubric> SomeRubric = Gen.Select(
            SomeLevel.Array[1, 3],
            Gen.Int[0, 3],
            Gen.Bool,
            (levels, weight, isOptional) => new WrittenCriterion("", "", [.. levels]) { Weight = weight / 2m, IsOptional = isOptional }
        )
        .Array[1, 3]
        .Select(criteria => new WrittenRubric("", [.. criteria.Select((one, place) => one with { Title = $"criterion {place}" })]));

    [Fact]
    public void What_goes_out_comes_in_again()
    {
        SomeRubric.Sample(rubric =>
        {
            var written = RubricTable.Write(rubric);
            // More columns than levels a criterion can have are for no spreadsheet: such a table is not read again.
            if (written[0].Count <= WrittenRubric.MostLevels + 1)
                Read(Encoding.UTF8.GetString(Csv.Write(written))).ShouldBe(rubric.Criteria);
        });
    }
}
