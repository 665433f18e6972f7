using System.Collections.Immutable;
using Polycline.Core.Courses;
using Polycline.Core.Enrolling;
using Polycline.Core.Json;
using Polycline.Core.Sections;
using static Polycline.Core.PlanFiles.Reading.PlanBuilder;

namespace Polycline.Core.PlanFiles.Reading;

/// <summary>Makes the further questions of a file whose form and names are as they should be.</summary>
internal static class QuestionBuilder
{
    public static FurtherQuestion Of(JsonPiece asked) =>
        asked["catchUp"] is { } catchUp ? CatchUpOf(catchUp)
        : asked["move"] is { } move ? MoveOf(move)
        : asked["join"] is { } join ? JoinOf(join)
        : asked["why"] is { } why
            ? new FurtherQuestion.OfWhy(new(Ref<Student>(why["student"]!), new Ref<Item>(why["item"]!.Value!), Moment(why, "at")!.Value))
        : WaitingOf(asked["waiting"]!);

    private static FurtherQuestion.OfWaiting WaitingOf(JsonPiece piece) =>
        new(Moment(piece, "at")!.Value, piece["section"] is { } section ? Ref<Section>(section) : (Ref<Section>?)null);

    private static FurtherQuestion.OfCatchUp CatchUpOf(JsonPiece piece) =>
        new(
            Ref<Student>(piece["student"]!),
            Moment(piece, "at")!.Value,
            Number(piece, "perClass") ?? 1,
            Each(piece, "leave", item => new Ref<Item>(item.Value!))
        );

    private static FurtherQuestion.OfMove MoveOf(JsonPiece piece) =>
        new(
            Ref<Student>(piece["student"]!),
            PlanBuilder.MoveOf(piece),
            Moment(piece, "at"),
            (piece["choices"]?.Members ?? []).ToImmutableDictionary(
                choice => new Ref<Item>(choice.Name),
                choice => Enum.Parse<MoveChoice>(choice.Value.Value!, ignoreCase: true)
            )
        );

    private static FurtherQuestion.OfJoin JoinOf(JsonPiece piece) =>
        new(
            Ref<Section>(piece["section"]!),
            Date(piece, "from")!.Value,
            piece["term"] is { } term ? new(Text(term, "zone"), Date(term, "first")!.Value, Date(term, "last")!.Value) : null,
            [.. piece.Each("holds").SelectMany(Held)]
        );

    private static IEnumerable<OwnThing> Held(JsonPiece unit) =>
        [
            new(Text(unit, "id"), Level.Unit, Text(unit, "title"), Lineage: unit["lineage"]?.Value),
            .. Each(unit, "lessons", lesson => new OwnThing(
                Text(lesson, "id"),
                Level.Lesson,
                Text(lesson, "title"),
                Text(unit, "id"),
                Lineage: lesson["lineage"]?.Value
            )),
            .. Each(unit, "items", item => new OwnThing(
                Text(item, "id"),
                Level.Item,
                Text(item, "title"),
                item["lesson"]?.Value ?? Text(unit, "id"),
                Enum.Parse<ItemKind>(Text(item, "kind"), ignoreCase: true),
                item["code"]?.Value,
                item["lineage"]?.Value,
                WorkOf(item["work"])
            )),
        ];

    private static WorkCount WorkOf(JsonPiece? piece) =>
        piece is null
            ? default
            : new(
                Number(piece, "handedIn") ?? 0,
                Number(piece, "scores") ?? 0,
                Number(piece, "posts") ?? 0,
                Number(piece, "feedback") ?? 0
            );
}
