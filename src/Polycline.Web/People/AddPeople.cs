using FluentValidation;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using static Polycline.Core.Wording.Counting;

namespace Polycline.Web.People;

/// <param name="People">1 to 500, each mail address once.</param>
/// <param name="ByMail">The links go out by mail; otherwise the answer shows them.</param>
public sealed record AddPeopleRequest(IReadOnlyList<NewPerson> People, bool ByMail);

/// <param name="Name">1 to 200 characters.</param>
/// <param name="Email">What they sign in with.</param>
/// <param name="Office">Whether they work in the school's office.</param>
/// <param name="Teacher">Whether they teach: teachers make courses.</param>
public sealed record NewPerson(string Name, string Email, bool Office, bool Teacher);

/// <param name="Sentence">What it does, such as <c>3 people are invited; 1 has an account already</c>.</param>
/// <param name="People">In the order of the request.</param>
public sealed record AddPeopleAnswer(bool Applied, string Sentence, IReadOnlyList<AddedPerson> People) : IAnswer<AddPeopleAnswer>
{
    public AddPeopleAnswer AsPreview() => new(false, Sentence, [.. People.Select(person => person with { Address = null })]);
}

/// <param name="State"><c>added</c>, <c>known</c> (left as it is) or <c>deactivated</c> (there is an account that is not in use).</param>
/// <param name="KnownAs">The name on the account there is; null: it is new.</param>
/// <param name="Address">Where they set a password, within a day, shown this once; null: it goes by mail.</param>
public sealed record AddedPerson(string Name, string Email, string State, string? KnownAs, string? Address);

/// <summary>Makes accounts, each with a link by which its owner sets a password. An address that has an account is left as it is.</summary>
public sealed class AddPeople : IWorkCommand<AddPeopleRequest, AddPeopleAnswer>
{
    public static string Name => "add-people";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static bool HasSecret => true;

    public static IValidator<AddPeopleRequest> Validator { get; } = new Rules();

    public static async Task<AddPeopleAnswer> Do(WorkContext work, AddPeopleRequest request)
    {
        Invitation.CheckMail(work, request.ByMail);
        var known = (
            await PersonStore.WithAddresses(work.Connection, [.. request.People.Select(person => person.Email.Trim())])
        ).ToDictionary(person => person.Email, StringComparer.OrdinalIgnoreCase);
        var people = new List<AddedPerson>();
        foreach (var asked in request.People)
        {
            var (name, email) = (asked.Name.Trim(), asked.Email.Trim());
            if (known.TryGetValue(email, out var there))
            {
                people.Add(new(name, email, there.Removed ? "deactivated" : "known", there.Name, null));
                continue;
            }
            var person = await PersonStore.Add(work.Connection, name, email, "", asked.Office, asked.Teacher);
            people.Add(new(name, email, "added", null, await Invitation.Make(Inviting.By(work), person, name, email, request.ByMail)));
        }
        var added = people.Count(person => person.State == "added");
        if (added > 0)
            await work.Audit("people-added", new { added });
        return new(true, Said(people, added), people);
    }

    private static string Said(List<AddedPerson> people, int added)
    {
        var there = people.Count - added;
        var parts = new List<string>();
        if (added > 0)
            parts.Add($"{Counted(added, "person is invited", "people are invited")}");
        if (there > 0)
            parts.Add($"{Counted(there, "has", "have")} an account already");
        return string.Join("; ", parts);
    }

    private sealed class Rules : AbstractValidator<AddPeopleRequest>
    {
        public Rules()
        {
            RuleFor(request => request.People)
                .Must(people => people.Count is > 0 and <= 500)
                .WithMessage("Add from 1 to 500 people at once.");
            RuleForEach(request => request.People)
                .ChildRules(person =>
                {
                    person.RuleFor(one => one.Name).IsName();
                    person.RuleFor(one => one.Email).IsMailAddress();
                });
            RuleFor(request => request.People)
                .Must(people => people.DistinctBy(one => one.Email.Trim(), StringComparer.OrdinalIgnoreCase).Count() == people.Count)
                .WithMessage("A mail address is there twice. Keep one of the two lines.");
        }
    }
}
