using System.Text.Encodings.Web;
using System.Text.Json;
using Polycline.Core.Json;
using Polycline.Core.MarkFiles;
using Polycline.Core.MergeFiles;
using Polycline.Core.PlanFiles;

// Computes a plan file, marks a marking file or merges a merge file, and writes the answer to standard output. Exits with 2 if the file
// is refused and with 1 if it cannot be read at all.
if (args is not [("compute" or "mark" or "merge") and var what, var file])
{
    await Console.Error.WriteLineAsync("Name a file: ./polycline compute FILE, mark FILE or merge FILE (- reads the standard input).");
    return 1;
}
byte[] text;
try
{
    text = file == "-" ? await ReadInput() : await File.ReadAllBytesAsync(file);
}
catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
{
    await Console.Error.WriteLineAsync($"{file} cannot be read: {fault.Message}");
    return 1;
}
await using var output = Console.OpenStandardOutput();
await using var json = new Utf8JsonWriter(
    output,
    new JsonWriterOptions { Indented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping }
);
try
{
    if (what == "mark")
        MarkingAnswer.Write(MarkingFile.Read(text), json);
    else if (what == "merge")
        MergeAnswer.Write(MergeFile.Read(text), json);
    else
        PlanAnswer.Write(PlanFile.Read(text), json);
    return 0;
}
catch (FileRefusedException refusal)
{
    refusal.Write(json);
    return 2;
}

static async Task<byte[]> ReadInput()
{
    using var kept = new MemoryStream();
    await using var input = Console.OpenStandardInput();
    await input.CopyToAsync(kept);
    return kept.ToArray();
}
