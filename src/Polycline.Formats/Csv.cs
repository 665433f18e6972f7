using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;

namespace Polycline.Formats;

/// <summary>Tables as CSV (RFC 4180), in UTF-8 with a byte order mark, so that spreadsheets read every letter as it is.</summary>
public static class Csv
{
    // A cell that begins like a formula is given an apostrophe, so that a spreadsheet shows it and does not run it.
    private static readonly CsvConfiguration Neutral = new(CultureInfo.InvariantCulture)
    {
        InjectionOptions = InjectionOptions.Escape,
        NewLine = "\r\n",
        // Any line break in a cell, not only the one between rows.
        ShouldQuote = cell => ConfigurationFunctions.ShouldQuote(cell) || cell.Field?.AsSpan().ContainsAny('\r', '\n') == true,
    };

    /// <param name="rows">Row by row, the headings first; null is an empty cell.</param>
    public static byte[] Write(IEnumerable<IReadOnlyList<string?>> rows)
    {
        using var stream = new MemoryStream();
        using (var writer = new CsvWriter(new StreamWriter(stream, new UTF8Encoding(encoderShouldEmitUTF8Identifier: true)), Neutral))
            foreach (var row in rows)
            {
                foreach (var cell in row)
                    writer.WriteField(cell);
                writer.NextRecord();
            }
        return stream.ToArray();
    }
}
