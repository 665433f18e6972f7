using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Files;
using Polycline.Data.Work;
using Polycline.Formats.Files;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Student;

/// <summary>A file of a student's work: one that was listed before, or one that was just sent.</summary>
/// <param name="Id">The file that was listed before; null: it was just sent.</param>
/// <param name="Upload">The upload it was sent as, to take the place of <paramref name="Id"/> if that is named too; null: it was listed
/// before.</param>
public sealed record ListedFile(Id<WorkFileRow>? Id, Guid? Upload);

/// <summary>The files a request lists.</summary>
/// <param name="List">All of them, in order.</param>
/// <param name="Own">Those that the student's draft and hand-ins list already.</param>
internal sealed record KeptFiles(IReadOnlyList<Id<WorkFileRow>> List, IReadOnlyDictionary<Id<WorkFileRow>, WorkFileRow> Own);

/// <summary>The files of a student's work on an item.</summary>
internal static class WorkFiles
{
    /// <summary>Of one draft or hand-in.</summary>
    public const int Most = 30;

    /// <summary>
    /// The files that a request lists, in order. Those just sent become files of the work. Copies that were given are always among them.
    /// </summary>
    /// <exception cref="ProblemException">One is not the student's own, or was just sent and is not of a kind that is taken.</exception>
    public static async Task<KeptFiles> Keep(
        WorkContext work,
        Id<Core.Sections.Person> student,
        Id<Item> item,
        Asks? asks,
        IReadOnlyList<ListedFile>? files
    )
    {
        files ??= [];
        var own = await WorkFileStore.Listed(work.Connection, student, item);
        var sent = (await UploadStore.Sent(work.Connection, [.. files.Select(file => file.Upload).OfType<Guid>().Distinct()]))
            .Where(file => file.Person == student)
            .ToDictionary(file => file.Id);
        var (added, copies) = (new List<SentFile>(), new List<Id<ItemFileRow>?>());
        for (var n = 0; n < files.Count; n++)
        {
            var (id, upload) = files[n];
            var before = id is { } one ? own.GetValueOrDefault(one) : null;
            if ((id is not null && before is null) || (upload is { } named && !sent.ContainsKey(named)) || (id is null && upload is null))
                throw Problem.Unknown($"files[{n}]");
            if (upload is not { } arrived)
                continue;
            if (before?.CopyOf is null)
                NeedsTaken(asks, sent[arrived], $"files[{n}]");
            else if (FileNames.EndingOf(before.Name) != FileNames.EndingOf(sent[arrived].Name))
                throw Problem.Field(
                    $"files[{n}]",
                    $"“{sent[arrived].Name}” can’t take the place of “{before.Name}”: it is a different kind of file. "
                        + "Add it as one of your own."
                );
            added.Add(before?.CopyOf is null ? sent[arrived] : sent[arrived] with { Name = before.Name });
            copies.Add(before?.CopyOf);
        }
        var kept = await WorkFileStore.Keep(work.Connection, added, copies, work.Viewpoint.At);
        var next = 0;
        var list = files.Select(file => file.Upload is null ? file.Id!.Value : kept[next++]).ToList();
        var replaced = copies.OfType<Id<ItemFileRow>>().ToHashSet();
        // A page that was read before its copies were made does not know of them.
        var (_, draft) = await WorkStore.Of(work.Connection, student, item, work.Viewpoint.At);
        list.AddRange(
            (draft?.Files ?? []).Where(file =>
                !list.Contains(file) && own.GetValueOrDefault(file)?.CopyOf is { } copyOf && !replaced.Contains(copyOf)
            )
        );
        return new(list, own);
    }

    private static void NeedsTaken(Asks? asks, SentFile file, string field)
    {
        if (asks?.Takes(FileTypes.AskedKindOf(file.Name, file.Type)) == false)
            throw Problem.Field(
                field,
                AsksWords.Kinds(asks) is { Length: > 0 } kinds
                    ? $"“{file.Name}” can’t be handed in here: only {kinds} can."
                    : $"“{file.Name}” can’t be handed in here: no files are asked for."
            );
    }

    /// <summary>A request lists at most 30, none of them twice.</summary>
    public static void AreListed<T>(this IRuleBuilder<T, IReadOnlyList<ListedFile>?> rule) =>
        rule.Must(files => files is null || files.Count <= Most)
            .WithMessage($"You can add up to {Most} files. Remove some first.")
            .Must(files => files is null || files.Distinct().Count() == files.Count)
            .WithMessage("A file is listed twice. Remove one of them.");

    /// <summary>The files as they travel.</summary>
    public static IReadOnlyList<FileAnswer> Answer(IEnumerable<WorkFileRow> files, long section, Id<Item> item) =>
        [
            .. files.Select(file =>
                FileAnswer.Of(file.Id.Value, file.Name, file.Stored, $"/api/sections/{section}/items/{item}/work-files/{file.Id}")
            ),
        ];
}
