using System.Text.Json;
using FluentValidation;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Web.People;

/// <summary>All that is kept about one person, as a file for them.</summary>
public static class ReadPersonData
{
    private static readonly JsonSerializerOptions Readable = new()
    {
        WriteIndented = true,
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    public static async Task<IResult> Handle(long person, Access access, Viewpoint viewpoint, Database database, CancellationToken stop)
    {
        if (!viewpoint.TakesCommands)
            throw Problem.Unknown();
        var data = await database.Read(
            async connection =>
            {
                var all = await PersonDataStore.All(connection, new(person)) ?? throw Problem.Unknown();
                await AccessStore.Audit(
                    connection,
                    viewpoint.At,
                    access.Person.Id,
                    "person-exported",
                    JsonSerializer.Serialize(new { person })
                );
                return all;
            },
            stop
        );
        using var read = JsonDocument.Parse(data);
        return Results.File(JsonSerializer.SerializeToUtf8Bytes(read, Readable), "application/json", $"person-{person}.json");
    }
}

/// <param name="Name">Their name as it stands, so that nobody is erased by a slip.</param>
public sealed record ErasePersonRequest(Id<Person> Person, string Name);

/// <param name="Goes">What is erased, for good.</param>
/// <param name="Stays">What stays and names nobody.</param>
public sealed record ErasedAnswer(bool Applied, IReadOnlyList<string> Goes, IReadOnlyList<string> Stays) : IAnswer<ErasedAnswer>
{
    public ErasedAnswer AsPreview() => this with { Applied = false };
}

/// <summary>Erases what is kept about a person. It cannot be undone.</summary>
public sealed class ErasePerson : IWorkCommand<ErasePersonRequest, ErasedAnswer>
{
    public static string Name => "erase-person";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static IValidator<ErasePersonRequest> Validator { get; } = new Rules();

    public static async Task<ErasedAnswer> Do(WorkContext work, ErasePersonRequest request)
    {
        var account = await Account.OfSomebodyElse(work, request.Person, "You cannot erase yourself.");
        if (!account.Name.Equals(request.Name.Trim(), StringComparison.OrdinalIgnoreCase))
            throw Problem.Field("name", $"Type their name as it stands here: {account.Name}.");
        var erasure = await PersonDataStore.Erasure(work.Connection, account.Person);
        if (erasure.LeadsAlone is [var course, ..])
            throw Problem.Field("person", $"{account.Name} is the only lead of {course}. Make somebody else its lead first.");
        // Whatever is open in their name closes, on every instance.
        await SessionStore.EndAll(work.Connection, account.Person);
        await PersonDataStore.Erase(work.Connection, account.Person, work.Viewpoint.At);
        await work.Audit("person-erased", new { });
        return new(true, [.. Goes(erasure)], [.. Stays(erasure)]);
    }

    private static IEnumerable<string> Goes(Erasure erasure)
    {
        yield return "their name, address, password and sessions";
        yield return "their places on teams and as a teacher of sections";
        if (erasure.Texts + erasure.Feedback > 0)
            yield return $"the text of {Counted(erasure.Texts, "version", "versions")} of their work, and of "
                + $"{Counted(erasure.Feedback, "feedback", "pieces of feedback")} to them";
        if (erasure.Drafts > 0)
            yield return Counted(erasure.Drafts, "draft", "drafts");
        yield return "why more time was agreed with them, if it was";
    }

    private static IEnumerable<string> Stays(Erasure erasure)
    {
        if (erasure.Facts > 0)
            yield return $"{Counted(erasure.Facts, "record", "records")} of what was done and when, without a name";
        if (erasure.FeedbackGiven > 0)
            yield return $"{Counted(erasure.FeedbackGiven, "piece", "pieces")} of feedback that they gave, which are their students’";
        if (erasure.Changes > 0)
            yield return $"{Counted(erasure.Changes, "change", "changes")} of plans that they made, by “Somebody erased”";
    }

    private sealed class Rules : AbstractValidator<ErasePersonRequest>
    {
        public Rules() => RuleFor(request => request.Name).IsName();
    }
}
