using Polycline.Core;
using Polycline.Core.Wording;
using Polycline.Data.Ledger;

namespace Polycline.Web.Foundation.Commands;

/// <summary>What a command answers: the same from a preview, but for what only comes of doing it.</summary>
public interface IAnswer<TSelf>
{
    /// <summary>The answer of a preview: nothing was written.</summary>
    TSelf AsPreview();
}

/// <param name="Applied">False if this was only a preview and nothing was written.</param>
public sealed record DoneAnswer(bool Applied = true) : IAnswer<DoneAnswer>
{
    public DoneAnswer AsPreview() => new(false);
}

/// <summary>The answer to a command, applied or only looked at beforehand.</summary>
/// <param name="Applied">False: a preview, or nothing to do; nothing was written.</param>
/// <param name="Batch">What to name in order to undo it.</param>
/// <param name="Version">The edition's or term's counter after it.</param>
/// <param name="Words">What it does.</param>
/// <param name="Act">What the button that does it says; empty: the screen's own word is enough.</param>
public sealed record CommandAnswer(bool Applied, Id<Batch>? Batch, long Version, string Words, string Act, ReachAnswer Reach)
    : IAnswer<CommandAnswer>
{
    public CommandAnswer AsPreview() => this with { Applied = false, Batch = null };
}

/// <summary>What a command does to sections and students.</summary>
/// <param name="Effect"><c>none</c>: nothing changes for students; <c>some</c>; <c>takes</c>: something is taken from them, or work is
/// touched.</param>
/// <param name="Students">Who is reached and how, as far as the viewer may know them; null: that was not asked.</param>
/// <param name="Others">How many more are reached whom the viewer does not teach, or who were too many to name.</param>
public sealed record ReachAnswer(
    IReadOnlyList<ReachRow> Rows,
    IReadOnlyList<ReachSection> Sections,
    string Sentence,
    string Effect,
    IReadOnlyList<ReachedStudent>? Students,
    int Others
);

public sealed record ReachSection(string Name, int Students);

/// <summary>What a command does for one student; items by code and title.</summary>
/// <param name="Gains">What they see more of.</param>
/// <param name="Loses">What they see less of.</param>
/// <param name="Overdue">What is overdue at once.</param>
/// <param name="Moves">Whose dates move.</param>
/// <param name="Begun">Of all these what they have begun.</param>
/// <param name="Keeps">What stays for them while it no longer is for others.</param>
public sealed record ReachedStudent(
    string Name,
    string Section,
    IReadOnlyList<string> Gains,
    IReadOnlyList<string> Loses,
    IReadOnlyList<string> Overdue,
    IReadOnlyList<string> Moves,
    IReadOnlyList<string> Begun,
    IReadOnlyList<string> Keeps
);
