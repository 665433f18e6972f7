using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Formats.Files;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Files;

/// <param name="Uploads">Files that were sent, 1 to 50, in the order in which to list them.</param>
public sealed record AttachFilesRequest(Id<Item> Item, IReadOnlyList<Guid> Uploads);

/// <summary>Adds files to an item, after those it has.</summary>
public sealed class AttachFiles : IPlanningCommand<EditionPlan, ItemFiles, AttachFilesRequest>
{
    private const int MostAtOnce = 50,
        Most = 100;

    public static string Name => "attach-files";

    public static IValidator<AttachFilesRequest> Validator { get; } = new Rules();

    public static Task<ItemFiles> Read(NpgsqlConnection connection, EditionPlan plan, AttachFilesRequest request) =>
        ItemFiles.Read(connection, plan, request.Item, request.Uploads);

    public static CommandDecision Decide(EditionPlan plan, ItemFiles files, AttachFilesRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        var present = files.Present;
        if (present.Count + request.Uploads.Count > Most)
            throw Problem.Field("uploads", $"An item can have up to {Most} files. Add some of them to another item.");
        var sent = request.Uploads.Select((upload, n) => files.SentBy(viewpoint, upload, $"uploads[{n}]")).ToList();
        ItemFiles.NeedsRoom(files.Taken + sent.Sum(file => file.Size), "uploads");
        var names = present.Select(file => file.Name).ToHashSet(StringComparer.OrdinalIgnoreCase);
        var rank = present.Count == 0 ? null : present[^1].Rank;
        var changes = new List<Change>();
        foreach (var file in sent)
        {
            var name = FileNames.Free(file.Name, names);
            names.Add(name);
            rank = Rank.Between(rank, null);
            changes.Add(
                Change.Add(
                    Tables.ItemFiles.Edition.Is(plan.Id),
                    Tables.ItemFiles.Item.Is(request.Item),
                    Tables.ItemFiles.Section.Is(plan.Row(item.Ref).Section),
                    Tables.ItemFiles.Rank.Is(rank),
                    Tables.ItemFiles.Name.Is(name),
                    Tables.ItemFiles.File.Is(file.Hash),
                    Tables.ItemFiles.BroughtBy.Is(viewpoint.Who.Id),
                    Tables.ItemFiles.BroughtAt.Is(viewpoint.At)
                )
            );
        }
        var named = sent.Count == 1 ? $"“{sent[0].Name}”" : Counting.Counted(sent.Count, "file", "files");
        return new($"added {named} to “{item.Title}”", changes) { Act = $"Add {named}" };
    }

    private sealed class Rules : AbstractValidator<AttachFilesRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Uploads)
                .Must(uploads => uploads.Count is > 0 and <= MostAtOnce)
                .WithMessage($"Choose at least one file, and no more than {MostAtOnce} at a time.");
            RuleFor(request => request.Uploads)
                .Must(uploads => uploads.Distinct().Count() == uploads.Count)
                .WithMessage("A file is listed twice. Remove one of them.");
        }
    }
}
