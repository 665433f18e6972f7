using System.Collections.Immutable;
using System.Globalization;
using NodaTime;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation.AccessControl;

/// <summary>Something that is made to look as if it had happened. It is only looked at, and counts nowhere.</summary>
/// <param name="What"><c>opened</c>, <c>ticked</c>, <c>handed-in</c>, <c>given-back</c>, <c>again</c>, <c>score</c> or
/// <c>picked</c>.</param>
/// <param name="Value">The score in percent, or the option; else null.</param>
public sealed record Pretended(Id<Item> Item, string What, string? Value)
{
    private const int Most = 40;

    private static readonly string[] Known = ["opened", "ticked", "handed-in", "given-back", "again", "score", "picked"];

    /// <summary>Reads what follows a section in an address, <c>~12.score.65~14.given-back</c>.</summary>
    /// <returns>Null: it has another form.</returns>
    public static IReadOnlyList<Pretended>? Read(string text)
    {
        var read = new List<Pretended>();
        foreach (var part in text.Split('~', StringSplitOptions.RemoveEmptyEntries))
        {
            var pieces = part.Split('.', 3);
            if (read.Count == Most || pieces.Length < 2 || !Id<Item>.TryParse(pieces[0], null, out var item) || !Known.Contains(pieces[1]))
                return null;
            var value = pieces.Length == 3 ? pieces[2] : null;
            if ((pieces[1] is "score" or "picked") != (value is { Length: > 0 }) || (pieces[1] == "score" && Percent(value!) is null))
                return null;
            read.Add(new(item, pieces[1], value));
        }
        return read;
    }

    /// <summary>The record of a student of whom nothing is known but this.</summary>
    /// <param name="at">When it all is made out to have happened.</param>
    /// <exception cref="ProblemException">It names an item or an option that the course has not.</exception>
    public static StudentRecord RecordOf(EditionPlan plan, Id<Section> section, IReadOnlyList<Pretended> facts, Instant at)
    {
        var student = new Ref<Core.Courses.Student>("pretend");
        return new(
            student,
            ImmutableHashSet<string>.Empty,
            null,
            [(new Ref<Section>($"{section}"), new Enrolment(student, null, null))],
            ImmutableDictionary<Ref<Item>, ForOneStudent>.Empty,
            new([.. facts.SelectMany(fact => fact.Facts(plan, student, at))])
        );
    }

    private IEnumerable<Fact> Facts(EditionPlan plan, Ref<Core.Courses.Student> student, Instant at)
    {
        var item = plan.Item(Item) ?? throw Problem.Unknown("as");
        if (What == "picked" && !item.Options.Contains(Value!))
            throw Problem.Unknown("as");
        Fact Of(FactEvent happened, bool again = false) => new(student, item.Ref, happened, at, Again: again);
        yield return Of(FactEvent.Opened);
        switch (What)
        {
            case "ticked":
                yield return Of(FactEvent.Ticked);
                break;
            case "handed-in":
                yield return Of(FactEvent.Submitted);
                break;
            case "given-back" or "again":
                yield return Of(FactEvent.Submitted);
                yield return Of(FactEvent.Returned, What == "again");
                break;
            case "score":
                yield return Of(FactEvent.Submitted);
                yield return Of(FactEvent.Scored) with
                {
                    Score = Percent(Value!),
                };
                break;
            case "picked":
                yield return Of(FactEvent.Picked) with
                {
                    Option = Value,
                };
                break;
        }
    }

    private static decimal? Percent(string text) =>
        decimal.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var percent) && percent is >= 0 and <= 100
            ? percent
            : null;
}
