using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Files;

/// <summary>A file of an item as its team sees it.</summary>
/// <param name="Version">To be named when it is changed.</param>
/// <param name="Before">The files it replaced, latest first.</param>
public sealed record ItemFileAnswer(FileAnswer File, string BroughtBy, Moment BroughtAt, long Version, IReadOnlyList<OlderFile> Before)
{
    /// <summary>The files an item has now, in order.</summary>
    public static IReadOnlyList<ItemFileAnswer> All(EditionPlan plan, IReadOnlyList<ItemFileRow> files)
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
                    ]
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
