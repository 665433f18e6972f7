using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Changes;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Files;

/// <param name="Given"><c>read</c>, <c>copy</c> or <c>together</c>.</param>
/// <param name="CopyName">How each copy is named (<see cref="CopyNames"/>); null: in the usual way.</param>
/// <param name="Version">The version of the file that was read.</param>
public sealed record GiveFileRequest(Id<Item> Item, Id<ItemFileRow> File, string Given, string? CopyName, long Version);

/// <summary>Says how a file is given: to read, or a copy for each student to work in.</summary>
public sealed class GiveFile : IPlanningCommand<EditionPlan, ItemFiles, GiveFileRequest>
{
    public static string Name => "give-file";

    public static IValidator<GiveFileRequest> Validator { get; } = new Rules();

    public static Task<ItemFiles> Read(NpgsqlConnection connection, EditionPlan plan, GiveFileRequest request) =>
        ItemFiles.Read(connection, plan, request.Item, []);

    public static CommandDecision Decide(EditionPlan plan, ItemFiles files, GiveFileRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        var file = files.Needed(request.File);
        var way = EnumNames.Parse<FileWay>(request.Given);
        var copies = way == FileWay.Copy;
        if (copies && item.Asked?.Way != AskedWay.Work)
            throw Problem.Field(
                "given",
                new Asks().Suits(item.Kind)
                    ? "Students would have no way to hand their copies in. First say, under What students do, that they hand something in."
                    : "Students can’t hand anything in here. Add a task or a handout, and give each a copy there."
            );
        if (way == FileWay.Together)
            SheetStarts.NeedsText(file, "given");
        if (way == FileWay.Together && files.Present.Any(other => other.IsWrittenTogether && other.Id != file.Id))
            throw Problem.Field("given", "A sheet to write in together is here already. An item can have one.");
        var name = copies && request.CopyName?.Trim() is { } wanted && wanted != CopyNames.Usual ? wanted : null;
        var (given, named) = (
            Tables.ItemFiles.Given.Turns(file.Given, request.Given),
            Tables.ItemFiles.CopyName.Turns(file.CopyName, name)
        );
        if (!given.Changes && !named.Changes)
            return new($"left “{file.Name}” as it is given", []);
        return new(
            way switch
            {
                FileWay.Copy => $"gave each student a copy of “{file.Name}”",
                FileWay.Together => $"gave “{file.Name}” to write in together",
                _ => $"gave “{file.Name}” to read",
            },
            [Change.Set(Tables.ItemFiles.Table, file.Id, request.Version, given, named)]
        )
        {
            Act = way switch
            {
                FileWay.Copy => "Give each a copy",
                FileWay.Together => "Give it to write in together",
                _ => "Give it to read",
            },
            Told = Reach(plan, item, file, way, viewpoint),
        };
    }

    private static Reach Reach(EditionPlan plan, Item item, ItemFileRow file, FileWay way, Viewpoint viewpoint)
    {
        var own = plan.Row(item.Ref).Section;
        var sections = plan.Counted.SizesAt(viewpoint.At).Where(size => own is null || size.Section == own.Value.InPlan()).ToList();
        var students = SectionSize.Together(sections);
        var code = plan.Schedule.CodeOf[item.Ref];
        return new(
            [new ReachRow(item.Ref.Name, $"{code} {item.Title}", null, $"“{file.Name}”", InWords(file.Way), InWords(way))],
            [],
            (way, file.Way) switch
            {
                (FileWay.Copy, _) =>
                    $"Each student gets a copy when they first open {code}: {Counting.Counted(students, "student", "students")} now, "
                        + $"and whoever joins later. A copy takes room only once it is worked in: {FileLimits.InWords(file.Size)} each, "
                        + $"{FileLimits.InWords(file.Size * students)} if all are.",
                (FileWay.Together, _) =>
                    $"{Counting.Counted(sections.Count, "section gets", "sections get")} a sheet each, which begins with this file. "
                        + "All students of a section write in it until it closes; everybody sees who wrote what.",
                (_, FileWay.Together) => "Nobody can write in the sheets any more. What is in them can still be read.",
                _ => "No more copies are made. Students keep those they have.",
            },
            Effect.None,
            []
        );
    }

    private static string InWords(FileWay way) =>
        way switch
        {
            FileWay.Copy => "a copy each",
            FileWay.Together => "one together",
            _ => "to read",
        };

    private sealed class Rules : AbstractValidator<GiveFileRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Given)
                .Must(given => Enum.GetValues<FileWay>().Select(EnumNames.Of).Contains(given))
                .WithMessage("Choose one of: read, copy, together.");
            RuleFor(request => request.CopyName)
                .Custom(
                    (name, context) =>
                    {
                        if (name is not null && CopyNames.Fault(name) is { } fault)
                            context.AddFailure(fault);
                    }
                );
        }
    }
}
