using FluentValidation;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Web.People;

/// <param name="People">1 to 500, each once.</param>
/// <param name="ByMail">The links go out by mail; otherwise the answer shows them.</param>
public sealed record InvitePeopleRequest(IReadOnlyList<Id<Person>> People, bool ByMail);

/// <param name="Sentence">What was done, such as <c>94 links are on their way by mail</c>.</param>
/// <param name="People">In the order of the request.</param>
public sealed record InvitedAnswer(bool Applied, string Sentence, IReadOnlyList<InvitedPerson> People) : IAnswer<InvitedAnswer>
{
    public InvitedAnswer AsPreview() => new(false, Sentence, [.. People.Select(person => person with { Address = null })]);
}

/// <param name="Address">Where they set a password, within a day, shown this once; null: it goes by mail.</param>
public sealed record InvitedPerson(string Name, string Email, string? Address);

/// <summary>Gives people a new link each to set a password; earlier ones are good no longer.</summary>
public sealed class InvitePeople : IWorkCommand<InvitePeopleRequest, InvitedAnswer>
{
    public static string Name => "invite-people";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static bool HasSecret => true;

    public static IValidator<InvitePeopleRequest> Validator { get; } = new Rules();

    public static async Task<InvitedAnswer> Do(WorkContext work, InvitePeopleRequest request)
    {
        Invitation.CheckMail(work, request.ByMail);
        var people = new List<InvitedPerson>();
        // In order of number, so that two who invite the same people at once do not wait for each other.
        foreach (var person in request.People.OrderBy(person => person.Value))
        {
            var account = await PersonStore.Locked(work.Connection, person) ?? throw Problem.Unknown("people");
            if (account.Removed)
                throw Problem.Field("people", $"{account.Name}’s account is deactivated. Reactivate it first.");
            var address = await Invitation.Make(Inviting.By(work), person, account.Name, account.Email, request.ByMail);
            people.Add(new(account.Name, account.Email, address));
        }
        await work.Audit("people-invited", new { people = request.People.Select(person => person.Value), request.ByMail });
        return new(
            true,
            request.ByMail
                ? $"{Counted(people.Count, "link is on its way", "links are on their way")} by mail"
                : Counted(people.Count, "new link", "new links"),
            people
        );
    }

    private sealed class Rules : AbstractValidator<InvitePeopleRequest>
    {
        public Rules() =>
            RuleFor(request => request.People)
                .Must(people => people.Count is > 0 and <= 500 && people.Distinct().Count() == people.Count)
                .WithMessage("Choose from 1 to 500 people, each once.");
    }
}
