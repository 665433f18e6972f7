using CsCheck;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Enrolling;
using Shouldly;
using Xunit;

namespace Polycline.Tests.Core.Enrolling;

/// <summary>Groups by lot: everybody in one, sizes even, pairs apart. The computation, chapter 12.</summary>
public sealed class GroupDrawTests
{
    private static Ref<Student>[] Students(int many) => [.. Enumerable.Range(1, many).Select(n => new Ref<Student>($"p{n}"))];

    [Theory]
    [InlineData(0, 3, 0)]
    [InlineData(1, 2, 1)]
    [InlineData(3, 2, 1)]
    [InlineData(5, 2, 2)]
    [InlineData(13, 3, 4)]
    [InlineData(14, 3, 5)]
    [InlineData(14, 4, 4)]
    [InlineData(28, 28, 1)]
    [InlineData(5, 9, 1)]
    public void Groups_are_as_near_to_the_size_as_can_be_and_nobody_is_alone(int students, int size, int groups) =>
        GroupDraw.Count(students, size).ShouldBe(groups);

    [Fact]
    public void Everybody_is_in_one_group_sizes_differ_by_one_at_most_and_pairs_are_apart()
    {
        var (found, none) = (0, 0);
        // Half of the pairs are among the first six, so that small classes often cannot be drawn.
        var pair = Gen.OneOf(Gen.Select(Gen.Int[1, 40], Gen.Int[1, 40]), Gen.Select(Gen.Int[1, 6], Gen.Int[1, 6]));
        Gen.Select(Gen.OneOf(Gen.Int[0, 40], Gen.Int[2, 8]), Gen.Int[2, 6], pair.Array[0, 12], Gen.Int)
            .Sample(
                drawn =>
                {
                    var (many, size, pairs, seed) = drawn;
                    var students = Students(many);
                    var apart = pairs.Select(pair => (new Ref<Student>($"p{pair.Item1}"), new Ref<Student>($"p{pair.Item2}"))).ToList();
                    var groups = GroupDraw.Of(students, size, apart, seed);
                    var again = GroupDraw.Of(students, size, apart, seed);
                    (groups?.SelectMany(group => group)).ShouldBe(again?.SelectMany(group => group));
                    if (groups is not { } all)
                    {
                        // Only where somebody is to be kept from somebody is there a draw that fails.
                        apart.ShouldContain(pair =>
                            students.Contains(pair.Item1) && students.Contains(pair.Item2) && pair.Item1 != pair.Item2
                        );
                        Interlocked.Increment(ref none);
                        return;
                    }
                    Interlocked.Increment(ref found);
                    all.SelectMany(group => group).Order().ShouldBe(students.Order());
                    if (all.Length > 0)
                        (all.Max(group => group.Length) - all.Min(group => group.Length)).ShouldBeLessThanOrEqualTo(1);
                    foreach (var (one, other) in apart)
                        if (one != other)
                            all.ShouldAllBe(group => !(group.Contains(one) && group.Contains(other)));
                },
                iter: 600,
                seed: "0000000000001"
            );
        found.ShouldBeGreaterThan(300);
        none.ShouldBeGreaterThan(20);
    }

    [Fact]
    public void Every_two_students_come_together_in_some_draw_and_another_seed_gives_other_groups()
    {
        var students = Students(6);
        var together = new HashSet<(Ref<Student>, Ref<Student>)>();
        for (var seed = 0; seed < 60; seed++)
            foreach (var pair in GroupDraw.Of(students, 2, [], seed)!.Value)
                together.Add((pair[0], pair[1]));
        together.Count.ShouldBe(15);
    }

    [Fact]
    public void Five_who_are_all_to_be_kept_apart_do_not_fit_into_four_groups()
    {
        var students = Students(8);
        var apart = (from one in students.Take(5) from other in students.Take(5) where one != other select (one, other)).ToList();
        GroupDraw.Of(students, 2, apart, 1).ShouldBeNull();
        GroupDraw.Of(students, 2, [.. apart.Where(pair => pair.one != students[4] && pair.other != students[4])], 1).ShouldNotBeNull();
    }
}
