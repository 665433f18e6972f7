using FluentValidation;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Outline;

namespace Polycline.Web.Groups;

/// <param name="Name">What the team calls it: 1 to 60 characters. Students never see it.</param>
public sealed record AddGroupRequest(string Name);

/// <summary>Names a group, before there are students or after.</summary>
public sealed class AddGroup : IEditionCommand<AddGroupRequest, EditionPlan>
{
    public static string Name => "add-group";

    public static May May => May.Team;

    public static IValidator<AddGroupRequest> Validator { get; } = new Rules();

    public static Task<EditionPlan> Load(NpgsqlConnection connection, Id<Edition> edition, AddGroupRequest request) =>
        OutlineRules.Load(connection, edition);

    public static CommandDecision Decide(EditionPlan plan, AddGroupRequest request, Viewpoint viewpoint)
    {
        var name = request.Name.Trim();
        return plan.Groups.Any(group => group.Name == name)
            ? throw Problem.Field("name", $"There is a group called {name} already. Choose another name.")
            : new(
                $"named the group “{name}”",
                [new("student_group", [], null, new() { ["edition"] = plan.Id.Value, ["name"] = name }, null)]
            );
    }

    private sealed class Rules : AbstractValidator<AddGroupRequest>
    {
        public Rules() =>
            RuleFor(request => request.Name)
                .Must(name => Bounds.IsVisible(name) && name.Trim().Length <= 60 && !name.Any(char.IsControl))
                .WithMessage("A group's name has 1 to 60 characters.");
    }
}
