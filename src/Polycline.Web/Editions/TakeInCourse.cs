using System.Data;
using Npgsql;
using Polycline.Core;
using Polycline.Core.Calendars;
using Polycline.Core.Courses;
using Polycline.Core.Json;
using Polycline.Core.MarkFiles;
using Polycline.Core.PlanFiles;
using Polycline.Core.Wording;
using Polycline.Data.Choices;
using Polycline.Data.Courses;
using Polycline.Data.Editions;
using Polycline.Data.Files;
using Polycline.Formats;
using Polycline.Formats.Files;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;
using Polycline.Web.Outline;

namespace Polycline.Web.Editions;

/// <param name="Term">In which it is to be taught: this edition's, or a later one.</param>
/// <param name="Upload">The package: a file that was sent.</param>
public sealed record TakeInRequest(Id<Term> Term, Guid Upload);

/// <param name="Applied">False if this was only a preview and nothing was written.</param>
/// <param name="Edition">The course's edition; null in a preview.</param>
/// <param name="Sentence">What it is and what is in it.</param>
public sealed record TakeInAnswer(bool Applied, Id<Edition>? Edition, string Title, string Sentence) : IAnswer<TakeInAnswer>
{
    public TakeInAnswer AsPreview() => this with { Applied = false, Edition = null };
}

/// <summary>Takes a package in as a course of one's own, whole or not at all, seen by oneself only.</summary>
public sealed class TakeInCourse : IWorkCommand<TakeInRequest, TakeInAnswer>
{
    private const int MostParts = 5_000;
    private const int MostFiles = 100;

    public static string Name => "take-in";

    public static WorkPlace Place => WorkPlace.Edition;

    // A package is held to what the screens allow: as many parts, titles as long, conditions as large.
    private static string? Fault(CoursePackage package)
    {
        var edition = package.Course.Edition;
        var lessons = edition.Units.SelectMany(unit => unit.Lessons).ToList();
        var items = edition.InReadingOrder().ToList();
        if (edition.Units.Length + lessons.Count + items.Count > MostParts)
            return $"This course has more than {MostParts:N0} units, lessons and items together. Split it into smaller courses.";
        var titles = edition
            .Units.Select(unit => unit.Title)
            .Concat(lessons.Select(lesson => lesson.Title))
            .Concat(items.Select(item => item.Title))
            .Append(edition.Title)
            .Append(package.Course.Title);
        if (titles.FirstOrDefault(title => title.Length > 200 || !Bounds.IsVisible(title) || title.Any(char.IsControl)) is { } title)
            return $"A title is one line of 1 to 200 characters; “{(title.Length > 40 ? title[..40] + "…" : title)}” is not.";
        var gates = edition
            .Units.Select(unit => unit.Gate)
            .Concat(lessons.Select(lesson => lesson.Gate))
            .Concat(items.Select(item => item.Gate));
        if (
            gates
                .OfType<Core.Courses.Gate>()
                .Any(gate => gate.Root.WithAllBelow().Take(OutlineRules.MostParts + 1).Count() > OutlineRules.MostParts)
        )
            return $"A condition has at most {OutlineRules.MostParts} parts.";
        if (items.FirstOrDefault(item => item.Files.Length > MostFiles) is { } full)
            return $"“{full.Title}” has more than {MostFiles} files.";
        if (
            items.SelectMany(item => item.Files).Select(file => FileNames.Fault(file.Name)).FirstOrDefault(fault => fault is not null) is
            { } unsound
        )
            return unsound;
        foreach (var (name, html) in package.Texts)
            if (html.Length > 200_000 || Bounds.Fault(html) is not null || FormattedText.Fault(html) is not null)
                return $"texts/{name}: "
                    + (html.Length > 200_000 ? "it is longer than 200,000 characters." : Bounds.Fault(html) ?? FormattedText.Fault(html));
        return null;
    }

    private static async Task<T> Reading<T>(Func<Task<T>> read)
    {
        try
        {
            return await read();
        }
        catch (PackageException fault)
        {
            throw Problem.Field("upload", fault.Message);
        }
        catch (FileRefusedException refusal)
        {
            throw Problem.Field("upload", $"{refusal.Path.Replace("$", "course.json", StringComparison.Ordinal)}: {refusal.Message}.");
        }
    }

    private static async Task<bool> MayBeIn(NpgsqlConnection connection, Access access, Id<Term> term)
    {
        var (_, later) = await RolloverStore.Read(connection, access.Edition!.Value);
        return term == access.Term || later.Any(one => one.Id == term);
    }

    public static async Task<TakeInAnswer> Do(WorkContext work, TakeInRequest request)
    {
        var connection = work.Connection;
        if (!await MayBeIn(connection, work.Access, request.Term))
            throw Problem.Unknown("term");
        var sent = (await UploadStore.Sent(connection, [request.Upload])).SingleOrDefault(file => file.Person == work.Access.Person.Id)
            ?? throw Problem.Unknown("upload");
        await using var bytes = await PackageFiles.ForAWhile(StoredStream.Of(connection, sent.Stored));
        var (package, files) = await Reading(async () =>
        {
            await using var reader = await PackageReader.Open(bytes);
            if (Fault(reader.Package) is { } fault)
                throw Problem.Field("upload", fault);
            var files = await PackageFiles.Store(work, reader, "upload");
            return (await Kept(work, reader.Package, files), files);
        });
        var made = await CourseStore.Add(connection, package, request.Term, work.Access.Person.Id, work.Viewpoint.At);
        // They are the course's now.
        foreach (var done in files.Values.Append(sent))
            await UploadStore.Cancel(connection, work.Access.Person.Id, done.Id);
        await work.Audit("course-taken-in", new { edition = made.Value });
        return Answer(package, made);
    }

    /// <summary>The course of a package under new ids, with its texts kept.</summary>
    private static async Task<CourseFile> Kept(WorkContext work, CoursePackage package, IReadOnlyDictionary<string, SentFile> files)
    {
        // Every text comes out in the one form in which texts are kept.
        var bodies = package.Texts.ToDictionary(
            text => text.Key,
            text => new Body(FormattedText.Canonical(text.Value, (_, source) => Media(source))),
            StringComparer.Ordinal
        );
        foreach (var body in bodies.Values.Where(body => body.Content.Length > 0))
            await BodyStore.Keep(work.Connection, body);
        var stored = package
            .Course.Edition.InReadingOrder()
            .SelectMany(item => new[] { (Text: item.Quiz, Kind: BodyKind.Quiz), (Text: item.Rubric, Kind: BodyKind.Rubric) })
            .Where(one => one.Text is not null)
            .DistinctBy(one => one.Text)
            .ToDictionary(
                one => one.Text!,
                one => new Body(one.Kind == BodyKind.Quiz ? Asked(one.Text!) : one.Text!, one.Kind),
                StringComparer.Ordinal
            );
        foreach (var body in stored.Values)
            await BodyStore.Keep(work.Connection, body);
        var names = new Dictionary<string, string>(StringComparer.Ordinal);
        var edition = ExportCourse.WithBodies(
            new Renaming(Lineage).Of(package.Course.Edition),
            name => bodies[name] is { Content.Length: > 0 } body ? body.Hash : null,
            name => files[name].Hash,
            text => stored[text].Hash
        );
        foreach (var pictures in edition.InReadingOrder().Select(item => OptionPictures.Kept(item.Offered)).OfType<Body>())
            await BodyStore.Keep(work.Connection, pictures);
        return package.Course with
        {
            Edition = edition,
            Shortest = package.Course.Shortest.ToDictionary(pair => Lineage(pair.Key), pair => pair.Value),
        };

        string Lineage(string name) => names.TryGetValue(name, out var known) ? known : names[name] = $"{Guid.NewGuid()}";

        // So does what the questions of a quiz ask.
        string Asked(string quiz) =>
            QuizPaperFile.Write(
                QuizPaperFile.Read(quiz).Reworded(text => QuestionText.Stored(text, "upload", (_, source) => Media(source)))
            );

        string? Media(string source) =>
            source.StartsWith("file:", StringComparison.Ordinal) && files.TryGetValue(source["file:".Length..], out var file)
                ? Pictures.Named(file.Hash)
                : null;
    }

    private static TakeInAnswer Answer(CourseFile course, Id<Edition> made)
    {
        var edition = course.Edition;
        var items = edition.InReadingOrder().ToList();
        return new(
            true,
            made,
            course.Title,
            $"“{course.Title}”, {edition.Title}: {edition.Levels.Unit.Counted(edition.Units.Length)}, "
                + $"{edition.Levels.Lesson.Counted(edition.Units.Sum(unit => unit.Lessons.Length))}, "
                + $"{edition.Levels.Item.Counted(items.Count)}, "
                + $"{Counting.Counted(items.Count(item => item.Body is not null), "text", "texts")}"
                + $"{(PackageFiles.InWords(edition) is { } files ? $", {files}" : "")}. "
                + $"It becomes a course of your own; no section follows it yet."
        );
    }
}
