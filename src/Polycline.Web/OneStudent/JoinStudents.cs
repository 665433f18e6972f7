using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Core.Wording;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Data.People;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.OneStudent;

/// <param name="Addresses">The mail addresses of their accounts: 1 to 100, each once.</param>
/// <param name="From">The first day in the section, within the term.</param>
public sealed record JoinStudentsRequest(Id<Section> Section, IReadOnlyList<string> Addresses, string From);

/// <summary>Students join a section from a day on. What was due by then is not asked of them.</summary>
public sealed class JoinStudents : IPlanningCommand<EditionPlan, IReadOnlyList<KnownPerson>, JoinStudentsRequest>
{
    public static string Name => "join-students";

    public static IValidator<JoinStudentsRequest> Validator { get; } = new Rules();

    public static Task<IReadOnlyList<KnownPerson>> Read(NpgsqlConnection connection, EditionPlan plan, JoinStudentsRequest request) =>
        PersonStore.WithAddresses(connection, [.. request.Addresses.Select(address => address.Trim())]);

    public static CommandDecision Decide(
        EditionPlan plan,
        IReadOnlyList<KnownPerson> people,
        JoinStudentsRequest request,
        Viewpoint viewpoint
    )
    {
        var section = StudentsHere.Section(plan, request.Section, "section");
        var from = StudentsHere.Day(plan, request.From, "from");
        StudentsHere.IsTaught(section, from, "from");
        var byAddress = people.ToDictionary(row => row.Email, StringComparer.OrdinalIgnoreCase);
        var changes = new List<Change>();
        for (var n = 0; n < request.Addresses.Count; n++)
        {
            // A colleague's address is answered like one that nobody has.
            if (!byAddress.TryGetValue(request.Addresses[n].Trim(), out var student) || student.Staff || student.Removed)
                throw Problem.Field(
                    $"addresses[{n}]",
                    $"No student has the address {request.Addresses[n].Trim()}. Check it, or ask the office to add them."
                );
            if (section.Listed.Any(place => place.Person == student.Person && place.Holds(from)))
                continue;
            if (section.Listed.Any(place => place.Person == student.Person && place.From > from))
                throw Problem.Field(
                    $"addresses[{n}]",
                    $"{request.Addresses[n].Trim()} joins {section.Name} later already. Take that place back first."
                );
            changes.Add(
                Change.Add(
                    Tables.Places.Section.Is(section.Id),
                    Tables.Places.Person.Is(student.Person),
                    Tables.Places.Period.Is((from, null))
                )
            );
        }
        var who = Counting.Counted(changes.Count, "student", "students");
        return changes.Count == 0
            ? new($"left {section.Name} as it is", [])
            : new($"had {who} join {section.Name}", changes) { Act = $"Have {who} join {section.Name}" };
    }

    private sealed class Rules : AbstractValidator<JoinStudentsRequest>
    {
        public Rules()
        {
            RuleFor(request => request.Addresses)
                .Must(addresses =>
                    addresses.Count is > 0 and <= 100
                    && addresses.Select(address => address.Trim()).Distinct(StringComparer.OrdinalIgnoreCase).Count() == addresses.Count
                )
                .WithMessage("Give from 1 to 100 mail addresses, each once.");
            RuleForEach(request => request.Addresses)
                .Must(address => address.Trim().Length is > 2 and <= 254 && address.Contains('@', StringComparison.Ordinal))
                .WithMessage("That is not a mail address.");
        }
    }
}
