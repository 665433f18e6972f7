using System.Globalization;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Formats;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Scores;

/// <summary>The scores as files: those that the viewer may read, of one section or of all.</summary>
public static class ScoreFiles
{
    public const string SpreadsheetType = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

    public static async Task<IResult> HandleCsv(
        long edition,
        long? section,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        var answer = await Read(edition, section, access, viewpoint, compiled, database, stop);
        return Results.File(Csv.Write(InPoints(answer).Select(Texts)), "text/csv; charset=utf-8", "scores.csv");
    }

    public static async Task<IResult> HandleSpreadsheet(
        long edition,
        long? section,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        var answer = await Read(edition, section, access, viewpoint, compiled, database, stop);
        return Results.File(
            Spreadsheet.Write(new("Points", InPoints(answer)), new("Per cent", InPercent(answer))),
            SpreadsheetType,
            "scores.xlsx"
        );
    }

    /// <summary>A student a row: their name, their section, each item, and what it comes to so far.</summary>
    public static IEnumerable<IReadOnlyList<object?>> InPoints(ScoresAnswer answer) =>
        Table(answer, cell => cell.Points is { } points ? Number(points) ?? points : cell.Words);

    /// <summary>The same in per cent.</summary>
    public static IEnumerable<IReadOnlyList<object?>> InPercent(ScoresAnswer answer) =>
        Table(answer, cell => cell.Percent is { } percent ? Percent(percent) : cell.Points ?? cell.Words);

    private static IEnumerable<IReadOnlyList<object?>> Table(ScoresAnswer answer, Func<ScoreCell, object?> told)
    {
        yield return ["Name", "Section", .. answer.Items.Select(Heading), "So far, per cent"];
        foreach (var section in answer.Sections)
        foreach (var student in section.Students)
            yield return [student.Name, section.Name, .. student.Cells.Select(told), student.SoFar is { } share ? Percent(share) : null];
    }

    private static string Heading(ScoreItem item) => $"{item.Code} {item.Title}" + (item.OutOf is { } outOf ? $" ({outOf})" : "");

    private static IReadOnlyList<string?> Texts(IReadOnlyList<object?> row) =>
        [.. row.Select(cell => cell is decimal number ? number.ToString(CultureInfo.InvariantCulture) : (string?)cell)];

    private static object? Percent(string percent) => Number(percent.Replace(" %", "", StringComparison.Ordinal));

    private static object? Number(string text) =>
        decimal.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number) ? number : null;

    private static async Task<ScoresAnswer> Read(
        long edition,
        long? section,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        var answer = await ReadScores.Handle(edition, access, viewpoint, compiled, database, stop);
        if (section is null)
            return answer;
        var one = answer.Sections.Where(known => known.Section == new Id<Section>(section.Value)).ToList();
        return one.Count == 1 ? answer with { Sections = one } : throw Problem.Unknown();
    }
}
