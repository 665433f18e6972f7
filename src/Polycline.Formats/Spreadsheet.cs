using System.Globalization;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;

namespace Polycline.Formats;

/// <summary>A sheet of a spreadsheet.</summary>
/// <param name="Name">Up to 31 characters, without <c>[ ] : * ? / \</c>.</param>
/// <param name="Rows">
/// Row by row, the headings first; each cell a text, a <see cref="decimal"/>, or null where it is empty. Texts are never formulas.
/// </param>
public sealed record SpreadsheetSheet(string Name, IEnumerable<IReadOnlyList<object?>> Rows);

/// <summary>
/// Tables as a spreadsheet (Office Open XML, ISO/IEC 29500), numbers as numbers, the first row and column staying in view.
/// </summary>
public static class Spreadsheet
{
    public static byte[] Write(params IReadOnlyList<SpreadsheetSheet> sheets)
    {
        using var stream = new MemoryStream();
        using (var document = SpreadsheetDocument.Create(stream, SpreadsheetDocumentType.Workbook))
        {
            var workbook = document.AddWorkbookPart();
            workbook.Workbook = new Workbook();
            var list = workbook.Workbook.AppendChild(new Sheets());
            foreach (var (n, sheet) in sheets.Index())
            {
                var part = workbook.AddNewPart<WorksheetPart>();
                part.Worksheet = new Worksheet(
                    new SheetViews(
                        new SheetView(
                            new Pane
                            {
                                HorizontalSplit = 1,
                                VerticalSplit = 1,
                                TopLeftCell = "B2",
                                ActivePane = PaneValues.BottomRight,
                                State = PaneStateValues.Frozen,
                            }
                        )
                        {
                            WorkbookViewId = 0,
                        }
                    ),
                    new SheetData(sheet.Rows.Select(row => new Row(row.Select(CellOf))))
                );
                list.AppendChild(
                    new Sheet
                    {
                        Id = workbook.GetIdOfPart(part),
                        SheetId = (uint)n + 1,
                        Name = sheet.Name,
                    }
                );
            }
        }
        return stream.ToArray();
    }

    private static Cell CellOf(object? value) =>
        value switch
        {
            null => new Cell(),
            decimal number => new Cell { DataType = CellValues.Number, CellValue = new(number.ToString(CultureInfo.InvariantCulture)) },
            string text => new Cell
            {
                DataType = CellValues.InlineString,
                InlineString = new InlineString(new Text(Readable(text)) { Space = SpaceProcessingModeValues.Preserve }),
            },
            _ => throw new ArgumentException("A cell is a text, a decimal or nothing.", nameof(value)),
        };

    // What XML cannot hold is left out.
    private static string Readable(string text) =>
        string.Concat(text.EnumerateRunes().Where(rune => rune.Value is 0x9 or 0xA or 0xD or >= 0x20 and not 0xFFFE and not 0xFFFF));
}
