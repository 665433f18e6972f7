using NodaTime;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.LinkChecks;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Foundation.Links;

/// <summary>What is known of where a link leads.</summary>
/// <param name="Outcome"><c>open</c>, <c>sign-in</c>, <c>gone</c>, <c>silent</c> or <c>not-tried</c>.</param>
/// <param name="Words">The same in a sentence.</param>
/// <param name="ReachedAt">When it last answered; null: never yet.</param>
public sealed record LinkAnswer(string Outcome, string Words, Moment CheckedAt, Moment? ReachedAt)
{
    public static LinkAnswer? Of(LinkCheckRow? row, DateTimeZone zone)
    {
        if (row is null)
            return null;
        var host = LinkAddress.HostOf(row.Address);
        return new(
            row.Outcome,
            EnumNames.Parse<LinkOutcome>(row.Outcome) switch
            {
                LinkOutcome.Open => "Anyone can open it.",
                LinkOutcome.SignIn => $"Only people with an account at {host} can open it.",
                LinkOutcome.Gone => "The page is no longer there.",
                LinkOutcome.Silent => $"{host} did not answer.",
                _ => $"It was not tried: the school has not allowed Polycline to look at {host}.",
            },
            Moment.Of(row.CheckedAt, zone),
            Moment.Of(row.ReachedAt, zone)
        );
    }
}
