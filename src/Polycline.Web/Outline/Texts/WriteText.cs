using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Merging;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.Texts;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Outline.Items;

namespace Polycline.Web.Outline.Texts;

/// <param name="Base">What one began with, as it was read or answered; empty: there was no text.</param>
/// <param name="Html">The whole text as it is now.</param>
public sealed record WriteTextRequest(Id<Item> Item, string Base, string Html);

/// <param name="Base">What was sent, to be named when it is written on.</param>
/// <param name="Now">The text as it stands with what others wrote; the same: nobody else did.</param>
/// <param name="Twice">How many paragraphs somebody else changed too: both stand there.</param>
public sealed record TextSavedAnswer(string Base, string Now, int Twice) : IAnswer<TextSavedAnswer>
{
    public TextSavedAnswer AsPreview() => this;
}

/// <summary>
/// Saves a text while it is being written. Students go on reading the one in the item. What others wrote meanwhile is merged block by
/// block; where two changed the same block, both stand there.
/// </summary>
public sealed class WriteText : IWorkCommand<WriteTextRequest, EditionPlan, TextSavedAnswer>
{
    public static string Name => "write-text";

    public static WorkPlace Place => WorkPlace.Edition;

    public static IValidator<WriteTextRequest> Validator { get; } = new Rules();

    public static Task<EditionPlan> Prepare(Access access, PlanCache plans, WriteTextRequest request) => plans.Edition(access);

    public static async Task<TextSavedAnswer> Do(WorkContext work, EditionPlan plan, WriteTextRequest request)
    {
        var (connection, viewpoint) = (work.Connection, work.Viewpoint);
        var item = await Writable(work, plan, request.Item);
        var pictures = await TextPictures.Read(connection, plan.Id, request.Html);
        var mine = TextBlocks.Of(FormattedText.Canonical(request.Html, (element, source) => pictures.Stored(element, source, viewpoint)));
        var draft = await TextDraftStore.Locked(connection, request.Item);
        var present = draft?.Hash ?? item.Body ?? "";
        if (request.Base == present)
            return await Saved(mine, mine, 0);
        var theirs = draft?.Html ?? await BodyStore.Read(connection, item.Body) ?? "";
        // What somebody began with so long ago that nobody has it any more is nothing: what differs stands twice.
        var before =
            request.Base.Length == 0 ? ""
            : request.Base == item.Body ? await BodyStore.Read(connection, item.Body)
            : await TextDraftStore.Said(connection, request.Item, request.Base);
        var others = TextBlocks.Of(theirs);
        var taken = mine.Concat(others).Select(block => block.Id).ToHashSet(StringComparer.Ordinal);
        var merged = BlockMerge.Of(TextBlocks.Of(before ?? ""), mine, others, block => TextBlocks.Fresh(block.Html, taken));
        return await Saved(mine, merged.Blocks, merged.Twice.Length);

        // What was sent is a version of its own, so that a page that is still being typed in goes on from its own words.
        async Task<TextSavedAnswer> Saved(IReadOnlyList<TextBlock> sent, IReadOnlyList<TextBlock> now, int twice)
        {
            var own = await Keep(sent);
            var whole = now == sent ? own : await Keep(now);
            await TextDraftStore.Tell(connection, request.Item);
            return new(own, whole, twice);
        }

        async Task<string> Keep(IReadOnlyList<TextBlock> blocks)
        {
            var body = new Body(TextBlocks.Html(blocks), BodyKind.Draft);
            if (body.Content.Length > TextRules.Longest)
                throw Problem.Field(
                    "html",
                    $"Together with your colleagues’ changes, this text is over {TextRules.Longest:N0} characters. Split it in two."
                );
            await TextDraftStore.Save(connection, request.Item, body, viewpoint.Who.Id, viewpoint.At);
            return body.Hash;
        }
    }

    /// <summary>An item whose text whoever asks may change.</summary>
    /// <exception cref="ProblemException">There is no such item, or it is not theirs to change.</exception>
    public static async Task<Item> Writable(WorkContext work, EditionPlan plan, Id<Item> id)
    {
        var item = plan.Item(id) ?? throw Problem.Unknown("item");
        if (plan.State == EditionState.Resting)
            throw Problem.AtRest();
        var change = Change.Set(Tables.Items.Table, id, plan.Row(item.Ref).Version, Tables.Items.Body.Turns(item.Body, new Body("").Hash));
        await Holding.Against(work.Connection, work.Access, plan, [change]);
        return item;
    }

    private sealed class Rules : AbstractValidator<WriteTextRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Html).IsText();
            RuleFor(request => request.Base)
                .Must(hash => hash.Length == 0 || (hash.Length == 64 && hash.All(char.IsAsciiHexDigitLower)))
                .WithMessage("Name the text that this was written on, as it was read.");
        }
    }
}
