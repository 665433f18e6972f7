using System.Collections.Immutable;
using NodaTime;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;

namespace Polycline.Core.Planning;

/// <summary>
/// Places lessons on meetings: pinned ones first, then the others flow around them. Source: the computation, chapter 3, <i>Placement</i>.
/// </summary>
internal sealed class Placer(ImmutableArray<Meeting> meetings, Basis basis, int minStart)
{
    // What pinned lessons take of a meeting is always its beginning: each takes the first parts that no other has.
    private readonly int[] pinned = new int[meetings.Length];
    private readonly List<int> ordinals = [];
    private Place cursor = new(0, 0);

    /// <summary>A place in class time: so many parts of a meeting are over. Parts are meetings' counts, or minutes.</summary>
    private readonly record struct Place(int Meeting, int Parts) : IComparable<Place>
    {
        public int CompareTo(Place other) => (Meeting, Parts).CompareTo((other.Meeting, other.Parts));
    }

    public List<Finding> Findings { get; } = [];

    public ImmutableArray<PlacedLesson> Lay(IReadOnlyList<LessonToPlace> lessons)
    {
        var placed = new PlacedLesson[lessons.Count];
        var ends = new Place?[lessons.Count];
        for (var n = 0; n < lessons.Count; n++)
            if (lessons[n] is { Pin: { } pin, TakenAlong: false })
                (placed[n], ends[n]) = Pin(lessons[n], pin);
        for (var n = 0; n < lessons.Count; n++)
        {
            if (placed[n] is not null)
            {
                if (ends[n] is { } end && cursor.CompareTo(end) < 0)
                    cursor = end;
            }
            else
            {
                placed[n] =
                    lessons[n].TakenAlong && placed[..n].LastOrDefault(lesson => lesson.IsPlaced) is { } before
                        ? new(lessons[n].Lesson, [before.End!.Ordinal], before.EndsAt, before.EndsAt, before.End, before.End, 0)
                        : Flow(lessons[n]);
            }
        }
        return [.. placed];
    }

    private int Capacity(int meeting) => basis == Basis.Meetings ? meetings[meeting].Counts : meetings[meeting].Minutes;

    // Where the free parts of a meeting begin, for whoever stands at the cursor; its end where none is free.
    private int FreeFrom(int meeting, int parts) => Math.Min(Math.Max(parts, pinned[meeting]), Capacity(meeting));

    private (PlacedLesson, Place?) Pin(LessonToPlace lesson, LocalDate pin)
    {
        var wanted = FirstOnOrAfter(pin);
        var first = NextWithRoom(wanted);
        if (first == meetings.Length)
        {
            Findings.Add(new(FindingCode.PinMissed, lesson.Lesson.Name, 0));
            return (Unplaced(lesson), null);
        }
        if (first > wanted)
            Findings.Add(new(FindingCode.PinMissed, lesson.Lesson.Name, first - wanted));
        var start = new Place(first, FreeFrom(first, 0));
        if (lesson.Length == 0)
            return (Standing(lesson, start, asEnd: false), start);
        var (result, end) = Take(lesson, start, (meeting, from, parts) => pinned[meeting] = from + parts);
        return (result, end);
    }

    private PlacedLesson Flow(LessonToPlace lesson)
    {
        if (
            lesson.Length == 0
            && basis == Basis.Minutes
            && cursor.Meeting < meetings.Length
            && cursor.Parts > 0
            && cursor.Parts == Capacity(cursor.Meeting)
        )
            return Standing(lesson, cursor, asEnd: true);
        var start = Begin(lesson.Length);
        if (start.Meeting == meetings.Length)
        {
            cursor = start;
            return Unplaced(lesson);
        }
        if (lesson.Length == 0)
        {
            cursor = start;
            return Standing(lesson, start, asEnd: false);
        }
        var (result, end) = Take(lesson, start, (_, _, _) => { });
        cursor = result.Overflow > 0 ? new(meetings.Length, 0) : end;
        return result;
    }

    // Where it may begin: not in a rest that is nothing, nor in one that is less than both its length and the least to begin.
    private Place Begin(int length)
    {
        var meeting = cursor.Meeting;
        var parts = cursor.Parts;
        while (meeting < meetings.Length)
        {
            var from = FreeFrom(meeting, parts);
            var rest = Capacity(meeting) - from;
            if (rest > 0 && !(basis == Basis.Minutes && rest < length && rest < minStart))
                return new(meeting, from);
            meeting++;
            parts = 0;
        }
        return new(meeting, 0);
    }

    // Takes the lesson's length from a free part on, through following meetings, around what is pinned.
    private (PlacedLesson, Place End) Take(LessonToPlace lesson, Place start, Action<int, int, int> taken)
    {
        var left = lesson.Length;
        var end = start;
        ordinals.Clear();
        var parts = start.Parts;
        for (var meeting = start.Meeting; meeting < meetings.Length && left > 0; meeting++, parts = 0)
        {
            var from = FreeFrom(meeting, parts);
            var takes = Math.Min(left, Capacity(meeting) - from);
            if (takes == 0)
                continue;
            taken(meeting, from, takes);
            ordinals.Add(meetings[meeting].Ordinal);
            left -= takes;
            end = new(meeting, from + takes);
        }
        return (
            new(
                lesson.Lesson,
                [.. ordinals],
                MomentOf(start, false),
                MomentOf(end, true),
                meetings[start.Meeting],
                meetings[end.Meeting],
                left
            ),
            end
        );
    }

    private PlacedLesson Standing(LessonToPlace lesson, Place place, bool asEnd)
    {
        var moment = MomentOf(place, asEnd);
        return new(lesson.Lesson, [], moment, moment, meetings[place.Meeting], meetings[place.Meeting], 0);
    }

    private static PlacedLesson Unplaced(LessonToPlace lesson) => new(lesson.Lesson, [], null, null, null, null, lesson.Length);

    // The border after so many parts: of c parts it lies after ⌊minutes · j / c⌋ class minutes.
    private Instant MomentOf(Place place, bool asEnd)
    {
        var meeting = meetings[place.Meeting];
        var minutes = basis == Basis.Minutes ? place.Parts : (int)((long)meeting.Minutes * place.Parts / meeting.Counts);
        return meeting.After(minutes, asEnd);
    }

    private int FirstOnOrAfter(LocalDate date)
    {
        for (var meeting = 0; meeting < meetings.Length; meeting++)
            if (meetings[meeting].Date >= date)
                return meeting;
        return meetings.Length;
    }

    private int NextWithRoom(int meeting)
    {
        for (; meeting < meetings.Length; meeting++)
            if (pinned[meeting] < Capacity(meeting))
                return meeting;
        return meeting;
    }
}
