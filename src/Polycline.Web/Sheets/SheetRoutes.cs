using Polycline.Data.Courses;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Sheets;

/// <summary>Sheets that sections write in together.</summary>
public static class SheetRoutes
{
    public static void MapSheets(this IEndpointRouteBuilder routes)
    {
        const May Readers = May.SectionStudent | May.SectionTeacher;
        routes.MapGet("/api/sections/{section:long}/items/{item:long}/sheet", ReadSheet.Handle).WithName("sheet").For(Readers);
        routes
            .MapGet("/api/sections/{section:long}/items/{item:long}/sheet/{block:long}", ReadSheet.HandleBlock)
            .WithName("sheet-block")
            .For(Readers);
        routes.MapWork<WriteSheet, WriteSheetRequest, EditionPlan, WrittenAnswer>();
    }
}
