using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Files;

public sealed record RefreshCopiesRequest(Id<Item> Item, Id<ItemFileRow> File);

/// <param name="Given">False: this was only a preview.</param>
/// <param name="Followed">How many copies have the file as it is now.</param>
/// <param name="Kept">How many students have worked in theirs or handed it in: those stay.</param>
public sealed record RefreshCopiesAnswer(bool Given, int Followed, int Kept, string Sentence) : IAnswer<RefreshCopiesAnswer>
{
    public RefreshCopiesAnswer AsPreview() => this with { Given = false };
}

/// <summary>
/// Gives a file that was replaced to those who have a copy of the earlier one and have not worked in it. Replacing the file back and asking
/// again puts it as it was.
/// </summary>
public sealed class RefreshCopies : IWorkCommand<RefreshCopiesRequest, EditionPlan, RefreshCopiesAnswer>
{
    public static string Name => "refresh-copies";

    public static WorkPlace Place => WorkPlace.Edition;

    public static Task<EditionPlan> Prepare(Access access, PlanCache plans, RefreshCopiesRequest request) => plans.Edition(access);

    public static async Task<RefreshCopiesAnswer> Do(WorkContext work, EditionPlan plan, RefreshCopiesRequest request)
    {
        _ = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        var files = await ItemFileStore.Of(work.Connection, request.Item);
        var file = files.FirstOrDefault(one => one.Id == request.File && one is { Removed: false, IsCopiedForEach: true })
            ?? throw Problem.Unknown("file");
        var line = CopyStore.LineOf(files, file.Id);
        var kept = (await CopyStore.Of(work.Connection, request.Item))
            .Where(copy => line.Contains(copy.Of))
            .GroupBy(copy => copy.Person)
            .Count(copies => copies.Any(copy => !copy.AsGiven));
        var followed = await CopyStore.Follow(work.Connection, request.Item, file, line);
        if (followed > 0)
            await work.Audit(
                Name,
                new
                {
                    item = request.Item.Value,
                    file = file.Id.Value,
                    followed,
                }
            );
        return new(
            true,
            followed,
            kept,
            $"{Counting.Counted(followed, "copy that nobody has worked in gets", "copies that nobody has worked in get")} the new file. "
                + (kept == 0 ? "" : $"{Counting.Counted(kept, "student has", "students have")} worked in theirs: what they have stays.")
        );
    }
}
