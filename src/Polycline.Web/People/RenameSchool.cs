using FluentValidation;
using Polycline.Data.Settings;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;

namespace Polycline.Web.People;

/// <param name="Name">1 to 200 characters.</param>
public sealed record RenameSchoolRequest(string Name);

/// <summary>Says what the school is called.</summary>
public sealed class RenameSchool : IWorkCommand<RenameSchoolRequest, DoneAnswer>
{
    public static string Name => "rename-school";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static IValidator<RenameSchoolRequest> Validator { get; } = new Rules();

    public static async Task<DoneAnswer> Do(WorkContext work, RenameSchoolRequest request)
    {
        await SettingStore.RenameSchool(work.Connection, request.Name.Trim());
        await work.Audit("school-renamed", new { name = request.Name.Trim() });
        return new();
    }

    private sealed class Rules : AbstractValidator<RenameSchoolRequest>
    {
        public Rules() => RuleFor(request => request.Name).IsName();
    }
}
