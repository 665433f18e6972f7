using NodaTime;
using Polycline.Core;
using Polycline.Data;
using Polycline.Data.Sheets;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Sheets;

/// <summary>A sheet that a section writes in together, as it stood at the moment one looks at.</summary>
/// <param name="MayWrite">Whether it can be written in at that moment, by those whose it is.</param>
/// <param name="Closes">When nothing more can be written; null: never.</param>
public sealed record SheetAnswer(string Section, bool MayWrite, Moment? Closes, IReadOnlyList<SheetBlock> Blocks);

/// <param name="N">The version one reads, to be named when it is changed.</param>
/// <param name="By">Who wrote it last; null: it stood in the file.</param>
/// <param name="IsOwn">Whether that was whoever reads it, or the student through whose eyes it is read.</param>
/// <param name="Changes">How many times somebody wrote in it.</param>
public sealed record SheetBlock(Id<SheetBlockRow> Id, int N, string Text, string? By, bool IsOwn, Moment At, int Changes)
{
    public static IReadOnlyList<SheetBlock> All(IEnumerable<SheetBlockRow> rows, Viewpoint viewpoint, DateTimeZone zone)
    {
        var reader = viewpoint.Eyes is Eyes.OfStudent { Student: var student } ? student : viewpoint.Who.Id;
        return
        [
            .. rows.Where(row => row.Text.Length > 0)
                .Select(row => new SheetBlock(row.Id, row.N, row.Text, row.By, row.Author == reader, Moment.Of(row.At, zone), row.Changes)),
        ];
    }
}

/// <summary>What a block said once.</summary>
/// <param name="By">Null: it stood in the file.</param>
/// <param name="Text">Empty: it was taken out.</param>
public sealed record SheetVersion(int N, string? By, string Text, Moment At);

/// <summary>Reads a section's sheet: for its students as they may read the item, and for those who teach it.</summary>
public static class ReadSheet
{
    public static async Task<SheetAnswer> Handle(
        long section,
        long item,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        var place = await SheetPlace.Of(access, viewpoint, compiled, database, new(item), stop);
        var blocks = await database.Read(connection => SheetStore.Blocks(connection, new(item), place.Section, viewpoint.At), stop);
        return new(place.SectionName, place.IsOpen, Moment.Of(place.Closes, place.Zone), SheetBlock.All(blocks, viewpoint, place.Zone));
    }

    /// <summary>What a block said before, the latest first.</summary>
    public static async Task<IReadOnlyList<SheetVersion>> HandleBlock(
        long section,
        long item,
        long block,
        Access access,
        Viewpoint viewpoint,
        PlanCache compiled,
        Database database,
        CancellationToken stop
    )
    {
        var place = await SheetPlace.Of(access, viewpoint, compiled, database, new(item), stop);
        var versions = await database.Read(
            connection => SheetStore.Versions(connection, new(item), place.Section, new(block), viewpoint.At),
            stop
        );
        return versions.Count == 0
            ? throw Problem.Unknown()
            : [.. versions.Select(version => new SheetVersion(version.N, version.By, version.Text, Moment.Of(version.At, place.Zone)))];
    }
}
