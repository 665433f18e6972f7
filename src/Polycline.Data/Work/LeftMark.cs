using System.Text.Json;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Sections;

namespace Polycline.Data.Work;

/// <summary>What somebody left to go back with a piece.</summary>
/// <param name="Words">How it goes back, such as <c>go on, 8 of 12</c>.</param>
/// <param name="Request">What goes back, as it was sent.</param>
/// <param name="GoesAt">When it goes back by itself; null: at no moment.</param>
/// <param name="WithAll">Whether it goes back by itself with the others of its item.</param>
public sealed record LeftMark(Id<Person> By, string Name, Instant At, string Words, JsonElement Request, Instant? GoesAt, bool WithAll)
{
    private sealed record Stored(long By, string Name, double At, string Words, JsonElement Request, double? GoesAt, bool WithAll);

    /// <summary>The marks of a piece, the one that was left first coming first.</summary>
    /// <param name="json">Null: none.</param>
    public static IReadOnlyList<LeftMark> Read(string? json) =>
        json is null
            ? []
            :
            [
                .. JsonSerializer
                    .Deserialize<List<Stored>>(json)!
                    .Select(one => new LeftMark(
                        new(one.By),
                        one.Name,
                        Moment(one.At),
                        one.Words,
                        one.Request,
                        one.GoesAt is { } goes ? Moment(goes) : null,
                        one.WithAll
                    )),
            ];

    private static Instant Moment(double seconds) => Instant.FromUnixTimeMilliseconds((long)Math.Round(seconds * 1_000));
}
