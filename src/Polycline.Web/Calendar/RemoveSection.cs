using Npgsql;
using Polycline.Core;
using Polycline.Core.Sections;
using Polycline.Data.Sections;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Calendar;

public sealed record RemoveSectionRequest(Id<Section> Section);

/// <summary>Removes a section that follows nothing and has never had a student.</summary>
public sealed class RemoveSection : IWorkCommand<RemoveSectionRequest, DoneAnswer>
{
    public static string Name => "remove-section";

    public static May May => May.School;

    public static WorkPlace Place => WorkPlace.School;

    public static async Task<DoneAnswer> Do(WorkContext work, RemoveSectionRequest request)
    {
        if (await SectionStore.Read(work.Connection, request.Section) is not { } section)
            throw Problem.Unknown("section");
        try
        {
            await SectionStore.Remove(work.Connection, request.Section);
        }
        catch (PostgresException fault) when (fault.SqlState is "PC003")
        {
            throw Problem.CannotUndo($"{section.Name} follows a course, or has had students or changed classes.", "Nothing was removed.");
        }
        await work.Audit("section-removed", new { name = section.Name });
        return new();
    }
}
