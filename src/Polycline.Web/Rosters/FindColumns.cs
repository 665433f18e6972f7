using System.Text.Json;
using Microsoft.AspNetCore.Mvc;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Rosters;
using Polycline.Formats.Rosters;

namespace Polycline.Web.Rosters;

/// <param name="File">In base64: at most 15 MB.</param>
public sealed record RosterColumnsRequest(string File);

/// <param name="IsTable">False: it is a zip, whose columns are known.</param>
/// <param name="Headings">Of a table, in the order of the file.</param>
/// <param name="Columns">What each was last said to be, or seems to be.</param>
/// <param name="Remembered">They were said to be so before.</param>
public sealed record RosterColumnsAnswer(
    bool IsTable,
    IReadOnlyList<string> Headings,
    IReadOnlyList<RosterColumn> Columns,
    bool Remembered
);

/// <summary>Reads which columns a roster has; nothing is written.</summary>
public static class FindColumns
{
    public static async Task<RosterColumnsAnswer> Handle([FromBody] RosterColumnsRequest request, Database database, CancellationToken stop)
    {
        var bytes = RosterFile.Bytes(request.File);
        if (OneRoster.IsZip(bytes))
            return new(false, [], [], false);
        var (headings, guessed) = RosterFile.Headings(bytes);
        var remembered = await database.Read(connection => RosterStore.Columns(connection, KeyOf(headings)), stop);
        return new(true, headings, remembered is null ? guessed : Columns(remembered), remembered is not null);
    }

    internal static string KeyOf(IReadOnlyList<string> headings) => string.Join('\n', headings);

    internal static string Json(IEnumerable<RosterColumn> columns) => JsonSerializer.Serialize(columns.Select(EnumNames.Of));

    private static RosterColumn[] Columns(string json) =>
        [.. JsonSerializer.Deserialize<string[]>(json)!.Select(EnumNames.Parse<RosterColumn>)];
}
