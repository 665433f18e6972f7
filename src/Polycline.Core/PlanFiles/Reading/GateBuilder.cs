using System.Collections.Immutable;
using Polycline.Core.Courses;
using Polycline.Core.Json;

namespace Polycline.Core.PlanFiles.Reading;

/// <summary>Makes the gates of a file whose form and names are as they should be.</summary>
internal static class GateBuilder
{
    /// <returns>Null: there is no gate.</returns>
    public static Gate? Of(JsonPiece? piece) =>
        piece is null or { IsNull: true }
            ? null
            : new(
                NodeOf(piece),
                PlanBuilder.Flag(piece, "latch"),
                piece["whenLocked"]?.Value switch
                {
                    "show" => WhenLocked.Show,
                    "hide" => WhenLocked.Hide,
                    _ => null,
                }
            );

    private static GateNode NodeOf(JsonPiece piece) =>
        piece switch
        {
            _ when piece["all"] is not null => new GateNode.AllOf(Nodes(piece, "all")),
            _ when piece["any"] is not null => new GateNode.AnyOf(Nodes(piece, "any")),
            _ when piece["atLeast"] is { } least => new GateNode.AtLeast(Forms.WholeOf(least), Nodes(piece, "of")),
            _ when piece["not"] is { } not => new GateNode.Not(NodeOf(not)),
            _ when piece["is"] is { } deed => new GateNode.Done(
                PlanBuilder.Ref<Item>(piece["item"]!),
                Enum.Parse<Deed>(deed.Value!, ignoreCase: true)
            ),
            _ when piece["item"] is { } item => new GateNode.Scored(
                PlanBuilder.Ref<Item>(item),
                Percent(piece, "scoreMin"),
                Percent(piece, "scoreBelow"),
                piece["using"]?.Value switch
                {
                    "latest" => true,
                    "best" => false,
                    _ => null,
                }
            ),
            _ when piece["choice"] is { } choice => new GateNode.Picked(PlanBuilder.Ref<Item>(choice), piece["picked"]!.Value!),
            _ when piece["group"] is { } group => new GateNode.InGroup(group.Value!),
            _ when piece["taught"] is { } taught => new GateNode.HasTaught(PlanBuilder.Ref<Lesson>(taught)),
            _ => new GateNode.From(PlanBuilder.AnchorOf(piece["from"])!),
        };

    private static ImmutableArray<GateNode> Nodes(JsonPiece piece, string list) => PlanBuilder.Each(piece, list, NodeOf);

    private static decimal? Percent(JsonPiece piece, string member) => piece[member] is { } number ? Forms.NumberOf(number) : null;
}
