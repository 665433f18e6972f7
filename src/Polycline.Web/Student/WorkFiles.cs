using FluentValidation;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Wording;
using Polycline.Data.Files;
using Polycline.Formats.Files;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Files;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Student;

/// <summary>A file of a student's work: one that was listed before, or one that was just sent.</summary>
/// <param name="Id">The file that was listed before; null: it was just sent.</param>
/// <param name="Upload">The upload it was sent as; null: it was listed before.</param>
public sealed record ListedFile(Id<WorkFileRow>? Id, Guid? Upload);

/// <summary>The files of a student's work on an item.</summary>
internal static class WorkFiles
{
    /// <summary>Of one draft or hand-in.</summary>
    public const int Most = 30;

    /// <summary>The files that a request lists, in order. Those just sent become files of the work.</summary>
    /// <exception cref="ProblemException">One is not the student's own, or was just sent and is not of a kind that is taken.</exception>
    public static async Task<IReadOnlyList<Id<WorkFileRow>>> Keep(
        WorkContext work,
        Id<Core.Sections.Person> student,
        Id<Item> item,
        Asks? asks,
        IReadOnlyList<ListedFile>? files
    )
    {
        if (files is null or [])
            return [];
        var own = await WorkFileStore.Listed(work.Connection, student, item);
        var sent = (await UploadStore.Sent(work.Connection, [.. files.Select(file => file.Upload).OfType<Guid>().Distinct()]))
            .Where(file => file.Person == student)
            .ToDictionary(file => file.Id);
        for (var n = 0; n < files.Count; n++)
            if (files[n] is { Id: { } id } ? !own.Contains(id) : files[n].Upload is not { } upload || !sent.ContainsKey(upload))
                throw Problem.Unknown($"files[{n}]");
            else if (files[n].Upload is { } one)
                NeedsTaken(asks, sent[one], $"files[{n}]");
        var kept = await WorkFileStore.Keep(
            work.Connection,
            [.. files.Where(file => file.Id is null).Select(file => sent[file.Upload!.Value])],
            work.Viewpoint.At
        );
        var next = 0;
        return [.. files.Select(file => file.Id ?? kept[next++])];
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
