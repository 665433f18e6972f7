using FluentValidation;
using Polycline.Data.Courses;
using Polycline.Data.Ledger;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Groups;

/// <param name="Name">What the team calls it: 1 to 60 characters. Students never see it.</param>
public sealed record AddGroupRequest(string Name);

/// <summary>Names a group, before there are students or after.</summary>
public sealed class AddGroup : IPlanningCommand<EditionPlan, AddGroupRequest>
{
    public static string Name => "add-group";

    public static IValidator<AddGroupRequest> Validator { get; } = new Rules();

    public static CommandDecision Decide(EditionPlan plan, AddGroupRequest request, Viewpoint viewpoint)
    {
        var name = request.Name.Trim();
        return plan.Groups.Any(group => group.Name == name)
            ? throw Problem.Field("name", $"There is a group called {name} already. Choose another name.")
            : new($"named the group “{name}”", [Change.Add(Tables.Groups.Edition.Is(plan.Id), Tables.Groups.Name.Is(name))]);
    }

    private sealed class Rules : AbstractValidator<AddGroupRequest>
    {
        public Rules() => RuleFor(request => request.Name).IsGroupName();
    }
}
