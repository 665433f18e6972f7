using FluentValidation;
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

/// <param name="Version">The version of the file that was read.</param>
public sealed record RenameFileRequest(Id<Item> Item, Id<ItemFileRow> File, string Name, long Version);

/// <summary>Renames a file.</summary>
public sealed class RenameFile : IPlanningCommand<EditionPlan, ItemFiles, RenameFileRequest>
{
    public static string Name => "rename-file";

    public static IValidator<RenameFileRequest> Validator { get; } = new Rules();

    public static Task<ItemFiles> Read(NpgsqlConnection connection, EditionPlan plan, RenameFileRequest request) =>
        ItemFiles.Read(connection, plan, request.Item, []);

    public static CommandDecision Decide(EditionPlan plan, ItemFiles files, RenameFileRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        var (file, name) = (files.Needed(request.File), request.Name.Trim());
        if (FileTypes.Fault(name, file.Type) is { } fault)
            throw Problem.Field("name", fault);
        if (files.Present.Any(other => other.Id != file.Id && string.Equals(other.Name, name, StringComparison.OrdinalIgnoreCase)))
            throw Problem.Field("name", "Another file here already has this name. Choose a different one.");
        var turn = Tables.ItemFiles.Name.Turns(file.Name, name);
        return new(
            turn.Changes ? $"renamed “{file.Name}” to “{name}”" : $"left “{name}” as it is",
            turn.Changes ? [Change.Set(Tables.ItemFiles.Table, file.Id, request.Version, turn)] : []
        )
        {
            Act = "Rename it",
        };
    }

    private sealed class Rules : AbstractValidator<RenameFileRequest>
    {
        public Rules() =>
            RuleFor(request => request.Name)
                .Custom(
                    (name, context) =>
                    {
                        if (FileNames.Fault(name.Trim()) is { } fault)
                            context.AddFailure(fault);
                    }
                );
    }
}

/// <param name="After">The file it is to follow; null: it comes first.</param>
/// <param name="Version">The version of the file that was read.</param>
public sealed record MoveFileRequest(Id<Item> Item, Id<ItemFileRow> File, Id<ItemFileRow>? After, long Version);

/// <summary>Moves a file up or down among those of its item.</summary>
public sealed class MoveFile : IPlanningCommand<EditionPlan, ItemFiles, MoveFileRequest>
{
    public static string Name => "move-file";

    public static Task<ItemFiles> Read(NpgsqlConnection connection, EditionPlan plan, MoveFileRequest request) =>
        ItemFiles.Read(connection, plan, request.Item, []);

    public static CommandDecision Decide(EditionPlan plan, ItemFiles files, MoveFileRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        var file = files.Needed(request.File);
        var others = files.Present.Where(other => other.Id != file.Id).ToList();
        var place = request.After is { } after ? others.FindIndex(other => other.Id == after) + 1 : 0;
        if (request.After is not null && place == 0)
            throw Problem.Unknown("after");
        if (files.Present.ToList().FindIndex(other => other.Id == file.Id) == place)
            return new($"left “{file.Name}” where it is", []);
        var rank = Rank.Between(place == 0 ? null : others[place - 1].Rank, place == others.Count ? null : others[place].Rank);
        return new(
            $"moved “{file.Name}”",
            [Change.Set(Tables.ItemFiles.Table, file.Id, request.Version, Tables.ItemFiles.Rank.Turns(file.Rank, rank))]
        )
        { };
    }
}

/// <param name="Version">The version of the file that was read.</param>
public sealed record RemoveFileRequest(Id<Item> Item, Id<ItemFileRow> File, long Version);

/// <summary>Removes a file from its item.</summary>
public sealed class RemoveFile : IPlanningCommand<EditionPlan, ItemFiles, RemoveFileRequest>
{
    public static string Name => "remove-file";

    public static Task<ItemFiles> Read(NpgsqlConnection connection, EditionPlan plan, RemoveFileRequest request) =>
        ItemFiles.Read(connection, plan, request.Item, []);

    public static CommandDecision Decide(EditionPlan plan, ItemFiles files, RemoveFileRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        var file = files.Needed(request.File);
        return new(
            $"removed “{file.Name}” from “{item.Title}”",
            [Change.Remove(Tables.ItemFiles.Table, file.Id, request.Version, viewpoint.At)]
        )
        {
            Act = $"Remove “{file.Name}”",
        };
    }
}
