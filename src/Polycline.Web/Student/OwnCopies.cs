using System.Text;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Data.Files;
using Polycline.Data.Work;
using Polycline.Formats.Files;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

/// <summary>What a student has written in a copy.</summary>
/// <param name="File">The copy: a text or a table.</param>
/// <param name="Text">All of it, up to 200,000 characters.</param>
public sealed record CopyText(Id<WorkFileRow> File, string Text);

/// <summary>A file of which each student gets a copy, as one of them has it.</summary>
/// <param name="Original">The file as the teacher gives it.</param>
/// <param name="Own">The student's copy as they work in it or handed it in; null: none has been made yet.</param>
/// <param name="Written">What they have written in it and not handed in; null: nothing.</param>
/// <param name="WorkedInHere">Whether it is a text or a table, which can be worked in on the page.</param>
public sealed record GivenCopy(FileAnswer Original, long? Own, string? Written, bool WorkedInHere);

/// <summary>Students' own copies of files: made when an item is first opened, worked in, handed in.</summary>
internal static class OwnCopies
{
    /// <summary>Of a copy that is worked in on the page, in characters.</summary>
    public const int Longest = 200_000;

    /// <summary>Makes the copies that a student has not got yet, once, if they may work on the item.</summary>
    /// <returns>How many were made.</returns>
    public static async Task<int> Make(WorkContext work, StudentCourse course, Sight sight, Id<Item> item)
    {
        if (sight is not { MayWork: true, Asks.Way: AskedWay.Work })
            return 0;
        var files = await ItemFileStore.Of(work.Connection, item);
        if (!files.Any(file => file is { Removed: false, IsCopiedForEach: true }))
            return 0;
        await CopyStore.Queue(work.Connection, course.Oneself, item);
        var copied = await CopyStore.OfStudent(work.Connection, course.Oneself, item);
        var wanted = files
            .Where(file => file is { Removed: false, IsCopiedForEach: true } && !CopyStore.LineOf(files, file.Id).Overlaps(copied))
            .ToList();
        if (wanted.Count == 0)
            return 0;
        var taken = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        await CopyStore.Make(
            work.Connection,
            course.Oneself,
            item,
            [.. wanted.Select(file => new NewCopy(file.Id, NameOf(file, taken), file.Hash))],
            work.Viewpoint.At
        );
        return wanted.Count;

        string NameOf(ItemFileRow file, HashSet<string> names)
        {
            var naming = new CopyNaming(sight.Code, sight.Title, FileNames.Stem(file.Name), course.SectionName, work.Access.Person.Name);
            var name = FileNames.Free(FileNames.Made(CopyNames.Of(file.CopyName, naming), file.Name), names);
            names.Add(name);
            return name;
        }
    }

    /// <summary>What a request brings for copies, held against what they are.</summary>
    /// <exception cref="ProblemException">One is no copy of the student's that can be worked in here.</exception>
    public static IReadOnlyDictionary<Id<WorkFileRow>, string> Texts(IReadOnlyList<CopyText>? copies, KeptFiles files)
    {
        var texts = new Dictionary<Id<WorkFileRow>, string>();
        foreach (var (copy, n) in (copies ?? []).Select((copy, n) => (copy, n)))
            if (
                !files.List.Contains(copy.File)
                || files.Own.GetValueOrDefault(copy.File) is not { CopyOf: not null } file
                || !IsWorkedInHere(file.Name, file.Stored)
            )
                throw Problem.Unknown($"copies[{n}].file");
            else if (copy.Text.Length > 0 && FileTypes.Of(Encoding.UTF8.GetBytes(copy.Text)) != FileTypes.Text)
                throw Problem.Field($"copies[{n}].text", "This contains characters that no text has. Remove them, or type it again.");
            else if (TableFormulas.AreSoughtIn(file.Name) && TableFormulas.In(copy.Text) is { } formula)
                throw Problem.Field(
                    $"copies[{n}].text",
                    $"A spreadsheet would take “{formula}” in “{file.Name}” for a formula. Begin that cell with a word."
                );
            else
                texts[copy.File] = copy.Text;
        return texts;
    }

    /// <summary>Makes files of what was written in copies, each in the place of its copy.</summary>
    public static async Task<Written> Settle(WorkContext work, Id<Person> student, Id<Item> item, Written written)
    {
        var texts = new Dictionary<Id<WorkFileRow>, string>(await CopyStore.Texts(work.Connection, written.Files));
        foreach (var (copy, text) in written.Copies)
            texts[copy] = text;
        if (texts.Count == 0)
            return written;
        var own = await WorkFileStore.Listed(work.Connection, student, item);
        var files = written.Files.ToList();
        foreach (var (copy, text) in texts)
        {
            var before = own[copy];
            var sent = await Store(work, student, before.Name, text);
            files[files.IndexOf(copy)] = (await WorkFileStore.Keep(work.Connection, [sent], [before.CopyOf], work.Viewpoint.At))[0];
        }
        return written with { Files = files, Copies = new Dictionary<Id<WorkFileRow>, string>() };
    }

    // Nothing at all is no file: a line break stands for it.
    private static async Task<SentFile> Store(WorkContext work, Id<Person> student, string name, string text)
    {
        var (id, bytes) = (Guid.NewGuid(), Encoding.UTF8.GetBytes(text.Length == 0 ? "\n" : text));
        await UploadStore.Begin(work.Connection, id, student, name, bytes.LongLength, work.Viewpoint.At);
        await UploadStore.Add(work.Connection, id, 0, [.. bytes.Chunk(Chunks.Size)]);
        var stored = await UploadStore.Finish(work.Connection, id, FileTypes.Text, work.Viewpoint.At);
        return new(id, student, name, stored.Hash, stored.Size, stored.Type);
    }

    /// <summary>The files of an item of which students get copies, and the student's own.</summary>
    public static IReadOnlyList<GivenCopy> Of(StudentCourse course, Sight sight, OwnWork work, Func<ItemFileRow, FileAnswer> original)
    {
        var listed = work.Listed(work.Draft?.Files ?? work.Versions.FirstOrDefault(version => version.TakenBackAt is null)?.Files);
        return
        [
            .. course
                .Files(sight)
                .Where(file => file.IsCopiedForEach)
                .Select(file =>
                {
                    var line = course.LineOf(file);
                    var own = listed.FirstOrDefault(one => one.CopyOf is { } of && line.Contains(of));
                    return new GivenCopy(
                        original(file),
                        own?.Id.Value,
                        work.Draft is null ? null : own?.Written,
                        own is null ? IsWorkedInHere(file.Name, file.Stored) : IsWorkedInHere(own.Name, own.Stored)
                    );
                }),
        ];
    }

    private static bool IsWorkedInHere(string name, StoredFile file) =>
        file.Size <= Longest && FileTypes.KindOf(name, file.Type) is FileKind.Text or FileKind.Table;
}
