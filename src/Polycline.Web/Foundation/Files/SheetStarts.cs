using System.Text;
using Npgsql;
using Polycline.Data.Files;
using Polycline.Formats.Files;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Foundation.Files;

/// <summary>What a sheet that is written in together begins with: the paragraphs of its file.</summary>
public static class SheetStarts
{
    /// <summary>Of a block, in characters.</summary>
    public const int LongestBlock = 3_000;

    /// <summary>Of a file that can begin a sheet, in bytes.</summary>
    public const long LargestFile = 100_000;

    private const int MostBlocks = 200;

    /// <exception cref="ProblemException">The file is no text that can be written in together.</exception>
    public static void NeedsText(ItemFileRow file, string field)
    {
        if (FileTypes.KindOf(file.Name, file.Type) != FileKind.Text || file.Size > LargestFile)
            throw Problem.Field(
                field,
                $"Only a text file of up to {FileLimits.InWords(LargestFile)} can become a sheet to write in together. "
                    + "Save it as a .txt or .md file, then add that."
            );
    }

    /// <summary>The paragraphs of a text file; those that are too long are cut in pieces.</summary>
    public static async Task<IReadOnlyList<string>> Of(NpgsqlConnection connection, ItemFileRow file)
    {
        var bytes = new byte[Math.Min(file.Size, LargestFile)];
        await StoredStream.Of(connection, file.Stored).ReadExactlyAsync(bytes);
        return Paragraphs(Encoding.UTF8.GetString(bytes));
    }

    /// <summary>The paragraphs of a text: what stands between empty lines.</summary>
    public static IReadOnlyList<string> Paragraphs(string text) =>
        [
            .. text.TrimStart('\uFEFF')
                .ReplaceLineEndings("\n")
                .Split("\n\n")
                .Select(paragraph => paragraph.Trim('\n', ' '))
                .Where(paragraph => Bounds.IsVisible(paragraph))
                .SelectMany(paragraph => paragraph.Chunk(LongestBlock).Select(piece => new string(piece)))
                .Take(MostBlocks),
        ];
}
