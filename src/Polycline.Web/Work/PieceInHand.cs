using System.Collections.Immutable;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Work;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Work;

/// <summary>A piece that is about to go back, and what goes with it: the mark and the remarks, checked against it.</summary>
/// <param name="Row">Of which item it is, as that stands in the outline.</param>
/// <param name="Mark">Null: none is given.</param>
/// <param name="Written">What was handed in.</param>
/// <param name="Remarks">In the order of their places.</param>
internal sealed record PieceInHand(
    Id<Person> Person,
    Id<Item> Row,
    Item Item,
    GivenMark? Mark,
    Remarkable Written,
    IReadOnlyList<Remark> Remarks
)
{
    /// <summary>Whether this hand-in was given back before.</summary>
    public required bool IsReturned { get; init; }

    /// <summary>Reads and locks the piece, and refuses what does not fit it.</summary>
    public static async Task<PieceInHand> Read(WorkContext work, EditionPlan plan, GiveBackRequest request)
    {
        var connection = work.Connection;
        var piece = await WorkStore.Latest(connection, work.Section, request.Work) ?? throw Problem.Unknown("work");
        if (piece.N != request.N)
            throw Problem.Changed(new("n", $"{request.N}", $"{piece.N}", piece.N, null, null));
        var item =
            plan.Row(piece.Item) is { } row && plan.Schedule.Knows(new(row.Lineage))
                ? plan.Schedule.Item(new(row.Lineage))
                : throw Problem.Unknown("work");
        var mark = MarkOf(item, await BodyStore.Rubric(connection, request.Mark?.Rubric is null ? null : item.Rubric), request);
        var written = await WorkStore.Remarkable(connection, request.Work, request.N);
        return new(piece.Person, piece.Item, item, mark, written, Placed(request.Remarks, written)) { IsReturned = piece.Returned };
    }

    private static IReadOnlyList<Remark> Placed(IReadOnlyList<Remark> remarks, Remarkable piece)
    {
        for (var n = 0; n < remarks.Count; n++)
            if (!piece.Has(remarks[n].At))
                throw Problem.Field($"remarks[{n}].at", "This remark is about a place that the piece doesn’t have. Reload the page.");
        return piece.InOrder(remarks.Select(remark => remark with { Text = remark.Text.Trim() }));
    }

    private static GivenMark? MarkOf(Item item, WrittenRubric? rubric, GiveBackRequest request)
    {
        if (request.Mark is not { } given)
            return null;
        if (item.Marked is not { } marked)
            throw Problem.Field("mark", $"“{item.Title}” isn’t set up for marks. In Outline, choose how it is marked.");
        var mark = new GivenMark(marked, given.Value, given.Level)
        {
            Rubric = given.Rubric is { } levels ? ByRubric(item, rubric, [.. levels.Select(level => level.Meant())], request.Again) : null,
        };
        return MarkShare.Fits(mark)
            ? mark
            : throw Problem.Field(
                "mark",
                marked.Form == MarkForm.Scale
                    ? "Choose one of the levels."
                    : $"Give a number from 0 to {MarkedAs.MostOutOf:N0}, with at most two decimals."
            );
    }

    private static GivenByRubric ByRubric(Item item, WrittenRubric? rubric, ImmutableArray<GivenLevel> levels, bool again)
    {
        if (rubric is null)
            throw Problem.Field("mark", $"“{item.Title}” no longer has a rubric. Reload the page.");
        var given = rubric.Of(item.Rubric!, levels, out var isComplete)
            ?? throw Problem.Field(
                "mark",
                "The rubric has been changed since, or some points don’t belong to their level. Go through it again."
            );
        // What is to be tried again may be marked in part.
        if (!isComplete && !again)
        {
            var left = rubric
                .Criteria.Where(criterion => !criterion.IsOptional && levels.All(level => level.Criterion != criterion.Id))
                .Select(criterion => $"“{criterion.Title}”");
            throw Problem.Field("mark", $"Choose a level for {Counting.Joined([.. left], "and")}.");
        }
        return given;
    }
}
