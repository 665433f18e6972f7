using Polycline.Data;
using Polycline.Data.Files;
using Polycline.Data.Search;
using Polycline.Formats.Files;
using Polycline.Web.Foundation;

namespace Polycline.Web.Files;

/// <summary>Reads the words of files that have come, so that they can be found by them. A file that cannot be read is tried once.</summary>
public sealed class FileWords(Database database, ILogger<FileWords> log) : Recurring("Reading files", TimeSpan.FromSeconds(10), log)
{
    /// <returns>How many files were read.</returns>
    public async Task<int> Sweep(CancellationToken stop)
    {
        var read = 0;
        foreach (var file in await database.Read(SearchStore.Unread, stop))
        {
            if (!await database.Read(connection => SearchStore.Begin(connection, file), stop))
                continue;
            read++;
            if (!FileText.CanRead(file.Type, file.Size))
                continue;
            var bytes = new byte[file.Size];
            await using var stream = StoredStream.Of(database, file);
            await stream.ReadExactlyAsync(bytes, stop);
            var text = FileText.Of(file.Type, bytes);
            await database.Read(
                async connection =>
                {
                    await SearchStore.Keep(connection, file, text);
                    return true;
                },
                stop
            );
        }
        return read;
    }

    protected override Task Once(CancellationToken stop) => Sweep(stop);
}
