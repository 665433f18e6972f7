using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.MarkFiles.Checking;
using Polycline.Core.Marking;
using Polycline.Core.Sections;

namespace Polycline.Core.MarkFiles;

/// <summary>A threshold that is asked about.</summary>
/// <param name="Section">Null: all.</param>
/// <param name="From">In per cent.</param>
public sealed record ThresholdQuestion(Ref<Item> Item, Ref<Section>? Section, Fraction From, Fraction To);

/// <summary>A book of marks with what is asked of it. Source: the computation, chapter 13.8.</summary>
/// <param name="Frees">How many things giving a piece back opens.</param>
public sealed record MarkingFile(
    MarkingBook Book,
    Instant Now,
    ImmutableDictionary<(Ref<Student>, Ref<Item>), int> Frees,
    ImmutableArray<ThresholdQuestion> Ask
)
{
    /// <summary>Reads a marking file: four passes, each over the whole file and only when the one before found nothing.</summary>
    /// <param name="text">JSON in UTF-8.</param>
    /// <exception cref="FileRefusedException">Something in it is not as it should be; nothing was read.</exception>
    public static MarkingFile Read(ReadOnlySpan<byte> text)
    {
        var root = JsonPiece.Parse(text) ?? throw new FileRefusedException("$", "this is not JSON in UTF-8");
        FaultList.Pass(faults => MarkingShapes.File(root, faults));
        var index = new MarkingIndex(root);
        FaultList.Pass(faults => MarkingNames.Check(root, index, faults));
        FaultList.Pass(faults => new MarkingFits(root, index, faults).CheckForms());
        FaultList.Pass(faults => new MarkingFits(root, index, faults).CheckTimes());
        var frees = ImmutableDictionary.CreateBuilder<(Ref<Student>, Ref<Item>), int>();
        foreach (var row in root.Each("frees"))
            frees[(new(row["student"]!.Value!), new(row["item"]!.Value!))] = Forms.WholeOf(row["count"]!);
        return new(
            MarkingBuilder.Of(root),
            Forms.InstantOf(root["now"]!.Value!)!.Value,
            frees.ToImmutable(),
            [
                .. root.Each("ask")
                    .Select(asked => new ThresholdQuestion(
                        new(asked["item"]!.Value!),
                        asked["section"] is { } section ? new Ref<Section>(section.Value!) : null,
                        Forms.NumberOf(asked["from"]!),
                        Forms.NumberOf(asked["to"]!)
                    )),
            ]
        );
    }
}
