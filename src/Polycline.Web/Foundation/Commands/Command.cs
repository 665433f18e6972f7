using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation.Commands;

/// <summary>What a command decided to do.</summary>
/// <param name="Words">What it does, for a sentence that starts with the author's name: "renamed …".</param>
/// <param name="Changes">None: there is nothing to do.</param>
/// <param name="Undoes">The batch that it takes back.</param>
/// <param name="Bodies">What is written anew and named by the changes.</param>
public sealed record CommandDecision(
    string Words,
    IReadOnlyList<Change> Changes,
    Id<Batch>? Undoes = null,
    params IReadOnlyList<Body> Bodies
)
{
    /// <summary>
    /// What the button that does it says, in numbers where there are several: "Remove 6 lessons and 20 items from 4 sections".
    /// </summary>
    public string Act { get; init; } = "";
}

/// <summary>One thing that somebody can do: one file, one route.</summary>
/// <typeparam name="TRequest">What it is asked.</typeparam>
/// <typeparam name="TPlan">What it decides from.</typeparam>
public interface ICommand<TRequest, TPlan>
    where TRequest : class
{
    /// <summary>The last part of its route, and its name in the log.</summary>
    static abstract string Name { get; }

    /// <summary>What can be said of the request alone.</summary>
    static abstract IValidator<TRequest> Validator { get; }

    /// <summary>Decides what to change: a pure function.</summary>
    /// <exception cref="ProblemException">It cannot be done, and why.</exception>
    static abstract CommandDecision Decide(TPlan plan, TRequest request, Viewpoint viewpoint);
}

/// <summary>One thing a team does to an edition: <c>POST /api/editions/{edition}/{Name}</c>.</summary>
public interface IEditionCommand<TRequest, TPlan> : ICommand<TRequest, TPlan>
    where TRequest : class
{
    static abstract May May { get; }

    /// <summary>Reads what <see cref="ICommand{TRequest,TPlan}.Decide"/> needs. The edition is locked.</summary>
    static abstract Task<TPlan> Load(NpgsqlConnection connection, Id<Edition> edition, TRequest request);
}

/// <summary>One thing the office does to a term: <c>POST /api/terms/{term}/{Name}</c>.</summary>
public interface ITermCommand<TRequest, TPlan> : ICommand<TRequest, TPlan>
    where TRequest : class
{
    /// <summary>
    /// Reads what <see cref="ICommand{TRequest,TPlan}.Decide"/> needs. The term is locked, and every edition taught in it.
    /// </summary>
    static abstract Task<TPlan> Load(NpgsqlConnection connection, Id<Term> term, TRequest request);
}

/// <summary>The answer to a command, applied or only looked at beforehand.</summary>
/// <param name="Applied">False: a preview, or nothing to do; nothing was written.</param>
/// <param name="Batch">What to name in order to undo it.</param>
/// <param name="Version">The edition's or term's counter after it.</param>
/// <param name="Words">What it does.</param>
/// <param name="Act">What the button that does it says; empty: the screen's own word is enough.</param>
public sealed record CommandAnswer(bool Applied, long? Batch, long Version, string Words, string Act, ReachAnswer Reach);

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
