using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Students;

namespace Polycline.Web.Work;

/// <summary>What a student can read or work on, before and after something is done for them.</summary>
internal static class OpensBy
{
    /// <summary>In reading order.</summary>
    public static async Task<IReadOnlyList<Ref<Item>>> Open(NpgsqlConnection connection, EditionPlan plan, Id<Person> person, Instant at)
    {
        var (records, _) = await StudentStore.Read(connection, plan, [person], at);
        return [.. new Sights(plan.Schedule, records[person]).At(at).Where(sight => sight.MayRead).Select(sight => sight.Item)];
    }

    /// <summary>What opens meanwhile, each with its code and title.</summary>
    public static IReadOnlyList<string> Since(EditionPlan plan, IReadOnlyList<Ref<Item>> before, IReadOnlyList<Ref<Item>> after) =>
        [
            .. after
                .Where(opened => !before.Contains(opened))
                .Select(opened => $"{plan.Schedule.CodeOf[opened]} {plan.Schedule.Item(opened).Title}"),
        ];

    /// <summary>What opens, as the end of a sentence: <c>for whom 3.08 opens</c>; null: nothing does.</summary>
    public static string? Words(IReadOnlyList<string> opens) =>
        opens.Count == 0 ? null : $"for whom {Counting.Joined(opens, "and")} {(opens.Count == 1 ? "opens" : "open")}";
}
