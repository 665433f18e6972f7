using System.Text.Json;
using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.People;
using Polycline.Data.Sections;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Foundation.Commands;

/// <summary>
/// One thing that somebody can do: one file, one route. It is a planning command, whose changes go through the ledger and
/// can be undone, or a work command, which adds facts that stay. Both go through <see cref="CommandPipeline"/>.
/// </summary>
/// <typeparam name="TRequest">What it is asked.</typeparam>
public interface ICommand<TRequest>
    where TRequest : class
{
    /// <summary>The last part of its route, and its name in the log.</summary>
    static abstract string Name { get; }

    /// <summary>Who may do it.</summary>
    static virtual May May => May.Team;

    /// <summary>What can be said of the request alone.</summary>
    static virtual IValidator<TRequest> Validator => Unchecked<TRequest>.Rules;

    /// <summary>How long a request may be, in bytes; null: as long as any.</summary>
    static virtual long? LargestRequest => null;
}

/// <summary>A change of an edition, or of a term, that is decided from how that stands.</summary>
/// <typeparam name="TBefore">What it changes as it stands: an <see cref="EditionPlan"/> or a term's plan.</typeparam>
/// <typeparam name="TRequest">What it is asked.</typeparam>
public interface IPlanningCommand<in TBefore, TRequest> : ICommand<TRequest>
    where TRequest : class
{
    /// <summary>Decides what to change: a pure function.</summary>
    /// <exception cref="ProblemException">It cannot be done, and why.</exception>
    static abstract CommandDecision Decide(TBefore before, TRequest request, Viewpoint viewpoint);
}

/// <summary>The same for a command that needs to know more than the present state.</summary>
/// <typeparam name="TBefore">What it changes as it stands.</typeparam>
/// <typeparam name="TMore">What else it decides from.</typeparam>
/// <typeparam name="TRequest">What it is asked.</typeparam>
public interface IPlanningCommand<in TBefore, TMore, TRequest> : ICommand<TRequest>
    where TRequest : class
{
    /// <summary>Reads what else it needs. What it changes is locked.</summary>
    static abstract Task<TMore> Read(NpgsqlConnection connection, TBefore before, TRequest request);

    /// <inheritdoc cref="IPlanningCommand{TBefore,TRequest}.Decide"/>
    static abstract CommandDecision Decide(TBefore before, TMore more, TRequest request, Viewpoint viewpoint);
}

/// <summary>What the address of a work command names.</summary>
public enum WorkPlace
{
    Edition,
    Section,

    /// <summary>Nothing but whoever asks.</summary>
    Oneself,

    /// <summary>The school as a whole.</summary>
    School,
}

/// <summary>What somebody does that is no change of planning: facts, pieces of work, editions made and ended.</summary>
public interface IWorkCommand<TRequest, TAnswer> : ICommand<TRequest>
    where TRequest : class
    where TAnswer : IAnswer<TAnswer>
{
    static abstract WorkPlace Place { get; }

    /// <summary>True: its answer holds a secret, and is kept nowhere. Sent again, it is refused.</summary>
    static virtual bool HasSecret => false;

    /// <summary>Does it, in the transaction that is its own; in a preview that is given up.</summary>
    /// <exception cref="ProblemException">It cannot be done, and why.</exception>
    static abstract Task<TAnswer> Do(WorkContext work, TRequest request);
}

/// <summary>The same for a command that prepares something before its transaction begins.</summary>
/// <typeparam name="TRequest">What it is asked.</typeparam>
/// <typeparam name="TReady">What it prepares: a plan, or a file that was read.</typeparam>
/// <typeparam name="TAnswer">What it answers.</typeparam>
public interface IWorkCommand<TRequest, TReady, TAnswer> : ICommand<TRequest>
    where TRequest : class
    where TAnswer : IAnswer<TAnswer>
{
    static abstract WorkPlace Place { get; }

    static abstract Task<TReady> Prepare(Access access, PlanCache plans, TRequest request);

    /// <inheritdoc cref="IWorkCommand{TRequest,TAnswer}.Do"/>
    static abstract Task<TAnswer> Do(WorkContext work, TReady ready, TRequest request);
}

/// <summary>The context of a work command.</summary>
/// <param name="Key">The request's key; in a preview one that nobody else has.</param>
/// <param name="Address">Where the school's pages are, as whoever asks reaches them: scheme and host.</param>
/// <param name="HasMail">Whether letters go out.</param>
public sealed record WorkContext(NpgsqlConnection Connection, Access Access, Viewpoint Viewpoint, Guid Key, string Address, bool HasMail)
{
    /// <summary>What is held against files that come in.</summary>
    public required FileRules Files { get; init; }

    /// <summary>The edition that the address names.</summary>
    public Id<Core.Courses.Edition> Edition => Access.Edition ?? throw Problem.Unknown();

    /// <summary>The section that the address names.</summary>
    public Id<Core.Sections.Section> Section => Access.Section ?? throw Problem.Unknown();

    /// <summary>Writes into the audit that it was done, and what it was about.</summary>
    public Task Audit(string what, object about) =>
        AccessStore.Audit(Connection, Viewpoint.At, Access.Person.Id, what, JsonSerializer.Serialize(about));
}

/// <summary>What a planning command decided to do.</summary>
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

    /// <summary>A section's work that goes along to another course; null: none does.</summary>
    public WorkMove? Moves { get; init; }

    /// <summary>What it does, where that is more than the course itself can tell; null: as the course tells.</summary>
    public Core.Wording.Reach? Told { get; init; }

    /// <summary>What else it does, in a sentence that stands after the reach; empty: nothing else.</summary>
    public string Besides { get; init; } = "";
}

/// <summary>Of a request that nothing can be said of by itself.</summary>
internal static class Unchecked<TRequest>
{
    public static readonly IValidator<TRequest> Rules = new InlineValidator<TRequest>();
}
