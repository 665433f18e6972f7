using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.MarkFiles;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Outline.Rubrics;

/// <param name="Rubric">Null: none from now on.</param>
/// <param name="Version">The version of the item that was read.</param>
public sealed record WriteRubricRequest(Id<Item> Item, RubricForm? Rubric, long Version);

/// <summary>The rubric as it stands, and what was marked by one in the pieces of its item as they were last given back.</summary>
public sealed record RubricInUse(WrittenRubric? Rubric, IReadOnlyList<GivenByRubric> Marks);

/// <summary>Writes the rubric by which an item is marked. Marks keep the one they were made with.</summary>
public sealed class WriteRubric : IPlanningCommand<EditionPlan, RubricInUse, WriteRubricRequest>
{
    public static string Name => "write-rubric";

    public static IValidator<WriteRubricRequest> Validator { get; } = new Rules();

    public static async Task<RubricInUse> Read(NpgsqlConnection connection, EditionPlan plan, WriteRubricRequest request) =>
        new(await BodyStore.Rubric(connection, plan.Item(request.Item)?.Rubric), await RubricStore.Marks(connection, request.Item));

    public static CommandDecision Decide(EditionPlan plan, RubricInUse known, WriteRubricRequest request, Viewpoint viewpoint)
    {
        var item = plan.Item(request.Item) ?? throw Problem.Unknown("item");
        if (request.Rubric is not null && !MarkedAs.Suits(item.Kind, item.Asks))
            throw Problem.Field("item", "Only what students hand in is marked by a rubric. First say what is to be handed in.");
        var rubric = request.Rubric?.Meant().KeepingIds(known.Rubric);
        var body = rubric is null ? null : new Body(RubricFile.Write(rubric), BodyKind.Rubric);
        if (item.Rubric == body?.Hash)
            return new($"left the rubric of “{item.Title}” as it is", []);
        // A rubric gives points; what is marked otherwise, or not at all, is marked out of its points from now on.
        var marked =
            rubric is null || item.Marked is { Form: not MarkForm.Scale }
                ? item.Marked
                : new MarkedAs(MarkForm.Points) { OutOf = rubric.Most is > 0 and <= MarkedAs.MostOutOf and var most ? Rounded(most) : 100 };
        return new(
            body is null ? $"took the rubric off “{item.Title}”"
                : item.Marked == marked ? $"wrote the rubric of “{item.Title}”"
                : $"wrote the rubric of “{item.Title}”, marked {MarkWords.Of(marked)}",
            [
                Change.Set(
                    Tables.Items.Table,
                    request.Item,
                    request.Version,
                    Tables.Items.Rubric.Turns(item.Rubric, body?.Hash),
                    Tables.Items.Marked.Turns(item.Marked, marked)
                ),
            ],
            null,
            body is null ? [] : [body]
        )
        {
            Act = body is null ? "Take the rubric off" : "Save the rubric",
            Besides = Marks(known.Marks, body?.Hash, rubric),
        };
    }

    private static decimal Rounded(decimal most) => Math.Max(0.01m, decimal.Round(most, 2));

    /// <summary>What becomes of the marks there are: each keeps its rubric, and by the new one would be as it is said.</summary>
    private static string Marks(IReadOnlyList<GivenByRubric> marks, string? hash, WrittenRubric? rubric)
    {
        var others = marks.Where(mark => mark.Rubric != hash).ToList();
        if (others.Count == 0)
            return "";
        var (kept, keep) = (Counting.Counted(others.Count, "mark", "marks"), others.Count == 1 ? "keeps" : "keep");
        if (rubric is null)
            return $"{kept} made with a rubric {keep} it.";
        var would = others
            .Select(mark => (Was: mark.Most == 0 ? (Fraction?)null : (Fraction)mark.Reached / mark.Most, Is: rubric.Would(hash!, mark)))
            .ToList();
        (int Many, string Words)[] parts =
        [
            (would.Count(one => one.Is > one.Was), "higher"),
            (would.Count(one => one.Is < one.Was), "lower"),
            (would.Count(one => one.Is is not null && one.Is == one.Was), "the same"),
            (would.Count(one => one.Is is null || one.Was is null), "without a score until marked again"),
        ];
        return $"{kept} made with another rubric {keep} it. By this one "
            + Counting.Joined([.. parts.Where(part => part.Many > 0).Select(part => $"{part.Many} would be {part.Words}")], "and")
            + ".";
    }

    private sealed class Rules : AbstractValidator<WriteRubricRequest>
    {
        public Rules() => RuleFor(request => request.Rubric!).SetValidator(new RubricRules()).When(request => request.Rubric is not null);
    }
}
