using NodaTime;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Sections;
using Polycline.Data.Files;
using Polycline.Data.Sheets;

namespace Polycline.Web.Foundation.Files;

/// <summary>Begins the sheet that a section writes in together, when the first of them opens the item or writes.</summary>
public static class SheetBeginning
{
    /// <summary>Begins it with the paragraphs of the item's file; does nothing where no file is given to write in together.</summary>
    public static async Task Begin(NpgsqlConnection connection, Id<Item> item, Id<Section> section, Instant at)
    {
        if (
            (await ItemFileStore.Of(connection, item)).FirstOrDefault(file => file is { Removed: false, IsWrittenTogether: true }) is
            { } file
        )
            await SheetStore.Begin(connection, item, section, await SheetStarts.Of(connection, file), at);
    }
}
