using System.IO.Compression;
using System.Xml;
using System.Xml.Linq;
using Polycline.Core.Marking.Papers;

namespace Polycline.Formats.Quizzes.Qti;

/// <summary>The questions of a content package of QTI 2 (2.0 to 2.2), in our own form.</summary>
/// <param name="Title">Empty: it says none.</param>
/// <param name="Text">
/// As <see cref="QuizText"/> reads it. A file that it shows is called <c>package:</c> and its place in <paramref name="Files"/>.
/// </param>
/// <param name="Limit">Minutes; null: it says none.</param>
/// <param name="LeftOut">What does not fit, in words.</param>
public sealed record QtiQuiz(
    string Title,
    string Text,
    int Questions,
    int? Limit,
    IReadOnlyList<string> LeftOut,
    IReadOnlyList<QtiFile> Files
);

/// <param name="Name">As the package calls it, without its folder.</param>
public sealed record QtiFile(string Name, byte[] Bytes);

/// <summary>Reads a package. Nothing in it is trusted: neither what it refers to, nor how much it says it holds.</summary>
public static class QtiReader
{
    private const int MostEntries = 2_000;
    private const int MostOfXml = 2_000_000;
    private const int MostOfAll = 50_000_000;
    private const int Deepest = 60;

    /// <exception cref="PackageException">It is not a QTI 2 package, or a quiz here can use none of its questions.</exception>
    public static async Task<QtiQuiz> Read(Stream bytes, CancellationToken stop = default)
    {
        using var package = new Zip(bytes);
        var manifest = await package.Xml(QtiNames.Manifest, stop)
            ?? throw new PackageException($"This is not a QTI package: it has no {QtiNames.Manifest}.");
        var resources = manifest
            .Descendants()
            .Where(element => element.Name.LocalName == "resource")
            .Select(element => (Type: element.Attribute("type")?.Value ?? "", Href: element.Attribute("href")?.Value ?? ""))
            .Where(resource => resource.Href.Length > 0)
            .ToList();
        var reading = new Reading(
            package,
            [.. resources.Where(resource => IsItem(resource.Type)).Select(resource => resource.Href).Distinct()]
        );
        if (resources.FirstOrDefault(resource => IsTest(resource.Type)).Href is { } test)
            await reading.Test(test, await package.Xml(test, stop) ?? throw Missing(test), stop);
        else
            await reading.Items(stop);
        return reading.Made();
    }

    private static bool IsItem(string type) => type.StartsWith("imsqti_item_xmlv2p", StringComparison.Ordinal);

    private static bool IsTest(string type) =>
        type.StartsWith("imsqti_test_xmlv2p", StringComparison.Ordinal)
        || type.StartsWith("imsqti_assessment_xmlv2p", StringComparison.Ordinal);

    private static PackageException Missing(string file) => new($"{Short(file)}, which the package names, is missing from it.");

    private static string Short(string name) => name.Length <= 80 ? name : $"{name[..80]}…";

    private sealed class Reading(Zip package, IReadOnlyList<string> items)
    {
        private readonly List<PaperQuestion> questions = [];
        private readonly List<int> draws = [];
        private readonly List<string> left = [];
        private readonly List<QtiFile> files = [];
        private readonly Dictionary<string, int> fileAt = new(StringComparer.Ordinal);
        private string title = "";
        private int? limit;
        private bool beginsPage;
        private int number;

        public async Task Items(CancellationToken stop)
        {
            foreach (var item in items)
                await Item(item, stop);
        }

        public async Task Test(string place, XElement test, CancellationToken stop)
        {
            title = (test.Attribute("title")?.Value ?? "").Trim();
            var seconds = test.Elements().FirstOrDefault(element => element.Name.LocalName == "timeLimits")?.Attribute("maxTime")?.Value;
            if (decimal.TryParse(seconds, System.Globalization.CultureInfo.InvariantCulture, out var most) && most > 0)
                limit = (int)Math.Clamp(Math.Ceiling(most / 60), 1, 600);
            foreach (
                var section in test.Elements()
                    .Where(IsNamed("testPart"))
                    .SelectMany(part => part.Elements().Where(IsNamed("assessmentSection")))
            )
            {
                beginsPage = questions.Count > 0;
                await Section(place, section, stop);
            }
        }

        public QtiQuiz Made()
        {
            if (questions.Count == 0)
                throw new PackageException(
                    left.Count > 0
                        ? $"A quiz here can’t use any question in this package. {left[0]}"
                        : "There is no question in this package."
                );
            if (questions.Count > QuizPaper.MostQuestions)
                throw new PackageException(
                    $"This package has {questions.Count} questions, and a quiz can have up to {QuizPaper.MostQuestions}. "
                        + "Split it, then try again."
                );
            var paper = new QuizPaper { Questions = [.. questions], Draws = [.. draws] };
            return new(title, QuizText.Write(paper), questions.Count, limit, left, files);
        }

        // A selection is a draw where it holds nothing but questions that give the same points.
        private async Task Section(string place, XElement section, CancellationToken stop)
        {
            var select = section.Elements().FirstOrDefault(IsNamed("selection"))?.Attribute("select")?.Value;
            var parts = section
                .Elements()
                .Where(element => IsNamed("assessmentItemRef")(element) || IsNamed("assessmentSection")(element))
                .ToList();
            var from = questions.Count;
            foreach (var part in parts)
                if (IsNamed("assessmentSection")(part))
                    await Section(place, part, stop);
                else
                    await Item(Zip.Resolve(place, part.Attribute("href")?.Value ?? ""), stop);
            if (select is null)
                return;
            var drawn = questions.Skip(from).ToList();
            var isPool =
                int.TryParse(select, out var draw)
                && draw >= 1
                && draw <= drawn.Count
                && parts.All(IsNamed("assessmentItemRef"))
                && drawn.All(question => question.Question.Points == drawn[0].Question.Points);
            if (!isPool)
            {
                left.Add("A section of the package draws questions in a way a quiz here can’t. Everybody gets all of its questions.");
                return;
            }
            draws.Add(draw);
            for (var at = from; at < questions.Count; at++)
                questions[at] = questions[at] with { Pool = draws.Count, BeginsPage = at == from && questions[at].BeginsPage };
        }

        private async Task Item(string place, CancellationToken stop)
        {
            if (++number > QuizPaper.MostQuestions * 5)
                throw new PackageException($"This package has too many questions: a quiz can have up to {QuizPaper.MostQuestions}.");
            var item = await package.Xml(place, stop) ?? throw Missing(place);
            if (item.Name.LocalName != "assessmentItem")
                throw new PackageException($"{Short(place)} is no question of QTI 2. Have it saved as QTI 2.2.");
            var wanted = new Dictionary<string, byte[]>(StringComparer.Ordinal);
            foreach (
                var source in item.Descendants()
                    .Select(element => element.Attribute("src")?.Value ?? element.Attribute("data")?.Value)
                    .OfType<string>()
            )
                if (!fileAt.ContainsKey(Zip.Resolve(place, source)) && await package.File(Zip.Resolve(place, source), stop) is { } bytes)
                    wanted[Zip.Resolve(place, source)] = bytes;
            var reader = new QtiItemReader(item, source => Named(Zip.Resolve(place, source), wanted));
            var question = reader.Read(questions.Count + 1);
            var called = question is null ? $"“{Short(item.Attribute("title")?.Value ?? place)}”" : $"Question {questions.Count + 1}";
            left.AddRange(reader.Left.Distinct().Select(words => $"{called}: {words}"));
            if (question is null)
                return;
            questions.Add(question with { BeginsPage = beginsPage });
            beginsPage = false;
        }

        private string? Named(string place, Dictionary<string, byte[]> wanted)
        {
            if (!fileAt.TryGetValue(place, out var at))
            {
                if (!wanted.TryGetValue(place, out var bytes))
                    return null;
                fileAt[place] = at = files.Count;
                files.Add(new(place.Split('/')[^1], bytes));
            }
            return $"package:{at}";
        }

        private static Func<XElement, bool> IsNamed(string name) => element => element.Name.LocalName == name;
    }

    private sealed class Zip : IDisposable
    {
        private readonly ZipArchive zip;
        private long room = MostOfAll;

        public Zip(Stream bytes)
        {
            try
            {
                zip = new(bytes, ZipArchiveMode.Read, leaveOpen: true);
                if (zip.Entries.Count > MostEntries)
                    throw new PackageException($"This package holds more than {MostEntries:N0} files.");
            }
            catch (InvalidDataException)
            {
                throw new PackageException("This is not a package: it is not a zip file.");
            }
        }

        public void Dispose() => zip.Dispose();

        /// <summary>What a name means that stands in a file: from its folder on.</summary>
        public static string Resolve(string from, string href)
        {
            var parts = from.Split('/').SkipLast(1).ToList();
            foreach (var part in Uri.UnescapeDataString(href.Split('#', '?')[0]).Split('/'))
                if (part == "..")
                    parts = [.. parts.SkipLast(1)];
                else if (part is not ("" or "."))
                    parts.Add(part);
            return string.Join('/', parts);
        }

        /// <returns>Null: it is not there.</returns>
        public async Task<byte[]?> File(string name, CancellationToken stop) => await Unpacked(name, MostOfAll, stop);

        /// <returns>Null: it is not there.</returns>
        public async Task<XElement?> Xml(string name, CancellationToken stop)
        {
            if (await Unpacked(name, MostOfXml, stop) is not { } bytes)
                return null;
            try
            {
                var settings = new XmlReaderSettings
                {
                    DtdProcessing = DtdProcessing.Prohibit,
                    XmlResolver = null,
                    MaxCharactersInDocument = MostOfXml,
                };
                // How deep it goes is known before it is held as a tree.
                using (var reader = XmlReader.Create(new MemoryStream(bytes), settings))
                    while (reader.Read())
                        if (reader.Depth > Deepest)
                            throw new PackageException($"{Short(name)} is nested more than {Deepest} levels deep.");
                using var again = XmlReader.Create(new MemoryStream(bytes), settings);
                return XElement.Load(again, LoadOptions.PreserveWhitespace);
            }
            catch (XmlException fault)
            {
                throw new PackageException(
                    $"{Short(name)} cannot be read: it is not sound XML, or has a document type (line {fault.LineNumber})."
                );
            }
        }

        private async Task<byte[]?> Unpacked(string name, int most, CancellationToken stop)
        {
            if (zip.GetEntry(name) is not { } entry)
                return null;
            try
            {
                await using var from = await entry.OpenAsync(stop);
                using var to = new MemoryStream();
                var piece = new byte[81_920];
                for (int read; (read = await from.ReadAsync(piece, stop)) > 0; to.Write(piece, 0, read))
                    if ((room -= read) < 0 || to.Length + read > most)
                        throw new PackageException($"{Short(name)} in this package unpacks to too much.");
                return to.ToArray();
            }
            catch (InvalidDataException)
            {
                throw new PackageException($"{Short(name)} in this package cannot be unpacked.");
            }
        }
    }
}
