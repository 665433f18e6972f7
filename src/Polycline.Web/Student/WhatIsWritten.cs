using System.Collections.Immutable;
using System.Globalization;
using FluentValidation;
using NodaTime;
using NodaTime.Text;
using Polycline.Core;
using Polycline.Core.Courses;
using Polycline.Core.Marking.Papers;
using Polycline.Core.Release;
using Polycline.Core.Sections;
using Polycline.Data.Courses;
using Polycline.Data.Work;
using Polycline.Web.Foundation.Commands;
using Polycline.Web.Foundation.Http;
using Polycline.Web.Foundation.Reading;

namespace Polycline.Web.Student;

/// <summary>What a student writes, as a request brings it.</summary>
public interface IWritten
{
    string Text { get; }

    IReadOnlyList<ListedFile>? Files { get; }

    IReadOnlyList<string>? Links { get; }

    IReadOnlyList<LogEntry>? Entries { get; }

    IReadOnlyList<CopyText>? Copies { get; }

    IReadOnlyList<LevelGiven>? Judged { get; }
}

/// <summary>Of what a student writes: what may be in it, and how it is kept.</summary>
internal static class WhatIsWritten
{
    public const int Longest = 100_000;
    private const int MostLinks = 20,
        MostEntries = 400,
        LongestEntry = 5_000;

    /// <summary>What a request brings, with files just sent kept as files of the work.</summary>
    /// <exception cref="ProblemException">A file is not the student's own, or not of a kind that is taken.</exception>
    public static async Task<Written> Keep<T>(WorkContext work, Id<Person> student, Id<Item> item, Sight sight, T request)
        where T : IWritten
    {
        var files = await WorkFiles.Keep(work, student, item, sight.Asks, request.Files);
        return new(
            request.Text,
            files.List,
            [.. (request.Links ?? []).Select(link => link.Trim())],
            [.. (request.Entries ?? []).OrderBy(entry => entry.On, StringComparer.Ordinal)],
            OwnCopies.Texts(request.Copies, files)
        )
        {
            Judged = sight is { Asks.Judged: true, Rubric: { } rubric } ? await Judged(work, rubric, request.Judged ?? []) : null,
        };
    }

    // What no longer fits a rubric that was changed since is left out: it is to be judged again.
    private static async Task<OwnJudgement?> Judged(WorkContext work, string hash, IReadOnlyList<LevelGiven> given)
    {
        if (given.Count == 0 || await BodyStore.Rubric(work.Connection, hash) is not { } rubric)
            return null;
        ImmutableArray<GivenLevel> levels =
        [
            .. given
                .DistinctBy(level => level.Criterion)
                .Select(level => level.Meant())
                .Where(level => rubric.Of(hash, [level], out _) is not null),
        ];
        _ = rubric.Of(hash, levels, out var isWhole);
        return levels.IsEmpty ? null : new(hash, levels, isWhole);
    }

    /// <summary>The same, with what was written in copies made files: as it is handed in, it stays.</summary>
    /// <inheritdoc cref="Keep"/>
    public static async Task<Written> KeepWhole<T>(WorkContext work, Id<Person> student, Id<Item> item, Sight sight, T request)
        where T : IWritten => await OwnCopies.Settle(work, student, item, await Keep(work, student, item, sight, request));

    /// <summary>The rules of every such request.</summary>
    public static void AreWritten<T>(this AbstractValidator<T> rules)
        where T : IWritten
    {
        rules
            .RuleFor(request => request.Text)
            .MaximumLength(Longest)
            .WithMessage($"This is too long: {Longest:N0} characters at most. Make it shorter, or hand in part of it.");
        rules.RuleFor(request => request.Files).AreListed();
        rules
            .RuleFor(request => request.Links)
            .Must(links => links is null || links.Count <= MostLinks)
            .WithMessage($"You can add up to {MostLinks} links. Remove some first.")
            .Must(links => links is null || links.All(link => LinkAddress.Fault(link.Trim()) is null))
            .WithMessage("One of the links is not the whole address of a page, such as https://films.example/weather.");
        rules
            .RuleFor(request => request.Entries)
            .Must(entries => entries is null || entries.Count <= MostEntries)
            .WithMessage($"A log can have up to {MostEntries} entries.")
            .Must(entries => entries is null || entries.All(entry => IsDay(entry.On)))
            .WithMessage("Each entry needs a date, such as 2026-10-05.")
            .Must(entries => entries is null || entries.All(entry => entry.Text.Length <= LongestEntry))
            .WithMessage($"An entry can have up to {LongestEntry:N0} characters. Split it in two.")
            .Must(entries => entries is null || entries.Sum(entry => entry.Text.Length) <= Longest)
            .WithMessage($"The log is too long: {Longest:N0} characters at most.");
        rules
            .RuleFor(request => request.Judged)
            .Must(levels => levels is null || levels.Count <= WrittenRubric.MostCriteria)
            .WithMessage($"A rubric has up to {WrittenRubric.MostCriteria} criteria.");
        rules
            .RuleFor(request => request.Copies)
            .Must(copies => copies is null || copies.Count <= WorkFiles.Most)
            .WithMessage($"You can work in up to {WorkFiles.Most} copies at once.")
            .Must(copies => copies is null || copies.All(copy => copy.Text.Length <= OwnCopies.Longest))
            .WithMessage($"A copy that is worked in here can have up to {OwnCopies.Longest:N0} characters. Save it, and work in the file.");
    }

    // As it is sorted and compared: four digits, two and two.
    private static bool IsDay(string text) =>
        LocalDatePattern.Iso.Parse(text) is { Success: true, Value: var day }
        && Bounds.Holds(day.AtStartOfDayInZone(DateTimeZone.Utc).ToInstant())
        && text == day.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture);
}
