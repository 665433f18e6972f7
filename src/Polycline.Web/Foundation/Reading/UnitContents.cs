using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data;
using Polycline.Data.Outcomes;

namespace Polycline.Web.Foundation.Reading;

/// <summary>Something that students should be able to do at the end of a unit.</summary>
/// <param name="Words">Empty: the school's list does not have it.</param>
/// <param name="Items">By code, in reading order: what of the unit is tied to it.</param>
/// <param name="Done">How many of these the student has done; for a team 0.</param>
public sealed record UnitOutcome(string Code, string Words, IReadOnlyList<string> Items, int Done);

/// <summary>What is in a unit, made from its items.</summary>
public static class UnitContents
{
    /// <summary>How many of each kind there are: <c>3 pages, 2 tasks and 1 quiz</c>; empty: none.</summary>
    public static string Of(IEnumerable<ItemKind> kinds) =>
        Counting.Joined(
            [
                .. kinds
                    .GroupBy(kind => kind)
                    .OrderBy(same => same.Key)
                    .Select(same => Counting.Counted(same.Count(), EnumNames.Of(same.Key), Many(same.Key))),
            ],
            "and"
        );

    /// <summary>What its items are tied to, in the order of the school's list.</summary>
    /// <param name="items">In reading order: their outcomes, their code, and whether the student has done them.</param>
    public static async Task<IReadOnlyList<UnitOutcome>> Outcomes(
        Database database,
        IEnumerable<(IReadOnlyList<string> Outcomes, string Code, bool Done)> items,
        CancellationToken stop
    )
    {
        var tied = items
            .SelectMany(item => item.Outcomes.Select(outcome => (Outcome: outcome, item.Code, item.Done)))
            .ToLookup(pair => pair.Outcome, StringComparer.Ordinal);
        if (tied.Count == 0)
            return [];
        var known = await database.Read(connection => OutcomeStore.Of(connection, [.. tied.Select(pair => pair.Key)]), stop);
        return
        [
            .. known.Select(outcome => One(outcome.Code, outcome.Words)),
            .. tied.Select(pair => pair.Key).Except(known.Select(outcome => outcome.Code)).Select(code => One(code, "")),
        ];

        UnitOutcome One(string code, string words) =>
            new(code, words, [.. tied[code].Select(item => item.Code)], tied[code].Count(item => item.Done));
    }

    private static string Many(ItemKind kind) => kind == ItemKind.Quiz ? "quizzes" : $"{EnumNames.Of(kind)}s";
}
