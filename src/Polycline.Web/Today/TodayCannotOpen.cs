using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.CannotOpen;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Today;

/// <summary>A student has said that they cannot open something.</summary>
public sealed record TodayCannotOpen
{
    public required Id<CannotOpenRow> Id { get; init; }

    public required Id<Person> Student { get; init; }

    public required string Name { get; init; }

    public required Id<Item> Item { get; init; }

    public required string Code { get; init; }

    public required string Title { get; init; }

    public required Moment SaidAt { get; init; }

    /// <summary>What they said of it; it may be empty.</summary>
    public required string Note { get; init; }

    /// <summary>How it stands for them now, in a sentence.</summary>
    public required string Why { get; init; }

    public required TodayMend Mend { get; init; }
}

/// <summary>Works out why a student cannot open what they say they cannot open.</summary>
internal sealed class CannotOpenReasons(EditionPlan plan, Viewpoint viewpoint)
{
    private readonly DecisionWords words = new(plan.Schedule, new(plan.Schedule));

    /// <summary>Null: it is no longer there.</summary>
    public TodayCannotOpen? Of(CannotOpenRow row, string name, StudentRecord record)
    {
        if (plan.Item(row.Item) is not { } item)
            return null;
        var decision = new Explain(plan.Schedule, record).Decide(item.Ref, viewpoint.At);
        var isOpen = decision.State is ReleaseState.Open or ReleaseState.Overdue;
        return new()
        {
            Id = row.Id,
            Student = row.Person,
            Name = name,
            Item = row.Item,
            Code = plan.Schedule.CodeOf[item.Ref],
            Title = item.Title,
            SaidAt = Moment.Of(row.SaidAt, plan.Term.Zone),
            Note = row.Note,
            Why =
                isOpen && item.Kind == ItemKind.Link ? "It is open to them; where the link leads may not be."
                : isOpen && !item.Files.IsEmpty ? "It is open to them; one of its files may not open."
                : words.ForTeam(decision, item.Ref, viewpoint.At, name).Sentence,
            Mend = MendOf(row, item, decision, isOpen),
        };
    }

    private static TodayMend MendOf(CannotOpenRow row, Item item, Decision decision, bool isOpen)
    {
        return decision.Deciding switch
        {
            ReleaseState.Unpublished => InOutline("publish it"),
            _ when isOpen && item.Kind == ItemKind.Link => InOutline("try the link, and change it"),
            _ when isOpen && !item.Files.IsEmpty => InOutline("look at its files"),
            ReleaseState.Upcoming => ForStudent("open it for them now"),
            ReleaseState.Locked => ForStudent("open it for them without its condition"),
            ReleaseState.Closed => ForStudent("give them more time"),
            _ => ForStudent("see what they see"),
        };

        TodayMend InOutline(string what) => new(what, "outline", null, null, null, $"item-{row.Item}");

        TodayMend ForStudent(string what) => new(what, "one-student", row.Section, row.Item, null, $"student-{row.Person}");
    }
}
