using System.Collections.Immutable;
using CsCheck;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.MarkFiles;
using Polycline.Core.Marking;
using Polycline.Core.Marking.Papers;
using Polycline.Core.PlanFiles;
using Polycline.Core.Wording;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Marking;

/// <summary>Rubrics as they are read, stored and marked with. Source: the computation, chapter 13.3.</summary>
public sealed class RubricMarkingTests
{
    private static readonly WrittenRubric Log = new(
        "The log",
        [
            new("c1", "Seen", [Level("l1", "no", 0), Level("l2", "yes", 3)]) { Weight = 1.5m },
            new("c2", "Named", [Level("l1", "", 0), Level("l2", "", 1, 3), Level("l3", "", 4)]),
            new("c3", "Drawn", [Level("l1", "", 0), Level("l2", "", 2)]) { IsOptional = true },
        ]
    );

    private static WrittenLevel Level(string id, string name, decimal from, decimal? to = null) =>
        new(id, name, from, to ?? from, to is not null) { Words = name.Length == 0 ? "" : $"It is {name}." };

    private static readonly Gen<WrittenLevel> SomeLevel = Gen.Select(Gen.Int[0, 400], Gen.Int[0, 300], Gen.Bool, (from, more, isRange) =>
        new WrittenLevel("", "", from / 4m, (from + (isRange ? more : 0)) / 4m, isRange)
    );

    private static readonly Gen<WrittenCriterion> SomeCriterion = Gen.Select(
        SomeLevel.Array[1, 5],
        Gen.Int[0, 500],
        Gen.Bool,
        (levels, weight, isOptional) =>
            new WrittenCriterion("", "", [.. levels.Select((level, place) => level with { Name = $"level {place}" })])
            {
                Weight = weight / 100m,
                IsOptional = isOptional,
            }
    );

    internal static readonly Gen<WrittenRubric> SomeRubric = SomeCriterion
        .Array[1, 6]
        .Select(criteria =>
            new WrittenRubric(
                "Some",
                [.. criteria.Select((criterion, place) => criterion with { Title = $"criterion {place}" })]
            ).KeepingIds(null)
        );

    [Fact]
    public void A_mark_is_the_weighted_points_of_its_levels_to_the_last_digit()
    {
        var mark = Log.Of("hash", [new("c1", "l2", null), new("c2", "l2", 1.25m)], out var isComplete).ShouldNotBeNull();
        isComplete.ShouldBeTrue();
        (mark.Reached, mark.Most).ShouldBe((5.75m, 8.5m));
        var points = new GivenMark(new(MarkForm.Points) { OutOf = 20 }, null, null) { Rubric = mark };
        MarkShare.Of(points).ShouldBe(new Fraction(23, 34));
        MarkWords.Of(points).ShouldBe("13.53 of 20 (5.75 of 8.5 by the rubric)");
        MarkWords.Of(points with { As = new(MarkForm.Points) { OutOf = 8.5m } }).ShouldBe("5.75 of 8.5");
        MarkWords.Of(points with { As = new(MarkForm.Percent) }).ShouldBe("67.6 % (5.75 of 8.5 by the rubric)");
        // What is optional counts on both sides where it is marked, and in neither where not.
        Log.Of("hash", [new("c1", "l2", null), new("c2", "l2", 1.25m), new("c3", "l1", null)], out _)!.Most.ShouldBe(10.5m);
        Log.Of("hash", [new("c1", "l2", null)], out isComplete).ShouldNotBeNull();
        isComplete.ShouldBeFalse();
    }

    [Fact]
    public void What_has_no_place_in_the_rubric_is_no_mark()
    {
        GivenLevel[][] faults =
        [
            [new("c9", "l1", null)],
            [new("c1", "l9", null)],
            [new("c1", "l1", 1)],
            [new("c2", "l2", null)],
            [new("c2", "l2", 0.99m)],
            [new("c2", "l2", 3.01m)],
            [new("c1", "l1", null), new("c1", "l2", null)],
        ];
        foreach (var fault in faults)
            Log.Of("hash", [.. fault], out _).ShouldBeNull(string.Join(" ", fault.Select(level => $"{level}")));
    }

    [Fact]
    public void A_rubric_written_anew_keeps_the_ids_of_what_stays_and_never_gives_one_of_them_to_another()
    {
        var anew = new WrittenRubric(
            "The log, again",
            [
                new("", "Dated", [Level("", "no", 0), Level("", "yes", 1)]),
                new("c2", "Called by its name", [Level("l3", "", 5), Level("", "", 0), Level("", "", 1, 3)]),
                new("", "Seen", [Level("", "yes", 4), Level("", "barely", 1)]),
            ]
        ).KeepingIds(Log);
        anew.Criteria.Select(criterion => criterion.Id).ShouldBe(["c4", "c2", "c1"]);
        anew.Criteria[1].Levels.Select(level => level.Id).ShouldBe(["l3", "l1", "l2"]);
        anew.Criteria[2].Levels.Select(level => level.Id).ShouldBe(["l2", "l3"]);
        // So a mark made before finds its place: what is new of it is what is still to be marked.
        var mark = Log.Of("before", [new("c1", "l2", null), new("c2", "l2", 2)], out _)!;
        anew.Would("after", mark).ShouldBeNull();
        (anew with { Criteria = anew.Criteria[1..] }).Would("after", mark).ShouldBe(new Fraction(6, 9));
    }

    [Fact]
    public void Stored_and_read_again_a_rubric_and_its_marks_are_the_same_and_worth_what_the_computation_says() =>
        Gen.Select(SomeRubric, Gen.Int[0, 4].Array[6])
            .Sample(pair =>
            {
                var (rubric, picks) = pair;
                var stored = RubricFile.Write(rubric);
                RubricFile.Read(stored).ShouldBe(rubric);
                RubricFile.IsOne(stored).ShouldBeTrue();
                ImmutableArray<GivenLevel> levels =
                [
                    .. rubric.Criteria.Select(
                        (criterion, place) =>
                        {
                            var level = criterion.Levels[picks[place] % criterion.Levels.Length];
                            return new GivenLevel(criterion.Id, level.Id, level.IsRange ? level.To : null);
                        }
                    ),
                ];
                var given = rubric.Of("hash", levels, out var isComplete)!;
                isComplete.ShouldBeTrue();
                var mark = new GivenMark(new(MarkForm.Percent), null, null) { Rubric = given };
                PlanParts.Mark(PlanParts.Json(mark)).ShouldBe(mark);
                MarkShare.Of(mark).ShouldBe(rubric.Would("hash", given));
            });

    [Fact]
    public void What_is_no_rubric_is_refused_where_it_is_wrong()
    {
        const string level = """{"id":"l1","name":"","points":1}""";
        (string Json, string Path)[] faults =
        [
            ("[]", "$"),
            ("""{"name":"","criteria":[]}""", "$.name"),
            ("""{"name":"x","criteria":[]}""", "$.criteria"),
            ($$"""{"name":"x","criteria":[{"id":"c1","title":" ","levels":[{{level}}]}]}""", "$.criteria[0].title"),
            ("""{"name":"x","criteria":[{"id":"c1","title":"a","levels":[]}]}""", "$.criteria[0].levels"),
            (
                """{"name":"x","criteria":[{"id":"c1","title":"a","levels":[{"id":"l1","name":"","from":3,"to":1}]}]}""",
                "$.criteria[0].levels[0].to"
            ),
            ($$"""{"name":"x","criteria":[{"id":"c1","title":"a","levels":[{{level}},{{level}}]}]}""", "$.criteria[0].levels[1].id"),
            (
                $$"""{"name":"x","criteria":[{"id":"c1","title":"a","levels":[{{level}}]},{"id":"c1","title":"b","levels":[{{level}}]}]}""",
                "$.criteria[1].id"
            ),
        ];
        foreach (var (json, path) in faults)
            Should.Throw<FileRefusedException>(() => RubricFile.Read(json)).Path.ShouldBe(path);
    }
}
