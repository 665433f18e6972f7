using Polycline.Core.Courses;
using Polycline.Core.Wording;

namespace Polycline.Web.Foundation.Reading;

/// <summary>What an item asks of a student, as it travels.</summary>
/// <param name="Way"><c>work</c>, <c>log</c> or <c>tick</c>.</param>
/// <param name="Text"><c>asked</c>, <c>welcome</c> or <c>no</c>.</param>
/// <param name="Links">As the text.</param>
/// <param name="Files">Those that are asked for by name.</param>
/// <param name="Others">Whether files are taken that nobody has asked for by name.</param>
public sealed record AsksForm(string Way, string Text, string Links, IReadOnlyList<AskedFileForm> Files, bool Others)
{
    /// <summary>The groups whose members hand in one piece; null: each hands in their own, or it is a student who reads this.</summary>
    public IReadOnlyList<string>? Together { get; init; }

    /// <summary>Whether students judge their own piece by its rubric first.</summary>
    public bool Judged { get; init; }

    /// <summary>As its team sets it.</summary>
    public static AsksForm? OfTeam(Asks? asks) =>
        asks is { Together.IsEmpty: false } ? Of(asks)! with { Together = asks.Together } : Of(asks);

    /// <summary>As a student reads it: without the names of the groups.</summary>
    public static AsksForm? Of(Asks? asks) =>
        asks is null
            ? null
            : new(
                EnumNames.Of(asks.Way),
                EnumNames.Of(asks.Text),
                EnumNames.Of(asks.Links),
                [.. asks.Files.Select(file => new AskedFileForm(file.What, file.Kind is { } kind ? EnumNames.Of(kind) : null))],
                asks.OtherFiles
            )
            {
                Judged = asks.Judged,
            };

    /// <summary>What it says. Whoever calls this has checked its words.</summary>
    public Asks Meant() =>
        new()
        {
            Way = EnumNames.Parse<AskedWay>(Way),
            Text = EnumNames.Parse<AskedPart>(Text),
            Links = EnumNames.Parse<AskedPart>(Links),
            Files =
            [
                .. Files.Select(file => new AskedFile(file.What.Trim(), file.Kind is null ? null : EnumNames.Parse<AskedKind>(file.Kind))),
            ],
            OtherFiles = Others,
            Judged = Judged && Way != EnumNames.Of(AskedWay.Tick),
            Together = Way == EnumNames.Of(AskedWay.Tick) ? [] : [.. Together ?? []],
        };
}

/// <param name="What">What it is, as one says it to a student: “the photograph”.</param>
/// <param name="Kind">A sort of file, such as <c>picture</c> or <c>document</c>; null: any.</param>
public sealed record AskedFileForm(string What, string? Kind);
