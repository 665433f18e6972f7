using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Data.Ledger;
using Polycline.Formats.Files;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Files;

/// <param name="Upload">The file that was sent to replace it.</param>
/// <param name="Version">The version of the file that was read.</param>
public sealed record ReplaceFileRequest(Id<Item> Item, Id<ItemFileRow> File, Guid Upload, long Version);

/// <summary>Replaces a file. The earlier one stays in its history.</summary>
public sealed class ReplaceFile : IPlanningCommand<EditionPlan, ItemFiles, ReplaceFileRequest>
{
    public static string Name => "replace-file";

    public static Task<ItemFiles> Read(NpgsqlConnection connection, EditionPlan plan, ReplaceFileRequest request) =>
        ItemFiles.Read(connection, plan, request.Item, [request.Upload]);

    public static CommandDecision Decide(EditionPlan plan, ItemFiles files, ReplaceFileRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        var (file, sent) = (files.Needed(request.File), files.SentBy(viewpoint, request.Upload, "upload"));
        if (sent.Hash == file.Hash && sent.Name == file.Name)
            return new($"left “{file.Name}” as it is: it is the same file", []);
        ItemFiles.NeedsRoom(files.Taken + sent.Size, "upload");
        var name = FileNames.Free(sent.Name, [.. files.Present.Where(other => other.Id != file.Id).Select(other => other.Name)]);
        return new(
            name == file.Name ? $"replaced “{file.Name}”" : $"replaced “{file.Name}” with “{name}”",
            [
                Change.Remove(Tables.ItemFiles.Table, file.Id, request.Version, viewpoint.At),
                Change.Add(
                    Tables.ItemFiles.Edition.Is(plan.Id),
                    Tables.ItemFiles.Item.Is(request.Item),
                    Tables.ItemFiles.Section.Is(plan.Row(item.Ref).Section),
                    Tables.ItemFiles.Rank.Is(file.Rank),
                    Tables.ItemFiles.Name.Is(name),
                    Tables.ItemFiles.File.Is(sent.Hash),
                    Tables.ItemFiles.Replaces.Is(file.Id),
                    Tables.ItemFiles.Given.Is(file.Given),
                    Tables.ItemFiles.CopyName.Is(file.CopyName),
                    Tables.ItemFiles.BroughtBy.Is(viewpoint.Who.Id),
                    Tables.ItemFiles.BroughtAt.Is(viewpoint.At)
                ),
            ]
        )
        {
            Act = "Replace it",
        };
    }
}
