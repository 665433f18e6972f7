using Npgsql;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Data.Courses;
using Polycline.Data.Files;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Outline.Files;

/// <summary>The files of one item, and those to be added.</summary>
/// <param name="Files">The present ones in order, then those that were replaced or removed.</param>
/// <param name="Sent">The uploads that the request names, in that order.</param>
/// <param name="Taken">How many bytes the course's files have together.</param>
public sealed record ItemFiles(IReadOnlyList<ItemFileRow> Files, IReadOnlyList<SentFile> Sent, long Taken)
{
    public IReadOnlyList<ItemFileRow> Present => [.. Files.Where(file => !file.Removed)];

    public static async Task<ItemFiles> Read(NpgsqlConnection connection, EditionPlan plan, Id<Item> item, IReadOnlyList<Guid> uploads) =>
        new(
            await ItemFileStore.Of(connection, item),
            uploads.Count == 0 ? [] : await UploadStore.Sent(connection, uploads),
            await ItemFileStore.RoomTaken(connection, plan.Id)
        );

    /// <summary>A file that the person at the page has sent themselves.</summary>
    /// <exception cref="ProblemException">They have sent no such file, or it is not complete.</exception>
    public SentFile SentBy(Viewpoint viewpoint, Guid upload, string field) =>
        Sent.FirstOrDefault(file => file.Id == upload && file.Person == viewpoint.Who.Id) ?? throw Problem.Unknown(field);

    /// <exception cref="ProblemException">The item has no such file.</exception>
    public ItemFileRow Needed(Id<ItemFileRow> file) => Present.FirstOrDefault(one => one.Id == file) ?? throw Problem.Unknown("file");

    /// <exception cref="ProblemException">The course's files would have more bytes than a course may.</exception>
    public static void NeedsRoom(long wanted, string field)
    {
        if (wanted > FileLimits.RoomOfCourse)
            throw Problem.Field(
                field,
                $"The files of a course can have up to {FileLimits.InWords(FileLimits.RoomOfCourse)} together, and this would be more. "
                    + "Remove files you no longer use."
            );
    }
}
