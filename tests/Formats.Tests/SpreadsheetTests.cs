using System.Globalization;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;
using DocumentFormat.OpenXml.Validation;
using Polycline.Formats;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Formats;

/// <summary>Spreadsheets, read back by the library that checks them against the standard.</summary>
public sealed class SpreadsheetTests
{
    private static readonly SpreadsheetSheet Points = new(
        "Points",
        [
            ["Name", "1.19 The first log (of 12)"],
            ["Aino Abara", 10.5m],
            ["=HYPERLINK(\"x\")", null],
            ["a\u0001b & <c>  d", "overdue"],
        ]
    );

    [Fact]
    public void It_is_valid_numbers_are_numbers_and_texts_never_formulas()
    {
        using var document = SpreadsheetDocument.Open(
            new MemoryStream(
                Spreadsheet.Write(
                    Points,
                    new(
                        "Per cent",
                        [
                            ["Name"],
                        ]
                    )
                )
            ),
            false
        );
        new OpenXmlValidator().Validate(document).ShouldBeEmpty();
        var workbook = document.WorkbookPart!;
        workbook.Workbook!.Descendants<Sheet>().Select(sheet => sheet.Name?.Value).ShouldBe(["Points", "Per cent"]);
        var first = (WorksheetPart)workbook.GetPartById(workbook.Workbook!.Descendants<Sheet>().First().Id!);
        var rows = first.Worksheet!.Descendants<Row>().Select(row => row.Elements<Cell>().ToList()).ToList();
        rows.Count.ShouldBe(4);
        rows[1][1].DataType!.Value.ShouldBe(CellValues.Number);
        decimal.Parse(rows[1][1].CellValue!.Text, CultureInfo.InvariantCulture).ShouldBe(10.5m);
        rows[2][0].InnerText.ShouldBe("=HYPERLINK(\"x\")");
        first.Worksheet!.Descendants<CellFormula>().ShouldBeEmpty();
        rows[2][1].InnerText.ShouldBeEmpty();
        // What XML cannot hold is left out; blanks stay.
        rows[3][0].InnerText.ShouldBe("ab & <c>  d");
    }
}
