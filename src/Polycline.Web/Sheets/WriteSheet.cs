using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Merging;
using Polycline.Data.Courses;
using Polycline.Data.Sheets;
using Polycline.Formats.Files;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Sheets;

/// <param name="Block">The block to change; null: a new one.</param>
/// <param name="After">The block that a new one is to follow; null: it comes first.</param>
/// <param name="Base">The version that was changed; 0: it is new.</param>
/// <param name="Text">What it is to say, up to 3,000 characters; empty: it is taken out.</param>
public sealed record WriteSheetRequest(Id<Item> Item, Id<SheetBlockRow>? Block, Id<SheetBlockRow>? After, int Base, string Text);

/// <param name="Block">The block in which it stands.</param>
/// <param name="Mine">The version that says what was sent.</param>
/// <param name="Apart">Somebody else had changed the same words: what was sent stands in a block of its own.</param>
/// <param name="Blocks">The whole sheet as it stands now.</param>
public sealed record WrittenAnswer(Id<SheetBlockRow> Block, int Mine, bool Apart, IReadOnlyList<SheetBlock> Blocks) : IAnswer<WrittenAnswer>
{
    public WrittenAnswer AsPreview() => this;
}

/// <summary>
/// Writes in a section's sheet. What somebody else changed meanwhile is merged word by word; where that cannot be, both stand there.
/// </summary>
public sealed class WriteSheet : IWorkCommand<WriteSheetRequest, EditionPlan, WrittenAnswer>
{
    private const int MostBlocks = 400;

    public static string Name => "write-sheet";

    public static May May => May.SectionStudent | May.SectionTeacher;

    public static WorkPlace Place => WorkPlace.Section;

    public static IValidator<WriteSheetRequest> Validator { get; } = new Rules();

    public static Task<EditionPlan> Prepare(Access access, PlanCache plans, WriteSheetRequest request) => plans.Edition(access);

    public static async Task<WrittenAnswer> Do(WorkContext work, EditionPlan plan, WriteSheetRequest request)
    {
        var (connection, viewpoint) = (work.Connection, work.Viewpoint);
        var place = await SheetPlace.Of(connection, plan, work.Access, viewpoint, request.Item);
        if (!place.IsOpen)
            throw Problem.NotOpen("Nothing can be written in this sheet now. What you wrote is still on your page.");
        var sheet = await Begun(connection, place, request.Item, viewpoint);
        // Whoever came first may have begun later.
        var blocks = await SheetStore.Blocks(connection, request.Item, place.Section, Bounds.Latest);
        var text = request.Text.ReplaceLineEndings("\n").Trim('\n', ' ');
        var (block, mine, apart) = request.Block is { } id
            ? await Change(blocks.FirstOrDefault(one => one.Id == id) ?? throw Problem.Unknown("block"))
            : (await Add(request.After, text), 1, false);
        return new(
            block,
            mine,
            apart,
            SheetBlock.All(await SheetStore.Blocks(connection, request.Item, place.Section, Bounds.Latest), viewpoint, place.Zone)
        );

        async Task<(Id<SheetBlockRow> Block, int Mine, bool Apart)> Change(SheetBlockRow now)
        {
            if (request.Base > now.N)
                throw Problem.Unknown("base");
            if (request.Base == now.N)
            {
                if (text == now.Text)
                    return (now.Id, now.N, false);
                await Write(now.Id, now.N + 1, now.N, text);
                return (now.Id, now.N + 1, false);
            }
            var before = await SheetStore.Text(connection, now.Id, request.Base) ?? throw Problem.Unknown("base");
            // What somebody took out is not merged into, nor is what somebody has changed taken out.
            var merged = text.Length == 0 || now.Text.Length == 0 ? null : WordMerge.Of(before, text, now.Text);
            if (merged is null or { Length: > SheetStarts.LongestBlock })
                return text.Length == 0 || text == before ? (now.Id, now.N, true) : (await Add(now.Id, text), 1, true);
            await Write(now.Id, now.N + 1, request.Base, text);
            if (merged != text)
                await Write(now.Id, now.N + 2, now.N + 1, merged);
            return (now.Id, now.N + 1, false);
        }

        async Task<Id<SheetBlockRow>> Add(Id<SheetBlockRow>? after, string said)
        {
            if (said.Length == 0)
                throw Problem.Field("text", "There is nothing to add yet: write something first.");
            if (blocks.Count >= MostBlocks)
                throw Problem.Field("text", $"A sheet can have up to {MostBlocks} paragraphs. Add to one of those already there.");
            var low = after is { } one ? (blocks.FirstOrDefault(block => block.Id == one) ?? throw Problem.Unknown("after")).Rank : null;
            var high = blocks.Select(block => block.Rank).FirstOrDefault(rank => low is null || string.CompareOrdinal(rank, low) > 0);
            var added = await SheetStore.Add(connection, sheet.Id, Rank.Between(low, high));
            await Write(added, 1, 0, said);
            return added;
        }

        Task Write(Id<SheetBlockRow> which, int n, int basedOn, string said) =>
            SheetStore.Write(connection, which, n, basedOn, viewpoint.Who.Id, said, viewpoint.At);
    }

    // Locked, so that two who write at once come one after the other.
    private static async Task<SheetRow> Begun(NpgsqlConnection connection, SheetPlace place, Id<Item> item, Viewpoint viewpoint)
    {
        if (await SheetStore.Of(connection, item, place.Section, locked: true) is { } begun)
            return begun;
        await SheetBeginning.Begin(connection, item, place.Section, viewpoint.At);
        return await SheetStore.Of(connection, item, place.Section, locked: true) ?? throw Problem.Unknown("item");
    }

    private sealed class Rules : AbstractValidator<WriteSheetRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Text)
                .MaximumLength(SheetStarts.LongestBlock)
                .WithMessage($"A paragraph can have up to {SheetStarts.LongestBlock:N0} characters. Write the rest in a second one.")
                .Must(text => text.Length == 0 || FileTypes.Of(System.Text.Encoding.UTF8.GetBytes(text)) == FileTypes.Text)
                .WithMessage("This contains characters that no text has. Remove them, or type it again.");
            RuleFor(request => request.Base).Must(version => version >= 0).WithMessage("This must be the version that was read.");
            RuleFor(request => request.Base)
                .Must((request, version) => (request.Block is null) == (version == 0))
                .WithMessage("Name the version that was read; a new paragraph has none.");
        }
    }
}
