using System.Collections.Immutable;
using System.IO.Compression;
using System.Text;
using System.Text.RegularExpressions;
using System.Xml;
using System.Xml.Linq;
using Polycline.Core.Marking.Papers;
using static Polycline.Formats.Quizzes.Qti.QtiNames;

namespace Polycline.Formats.Quizzes.Qti;

/// <summary>A quiz as a content package of QTI 2.2: a test, an item for each question, and the files that they show.</summary>
/// <param name="Title">What the test is called.</param>
public sealed partial record QtiPackage(string Title, QuizPaper Paper)
{
    private static readonly DateTimeOffset Timeless = new(1980, 1, 1, 0, 0, 0, TimeSpan.Zero);

    /// <summary>What QTI 2.2 has no place for, in words: to be read before.</summary>
    public IReadOnlyList<string> LeftOut => QtiFit.LeftOut(Paper);

    /// <summary>The hashes of the files that its questions show.</summary>
    public IReadOnlySet<string> FileNames =>
        Paper
            .Questions.SelectMany(question => Shown().Matches(question.Text).Select(match => match.Groups[1].Value))
            .ToHashSet(StringComparer.Ordinal);

    /// <param name="files">Each of <see cref="FileNames"/> once, named by its hash, and its media type.</param>
    public async Task Write(Stream to, IReadOnlyList<(PackedFile File, string Type)> files, CancellationToken stop = default)
    {
        var named = files.ToDictionary(
            one => $"file:{one.File.Name}",
            one => $"files/{one.File.Name}{Ending(one.Type)}",
            StringComparer.Ordinal
        );
        await using var writes = new DeferredWrites(to);
        await using (var zip = await ZipArchive.CreateAsync(writes, ZipArchiveMode.Create, leaveOpen: true, entryNameEncoding: null, stop))
        {
            await Add(zip, Manifest, Xml(ManifestOf(named)), stop);
            await Add(zip, "test.xml", Xml(Test()), stop);
            foreach (var question in Paper.Questions)
            {
                // An item lies in a folder of its own, and names the files from there.
                var item = new QtiItem(Sound(question), Paper.MixesOptions, source => $"../{named.GetValueOrDefault(source, source)}");
                await Add(zip, Place(question), Xml(item.Write()), stop);
            }
            foreach (var (file, _) in files)
                await Add(zip, named[$"file:{file.Name}"], file.Open(), stop);
        }
        await writes.FlushAsync(stop);
    }

    private static PaperQuestion Sound(PaperQuestion question) =>
        question with
        {
            Words = question.Words.ToImmutableDictionary(word => word.Key, word => QtiText.Sound(word.Value)),
            After = question.After is null ? null : QtiText.Sound(question.After),
        };

    private static string Place(PaperQuestion question) => $"items/{question.Question.Id}.xml";

    private XElement Test() =>
        new(
            V2 + "assessmentTest",
            new XAttribute("identifier", "test"),
            new XAttribute("title", QtiText.Sound(Title)),
            Paper.Limit is { } minutes ? new XElement(V2 + "timeLimits", new XAttribute("maxTime", minutes * 60)) : null,
            new XElement(
                V2 + "testPart",
                new XAttribute("identifier", "part"),
                new XAttribute("navigationMode", "nonlinear"),
                new XAttribute("submissionMode", "simultaneous"),
                Pages().Select(Page)
            )
        );

    private IEnumerable<List<PaperQuestion>> Pages()
    {
        var page = new List<PaperQuestion>();
        foreach (var question in Paper.Questions)
        {
            if (question.BeginsPage && page.Count > 0)
            {
                yield return page;
                page = [];
            }
            page.Add(question);
        }
        yield return page;
    }

    private XElement Page(List<PaperQuestion> questions, int at) =>
        Section(
            $"page{at + 1}",
            $"Page {at + 1}",
            Paper.MixesQuestions ? Ordering() : null,
            questions
                .GroupBy(question => question.Pool == 0 ? $"{question.Question.Id}" : $"pool {question.Pool}")
                .Select(group =>
                    group.First().Pool is > 0 and var pool
                        ? Section(
                            $"draw{pool}",
                            $"{Paper.Draws[pool - 1]} of {group.Count()}",
                            new XElement(V2 + "selection", new XAttribute("select", Paper.Draws[pool - 1])),
                            Ordering(),
                            group.Select(Reference)
                        )
                        : Reference(group.First())
                )
        );

    private static XElement Section(string id, string title, params object?[] what) =>
        new(
            V2 + "assessmentSection",
            new XAttribute("identifier", id),
            new XAttribute("title", title),
            new XAttribute("visible", "false"),
            what
        );

    private static XElement Ordering() => new(V2 + "ordering", new XAttribute("shuffle", "true"));

    private static XElement Reference(PaperQuestion question) =>
        new(V2 + "assessmentItemRef", new XAttribute("identifier", $"ref-{question.Question.Id}"), new XAttribute("href", Place(question)));

    private XElement ManifestOf(Dictionary<string, string> files) =>
        new(
            Package + "manifest",
            new XAttribute("identifier", "package"),
            new XElement(
                Package + "metadata",
                new XElement(Package + "schema", "QTIv2.2 Package"),
                new XElement(Package + "schemaversion", "1.0.0")
            ),
            new XElement(Package + "organizations"),
            new XElement(
                Package + "resources",
                Resource("test", TestType, "test.xml", [], Paper.Questions.Select(question => question.Question.Id)),
                Paper.Questions.Select(question =>
                    Resource(
                        question.Question.Id,
                        ItemType,
                        Place(question),
                        Shown()
                            .Matches(question.Text)
                            .Select(match => files.GetValueOrDefault($"file:{match.Groups[1].Value}"))
                            .OfType<string>()
                            .Distinct(),
                        []
                    )
                )
            )
        );

    private static XElement Resource(string id, string type, string href, IEnumerable<string> files, IEnumerable<string> needs) =>
        new(
            Package + "resource",
            new XAttribute("identifier", $"res-{id}"),
            new XAttribute("type", type),
            new XAttribute("href", href),
            files.Prepend(href).Select(file => new XElement(Package + "file", new XAttribute("href", file))),
            needs.Select(need => new XElement(Package + "dependency", new XAttribute("identifierref", $"res-{need}")))
        );

    private static MemoryStream Xml(XElement root)
    {
        var to = new MemoryStream();
        // Blanks between words count, so nothing is indented.
        using (var writer = XmlWriter.Create(to, new() { Encoding = new UTF8Encoding(false), Indent = false }))
            new XDocument(root).Save(writer);
        to.Position = 0;
        return to;
    }

    private static async Task Add(ZipArchive zip, string name, Stream bytes, CancellationToken stop)
    {
        await using var from = bytes;
        var entry = zip.CreateEntry(name, CompressionLevel.Optimal);
        entry.LastWriteTime = Timeless;
        await using var into = await entry.OpenAsync(stop);
        await from.CopyToAsync(into, stop);
    }

    private static string Ending(string type) =>
        type switch
        {
            "image/png" => ".png",
            "image/jpeg" => ".jpg",
            "image/gif" => ".gif",
            "image/webp" => ".webp",
            "audio/mpeg" => ".mp3",
            "video/mp4" => ".mp4",
            _ => type.StartsWith("text/", StringComparison.Ordinal) ? ".svg" : "",
        };

    [GeneratedRegex("src=\"file:([0-9a-f]{64})\"", RegexOptions.CultureInvariant)]
    private static partial Regex Shown();
}
