using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Texts;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Texts;

/// <param name="Base">The text as whoever asks knows it: what somebody else wrote since is not dropped with it.</param>
public sealed record EndTextRequest(Id<Item> Item, string Base);

/// <param name="Ended">False: somebody has written on it since, and it is still there.</param>
public sealed record EndTextAnswer(bool Ended) : IAnswer<EndTextAnswer>
{
    public EndTextAnswer AsPreview() => this;
}

/// <summary>
/// Ends the writing of a text, put in place or dropped: from now on it is as it stands in the item. Saved again, what was dropped is back.
/// </summary>
public sealed class EndText : IWorkCommand<EndTextRequest, EditionPlan, EndTextAnswer>
{
    public static string Name => "end-text";

    public static WorkPlace Place => WorkPlace.Edition;

    public static Task<EditionPlan> Prepare(Access access, PlanCache plans, EndTextRequest request) => plans.Edition(access);

    public static async Task<EndTextAnswer> Do(WorkContext work, EditionPlan plan, EndTextRequest request)
    {
        await WriteText.Writable(work, plan, request.Item);
        if (await TextDraftStore.Locked(work.Connection, request.Item) is not { } draft)
            return new(true);
        if (draft.Hash != request.Base)
            return new(false);
        await TextDraftStore.End(work.Connection, request.Item);
        await TextDraftStore.Tell(work.Connection, request.Item);
        return new(true);
    }
}
