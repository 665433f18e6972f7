using System.Collections.Immutable;
using Polycline.Core.Courses;

namespace Polycline.Core.Enrolling;

/// <summary>Students divided into groups by lot. Source: the computation, chapter 12.</summary>
public static class GroupDraw
{
    /// <summary>So many placings are tried, from so many shuffles, before it is said that none was found.</summary>
    private const int MostSteps = 20_000;
    private const int Shuffles = 20;

    /// <summary>
    /// How many groups so many students make: as near to the size as can be, larger rather than leaving anybody alone.
    /// </summary>
    /// <param name="students">From 0.</param>
    /// <param name="size">How many there are to be in a group: from 2.</param>
    public static int Count(int students, int size)
    {
        if (students == 0)
            return 0;
        var count = Math.Max(1, (int)Math.Round((double)students / size, MidpointRounding.AwayFromZero));
        return Math.Max(1, Math.Min(count, students / 2));
    }

    /// <summary>Draws groups whose sizes differ by one at most. The same students, pairs and seed give the same groups.</summary>
    /// <param name="students">Each once.</param>
    /// <param name="size">How many there are to be in a group: from 2.</param>
    /// <param name="apart">Pairs that are not to be in one group. A pair with somebody who is not among the students is left aside.</param>
    /// <param name="seed">Which of the draws.</param>
    /// <returns>The groups, the larger ones first; null: no way was found to keep all of the pairs apart.</returns>
    public static ImmutableArray<ImmutableArray<Ref<Student>>>? Of(
        IReadOnlyList<Ref<Student>> students,
        int size,
        IReadOnlyCollection<(Ref<Student> One, Ref<Student> Other)> apart,
        int seed
    )
    {
        var count = Count(students.Count, size);
        var place = students.Select((student, n) => (student, n)).ToDictionary(pair => pair.student, pair => pair.n);
        var foes = students.Select(_ => new HashSet<int>()).ToArray();
        foreach (var (one, other) in apart)
            if (one != other && place.TryGetValue(one, out var here) && place.TryGetValue(other, out var there))
            {
                foes[here].Add(there);
                foes[there].Add(here);
            }
        var lot = new Random(seed);
        for (var shuffle = 0; shuffle < Shuffles; shuffle++)
        {
            var order = Enumerable.Range(0, students.Count).ToArray();
            lot.Shuffle(order);
            // Whoever has most to be kept from is placed first; among equals, by lot.
            order = [.. order.OrderByDescending(student => foes[student].Count)];
            var search = new Search(order, foes, count, lot);
            if (search.Place(0))
                return
                [
                    .. search
                        .Groups.Select(group => group.Order().Select(student => students[student]).ToImmutableArray())
                        .OrderByDescending(group => group.Length),
                ];
        }
        return null;
    }

    private sealed class Search(int[] order, HashSet<int>[] foes, int count, Random lot)
    {
        private int steps;

        public List<int>[] Groups { get; } = [.. Enumerable.Range(0, count).Select(_ => new List<int>())];

        // So many groups have one more than the others.
        private readonly int larger = count == 0 ? 0 : order.Length % count;

        public bool Place(int next)
        {
            if (next == order.Length)
                return true;
            var student = order[next];
            var tried = Enumerable.Range(0, count).ToArray();
            lot.Shuffle(tried);
            // The emptier first, so that they fill evenly.
            foreach (var group in tried.OrderBy(group => Groups[group].Count))
            {
                if (steps++ > MostSteps)
                    return false;
                if (!HasRoom(group) || Groups[group].Any(foes[student].Contains))
                    continue;
                Groups[group].Add(student);
                if (Place(next + 1))
                    return true;
                Groups[group].RemoveAt(Groups[group].Count - 1);
            }
            return false;
        }

        private bool HasRoom(int group)
        {
            var least = order.Length / count;
            return Groups[group].Count < least || (Groups[group].Count == least && Groups.Count(other => other.Count > least) < larger);
        }
    }
}
