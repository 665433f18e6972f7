using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Files;

/// <summary>A file of an item as its team sees it.</summary>
/// <param name="Version">To be named when it is changed.</param>
/// <param name="Before">The files it replaced, latest first.</param>
/// <param name="Given"><c>read</c>, <c>copy</c> or <c>together</c>.</param>
/// <param name="CopyName">How each student’s copy is named, as a pattern.</param>
/// <param name="Copies">The copies students have.</param>
public sealed record ItemFileAnswer(
    FileAnswer File,
    string BroughtBy,
    Moment BroughtAt,
    long Version,
    IReadOnlyList<OlderFile> Before,
    string Given,
    string CopyName,
    CopyCounts Copies
)
{
    /// <summary>The files an item has now, in order.</summary>
    public static IReadOnlyList<ItemFileAnswer> All(EditionPlan plan, IReadOnlyList<ItemFileRow> files, IReadOnlyList<CopyRow> copies)
    {
        var byId = files.ToDictionary(file => file.Id);
        return
        [
            .. files
                .Where(file => !file.Removed)
                .Select(file => new ItemFileAnswer(
                    Of(plan, file),
                    file.BroughtBy,
                    Moment.Of(file.BroughtAt, plan.Term.Zone),
                    file.Version,
                    [
                        .. Before(file)
                            .Select(older => new OlderFile(Of(plan, older), older.BroughtBy, Moment.Of(older.BroughtAt, plan.Term.Zone))),
                    ],
                    file.Given,
                    file.CopyName ?? CopyNames.Usual,
                    CopyCounts.Of(file, CopyStore.LineOf(files, file.Id), copies)
                )),
        ];

        IEnumerable<ItemFileRow> Before(ItemFileRow file)
        {
            while (file.Replaces is { } replaced && byId.TryGetValue(replaced, out var older))
                yield return file = older;
        }
    }

    private static FileAnswer Of(EditionPlan plan, ItemFileRow file) =>
        FileAnswer.Of(file.Id.Value, file.Name, file.Stored, $"/api/editions/{plan.Id}/items/{file.Item}/files/{file.Id}");
}

/// <summary>A file that was replaced.</summary>
public sealed record OlderFile(FileAnswer File, string BroughtBy, Moment BroughtAt);

/// <summary>How many students have a copy of a file.</summary>
/// <param name="AsGiven">Of them, those who have not worked in it.</param>
/// <param name="Behind">Of those, the ones whose copy is of another file than the one given now.</param>
public sealed record CopyCounts(int Students, int AsGiven, int Behind)
{
    /// <param name="line">All the forms of the file, earlier and later.</param>
    public static CopyCounts Of(ItemFileRow file, IReadOnlySet<Id<ItemFileRow>> line, IReadOnlyList<CopyRow> copies)
    {
        var each = copies.Where(copy => line.Contains(copy.Of)).ToLookup(copy => copy.Person);
        var asGiven = each.Where(own => own.All(copy => copy.AsGiven)).ToList();
        return new(each.Count, asGiven.Count, asGiven.Count(own => own.Any(copy => copy.Of != file.Id)));
    }
}
